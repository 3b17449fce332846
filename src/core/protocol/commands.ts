import type { Kit } from '../document/kit';
import type { Sound, SoundSettings } from '../document/sound';
import type { Arpeggio } from '../document/tones';
import type { ToneSource } from '../document/toneVoices';
import type { Control } from '../document/moves';
import type { MixControl, RoomSettings } from '../document/mix';
import type { MovedReturn } from '../document/returns';
import type { ClickSound, ClickTime } from '../document/metronome';
import type { ChainPlan, Launch, MuteSolo, SectionPlan } from '../launch/launchRules';
import type { PreparedSample } from '../sample/levels';
import type { EngineState } from './engineState';

/** As the frame of a command: apply it before the next sample. */
export const NOW = -1;

/** How a track plays notes: what plays them, and which lie on its pads. */
export interface NoteLayout extends ToneSource {
  /** MIDI note of each pad. */
  notes: Float64Array;
  /** Octaves by which hands alone play higher. */
  octave: number;
  /** In which order note repeat plays what hands hold; absent: all at once. */
  arpeggio?: Arpeggio;
  /** What the player has made of the voice. */
  settings?: SoundSettings;
}

/** When something takes over: `LOOP_END`, or a step of song ticks on whose next line it does; 0 is at once. */
type When = number;

/**
 * What the engine can be told, by name. Ticks are song ticks unless a pattern is named; `track` is a track's id (0..15),
 * `slot` a pattern slot of it; levels and velocities are 0..1; `heard` is the frame of the engine's *output* that the
 * player was hearing when they acted.
 */
export interface CommandFields {
  play: { startTick: number; countInTicks: number };
  stop: object;
  /** Moves the stopped song. */
  locate: { tick: number };
  tempo: { bpm: number };
  /** The song goes so many times faster than its tempo, for as long as it is told so. */
  tempoBend: { ratio: number };
  meter: { beats: number; unit: number };
  /** Recording on or off; `session` names the recording in the events of its hits. */
  record: { on: boolean; session: number };
  /** How new hits are placed: the grid's step in ticks, and whether they are pulled to it. */
  inputQuantize: { grid: number; on: boolean };
  /** `between`: ticks of softer clicks between the beats, 0 for none. */
  metronome: { on: boolean; level: number; sound: ClickSound; when: ClickTime; between: number };
  kit: { track: number; kit: Kit };
  /** One pad of a track's kit sounds different. What rings goes on as it began. */
  padSound: { track: number; pad: number; sound: Sound };
  /** A sample that sounds may name from now on. The engine adopts its arrays; without any it says only when it came. */
  sample: { sample: PreparedSample };
  /** A sample that no sound names any more. */
  dropSample: { id: string };
  /** A track plays notes; null: its kit. */
  notes: { track: number; layout: NoteLayout | null };
  trackLevel: { track: number; level: number };
  /** One control of a channel of the mix (see `core/document/mix`): a track by its id, a group, or the whole mix. */
  channel: { channel: number; control: MixControl; value: number };
  /** A hand holds a control of a channel at a value, in the place of its setting and of Moves; NaN lets go. */
  ride: { channel: number; control: MixControl; value: number };
  /** And one of the echo or the room. */
  rideReturn: MovedReturn & { value: number };
  /** The pad whose strokes have a channel duck, ANY_PAD for all of its track's; NO_KEY as the track: none does. */
  duckedBy: { channel: number; track: number; pad: number };
  /** A track or a group goes to a group, which goes to none itself; -1: to the whole mix. */
  goesTo: { channel: number; group: number };
  /** A pad of a track goes to a group, past the track's channel; -1: it goes with the track. */
  padGoesTo: { track: number; pad: number; group: number };
  /**
   * The echo of the mix: so many ticks from one to the next, or, where those are 0, so many ms; the rest 0..1. `tape`: it bends to another
   * time, in the place of fading into it.
   */
  echo: { ticks: number; ms: number; feedback: number; tone: number; width: number; tape?: true };
  /** The room of the mix. */
  room: RoomSettings;
  /** Somebody looks at the meters, or nobody does any more. */
  meters: { on: boolean };
  /** A track that is no more: it stops, and its patterns go. */
  removeTrack: { track: number };
  /**
   * What lies in a slot: the pattern's length in ticks (0 empties the slot) and all of its hits, as rows (see `HIT`) in order
   * of placed tick. The engine adopts the array. `seen` is the serial of the last recorded hit that the sender knows of: later
   * ones are kept. `feels` (see `feelRows`) place new strokes; null when no pad has a Feel. `revision` names these contents in
   * a log.
   */
  pattern: { track: number; slot: number; revision: number; length: number; seen: number; hits: Float64Array; feels: Float64Array | null }; // prettier-ignore
  /** What changed in a slot's hits: the ids of those that are no more, and the rows of those that are new or altered. */
  patternEdit: { track: number; slot: number; revision: number; removed: Float64Array; hits: Float64Array };
  /** The stretch of a pattern that goes round, in its ticks; a length of 0 is all of it. It waits only if the slot plays. */
  loopWindow: { track: number; slot: number; start: number; length: number; on: When };
  /** A pattern's Moves (see `moveRows`). */
  moves: { track: number; slot: number; revision: number; points: Float64Array };
  /** A hand holds one pad's control at a value, in the place of its Moves; NaN lets go. */
  turn: { track: number; pad: number; control: Control; value: number };
  /** The pads (one bit each) whose pattern hits are heard. */
  heardPads: { track: number; pads: number };
  /** Tick 0 of the pattern that plays on a track lies at this song tick. Playing from the top begins anew at 0. */
  phase: { track: number; tick: number };
  /** A slot, SILENT or CHAIN takes over. `inPlace`: in the phase of what it replaces, not from its top. (See `Launcher`.) */
  launch: Launch;
  /** What waits on a track is taken back, or waits for another song tick. */
  cancelLaunch: { track: number };
  moveLaunch: { track: number; tick: number };
  /** A track is muted or soloed (1), or not (0); AS_IT_IS for what stays. */
  muteSolo: MuteSolo;
  cancelMuteSolo: { track: number };
  /** The sections that can be launched, and a track's chain. */
  sections: { sections: readonly SectionPlan[] };
  chain: { track: number; chain: ChainPlan };
  launchSection: { section: number; on: When; inPlace: boolean };
  /** What was launched as a section is none any more. */
  leaveSection: object;
  cancelSection: object;
  moveSection: { tick: number };
  stopAll: { on: When };
  /** Everything fades out over so many ticks, then stops; 0 ticks take the fade back. */
  fade: { ticks: number; on: When };
  lift: { held: boolean; on: When };
  /**
   * A pad is struck: it sounds now, and is recorded where it was heard. `id` names the hit: an odd number. `pitch`: so many semitones
   * away from the pad's own note, as keys of a keyboard are. `through`: it only sounds, and is recorded nowhere.
   */
  padDown: {
    track: number;
    pad: number;
    velocity: number;
    heard: number;
    id: number;
    pitch?: number;
    through?: boolean;
  };
  padUp: { track: number; pad: number; heard: number };
  /** A stroke sounds whose shape is known (see `Shape`), for so many frames if it is a note: of a score, not of hands. */
  strike: { track: number; pad: number; velocity: number; frames: number; pitch: number; filter: number; decay: number; level: number; pan: number; drive: number; room: number; resonance: number; start: number; pressure: number; bright: number }; // prettier-ignore
  /** The finger on a held pad presses harder or softer: the velocity of note repeat's next strokes. */
  padPress: { track: number; pad: number; velocity: number };
  /** Lets go of every held pad. */
  releaseAll: object;
  /** Note repeat for presses from now on. With `latch` pads go on when they are let go, until they are struck again. */
  noteRepeat: { on: boolean; latch: boolean };
  /** Ticks between the strokes of one pad's note repeat. */
  repeatRate: { track: number; pad: number; ticks: number };
  /** Hits that the engine makes itself get even ids above this. */
  reserveIds: { above: number };
  /**
   * Null: an engine that rests notes its state in its log, which from there on is enough to hear again what comes; one that does not
   * rest notes nothing. Else the engine, which has played nothing yet, takes that state over. `id` names what was asked for.
   */
  snapshot: { id: number; state: EngineState | null };
  /** Clicks at a steady pace apart from the song, for the latency check: how many, 0 to stop. */
  latencyCheck: { clicks: number };
}

