import type { SoundKind } from '@/core/document/soundKinds';
import type { Pattern } from '@/core/document/pattern';
import type { Track } from '@/core/document/track';
import { PPQ } from '@/core/time/ticks';
import { selectPattern, selectSet, selectTrack } from '@/store/selectors';
import type { GuideStep } from '@/store/guideSlice';
import type { SheetName } from '@/store/sessionSlice';
import type { RootState } from '@/store/store';

/** What the guide looks at to know what the learner has done. */
export interface Situation {
  /** The path of the place that is shown. */
  place: string;
  sheet: SheetName | null;
  playing: boolean;
  recording: boolean;
  saved: boolean;
  tempoChosen: boolean;
  countInChosen: boolean;
  click: boolean;
  /** Eighths of the bar on which each drum of the guide is struck, from 0. */
  struck: Record<Drum, readonly number[]>;
  pads: Record<Drum, { number: number; name: string }>;
  /** Timing was treated in Feel. */
  treated: boolean;
}

/** The drums of the guide, by their steps. */
const SOUNDS = { kick: 'kick', snare: 'snare', hats: 'closedHat' } as const satisfies Partial<
  Record<GuideStep, SoundKind>
>;
type Drum = keyof typeof SOUNDS;
const DRUMS = Object.keys(SOUNDS) as Drum[];

/** Name by which the guide means the key that closes the open sheet. */
export const CLOSE_SHEET = 'Close sheet';

/** One sentence, and the name of the control that it means: its accessible name, or `CLOSE_SHEET`. */
export interface Advice {
  words: string;
  control: string;
}

/** @param place the path of the place that is shown */
export function situationOf(state: RootState, place: string): Situation {
  const { guide, session } = state;
  const { tempo, countIn, metronome } = selectSet(state);
  const pattern = selectPattern(state);
  const pads = drumPads(selectTrack(state));
  return {
    place,
    sheet: session.sheet,
    playing: session.playing,
    recording: session.recording,
    saved: session.saveTrouble === null,
    tempoChosen: tempo !== guide.began.tempo,
    countInChosen: countIn !== guide.began.countIn,
    click: metronome.on,
    struck: ofDrums((drum) => struckEighths(pattern, pads[drum].number - 1)),
    pads,
    treated: (pattern.feel ?? pattern.lanes?.find((lane) => lane.feel)) !== undefined,
  };
}

function drumPads({ kit }: Track): Situation['pads'] {
  const { pads } = kit;
  return ofDrums((drum) => {
    const pad = Math.max(
      0,
      pads.findIndex(({ sound }) => sound.kind === SOUNDS[drum]),
    );
    return { number: pad + 1, name: pads[pad]!.sound.name };
  });
}

function ofDrums<T>(value: (drum: Drum) => T): Record<Drum, T> {
  return Object.fromEntries(DRUMS.map((drum) => [drum, value(drum)])) as Record<Drum, T>;
}

/** The eighths of a four-four bar that a pad is struck on, each once, however late or early. */
function struckEighths({ hits }: Pattern, pad: number): number[] {
  const eighths = hits.filter((hit) => hit.pad === pad).map(({ tick }) => Math.round(tick / (PPQ / 2)));
  return [...new Set(eighths.map((eighth) => ((eighth % 8) + 8) % 8))];
}

/** Least number of different eighths that make hats. */
const HATS = 4;

/** Whether the learner has done what a step is about. */
export function isDone(step: GuideStep, { struck, ...now }: Situation): boolean {
  switch (step) {
    case 'tempo':
      return now.tempoChosen;
    case 'click':
      return now.click;
    case 'countIn':
      return now.countInChosen;
    case 'kick':
      return struck.kick.length >= 2;
    case 'snare':
      // Beats two and four: the backbeat (common practice).
      return struck.snare.includes(2) && struck.snare.includes(6);
    case 'hats':
      return struck.hats.length >= HATS;
    case 'tidy':
      return now.treated;
    case 'save':
      return false; // it saves by itself, and the guide ends here
  }
}

/** What to do next for a step, from where the learner is: whatever is missing for it comes first. */
export function adviceFor(step: GuideStep, now: Situation): Advice {
  switch (step) {
    case 'tempo':
      return {
        words: 'How fast? Drag the number or type it; 120 is fine, and Next goes on.',
        control: 'Tempo',
      };
    case 'click':
      return { words: 'Turn the click on: it ticks on every beat.', control: 'Metronome' };
    case 'countIn':
      return {
        words: 'Before you record you are counted in for one bar; touch it for two or none, or go on with Next.',
        control: 'Count-in',
      };
    case 'kick':
      return played(now, 'kick', 'on one and three; the bar comes round again and again.');
    case 'snare':
      return played(now, 'snare', 'on two and four.');
    case 'hats':
      return played(now, 'hats', 'evenly, eight times in a bar: on each beat and between.');
    case 'tidy':
      return tidied(now);
    case 'save':
      return saved(now);
  }
}

function played(now: Situation, drum: Drum, how: string): Advice {
  const away = wayToPads(now);
  if (away) return away;
  const { number, name } = now.pads[drum];
  if (!now.recording) return { words: 'Touch Record: what you play next is kept.', control: 'Record' };
  if (!now.playing) {
    return { words: `Touch Play, wait while it counts four, then play the ${name}.`, control: 'Play' };
  }
  return { words: `Strike ${name} ${how}`, control: `Pad ${number} ${name}` };
}

function tidied(now: Situation): Advice {
  if (now.recording) {
    return { words: 'Touch Record once more: the beat goes round, and nothing is added to it.', control: 'Record' };
  }
  if (now.sheet !== 'feel') {
    return wayToPads(now) ?? { words: 'Touch Feel: it shows which hits came early and which late.', control: 'Feel' };
  }
  return {
    words: 'Choose 1/8: every hit goes to its nearest eighth, and As played brings yours back.',
    control: 'Feel grid 1/8',
  };
}

function saved(now: Situation): Advice {
  if (now.sheet === 'feel') return { words: 'Close Feel and listen: this is your beat.', control: CLOSE_SHEET };
  if (!now.saved)
    return { words: 'Your beat could not be saved yet: touch the mark to see why.', control: 'Not saved' };
  return {
    words: 'Your beat is saved on this device; the Set menu exports it. That is all: leave the guide and play on.',
    control: 'Leave guide',
  };
}

/** Pads are played on their own place, and a sheet may lie over them. */
function wayToPads({ place, sheet }: Situation): Advice | null {
  if (place !== '/pads') return { words: 'Go to Pads, where the drums are.', control: 'Pads' };
  return sheet === null ? null : { words: 'Close this sheet and go on with the pads.', control: CLOSE_SHEET };
}
