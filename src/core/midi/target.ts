import { DROPS } from '../document/launching';
import { KEEP_BARS, MAX_SECTIONS, MAX_SLOTS, MAX_TRACKS, PADS } from '../document/limits';
import { CONTROL_NAMES, CONTROLS, type Control } from '../document/moves';

/**
 * How a function is worked: `strike` with a velocity, until it is let go; `press` once; `hold` for as long as it is down; `switch` on
 * and off; `value` a place between 0 and 1.
 */
export type FunctionKind = 'strike' | 'press' | 'hold' | 'switch' | 'value';

/** What names one of several things that a function is about. */
export type Part = 'row' | 'pad' | 'slot' | 'control' | 'drop' | 'bars' | 'place' | 'layer' | 'section';

interface FunctionFacts {
  kind: FunctionKind;
  words: string;
  group: FunctionGroup;
  /** What must be named. */
  needs?: readonly Part[];
  /** What can be named; left out, the track that is shown and the pad that is chosen are meant. */
  may?: readonly Part[];
}

export const FUNCTION_GROUPS = ['Pads', 'Tracks', 'Launch', 'Time', 'Recording', 'Screen'] as const;
export type FunctionGroup = (typeof FUNCTION_GROUPS)[number];

/** All that a control of a controller, or a key of a keyboard, can work. */
const FACTS = {
  pad: { kind: 'strike', words: 'Strike', group: 'Pads', needs: ['pad'], may: ['row'] },
  choosePad: { kind: 'press', words: 'Choose', group: 'Pads', needs: ['pad'] },
  turn: { kind: 'value', words: 'Ride', group: 'Pads', needs: ['control'], may: ['pad', 'row'] },
  repeat: { kind: 'switch', words: 'Note repeat', group: 'Pads' },
  latch: { kind: 'switch', words: 'Latch', group: 'Pads' },
  rate: { kind: 'value', words: 'Repeat rate', group: 'Pads', may: ['pad'] },
  padMute: { kind: 'switch', words: 'Mute', group: 'Pads', may: ['pad', 'row'] },
  padSolo: { kind: 'switch', words: 'Solo', group: 'Pads', may: ['pad', 'row'] },
  letGo: { kind: 'press', words: 'Let go of all that is ridden', group: 'Pads' },
  sustain: { kind: 'hold', words: 'Sustain', group: 'Pads' },
  octaveUp: { kind: 'press', words: 'Octave up', group: 'Pads' },
  octaveDown: { kind: 'press', words: 'Octave down', group: 'Pads' },
  fixedVelocity: { kind: 'switch', words: 'Fixed velocity', group: 'Pads' },
  padsLaunchPatterns: { kind: 'switch', words: 'Pads launch patterns', group: 'Pads' },
  padsLaunchSections: { kind: 'switch', words: 'Pads launch sections', group: 'Pads' },

  level: { kind: 'value', words: 'Level', group: 'Tracks', may: ['row'] },
  mute: { kind: 'switch', words: 'Mute', group: 'Tracks', may: ['row'] },
  solo: { kind: 'switch', words: 'Solo', group: 'Tracks', may: ['row'] },
  showTrack: { kind: 'press', words: 'Show', group: 'Tracks', needs: ['row'] },
  trackBefore: { kind: 'press', words: 'Track before', group: 'Tracks' },
  trackAfter: { kind: 'press', words: 'Track after', group: 'Tracks' },

  card: { kind: 'press', words: 'Launch', group: 'Launch', needs: ['slot'], may: ['row'] },
  section: { kind: 'press', words: 'Launch', group: 'Launch', needs: ['section'] },
  chain: { kind: 'press', words: 'Chain', group: 'Launch', may: ['row'] },
  lift: { kind: 'hold', words: 'Lift', group: 'Launch' },
  override: { kind: 'hold', words: 'Override of Drop on', group: 'Launch' },
  dropOn: { kind: 'press', words: 'Drop on', group: 'Launch', needs: ['drop'] },
  dropRange: { kind: 'value', words: 'Drop on, from now to 4 bars', group: 'Launch' },
  stopAll: { kind: 'press', words: 'Stop all', group: 'Launch' },

  play: { kind: 'switch', words: 'Play', group: 'Time' },
  top: { kind: 'press', words: 'Back to the top', group: 'Time' },
  tempo: { kind: 'value', words: 'Tempo', group: 'Time' },
  tempoUp: { kind: 'press', words: 'Tempo up', group: 'Time' },
  tempoDown: { kind: 'press', words: 'Tempo down', group: 'Time' },
  tap: { kind: 'press', words: 'Tap tempo', group: 'Time' },
  nudgeFaster: { kind: 'hold', words: 'Nudge faster', group: 'Time' },
  nudgeSlower: { kind: 'hold', words: 'Nudge slower', group: 'Time' },
  metronome: { kind: 'switch', words: 'Metronome', group: 'Time' },
  clickLevel: { kind: 'value', words: 'Metronome level', group: 'Time' },

  record: { kind: 'switch', words: 'Record', group: 'Recording' },
  quantize: { kind: 'switch', words: 'Input quantize', group: 'Recording' },
  grid: { kind: 'value', words: 'Grid of input quantize', group: 'Recording' },
  halveLoop: { kind: 'press', words: 'Halve loop', group: 'Recording' },
  doubleLoop: { kind: 'press', words: 'Double loop', group: 'Recording' },
  windowBack: { kind: 'press', words: 'Loop window back', group: 'Recording' },
  windowOn: { kind: 'press', words: 'Loop window on', group: 'Recording' },
  windowHalf: { kind: 'press', words: 'Halve loop window', group: 'Recording' },
  windowWhole: { kind: 'press', words: 'Whole pattern', group: 'Recording' },
  keep: { kind: 'press', words: 'Keep', group: 'Recording', needs: ['bars'] },
  undo: { kind: 'press', words: 'Undo', group: 'Recording' },
  redo: { kind: 'press', words: 'Redo', group: 'Recording' },

  place: { kind: 'press', words: 'Open', group: 'Screen', needs: ['place'] },
  layer: { kind: 'hold', words: 'Second layer', group: 'Screen', needs: ['layer'] },
  panic: { kind: 'press', words: 'Panic: all notes off', group: 'Screen' },
} as const satisfies Record<string, FunctionFacts>;

