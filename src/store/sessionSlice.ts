import { createSlice, type Action, type PayloadAction } from '@reduxjs/toolkit';
import { moveStep, pressStep, releaseStep, STEP_INPUT_START, type StepInput } from '@/core/record/stepInput';
import type { Kit } from '@/core/document/kit';
import type { Pattern } from '@/core/document/pattern';
import type { BeatSet } from '@/core/document/set';
import type { Sound } from '@/core/document/sound';
import type { ToneSource } from '@/core/document/toneVoices';
import type { MidiSong } from '@/core/formats/readMidi';
import { isTimeTravel, isUndoable } from './undoable';

export type AudioState = 'starting' | 'locked' | 'running' | 'failed';

export interface Notice {
  id: number;
  text: string;
  /** Offer to undo what the notice tells of: as long as that is the last step. */
  undo?: boolean;
  /** Offer to carry the set away. */
  bundle?: boolean;
}

export type PadsLaunch = 'patterns' | 'sections';

/** The sheets that lie over a place. */
export type SheetName =
  | 'setup'
  | 'keys'
  | 'latency'
  | 'feel'
  | 'takes'
  | 'keep'
  | 'edit'
  | 'step'
  | 'length'
  | 'slots'
  | 'generate'
  | 'moves'
  | 'launching'
  | 'track'
  | 'sections'
  | 'simple'
  | 'incoming'
  | 'carry'
  | 'devices'
  | 'map'
  | 'shelf'
  | 'kit'
  | 'cuts'
  | 'also'
  | 'lfo'
  | 'record'
  | 'slice'
  | 'mix';

/** A kit, a sound on a pad, or what plays a track's notes, that is heard in the place of the document's own until it is taken or left. */
export type Tried = { track: number; id: string; name: string } & (
  { kit: Kit } | { pad: number; sound: Sound } | { tones: ToneSource }
);

/** A device that is plugged in: it sends, it hears, or both. */
export interface Plugged {
  name: string;
  sends: boolean;
  hears: boolean;
}

/** The clock that the song follows: its tempo, how far its ticks lie off (ms), and whether it is silent just now. */
export interface ClockHeard {
  device: string;
  tempo: number;
  steadyMs: number;
  free: boolean;
}

/** What the browser says of controllers: not asked yet, asked, given, or not, and why. */
export interface MidiState {
  state: 'off' | 'asking' | 'open' | 'failed';
  problem: string | null;
}

/** What is true only while the page is open. */
interface Session {
  /** The open sheet, or null. */
  sheet: SheetName | null;
  /** Id of the run that lies open in Runs, or null. */
  run: string | null;
  /** Note repeat, and whether it goes on without a finger. */
  repeat: { on: boolean; latch: boolean };
  /** Step input, or null while it is off. */
  step: StepInput | null;
  /** The take that is heard alone, or null. */
  heardTake: number | null;
  /** Everything is heard as it was played, for as long as the player compares. */
  comparing: boolean;
  /** What Generate offers, heard in the place of the current pattern; or null. */
  proposal: Pattern | null;
  /** The MIDI file that was brought last, to be taken or left; or null. */
  incoming: { name: string; song: MidiSong } | null;
  /** Another version of the set, heard in its place; or null. */
  heardVersion: BeatSet | null;
  /** What is tried of the shelf, or null; and what of it is looked for: kits, a sound for the chosen pad, or voices for the notes. */
  tried: Tried | null;
  shelf: 'kits' | 'sounds' | 'voices';
  /** The sound that was copied last, or null. */
  soundClip: Sound | null;
  /** Samples of the set that cannot be heard, by their names, and why. */
  missing: Record<string, string>;
  /** Notes that hands let go of go on for as long as this is held or sticks. */
  sustaining: boolean;
  /** The override of *Drop on* is held or sticks. */
  overriding: boolean;
  /** What the pads launch in the place of playing: patterns of the shown track, sections; or null. */
  padsLaunch: PadsLaunch | null;
  audio: AudioState;
  /** Why there is no sound, or null. */
  audioProblem: string | null;
  midi: MidiState;
  plugged: readonly Plugged[];
  clock: ClockHeard | null;
  /** Controls are being given to functions. */
  mapping: boolean;
  /** While recording, what is turned in the place Mix becomes Moves of the pattern that plays. */
  mixWrites: boolean;
  /** What the engine reports of its transport. */
  playing: boolean;
  recording: boolean;
  /** The stopped song stands away from its top. */
  awayFromTop: boolean;
  /** What there is to say. A newer one takes its place, so that none queue over the tools. */
  notice: Notice | null;
  /** Whether the app opens without a network, a newer version waits, and it can be installed. */
  offline: { ready: boolean; updateWaits: boolean; canInstall: boolean };
  /** Why what was made is not saved, or null when it is. */
  saveTrouble: string | null;
  /** Which of several tabs this is: the one that saves the set, or one that follows it. */
  tab: 'owner' | 'follower';
  /** Share of a running export that is done, or null. */
  exporting: number | null;
}

