import { softClip } from '../math';
import { LEFT_AT, leftSound, RIGHT_AT, rightSound } from './sampleReader';
import { instantiate, soundMemory, tableRoom, takeBytes } from './soundMemory';
import { MAX_STRETCH } from './stretch';
import type { VoiceBus } from './voiceBus';
import { VOICE_LOOPS_WASM } from './voiceLoopsWasm';

interface Exports {
  mix(frames: number, sound: number, left: number, right: number, send: number, gains: number): void; // prettier-ignore
  mixSides(frames: number, middle: number, sides: number, left: number, right: number, send: number, gains: number): void; // prettier-ignore
  add(frames: number, from: number, to: number, gain: number): void;
  saturate(frames: number, sound: number, gains: number): void;
  modes4(frames: number, lanes: number, to: number): void;
  noise4(frames: number, numbers: number, to: number): void;
  attack2(frames: number, lanes: number, from0: number, from1: number, to0: number, to1: number): void;
  layers2(frames: number, lanes: number, from0: number, from1: number, to0: number, to1: number): void;
  layers4(frames: number, lanes: number, from0: number, from1: number, from2: number, from3: number, to0: number, to1: number, to2: number, to3: number): void; // prettier-ignore
}

const fast = instantiate<Exports>(VOICE_LOOPS_WASM);

/** Filters and modes can be rendered side by side: as many as there are lanes. */
export const isSideBySide = fast !== null;
export const LANES = 4;

// --- levels ---------------------------------------------------------------------------------------------------

const GAINS_AT = takeBytes(8 * 3);
/**
 * How loud a sound goes to a bus: left, right and to the room; or the gains before and after the saturation. They are written, not handed
 * over: a number that is handed over by itself may take memory each time.
 */
export const gains = new Float64Array(soundMemory, GAINS_AT, 3);

/** Adds `leftSound` from `at` on to a bus, from `to` on. */
export function mix(at: number, bus: VoiceBus, to: number, frames: number): void {
  if (!fast) return mixSlowly(at, bus, to, frames);
  const from = 8 * at;
  const into = 8 * to;
  fast.mix(frames, LEFT_AT + from, bus.leftAt + into, bus.rightAt + into, bus.sendAt + into, GAINS_AT); // prettier-ignore
}

export function mixSlowly(at: number, { left, right, send }: VoiceBus, to: number, frames: number): void {
  for (let i = 0; i < frames; i++) {
    const y = leftSound[at + i]!;
    left[to + i]! += y * gains[0]!;
    right[to + i]! += y * gains[1]!;
    send[to + i]! += y * gains[2]!;
  }
}

/** Adds a middle, `leftSound`, and its sides, `rightSound`: left is their sum, right their difference, and both go to the room. */
export function mixSides(at: number, bus: VoiceBus, to: number, frames: number): void {
  if (!fast) return mixSidesSlowly(at, bus, to, frames);
  const from = 8 * at;
  const into = 8 * to;
  fast.mixSides(frames, LEFT_AT + from, RIGHT_AT + from, bus.leftAt + into, bus.rightAt + into, bus.sendAt + into, GAINS_AT); // prettier-ignore
}

export function mixSidesSlowly(at: number, { left, right, send }: VoiceBus, to: number, frames: number): void {
  for (let i = 0; i < frames; i++) {
    const l = (leftSound[at + i]! + rightSound[at + i]!) * gains[0]!;
    const r = (leftSound[at + i]! - rightSound[at + i]!) * gains[1]!;
    left[to + i]! += l;
    right[to + i]! += r;
    send[to + i]! += (l + r) * gains[2]!;
  }
}

/** Adds the first frames of a bus to another one, by the first of the gains. */
export function addBus(from: VoiceBus, to: VoiceBus, frames: number): void {
  if (!fast) return addBusSlowly(from, to, frames);
  fast.add(frames, from.leftAt, to.leftAt, GAINS_AT);
  fast.add(frames, from.rightAt, to.rightAt, GAINS_AT);
  fast.add(frames, from.sendAt, to.sendAt, GAINS_AT);
}

export function addBusSlowly(from: VoiceBus, to: VoiceBus, frames: number): void {
  const gain = gains[0]!;
  for (let i = 0; i < frames; i++) {
    to.left[i]! += from.left[i]! * gain;
    to.right[i]! += from.right[i]! * gain;
    to.send[i]! += from.send[i]! * gain;
  }
}

/** Saturates the first frames of `leftSound` in place; where they are odd, perhaps the next one, too. */
export function saturate(frames: number): void {
  if (frames === 0) return;
  if (!fast) return saturateSlowly(frames);
  fast.saturate(frames, LEFT_AT, GAINS_AT);
}

