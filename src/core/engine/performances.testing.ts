import {
  CONTROLS,
  type Control,
  isHeldControl,
  MOVED_CHANNELS,
  movedRange,
  type Move,
  type Moved,
} from '../document/moves';
import { reachedBy, type AlsoPlays, type Kit } from '../document/kit';
import { POLISHED_FLOOR } from '../document/kits';
import { FIRST_REACH, LFO_NOTES, LFO_SHAPES, LFO_STARTS, LFO_TARGETS } from '../document/lfo';
import {
  FILTER_KINDS,
  NUMBER_SETTINGS,
  PLAY_WAYS,
  SOUND_NUMBERS,
  type Sound,
  type SoundSettings,
} from '../document/sound';
import { CHANNELS, FIRST_GROUP_CHANNEL, MAX_GROUPS, MIX_CONTROLS, MIX_RANGES, WHOLE_CHANNEL } from '../document/mix';
import { RETURN_CONTROLS } from '../document/returns';
import { presetsOf, TONE_VOICES, type ToneSource } from '../document/toneVoices';
import { AS_IT_IS, CHAIN, LEAVE, NO_SECTION, SILENT, THEN_STOP } from '../launch/launchState';
import { feelRows, hitRows, moveRows } from '../sequence/hitRows';
import { soundingHits } from '../sequence/soundingHits';
import { REPEAT_RATES, gridTicks } from '../quantize/grid';
import { random } from '../random';
import { prepareSample, type PreparedSample } from '../sample/levels';
import { at, type Command, type Instruction } from '../protocol/commands';
import { PADS } from '../document/limits';
import type { Pattern } from '../document/pattern';
import { CLICK_SOUNDS, CLICK_TIMES } from '../document/metronome';
import { LOOP_END, type SectionPlan } from '../launch/launchRules';

/** A performance that chance made: commands with their frames, and the sizes of the blocks that it is rendered in. */
export interface Performance {
  commands: Command[];
  /** Frames to render. */
  frames: number;
  blocks: number[];
}

const TRACKS = 4;
const SLOTS = 4;
const STEP = 240;

/** All that chance decides in one performance. */
/** The controls that there were when the reference was written. */
const OF_THE_REFERENCE = CONTROLS.filter((control) => !isHeldControl(control));

class Chance {
  private readonly next: () => number;
  private lastId = 1;

  /** @param movesAll what came to be after the reference was written is moved, too: what is held, and the mix */
  constructor(
    seed: number,
    private readonly movesAll = false,
  ) {
    this.next = random(seed);
  }

  control(): Control {
    return this.of(this.movesAll ? CONTROLS : OF_THE_REFERENCE);
  }

  share(): number {
    return this.next();
  }

  whole(below: number): number {
    return Math.floor(this.next() * below);
  }

  is(likelihood: number): boolean {
    return this.next() < likelihood;
  }

  of<T>(list: readonly T[]): T {
    return list[this.whole(list.length)]!;
  }

  id(): number {
    return (this.lastId += 2);
  }

  when(): number {
    return this.of([0, 0, 960, 960, 3840, LOOP_END, 7680]);
  }

  slot(): number {
    return this.of([0, 1, 2, 3, 0, 1, 2, SILENT, CHAIN]);
  }

  pattern(): Pattern {
    const length = this.of([960, 1200, 1920, 2880, 3840, 3360]);
    const hits = Array.from({ length: 1 + this.whole(14) }, () => ({
      id: this.id(),
      pad: this.whole(PADS),
      tick: this.whole(length / STEP) * STEP + (this.share() - 0.5) * 160,
      length: this.whole(500) + 1,
      velocity: this.share(),
      snap: this.is(0.6) ? { grid: STEP, strength: 1 } : null,
      ...(this.is(0.2) && { odds: this.share() }),
      ...(this.is(0.2) && { pitch: this.whole(25) - 12 }),
      ...(this.is(0.15) && { roll: { strokes: this.of([2, 3, 4, 8]), over: 480, swell: this.share() * 2 - 1, glide: this.whole(12) } }), // prettier-ignore
    }));
    const feel = () => ({ grid: this.of([0, 120, 240, 480]), strength: this.of([1, 0.5]), ...(this.is(0.4) && { swing: { unit: 240, ratio: 0.6 } }) }); // prettier-ignore
    return {
      name: 'Chance',
      length,
      hits,
      ...(this.is(0.25) && { feel: feel() }),
      ...(this.is(0.25) && { lanes: [{ pad: this.whole(PADS), feel: feel() }] }),
      ...(this.is(0.3) && { moves: [this.move(), this.move()] }),
    };
  }

