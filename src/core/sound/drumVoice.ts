import { BodyVoice } from './bodyVoice';
import { LayerVoice } from './layerVoice';
import { exp2, hash, sinTurns, softClip } from '../math';
import type { Recipe } from './recipes';
import { ToneVoice } from './toneVoice';
import { newTouch } from './touch';

const MAX_LAYERS = 3;

/** How one stroke differs from its sound's recipe. */
export interface Shape {
  /** Semitones. */
  pitch: number;
  /** Octaves by which the filters' cutoff is moved. */
  filter: number;
  /** Octaves by which the decays are made longer. */
  decay: number;
  /** Linear gain. */
  level: number;
  /** -1..1, added to the sound's own place. */
  pan: number;
  /** Pitch of what plays notes, Hz; `pitch` is added to it. */
  hz: number;
}

export const PLAIN: Shape = { pitch: 0, filter: 0, decay: 0, level: 1, pan: 0, hz: 0 };

/** Which pad is struck, and how hard. */
export interface PadStroke {
  track: number;
  pad: number;
  /** 0..1 */
  velocity: number;
}

/** What voices are added to. */
export interface VoiceBus {
  readonly left: Float64Array;
  readonly right: Float64Array;
  /** To the room. */
  readonly send: Float64Array;
}

/** One stroke of one pad, from its trigger to silence. Lives in a pool; starting it allocates nothing. */
export class DrumVoice {
  active = false;
  /** When it began, for stealing the oldest. */
  startFrame = 0;
  track = 0;
  pad = 0;
  choke = 0;
  gainLeft = 0;
  gainRight = 0;
  room = 0;
  /** True once the voice is fading out. */
  fading = false;
  /** A note that is held, until the song tick or the frame at which it is let go: Infinity for as long as a key is down. */
  held = false;
  offTick = Infinity;
  offFrame = Infinity;

  private readonly body: BodyVoice;
  private readonly layers: readonly LayerVoice[];
  private readonly tone: ToneVoice;
  private readonly touch = newTouch();
  private layerCount = 0;
  private drive = 0;
  private makeUp = 1;
  private fade = 1;
  private fadeStep = 0;

  constructor(sampleRate: number) {
    this.body = new BodyVoice(sampleRate);
    this.layers = Array.from({ length: MAX_LAYERS }, () => new LayerVoice(sampleRate));
    this.tone = new ToneVoice(sampleRate);
  }

  /** @param frame at which it begins; its noise follows from it */
  start(recipe: Recipe, { track, pad, velocity }: PadStroke, frame: number, shape: Shape = PLAIN): void {
    this.active = true;
    this.fading = false;
    this.held = recipe.tone !== undefined;
    this.offTick = Infinity;
    this.offFrame = Infinity;
    this.fade = 1;
    this.fadeStep = 0;
    this.startFrame = frame;
    this.track = track;
    this.pad = pad;
    this.choke = recipe.choke;
    // Constant power: the two gains' squares add up to one.
    const pan = Math.min(1, Math.max(-1, recipe.pan + shape.pan));
    this.gainLeft = sinTurns((1 - pan) / 8) * recipe.level * shape.level;
    this.gainRight = sinTurns((1 + pan) / 8) * recipe.level * shape.level;
    this.room = recipe.room;
    this.drive = recipe.drive;
    this.makeUp = recipe.drive > 0 ? 1 / softClip(1 + recipe.drive) : 1;

    // Hands feel loudness roughly as the square of velocity; a linear part keeps ghost notes audible.
    const { touch } = this;
    touch.velocity = velocity;
    touch.gain = velocity * (0.3 + 0.7 * velocity);
    touch.pitch = exp2(shape.pitch / 12);
    touch.filter = exp2(shape.filter);
    touch.longer = exp2(shape.decay);
    if (recipe.body) this.body.start(recipe.body, touch);
    else this.body.left = 0;
    if (recipe.tone) this.tone.start(recipe.tone, shape.hz * touch.pitch, touch);
    else this.tone.sounding = false;
    this.layerCount = Math.min(MAX_LAYERS, recipe.layers.length);
    for (let i = 0; i < this.layerCount; i++) {
      const seed = hash(frame, track * 64 + pad, i);
      this.layers[i]!.start(recipe.layers[i]!, touch, seed);
    }
  }

  /** A note's key goes up. */
  letGo(): void {
    if (!this.held) return;
    this.held = false;
    this.offTick = Infinity;
    this.offFrame = Infinity;
    this.tone.letGo();
  }

  /** Fades to silence over `frames`; a voice already fading keeps the shorter way. */
  fadeOut(frames: number): void {
    const step = 1 / frames;
    this.fading = true;
    if (step > this.fadeStep) this.fadeStep = step;
  }

  /**
   * Adds the next `frames` samples to a bus, and their share to what it sends to the room.
   * @param mono room to work in
   */
  render(mono: Float64Array, bus: VoiceBus, frames: number, metal: Float64Array): void {
    mono.fill(0, 0, frames);
    if (this.body.left > 0) this.body.render(mono, frames);
    let sounding = this.body.left > 0;
    if (this.tone.sounding) {
      this.tone.render(mono, frames);
      sounding = this.tone.sounding;
    }
    for (let l = 0; l < this.layerCount; l++) {
      const layer = this.layers[l]!;
      if (layer.left > 0) layer.render(mono, frames, metal);
      if (layer.left > 0) sounding = true;
    }
    this.mixInto(bus, mono, frames);
    this.active = sounding && this.fade > 0;
  }

  /** Drives, fades and pans the voice into a bus, in one pass. */
  private mixInto({ left, right, send }: VoiceBus, mono: Float64Array, frames: number): void {
    const { gainLeft, gainRight, fadeStep, makeUp } = this;
    const toRoom = this.room * (gainLeft + gainRight) * 0.5;
    const amount = this.drive > 0 ? 1 + this.drive : 0;
    let { fade } = this;
    for (let i = 0; i < frames; i++) {
      let y = mono[i]!;
      if (amount > 0) y = softClip(y * amount) * makeUp;
      if (fadeStep > 0) {
        fade -= fadeStep;
        y *= fade > 0 ? fade : 0;
      }
      left[i]! += y * gainLeft;
      right[i]! += y * gainRight;
      send[i]! += y * toRoom;
    }
    this.fade = fade;
  }
}