export type FunctionName = keyof typeof FACTS;
export const FUNCTION_NAMES = Object.keys(FACTS) as FunctionName[];
export const FUNCTIONS: Readonly<Record<FunctionName, FunctionFacts>> = FACTS;

/**
 * One function of the app, of one thing. Tracks and sections are named by their place in the list, not by what lies there: a map made
 * for one set serves every other.
 */
export interface Target {
  do: FunctionName;
  /** Track, from the top, 0..15; the shown one if left out. */
  row?: number;
  /** 0..15; the chosen one if left out. */
  pad?: number;
  slot?: number;
  section?: number;
  control?: Control;
  /** A *Drop on*. */
  drop?: string;
  bars?: number;
  /** A place of the screen. */
  place?: string;
  layer?: number;
}

/** How many layers of a map lie over the first. */
export const UPPER_LAYERS = 3;

const isIndex = (value: unknown, count: number) =>
  Number.isInteger(value) && (value as number) >= 0 && (value as number) < count;

/** What each part of a target may be. */
const PART_IS: Record<Part, (value: unknown) => boolean> = {
  row: (value) => isIndex(value, MAX_TRACKS),
  pad: (value) => isIndex(value, PADS),
  slot: (value) => isIndex(value, MAX_SLOTS),
  section: (value) => isIndex(value, MAX_SECTIONS),
  control: (value) => (CONTROLS as readonly unknown[]).includes(value),
  drop: (value) => (DROPS as readonly unknown[]).includes(value),
  bars: (value) => (KEEP_BARS as readonly unknown[]).includes(value),
  place: (value) => typeof value === 'string' && /^[a-z]{1,20}$/.test(value),
  layer: (value) => isIndex((value as number) - 1, UPPER_LAYERS),
};
const PARTS = Object.keys(PART_IS) as Part[];

/** Reads a target out of a file or a record: all that it needs, nothing that it cannot have. Null for anything else. */
export function readTarget(plain: unknown): Target | null {
  if (typeof plain !== 'object' || plain === null) return null;
  const read = plain as Target;
  if (!FUNCTION_NAMES.includes(read.do)) return null;
  const { needs = [], may = [] } = FUNCTIONS[read.do];
  const target: Target = { do: read.do };
  for (const part of PARTS) {
    const value = read[part];
    if (value === undefined || !(needs.includes(part) || may.includes(part))) continue;
    if (!PART_IS[part](value)) return null;
    Object.assign(target, { [part]: value });
  }
  return needs.every((part) => target[part] !== undefined) ? target : null;
}

/** Names a target: the same text for the same function of the same thing. */
export function targetKey(target: Target): string {
  return [target.do, ...PARTS.filter((part) => target[part] !== undefined).map((part) => `${part}=${target[part]}`)].join(' '); // prettier-ignore
}

/** The target of a key. */
export function targetOfKey(key: string): Target | null {
  const [name, ...parts] = key.split(' ');
  const plain: Record<string, unknown> = { do: name };
  for (const part of parts) {
    const [what, value] = part.split('=') as [string, string];
    plain[what] = /^\d+$/.test(value) ? Number(value) : value;
  }
  return readTarget(plain);
}

/** A target in words. */
export function targetWords(target: Target): string {
  const { words } = FUNCTIONS[target.do];
  const pad = target.pad === undefined ? 'the chosen pad' : `pad ${target.pad + 1}`;
  const track = target.row === undefined ? 'the shown track' : `track ${target.row + 1}`;
  switch (target.do) {
    case 'pad':
    case 'choosePad':
      return `${words} ${pad}${target.row === undefined ? '' : ` of ${track}`}`;
    case 'turn':
      return `${CONTROL_NAMES[target.control!]} of ${pad}${target.row === undefined ? '' : ` of ${track}`}`;
    case 'padMute':
    case 'padSolo':
      return `${words} ${pad}`;
    case 'rate':
      return target.pad === undefined ? words : `${words} of ${pad}`;
    case 'level':
    case 'chain':
      return `${words} of ${track}`;
    case 'mute':
    case 'solo':
    case 'showTrack':
      return `${words} ${track}`;
    case 'card':
      return `${words} pattern ${target.slot! + 1} of ${track}`;
    case 'section':
      return `${words} section ${target.section! + 1}`;
    case 'dropOn':
      return `${words} ${DROP_WORDS[target.drop!] ?? target.drop}`;
    case 'keep':
      return `${words} ${target.bars} ${target.bars === 1 ? 'bar' : 'bars'}`;
    case 'place':
      return `${words} ${target.place![0]!.toUpperCase()}${target.place!.slice(1)}`;
    case 'layer':
      return `Layer ${target.layer! + 1}, while held`;
    default:
      return words;
  }
}

const DROP_WORDS: Record<string, string> = { now: 'now', beat: 'the beat', bar: 'the bar', loop: 'loop end', bars2: '2 bars', bars4: '4 bars' }; // prettier-ignore