  private move(): Move {
    const control = this.control();
    const ofPad: Moved = { pad: 0, control };
    const moved = this.movesAll && this.is(0.35) ? this.inMix() : ofPad;
    const points = Array.from({ length: 1 + this.whole(5) }, (_, i) => ({ tick: i * 300, value: this.value(moved) }));
    return { ...moved, ...(moved === ofPad && { pad: this.whole(PADS) }), points };
  }

  private inMix(): Moved {
    return this.is(0.3) ? this.of(RETURN_CONTROLS) : { on: this.of(MOVED_CHANNELS), control: this.of(MIX_CONTROLS) };
  }

  value(moved: Moved): number {
    const { min, max, stepped } = movedRange(moved);
    const value = min + this.share() * (max - min);
    return stepped ? Math.round(value) : value;
  }

  /** A few settings of a sound, anything but what takes long to ring out. */
  settings(): SoundSettings {
    const settings: SoundSettings = { variation: this.share() };
    for (const setting of NUMBER_SETTINGS) {
      const { min, max } = SOUND_NUMBERS[setting];
      if (this.is(0.15)) settings[setting] = setting === 'voices' ? 1 + this.whole(8) : setting === 'cutoff' ? 200 + this.share() * 8000 : min + this.share() * (Math.min(max, 1) - min); // prettier-ignore
    }
    if (this.is(0.3)) settings.filter = this.of(FILTER_KINDS);
    if (this.is(0.4)) settings.plays = this.of(PLAY_WAYS);
    if (this.is(0.2)) settings.reverse = true;
    if (this.is(0.4)) settings.lfos = Array.from({ length: 1 + this.whole(2) }, () => this.lfo());
    return settings;
  }

  private lfo() {
    const moves = this.of(LFO_TARGETS);
    const rate = this.is(0.7) ? { note: this.of(LFO_NOTES) } : { hz: 0.5 + 9 * this.share() };
    return { moves, shape: this.of(LFO_SHAPES), ...FIRST_REACH[moves], ...rate, start: this.of(LFO_STARTS) };
  }

  sound(pad: number): Sound {
    const { sound } = POLISHED_FLOOR.pads[pad]!;
    const sample = this.is(0.3) ? this.of(sampleIds) : null;
    return { ...sound, settings: this.settings(), ...(sample && { source: { sample, frames: SAMPLE_FRAMES } }) };
  }

  kit(): Kit {
    const pads = POLISHED_FLOOR.pads.map((own, pad) => ({ ...own, sound: this.is(0.4) ? this.sound(pad) : own.sound, alsoPlays: this.also(pad) })); // prettier-ignore
    const allowed = pads.every((_, pad) => reachedBy(pads, pad));
    return { name: 'Chance', pads: allowed ? pads : POLISHED_FLOOR.pads, cutGroups: this.of([[], [[4, 5, 6]], [[0, 1], [4, 6, 9]]]) }; // prettier-ignore
  }

  private also(pad: number): AlsoPlays[] {
    if (pad > 12 || this.is(0.7)) return [];
    return [{ pad: pad + 1 + this.whole(3), share: this.share(), ...(this.is(0.5) ? { ms: this.whole(200) } : { note: '1/16' }) }]; // prettier-ignore
  }

  section(id: number): SectionPlan {
    const parts = Array.from({ length: 16 }, (_, t) => (t < TRACKS ? this.of([0, 1, 2, SILENT, CHAIN, LEAVE]) : LEAVE));
    return { id, parts, rounds: 1, then: this.of([NO_SECTION, THEN_STOP, 1, 2]) };
  }

  patternInstruction(track: number, slot: number): Instruction[] {
    const pattern = this.pattern();
    const hits = hitRows(soundingHits(pattern));
    return [
      { type: 'pattern', track, slot, revision: this.id(), length: pattern.length, seen: 0, hits, feels: feelRows(pattern) },
      ...(pattern.moves ? [{ type: 'moves', track, slot, revision: this.id(), points: moveRows(pattern) } as const] : []),
    ]; // prettier-ignore
  }

  voice(): ToneSource {
    const voice = this.of(TONE_VOICES);
    return { voice, ...(this.is(0.7) && { preset: this.of(presetsOf(voice)) }) };
  }