export type CommandType = keyof CommandFields;

/** A command before it is known when it applies. */
export type Instruction<T extends CommandType = CommandType> = { [K in T]: { type: K } & CommandFields[K] }[T];

/** An instruction on its way to the engine, and so many frames after it came that it applies: 0 unless told. */
export type Sent = Instruction & { after?: number };

/** An instruction with the engine frame at which it applies (or NOW). Those of one frame apply in the order given. */
export type Command<T extends CommandType = CommandType> = Instruction<T> & { frame: number };

/** What handles each of some commands. `Handlers` in whole is exhaustive: a command without a handler does not compile. */
export type Handlers<T extends CommandType = CommandType> = { [K in T]: (command: CommandFields[K]) => void };

/** Stamps an instruction with the frame at which it is to be applied. */
export function at<T extends CommandType>(frame: number, instruction: Instruction<T>): Command<T> {
  return { ...instruction, frame };
}

/** What has come to the engine, which is at a frame, as a command. */
export function dueFrom(frame: number, sent: Sent): Command {
  // Nearly all that comes: nothing more is made of it on the audio thread.
  if (sent.after === undefined) return at(NOW, sent);
  const { after, ...instruction } = sent;
  return at(frame + after, instruction as Instruction);
}

/** The arrays that a command brings along, to be transferred with it. */
export function arraysOf(instruction: Instruction): (Float64Array | Float32Array)[] {
  switch (instruction.type) {
    case 'pattern':
      return instruction.feels ? [instruction.hits, instruction.feels] : [instruction.hits];
    case 'patternEdit':
      return [instruction.removed, instruction.hits];
    case 'moves':
      return [instruction.points];
    case 'sample':
      return instruction.sample.levels.flatMap(({ channels }) => channels);
    default:
      return [];
  }
}
