import type { SoundKind } from '../document/soundKinds';
import { random as randomOf } from '../random';
import { ticksPerBar, ticksPerBeat, PPQ, type Meter } from '../time/ticks';
import { swungTick } from '../quantize/swing';
import { hitsWithin } from '../edit/select';
import { euclid } from './euclid';
import { STYLES, type Style, type StyleName } from './styles';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';

export const FILL_SPANS = ['beat', 'half', 'bar'] as const;
export type FillSpan = (typeof FILL_SPANS)[number];

/** What is asked for. */
export type Idea =
  /** A whole kit in a style, or only one of its lanes. */
  | { kind: 'style'; style: StyleName; pad: number | null }
  /** Pulses spread over steps, over and over for as long as the pattern is; `step` in ticks. */
  | { kind: 'euclid'; pad: number; pulses: number; steps: number; rotation: number; step: number }
  /** The end of the pattern is filled. */
  | { kind: 'fill'; span: FillSpan }
  | { kind: 'hats' };

/** What the idea is for. */
export interface Ground {
  pattern: Pattern;
  meter: Meter;
  /** The sound of each pad. */
  sounds: readonly SoundKind[];
  /** Pads that are kept as they are. */
  locked: readonly number[];
}

export type NewHit = Omit<Hit, 'id'>;

/** Hits that are offered in the place of others. */
export interface Proposal {
  hits: NewHit[];
  /** Ids of those that they would replace. */
  instead: number[];
}

const SIXTEENTH = PPQ / 4;

/** Something to start from, the same for the same seed. Locked lanes are left out of it. */
export function propose(idea: Idea, ground: Ground, seed: number): Proposal {
  const random = randomOf(seed);
  switch (idea.kind) {
    case 'style':
      return inStyle(STYLES[idea.style], idea.pad, ground, random);
    case 'euclid':
      return spread(idea, ground);
    case 'fill':
      return fill(idea.span, ground, random);
    case 'hats':
      return hats(ground, random);
  }
}

/**
 * The pattern as it would be.
 * @param newId called for the id of each new hit
 */
export function withProposal(pattern: Pattern, { hits, instead }: Proposal, newId: () => number): Pattern {
  const gone = new Set(instead);
  return {
    ...pattern,
    hits: [...pattern.hits.filter((hit) => !gone.has(hit.id)), ...hits.map((hit) => ({ ...hit, id: newId() }))],
  };
}

/** A hit as it is offered: its velocity as one of MIDI's. */
export function newHit(pad: number, tick: number, velocity: number, more: Partial<NewHit> = {}): NewHit {
  const rounded = Math.round(Math.min(1, Math.max(1 / 127, velocity)) * 127) / 127;
  return { pad, tick, length: SIXTEENTH / 2, velocity: rounded, snap: null, ...more };
}

/** The pad that has a sound, unless it is locked; -1 when there is none. */
function padOf(sound: SoundKind, { sounds, locked }: Ground): number {
  const pad = sounds.indexOf(sound);
  return locked.includes(pad) ? -1 : pad;
}

/** Loudness of a sixteenth by its place: the beat, the half beat, the rest. */
function loudness(index: number, random: () => number): number {
  const place = index % 4 === 0 ? 0.86 : index % 2 === 0 ? 0.72 : 0.52;
  return place + (random() - 0.5) * 0.16;
}

function inStyle(style: Style, only: number | null, ground: Ground, random: () => number): Proposal {
  const { pattern, meter, locked } = ground;
  const steps = ticksPerBar(meter) / SIXTEENTH;
  const pads: number[] = [];
  const made: NewHit[] = [];
  for (const [sound, bar] of Object.entries(style.lanes) as [SoundKind, string][]) {
    const pad = padOf(sound, ground);
    // Chance is drawn for every lane, so that one lane alone is as it is among all.
    const draws = Array.from({ length: Math.ceil(pattern.length / SIXTEENTH) }, () => [random(), random()] as const);
    if (pad < 0 || (only !== null && pad !== only)) continue;
    pads.push(pad);
    draws.forEach(([draw, hand], i) => {
      const inBar = i % steps;
      const mark = bar[inBar % bar.length]!;
      if (mark === '-' || (mark !== 'X' && draw * 10 >= Number(mark))) return;
      const tick = Math.round(swungTick(i * SIXTEENTH, { unit: SIXTEENTH, ratio: style.swing }));
      if (tick >= pattern.length) return;
      const ghost = mark !== 'X' && sound === 'snare' ? 0.45 : 1;
      made.push(newHit(pad, tick, loudness(inBar, () => hand) * ghost));
    });
  }
  // A whole kit takes the place of all that is not locked; one lane, of its own.
  const all = ground.sounds.map((_, pad) => pad).filter((pad) => !locked.includes(pad));
  return { hits: made, instead: hitsWithin(pattern, only === null ? all : pads, 0, pattern.length) };
}