  notes(track: number): Instruction {
    const notes = Float64Array.from({ length: PADS }, (_, pad) => 40 + 2 * pad);
    return { type: 'notes', track, layout: { ...this.voice(), notes, octave: this.whole(3) - 1, ...(this.is(0.4) && { settings: this.settings() }) } }; // prettier-ignore
  }
}

/** Names of two samples, of which the second comes while it is played, and of one that never comes. */
const sampleIds = ['a', 'b', 'c'].map((letter) => letter.repeat(32));
const SAMPLE_FRAMES = 5000;

/** One in two channels, one in one. They are only read: one does for all performances. */
const samples: PreparedSample[] = [2, 1].map((channels, i) => {
  const next = random(77 + i);
  const noise = () => Float32Array.from({ length: SAMPLE_FRAMES }, (_, frame) => (next() - 0.5) * (1 - frame / SAMPLE_FRAMES)); // prettier-ignore
  return prepareSample({ id: sampleIds[i]!, channels: Array.from({ length: channels }, noise) });
});

/** The samples of random performances, by their names. */
export function sampleNamed(id: string): PreparedSample {
  return samples.find((sample) => sample.id === id)!;
}

/** A set of four tracks, two of which play notes, and how the song begins. */
function beginning(chance: Chance): Instruction[] {
  const out: Instruction[] = [
    { type: 'tempo', bpm: 90 + chance.whole(210) },
    { type: 'meter', beats: chance.of([3, 4, 4, 7]), unit: chance.of([4, 4, 8]) },
    { type: 'inputQuantize', grid: chance.of([120, 160, 240, 480, 960]), on: chance.is(0.7) },
    metronome(chance),
    { type: 'sections', sections: [chance.section(1), chance.section(2)] },
  ];
  for (let track = 0; track < TRACKS; track++) {
    out.push({ type: 'kit', track, kit: chance.is(0.5) ? POLISHED_FLOOR : chance.kit() });
    if (track >= 2) out.push(chance.notes(track));
    for (let slot = 0; slot < SLOTS; slot++) out.push(...chance.patternInstruction(track, slot));
    const links = [{ slot: 0, times: 1 }, { slot: 1, times: 2 }]; // prettier-ignore
    out.push({ type: 'chain', track, chain: { links, again: chance.is(0.5) } });
    out.push({ type: 'launch', track, slot: chance.of([0, 1, SILENT]), on: 0, inPlace: false });
  }
  if (chance.is(0.7)) out.push({ type: 'record', on: true, session: 1 });
  if (chance.is(0.8)) out.push({ type: 'play', startTick: 0, countInTicks: chance.of([0, 0, 480, 960]) });
  return out;
}

function metronome(chance: Chance): Instruction {
  const { sound, when } = { sound: chance.of(CLICK_SOUNDS), when: chance.of(CLICK_TIMES) };
  return {
    type: 'metronome',
    on: chance.is(0.5),
    level: chance.share(),
    sound,
    when,
    between: chance.of([0, 240, 320]),
  };
}

