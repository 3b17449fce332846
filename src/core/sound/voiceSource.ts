import type { HeldControl } from '../document/moves';
import { BodyVoice } from './bodyVoice';
import { Drive } from './drive';
import { emptyLane, LayerVoice } from './layerVoice';
import { Evenness } from './evenness';
import { decibels, hash, softClip } from '../math';
import type { PreparedSample } from '../sample/levels';
import { NO_PATCH, type Patch } from './patch';
import { leftSound, rightSound } from './sampleReader';
import { SampleVoice } from './sampleVoice';
import type { Tone, ToneTurns } from './tone';
import { isWide, ToneVoice } from './toneVoice';
import type { Shape } from './shape';
import type { Touch } from './touch';
import { gains, isSideBySide, renderLayers, saturate } from './voiceLoops';

const MAX_LAYERS = 4;
/** A body whose highest tone lies below this is saturated plainly, Hz: its harmonics up there are too weak to be heard folded. */
const FOLDS_ABOVE_HZ = 1000;

/** Whether it is a made drum. */
export function isStruck({ sample, tone }: Patch): boolean {
  return !sample && !tone;
}

/** The gain into the saturation, moved by some dB: below 0 dB there is none. */
function driven(gain: number, dB: number): number {
  if (dB === 0) return gain;
  const moved = decibels(dB) * (gain > 0 ? gain : 1);
  return moved > 1 ? moved : 0;
}

/** What of a voice sounds: a sample, a note, or body and layers, and its saturation. It goes to the work buffers `leftSound` and `rightSound`. */
export class VoiceSource {
  /** There are two channels: left and right, or of what is made and has layers at its sides, the middle and what is at the sides. */
  isStereo = false;
  hasSides = false;

  private readonly body: BodyVoice;
  private readonly layers: readonly LayerVoice[];
  private readonly tone: ToneVoice;
  private readonly sample: SampleVoice;
  private readonly evenness: Evenness;
  private readonly leftDrive = new Drive();
  private readonly rightDrive = new Drive();
  private patch: Patch = NO_PATCH;
  /** Those that are rendered side by side. */
  private readonly beside: LayerVoice[];
  private layerCount = 0;
  /** Those from here on do not go through the saturation. */
  private firstClean = 0;
  /** Gain into the saturation, 0 for none; and of what is saturated plainly, the gain after it. */
  private drive = 0;
  private makeUp = 1;
  private isPlain = false;
  /** Frame at which the last part of a drum is silent, and frames until then. */
  private end = 0;
  private left = 0;

  constructor(sampleRate: number) {
    this.body = new BodyVoice(sampleRate);
    this.layers = Array.from({ length: MAX_LAYERS }, () => new LayerVoice(sampleRate));
    this.beside = [...this.layers];
    this.tone = new ToneVoice(sampleRate);
    this.evenness = new Evenness(sampleRate);
    this.sample = new SampleVoice(sampleRate);
  }

  /**
   * @param pitch semitones by which it is struck higher
   * @param place tells pads from each other: each has noise of its own
   * @param frame at which it begins
   */
  start(
    patch: Patch,
    touch: Touch,
    shape: Shape,
    pitch: number,
    place: number,
    frame: number,
    sample: PreparedSample | null,
  ): void {
    const { body, tone, turns } = patch;
    this.patch = patch;
    this.sample.sounding = false;
    if (sample && patch.sample) this.sample.start(sample, patch.sample, touch, shape.start);
    if (body) this.body.start(body, touch);
    else this.body.left = 0;
    this.hasSides = false;
    if (tone) this.startTone(tone, turns!, shape, pitch, touch, frame);
    else this.tone.sounding = false;
    const ringing = Math.max(this.body.left, this.startLayers(patch, touch, place));
    this.end = frame + ringing;
    this.left = ringing;
    this.isStereo = this.hasSides || (this.sample.sounding && this.sample.isStereo);
    this.startDrive(driven(patch.drive, shape.drive), touch.pitch);
  }

  /** @returns frames until the last of them is silent */
  private startLayers({ layers, firstClean }: Patch, touch: Touch, place: number): number {
    let left = 0;
    this.layerCount = Math.min(MAX_LAYERS, layers.length);
    this.firstClean = Math.min(firstClean, this.layerCount);
    for (let i = 0; i < this.layerCount; i++) {
      const layer = layers[i]!;
      const voice = this.layers[i]!;
      voice.start(layer, touch, hash(touch.seed, place, layer.place));
      left = Math.max(left, voice.left);
      if (layer.isSide) this.hasSides = true;
    }
    return left;
  }

  private startTone(tone: Tone, turns: ToneTurns, shape: Shape, pitch: number, touch: Touch, frame: number): void {
    const note = shape.note + pitch;
    this.tone.start(tone, turns, note, touch, frame, shape.pressure, shape.bright);
    this.evenness.start(tone.even, note);
    this.hasSides = isWide(tone, turns);
  }