export function saturateSlowly(frames: number): void {
  const drive = gains[0]!;
  const makeUp = gains[1]!;
  for (let i = 0; i < frames; i++) leftSound[i] = softClip(leftSound[i]! * drive) * makeUp;
}

// --- modes ----------------------------------------------------------------------------------------------------

const MODE_NUMBERS = 6 * LANES + 5;
const MODE_LANES_AT = takeBytes(8 * MODE_NUMBERS);
/**
 * Modes that are rendered next: of each number as many as there are lanes, one after another; then what they share. STEP is the turn by a frame
 * before the sweep, which begins anew with each look.
 */
export const modeLanes = new Float64Array(soundMemory, MODE_LANES_AT, MODE_NUMBERS);
export const [SINE, COSINE, TURN_SINE, TURN_COSINE, STEP, DECAY] = [0, LANES, 2 * LANES, 3 * LANES, 4 * LANES, 5 * LANES] as const; // prettier-ignore
export const [ATTACK, ATTACK_STEP, SWEEP, SWEEP_DECAY, UNTIL_LOOK] = [6 * LANES, 6 * LANES + 1, 6 * LANES + 2, 6 * LANES + 3, 6 * LANES + 4] as const; // prettier-ignore

/**
 * Adds the modes of all lanes to `leftSound`, from `from` on, and lets the sweep go on; a lane of zeros adds nothing. Needs `isSideBySide`.
 * @param frames at least 1
 */
export function renderModes(from: number, frames: number): void {
  fast!.modes4(frames, MODE_LANES_AT, LEFT_AT + 8 * from);
}

// --- layers ---------------------------------------------------------------------------------------------------

/** Of the numbers of a layer, as many as there are lanes: b0, b1, b2, a1, a2, envelope, decay, x1, x2, y1, y2, attack and its growth with a frame. */
export const LAYER_NUMBERS = 13;
const LAYER_LANES_AT = takeBytes(8 * LAYER_NUMBERS * LANES);
/** Layers that are rendered next. */
export const layerLanes = new Float64Array(soundMemory, LAYER_LANES_AT, LAYER_NUMBERS * LANES);
/** Room for what each lane reads, where it is made first; and for the noise of all lanes, one stretch after another. */
export const layerRooms = Array.from({ length: LANES }, () => tableRoom(MAX_STRETCH));
const NOISE_AT = takeBytes(4 * LANES * MAX_STRETCH);
const NUMBERS_AT = takeBytes(4 * LANES);
/** What the noise of each lane is drawn from; 0 for a lane without. */
export const layerNoise = new Int32Array(soundMemory, NUMBERS_AT, LANES);
/** Where each lane reads, and the sound that it is added to; in bytes. */
export const layerFrom = new Int32Array(LANES);
export const layerTo = new Int32Array(LANES);

/** Where the noise of a lane will be, in bytes. */
export function noiseAt(lane: number): number {
  return NOISE_AT + 4 * MAX_STRETCH * lane;
}

/**
 * Makes the noise of the lanes that have it, filters what all of them read, and adds it to their sounds in the order of the lanes.
 * Needs `isSideBySide`.
 * @param lanes 2 or 4
 * @param frames at least 1
 * @param attack for how many of them the attack of a layer goes on, at most
 */
export function renderLayers(lanes: number, frames: number, attack: number): void {
  const from = layerFrom;
  const to = layerTo;
  const numbers = layerNoise;
  const isNoisy = (numbers[0]! | numbers[1]! | (lanes === 2 ? 0 : numbers[2]! | numbers[3]!)) !== 0;
  if (isNoisy) fast!.noise4(frames, NUMBERS_AT, NOISE_AT);
  if (attack > 0) renderAttacks(lanes, Math.min(attack, frames));
  if (attack >= frames) return;
  if (attack > 0) frames -= attack;
  if (lanes === 2) fast!.layers2(frames, LAYER_LANES_AT, from[0]!, from[1]!, to[0]!, to[1]!);
  else fast!.layers4(frames, LAYER_LANES_AT, from[0]!, from[1]!, from[2]!, from[3]!, to[0]!, to[1]!, to[2]!, to[3]!); // prettier-ignore
}

/** Renders the first frames of layers, and goes on to where they end. */
function renderAttacks(lanes: number, frames: number): void {
  const from = layerFrom;
  const to = layerTo;
  for (let lane = 0; lane < lanes; lane += 2) {
    fast!.attack2(frames, LAYER_LANES_AT + 8 * lane, from[lane]!, from[lane + 1]!, to[lane]!, to[lane + 1]!);
  }
  for (let lane = 0; lane < lanes; lane++) {
    from[lane]! += 4 * frames;
    to[lane]! += 8 * frames;
  }
}