/** How often each kind of thing is done, and how. */
const DEEDS: readonly (readonly [weight: number, deed: (chance: Chance, frame: number) => Instruction[]])[] = [
  [30, (c, frame) => [{ type: 'padDown', track: c.whole(TRACKS), pad: c.whole(PADS), velocity: c.share(), heard: frame - c.whole(3000), id: c.id() }]],
  [16, (c, frame) => [{ type: 'padUp', track: c.whole(TRACKS), pad: c.whole(PADS), heard: frame - c.whole(3000) }]],
  [6, (c) => [{ type: 'padPress', track: c.whole(TRACKS), pad: c.whole(PADS), velocity: c.share() }]],
  [5, (c) => [{ type: 'noteRepeat', on: c.is(0.6), latch: c.is(0.3) }]],
  [6, (c) => [{ type: 'repeatRate', track: c.whole(TRACKS), pad: c.whole(PADS), ticks: gridTicks(c.of(REPEAT_RATES)) }]],
  [8, (c) => [{ type: 'launch', track: c.whole(TRACKS), slot: c.slot(), on: c.when(), inPlace: c.is(0.4) }]],
  [3, (c) => [{ type: 'cancelLaunch', track: c.whole(TRACKS) }]],
  [3, (c) => [{ type: 'moveLaunch', track: c.whole(TRACKS), tick: c.whole(9600) }]],
  [4, (c) => [{ type: 'muteSolo', track: c.whole(TRACKS), mute: c.of([0, 1, AS_IT_IS]), solo: c.of([0, 0, 1, AS_IT_IS]), on: c.when() }]],
  [2, (c) => [{ type: 'cancelMuteSolo', track: c.whole(TRACKS) }]],
  [4, (c) => [{ type: 'launchSection', section: 1 + c.whole(2), on: c.when(), inPlace: c.is(0.4) }]],
  [1, () => [{ type: 'leaveSection' }]],
  [1, () => [{ type: 'cancelSection' }]],
  [1, (c) => [{ type: 'moveSection', tick: c.whole(9600) }]],
  [1, (c) => [{ type: 'stopAll', on: c.when() }]],
  [2, (c) => [{ type: 'fade', ticks: c.of([0, 480, 1920]), on: c.when() }]],
  [6, (c) => [{ type: 'lift', held: c.is(0.5), on: c.when() }]],
  [2, (c) => [{ type: 'sections', sections: [c.section(1), c.section(2)] }]],
  [2, (c) => [{ type: 'chain', track: c.whole(TRACKS), chain: { links: [{ slot: c.whole(SLOTS), times: 1 }], again: c.is(0.5) } }]],
  [5, (c) => c.patternInstruction(c.whole(TRACKS), c.whole(SLOTS))],
  [5, (c) => [{ type: 'loopWindow', track: c.whole(TRACKS), slot: c.whole(SLOTS), start: c.whole(8) * STEP, length: c.of([0, 240, 480, 960, 1200]), on: c.when() === LOOP_END ? 0 : 960 }]],
  [5, (c) => { const control = c.control(); return [{ type: 'turn', track: c.whole(TRACKS), pad: c.whole(PADS), control, value: c.is(0.3) ? NaN : c.value({ pad: 0, control }) }]; }],
  [2, (c) => [{ type: 'heardPads', track: c.whole(TRACKS), pads: c.is(0.5) ? 0xffff : c.whole(0x10000) }]],
  [2, (c) => [{ type: 'trackLevel', track: c.whole(TRACKS), level: c.share() }]],
  [3, (c) => [{ type: 'tempo', bpm: 60 + c.whole(240) }]],
  [2, (c) => [{ type: 'tempoBend', ratio: c.of([1, 1.03, 0.96]) }]],
  [1, (c) => [{ type: 'meter', beats: c.of([3, 4, 7]), unit: c.of([4, 8]) }]],
  [3, (c) => [{ type: 'record', on: c.is(0.7), session: c.whole(5) }]],
  [3, (c) => [{ type: 'inputQuantize', grid: c.of([120, 160, 240, 480]), on: c.is(0.7) }]],
  [1, (c) => [metronome(c)]],
  [1, (c) => [{ type: 'phase', track: c.whole(TRACKS), tick: c.whole(4000) }]],
  [1, (c) => [c.is(0.5) ? c.notes(2 + c.whole(2)) : { type: 'notes', track: 2 + c.whole(2), layout: null }]],
  [2, (c) => [{ type: 'kit', track: c.whole(TRACKS), kit: c.is(0.4) ? POLISHED_FLOOR : c.kit() }]],
  [5, (c) => { const pad = c.whole(PADS); return [{ type: 'padSound', track: c.whole(TRACKS), pad, sound: c.sound(pad) }]; }],
  [1, (c) => [{ type: 'removeTrack', track: c.whole(TRACKS) }]],
  [1, (c) => [{ type: 'reserveIds', above: 1000 + c.whole(1000) }]],
  [1, (c) => [{ type: 'latencyCheck', clicks: c.whole(3) }]],
  [1, () => [{ type: 'releaseAll' }]],
  [2, () => [{ type: 'stop' }]],
  [1, (c) => [{ type: 'locate', tick: c.whole(4000) }]],
  [4, (c) => [{ type: 'play', startTick: c.of([0, 0, 960, 1234]), countInTicks: c.of([0, 0, 960]) }]],
]; // prettier-ignore
const WEIGHT = DEEDS.reduce((sum, [weight]) => sum + weight, 0);

function deed(chance: Chance, frame: number): Instruction[] {
  let left = chance.share() * WEIGHT;
  for (const [weight, make] of DEEDS) if ((left -= weight) < 0) return make(chance, frame);
  return [];
}