  /** What rings high is saturated without folding; of a low body hardly anything folds, and in noise nobody hears it. */
  private startDrive(drive: number, pitch: number): void {
    const { tone, sample, highestHz } = this.patch;
    this.drive = drive;
    this.isPlain = !tone && !sample && highestHz * pitch < FOLDS_ABOVE_HZ;
    if (drive === 0) return;
    if (this.isPlain) this.makeUp = 1 / softClip(drive);
    else this.leftDrive.start(drive);
    if (this.isStereo && !this.hasSides) this.rightDrive.start(drive);
  }

  /** Told at a frame of a look: by then parts may have been rendered beyond it. */
  isSoundingAt(frame: number): boolean {
    if (this.patch.sample) return this.sample.sounding;
    return this.patch.tone ? this.tone.sounding : frame < this.end;
  }

  /** From the next sample on its pitch is so many times that at which it was struck. */
  bend(ratio: number): void {
    if (this.sample.sounding) this.sample.bend(ratio);
    if (this.body.left > 0) this.body.bend(ratio);
    if (this.tone.sounding) this.tone.bend(ratio);
    for (let i = 0; i < this.layerCount; i++) if (this.layers[i]!.left > 0) this.layers[i]!.bend(ratio);
  }

  /** A note goes on as another one. @param gain of the new stroke; NaN: as loud as it was struck */
  slur(note: number, gain: number): void {
    this.tone.slur(note, gain);
    this.evenness.slur(this.patch.tone!.even, note);
  }

  /** A control of the key of a note is moved there. */
  move(control: HeldControl, value: number): void {
    if (this.tone.sounding) this.tone.turn(control, value);
  }

  /** The key of a note goes up. */
  letGo(): void {
    this.tone.letGo();
  }

  /** The next samples go to the beginning of `leftSound` and, where there are two channels, of `rightSound`. */
  render(frames: number): void {
    const { patch, drive } = this;
    const isDrum = isStruck(patch);
    const sounded = this.renderSource(frames);
    // Beyond its end nothing may ring on in the saturation: where that is heard would depend on how the sound is cut into blocks.
    if (drive > 0) this.saturate(sounded);
    if (patch.tone) this.evenness.process(leftSound, this.hasSides ? rightSound : null, sounded);
    else if (isDrum && drive > 0) this.renderLayers(this.firstClean, this.layerCount, frames);
  }

  /** All that goes through the saturation, and what is at the sides. @returns how many frames until it is over */
  private renderSource(frames: number): number {
    if (this.sample.sounding) return this.sample.render(frames);
    leftSound.fill(0, 0, frames);
    if (this.isStereo) rightSound.fill(0, 0, frames);
    if (this.patch.tone) return this.renderTone(frames);
    if (!isStruck(this.patch)) return 0;
    if (this.body.left > 0) this.body.render(frames);
    this.renderLayers(0, this.drive > 0 ? this.firstClean : this.layerCount, frames);
    const sounded = Math.min(frames, this.left);
    this.left -= sounded;
    return sounded;
  }

  private renderTone(frames: number): number {
    const sounded = this.tone.sounding ? this.tone.render(leftSound, rightSound, frames) : 0;
    // What belongs to the stroke is as loud as its note.
    if (sounded > 0) this.renderLayers(0, this.layerCount, sounded);
    return sounded;
  }

  /** Adds some of the layers, in their order; side by side where nothing begins or ends in them. */
  private renderLayers(from: number, to: number, frames: number): void {
    let lanes = 0;
    for (let l = from; l < to; l++) {
      const layer = this.layers[l]!;
      if (layer.left === 0) continue;
      if (isSideBySide && layer.isEvenFor(frames)) {
        this.beside[lanes] = layer;
        layer.toLane(lanes++, frames);
        continue;
      }
      if (lanes > 0) this.renderLanes(lanes, frames);
      lanes = 0;
      layer.render(frames);
    }
    if (lanes > 0) this.renderLanes(lanes, frames);
  }

  private renderLanes(lanes: number, frames: number): void {
    if (lanes % 2 === 1) emptyLane(lanes);
    let attack = 0;
    for (let lane = 0; lane < lanes; lane++) attack = Math.max(attack, this.beside[lane]!.attackFrames);
    renderLayers(lanes + (lanes % 2), frames, attack);
    for (let lane = 0; lane < lanes; lane++) this.beside[lane]!.fromLane(lane, frames);
  }

  private saturate(frames: number): void {
    if (this.isPlain) return this.saturatePlainly(frames);
    this.leftDrive.process(leftSound, frames);
    // What a made sound has at its sides is not saturated.
    if (this.isStereo && !this.hasSides) this.rightDrive.process(rightSound, frames);
  }

  private saturatePlainly(frames: number): void {
    gains[0] = this.drive;
    gains[1] = this.makeUp;
    saturate(frames);
  }
}