const initialState: Session = {
  sheet: null,
  run: null,
  repeat: { on: false, latch: false },
  step: null,
  heardTake: null,
  comparing: false,
  proposal: null,
  incoming: null,
  heardVersion: null,
  tried: null,
  shelf: 'kits',
  soundClip: null,
  missing: {},
  sustaining: false,
  overriding: false,
  padsLaunch: null,
  audio: 'starting',
  audioProblem: null,
  midi: { state: 'off', problem: null },
  plugged: [],
  clock: null,
  mapping: false,
  mixWrites: false,
  playing: false,
  recording: false,
  awayFromTop: false,
  notice: null,
  offline: { ready: false, updateWaits: false, canInstall: false },
  saveTrouble: null,
  tab: 'owner',
  exporting: null,
};

let notices = 0;

/** What a sheet lets one hear ends with it. */
function changeSheet(session: Session, sheet: SheetName | null): void {
  session.sheet = sheet;
  session.heardTake = null;
  session.comparing = false;
  session.proposal = null;
  session.tried = null;
  if (sheet !== 'incoming') session.incoming = null;
}

/** Whether what Undo takes back is another than before. */
const isNewStep = (action: Action) => isTimeTravel(action) || isUndoable(action);

/** Sounds change, or a whole set does. */
const isOfSounds = ({ type }: Action) => /^(sounds|open)\//.test(type);