/** What chance makes of the mix: channels, where they go, the echo, the room. */
function mixDeed(chance: Chance): Instruction {
  const kind = chance.share();
  if (kind < 0.05) return { type: 'room', size: 0.2 + chance.share(), damping: chance.share(), width: chance.share(), preDelay: chance.whole(150) }; // prettier-ignore
  if (kind < 0.1) return { type: 'echo', ticks: chance.of([0, 240, 320, 720]), ms: 1 + chance.whole(300), feedback: chance.share(), tone: chance.share(), width: chance.share(), ...(chance.is(0.5) && { tape: true }) }; // prettier-ignore
  if (kind < 0.25) return { type: 'goesTo', channel: chance.whole(TRACKS), group: chance.whole(MAX_GROUPS + 1) - 1 };
  // Only the first two groups go on, to one of the last two.
  if (kind < 0.3)
    return { type: 'goesTo', channel: FIRST_GROUP_CHANNEL + chance.whole(2), group: chance.of([-1, 2, 3]) };
  if (kind < 0.36) return { type: 'padGoesTo', track: chance.whole(TRACKS), pad: chance.whole(PADS), group: chance.whole(MAX_GROUPS + 1) - 1 }; // prettier-ignore
  if (kind < 0.42) return { type: 'duckedBy', channel: chance.whole(CHANNELS), track: chance.whole(TRACKS + 1) - 1, pad: chance.whole(PADS + 1) - 1 }; // prettier-ignore
  const control = chance.of(MIX_CONTROLS);
  const { min, max, neutral } = MIX_RANGES[control];
  const channel = chance.of([0, 1, 2, 3, 0, 1, 2, 3, FIRST_GROUP_CHANNEL + chance.whole(MAX_GROUPS), WHOLE_CHANNEL]);
  if (chance.is(0.05)) {
    const moved = chance.of(RETURN_CONTROLS);
    return { type: 'rideReturn', ...moved, value: chance.is(0.5) ? NaN : chance.value(moved) };
  }
  if (chance.is(0.2)) {
    return { type: 'ride', channel, control, value: chance.is(0.5) ? NaN : chance.value({ on: 'track', control }) };
  }
  return { type: 'channel', channel, control, value: chance.is(0.3) ? neutral : min + chance.share() * (max - min) };
}

/** A performance with a mix, too, that chance makes and turns while it plays. */
export function randomMixedPerformance(seed: number, frames: number, count: number): Performance {
  const { commands, ...rest } = randomPerformance(seed, frames, count, true);
  const chance = new Chance(seed + 1);
  const turns = Array.from({ length: count }, () => at(chance.is(0.4) ? 0 : chance.whole(frames), mixDeed(chance)));
  // Of one frame the mix comes last.
  return { ...rest, commands: [...commands, ...turns].sort((a, b) => a.frame - b.frame) };
}

/** What the player does at chance moments of some frames from `from` on. */
export function randomDeeds(seed: number, from: number, frames: number, count: number): Command[] {
  const chance = new Chance(seed, true);
  const moments = Array.from({ length: count }, () => from + chance.whole(frames)).sort((a, b) => a - b);
  return moments.flatMap((frame) => deed(chance, frame).map((instruction) => at(frame, instruction)));
}

/**
 * A performance of everything the engine can be told, the same for the same seed. Every call makes new arrays: the engine
 * adopts those that it is given.
 * @param frames how long, at 48 kHz
 * @param count how many things are done
 * @param movesAll see `Chance`
 */
export function randomPerformance(seed: number, frames = 72000, count = 90, movesAll = false): Performance {
  const chance = new Chance(seed, movesAll);
  const commands = beginning(chance).map((instruction) => at(0, instruction));
  commands.push(at(0, { type: 'sample', sample: samples[0]! }));
  const comes = at(chance.whole(frames), { type: 'sample', sample: samples[1]! });
  const moments = Array.from({ length: count }, () => chance.whole(frames)).sort((a, b) => a - b);
  for (const frame of moments) commands.push(...deed(chance, frame).map((instruction) => at(frame, instruction)));
  const later = commands.findIndex(({ frame }) => frame > comes.frame);
  commands.splice(later < 0 ? commands.length : later, 0, comes);
  const blocks: number[] = [];
  for (let done = 0; done < frames;) {
    const block = Math.min(frames - done, chance.of([1, 7, 64, 128, 128, 128, 333, 997, 4096]));
    blocks.push(block);
    done += block;
  }
  return { commands, frames, blocks };
}