function spread({ pad, pulses, steps, rotation, step }: Extract<Idea, { kind: 'euclid' }>, ground: Ground): Proposal {
  const { pattern, locked } = ground;
  if (locked.includes(pad)) return { hits: [], instead: [] };
  const rhythm = euclid(pulses, steps, rotation);
  const made: NewHit[] = [];
  for (let i = 0; i * step < pattern.length; i++) {
    if (rhythm[i % steps]) made.push(newHit(pad, i * step, i % steps === 0 ? 0.9 : 0.75, { length: step / 2 }));
  }
  return { hits: made, instead: hitsWithin(pattern, [pad], 0, pattern.length) };
}

/** Sounds that a fill is played on, in order from its first to its last. */
const FILLS: readonly (readonly SoundKind[])[] = [
  ['snare'],
  ['highTom', 'midTom', 'lowTom'],
  ['snare', 'highTom', 'lowTom'],
  ['rim', 'snare'],
  ['snare', 'clap'],
];

function fill(span: FillSpan, ground: Ground, random: () => number): Proposal {
  const { pattern, meter } = ground;
  const bar = ticksPerBar(meter);
  const wanted = { beat: ticksPerBeat(meter), half: bar / 2, bar }[span];
  const ticks = Math.min(pattern.length, wanted);
  const from = pattern.length - ticks;
  const drums = FILLS[Math.floor(random() * FILLS.length)]!.map((sound) => padOf(sound, ground)).filter((pad) => pad >= 0); // prettier-ignore
  if (drums.length === 0) return { hits: [], instead: [] };
  const steps = Math.max(1, Math.floor(ticks / SIXTEENTH));
  const made: NewHit[] = [];
  for (let i = 0; i < steps; i++) {
    const way = steps > 1 ? i / (steps - 1) : 1;
    const isLast = i === steps - 1;
    // A fill gets denser towards the downbeat that it leads to.
    if (!isLast && i > 0 && random() > 0.55 + 0.4 * way) continue;
    const pad = drums[Math.min(drums.length - 1, Math.floor(way * drums.length))]!;
    const velocity = 0.45 + 0.45 * way + (random() - 0.5) * 0.1;
    const strokes = way > 0.5 && random() < 0.3 ? (random() < 0.7 ? 2 : 3) : 0;
    const roll = strokes > 0 ? { roll: { strokes, over: SIXTEENTH, swell: 0.3, glide: 0 } } : {};
    made.push(newHit(pad, from + i * SIXTEENTH, velocity, roll));
  }
  // The fill replaces backbeat and hats; the kick goes on.
  const quiet = (['snare', 'clap', 'rim', 'closedHat', 'openHat', 'highTom', 'midTom', 'lowTom'] as const)
    .map((sound) => padOf(sound, ground))
    .filter((pad) => pad >= 0);
  return { hits: made, instead: hitsWithin(pattern, quiet, from, pattern.length) };
}

/** A bar of sixteenths of closed (c) and open (o) hats, rolls (r), and what may be there (?). */
const HAT_BARS = [
  'c-c-c-c-c-c-c-c-',
  'cccccccccccccccc',
  'c-o-c-o-c-o-c-o-',
  'c-ccc-ccc-ccc-cc',
  'c?c?c?c?c?c?c?cr',
  'ccc-ccc-ccc-ccco',
  'c--c--c--c--c-c-',
  '--c---c---c---o-',
] as const;

function hats(ground: Ground, random: () => number): Proposal {
  const { pattern, meter } = ground;
  const [closed, open] = [padOf('closedHat', ground), padOf('openHat', ground)];
  const steps = ticksPerBar(meter) / SIXTEENTH;
  const bar = HAT_BARS[Math.floor(random() * HAT_BARS.length)]!;
  const made: NewHit[] = [];
  for (let i = 0; i * SIXTEENTH < pattern.length; i++) {
    const inBar = i % steps;
    const mark = bar[inBar % bar.length]!;
    const velocity = loudness(inBar, random);
    const maybe = random() < 0.35;
    if (mark === 'o' && open >= 0) made.push(newHit(open, i * SIXTEENTH, velocity));
    else if (closed >= 0 && (mark === 'c' || mark === 'r' || (mark === '?' && maybe))) {
      const roll = mark === 'r' ? { roll: { strokes: 3, over: SIXTEENTH, swell: -0.4, glide: 0 } } : {};
      made.push(newHit(closed, i * SIXTEENTH, velocity, roll));
    }
  }
  return {
    hits: made,
    instead: hitsWithin(
      pattern,
      [closed, open].filter((pad) => pad >= 0),
      0,
      pattern.length,
    ),
  };
}