const slice = createSlice({
  name: 'session',
  initialState,
  reducers: {
    audioChanged(session, { payload }: PayloadAction<{ state: AudioState; problem: string | null }>) {
      session.audio = payload.state;
      session.audioProblem = payload.problem;
    },
    transportReported(
      session,
      { payload }: PayloadAction<{ playing: boolean; recording: boolean; awayFromTop: boolean }>,
    ) {
      Object.assign(session, payload);
    },
    midiChanged(session, { payload }: PayloadAction<MidiState>) {
      session.midi = payload;
    },
    pluggedIn(session, { payload }: PayloadAction<readonly Plugged[]>) {
      session.plugged = [...payload];
    },
    clockHeard(session, { payload }: PayloadAction<ClockHeard | null>) {
      session.clock = payload;
    },
    mappingSet(session, { payload }: PayloadAction<boolean>) {
      session.mapping = payload;
    },
    /** Opens a sheet, or closes it when it is the open one. */
    sheetToggled(session, { payload }: PayloadAction<SheetName>) {
      changeSheet(session, session.sheet === payload ? null : payload);
    },
    sheetShown(session, { payload }: PayloadAction<SheetName>) {
      changeSheet(session, payload);
    },
    sheetClosed(session) {
      changeSheet(session, null);
    },
    runOpened(session, { payload }: PayloadAction<string | null>) {
      session.run = payload;
    },
    repeatToggled({ repeat }) {
      repeat.on = !repeat.on;
      repeat.latch = false;
    },
    latchToggled({ repeat }) {
      repeat.latch = !repeat.latch;
    },
    mixWritesToggled(session) {
      session.mixWrites = !session.mixWrites;
    },
    stepInputToggled(session) {
      session.step = session.step ? null : STEP_INPUT_START;
    },
    stepPressed(session, { payload }: PayloadAction<number>) {
      if (session.step) session.step = pressStep(session.step, payload);
    },
    stepReleased(session, { payload }: PayloadAction<{ pad: number; grid: number; length: number }>) {
      if (session.step) session.step = releaseStep(session.step, payload.pad, payload.grid, payload.length);
    },
    stepMoved(session, { payload }: PayloadAction<{ steps: number; grid: number; length: number }>) {
      if (session.step) session.step = moveStep(session.step, payload.steps, payload.grid, payload.length);
    },
    takeHeard(session, { payload }: PayloadAction<number | null>) {
      session.heardTake = payload;
    },
    compared(session, { payload }: PayloadAction<boolean>) {
      session.comparing = payload;
    },
    proposalHeard(session, { payload }: PayloadAction<Pattern | null>) {
      session.proposal = payload;
    },
    /** A MIDI file was chosen: its sheet opens. */
    midiArrived(session, { payload }: PayloadAction<{ name: string; song: MidiSong }>) {
      session.incoming = payload;
      changeSheet(session, 'incoming');
    },
    versionHeard(session, { payload }: PayloadAction<BeatSet | null>) {
      session.heardVersion = payload;
    },
    sampleMissed({ missing }, { payload: { id, problem } }: PayloadAction<{ id: string; problem: string }>) {
      missing[id] = problem;
    },
    sampleFound({ missing }, { payload }: PayloadAction<string>) {
      delete missing[payload];
    },
    /** Something of the shelf is heard in place; null: what was tried is left. */
    tried(session, { payload }: PayloadAction<Tried | null>) {
      session.tried = payload;
    },
    shelfOpened(session, { payload }: PayloadAction<Session['shelf']>) {
      session.shelf = payload;
      changeSheet(session, 'shelf');
    },
    shelfTurned(session, { payload }: PayloadAction<Session['shelf']>) {
      session.shelf = payload;
    },
    soundCopied(session, { payload }: PayloadAction<Sound>) {
      session.soundClip = payload;
    },
    sustainSet(session, { payload }: PayloadAction<boolean>) {
      session.sustaining = payload;
    },
    overrideSet(session, { payload }: PayloadAction<boolean>) {
      session.overriding = payload;
    },
    padsLaunchSet(session, { payload }: PayloadAction<PadsLaunch | null>) {
      session.padsLaunch = payload;
    },
    noticed: {
      reducer(session, { payload }: PayloadAction<Notice>) {
        session.notice = payload;
      },
      prepare: (text: string, offer: boolean | 'bundle' = false) => ({
        payload: { id: ++notices, text, undo: offer === true, bundle: offer === 'bundle' },
      }),
    },
    noticeDismissed(session, { payload }: PayloadAction<number>) {
      if (session.notice?.id === payload) session.notice = null;
    },
    offlineChanged(session, { payload }: PayloadAction<Partial<Session['offline']>>) {
      Object.assign(session.offline, payload);
    },
    saveTroubled(session, { payload }: PayloadAction<string | null>) {
      session.saveTrouble = payload;
    },
    tabChanged(session, { payload }: PayloadAction<Session['tab']>) {
      session.tab = payload;
    },
    exportProgressed(session, { payload }: PayloadAction<number | null>) {
      session.exporting = payload;
    },
  },
  extraReducers: (builder) => {
    builder.addMatcher(isNewStep, (session) => {
      if (session.notice) session.notice.undo = false;
      // What is edited must be heard.
      session.heardVersion = null;
    });
    // What is tried stays while one plays into it; taking it, or changing a sound, ends it.
    builder.addMatcher(isOfSounds, (session) => {
      session.tried = null;
    });
  },
});

export const {
  audioChanged,
  midiChanged,
  pluggedIn,
  clockHeard,
  mappingSet,
  transportReported,
  sheetToggled,
  sheetShown,
  sheetClosed,
  runOpened,
  repeatToggled,
  latchToggled,
  mixWritesToggled,
  stepInputToggled,
  stepPressed,
  stepReleased,
  stepMoved,
  takeHeard,
  compared,
  proposalHeard,
  midiArrived,
  versionHeard,
  sampleMissed,
  sampleFound,
  tried,
  shelfOpened,
  shelfTurned,
  soundCopied,
  overrideSet,
  sustainSet,
  padsLaunchSet,
  noticed,
  noticeDismissed,
  offlineChanged,
  saveTroubled,
  tabChanged,
  exportProgressed,
} = slice.actions;
export const sessionReducer = slice.reducer;
