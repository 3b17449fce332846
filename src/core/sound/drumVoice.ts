import { BodyVoice } from './bodyVoice';
import { LayerVoice } from './layerVoice';
import type { SongClock } from './lfoVoice';
import { decibels, exp2, hash, softClip } from '../math';
import type { PreparedSample } from '../sample/levels';
import type { Patch } from './patch';
import { leftSound, rightSound } from './sampleReader';
import { SampleVoice } from './sampleVoice';
import { ToneVoice } from './toneVoice';
import { differs, newTouch } from './touch';
import { VoiceFilter } from './voiceFilter';
import { VoiceGains, type VoiceBus } from './voiceGains';
import { VoiceWaves } from './voiceWaves';

const MAX_LAYERS = 3;
/** Frames between two looks at the waves, counted from frame 0: fifteen hundred steps a second are a glide to the ear. */
const CONTROL_FRAMES = 32;
/** And where there are no waves, and only the end of what rings in the filter is waited for. */
const STILL_FRAMES = 128;
/** A sound that is held only as long as its pad ends so softly when it is let go. */
const RELEASE_SECONDS = 0.02;
/** How much strokes differ at full variation: octaves of decay and of cutoff, dB. */
const VARIATION = { decay: 0.05, filter: 0.08, level: 0.15 };

/** How one stroke differs from its sound. */
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
  /** dB more into the saturation, share more to the room, octaves by which the filter's quality factor is higher. */
  drive: number;
  room: number;
  resonance: number;
  /** Share of a sample by which it begins later. */
  start: number;
  /** MIDI note of what plays notes; `pitch` is added to it. NaN for drums. */
  note: number;
}

export const PLAIN: Shape = { pitch: 0, filter: 0, decay: 0, level: 1, pan: 0, drive: 0, room: 0, resonance: 0, start: 0, note: NaN }; // prettier-ignore

/** Which pad is struck, and how hard. */
export interface PadStroke {
  track: number;
  pad: number;
  /** 0..1 */
  velocity: number;
}

/** The gain into the saturation, moved by some dB: below 0 dB there is none. */
function driven(gain: number, dB: number): number {
  if (dB === 0) return gain;
  const moved = decibels(dB) * (gain > 0 ? gain : 1);
  return moved > 1 ? moved : 0;
}

/** One stroke of one pad, from its trigger to silence. Lives in a pool; starting it allocates nothing. */
export class DrumVoice {
  active = false;
  /** When it began, for stealing the oldest. */
  startFrame = 0;
  track = 0;
  pad = 0;
  /** The pad whose key holds it: another one where a pad also plays this one. */
  key = 0;
  /** Voices of one track and group cut each other off; 0 is none. */
  cutGroup = 0;
  /** True once the voice is fading out. */
  fading = false;
  /** A note that is held, until the song tick or the frame at which it is let go: Infinity for as long as a key is down. */
  held = false;
  offTick = Infinity;
  offFrame = Infinity;

  private readonly body: BodyVoice;
  private readonly layers: readonly LayerVoice[];
  private readonly tone: ToneVoice;
  private readonly sample: SampleVoice;
  private readonly filter = new VoiceFilter();
  private readonly rightFilter = new VoiceFilter();
  private readonly waves: VoiceWaves;
  private readonly touch = newTouch();
  private layerCount = 0;
  private patch!: Patch;
  private readonly gains = new VoiceGains();
  /** Gain into the saturation, 0 for none. */
  private drive = 0;
  private makeUp = 1;
  private fade = 1;
  private fadeStep = 0;
  private attack = 1;
  private attackStep = 0;
  /** What the stroke has without any wave. */
  private level = 0;
  private pan = 0;
  private cutoff = 0;
  private isFiltered = false;
  /** It has two channels, with a filter each. */
  private isStereo = false;
  /** Frame at which the last part of a drum is silent. */
  private sourceEnd = 0;
  /** The next frame to be rendered, and frames until the waves are looked at again. */
  private frame = 0;
  private untilControl = 0;

  constructor(private readonly sampleRate: number) {
    this.body = new BodyVoice(sampleRate);
    this.layers = Array.from({ length: MAX_LAYERS }, () => new LayerVoice(sampleRate));
    this.waves = new VoiceWaves(sampleRate);
    this.tone = new ToneVoice(sampleRate);
    this.sample = new SampleVoice(sampleRate);
  }

  /**
   * @param frame at which it begins; how it differs from others follows from it
   * @param sample what the patch names, if it plays one
   */
  start(
    patch: Patch,
    { track, pad, velocity }: PadStroke,
    frame: number,
    clock: SongClock,
    shape: Shape = PLAIN,
    sample: PreparedSample | null = null,
  ): void {
    const { recipe } = patch;
    this.patch = patch;
    this.active = true;
    this.fading = false;
    this.held = recipe.tone !== undefined || patch.isHeld;
    this.offTick = Infinity;
    this.offFrame = Infinity;
    this.fade = 1;
    this.fadeStep = 0;
    this.startFrame = frame;
    this.frame = frame;
    this.untilControl = 0;
    this.track = track;
    this.pad = pad;
    this.key = pad;
    this.drive = driven(patch.drive, shape.drive);
    this.makeUp = this.drive > 0 ? 1 / softClip(this.drive) : 1;
    this.gains.room = Math.min(1, Math.max(0, patch.room + shape.room));
    this.attack = patch.attack > 0 ? 0 : 1;
    this.attackStep = patch.attack > 0 ? 1 / (patch.attack * this.sampleRate) : 0;

    const { touch } = this;
    touch.variation = patch.variation;
    // Without variation each stroke is the same as the last.
    touch.seed = hash(patch.variation > 0 ? frame : 0, track * 64 + pad, 1);
    const waved = this.waves.start(patch.lfos, frame, track * 64 + pad, clock);
    const decay = shape.decay + patch.decay + waved;
    const felt = Math.min(1, Math.max(0, 1 + (velocity - 1) * patch.response));
    const pitch = shape.pitch + patch.pitch;
    touch.velocity = felt;
    // Hands feel loudness roughly as the square of velocity; a linear part keeps ghost notes audible.
    touch.gain = felt * (0.3 + 0.7 * felt);
    touch.pitch = exp2(pitch / 12);
    touch.filter = exp2(shape.filter + VARIATION.filter * differs(touch, 2));
    touch.longer = exp2(decay + VARIATION.decay * differs(touch, 3));
    touch.hold = patch.hold;
    this.startSource(shape, sample);

    this.level = patch.level * shape.level * decibels(VARIATION.level * differs(touch, 4));
    this.pan = patch.pan + shape.pan;
    this.startFilter(shape, pitch, felt);
    this.gains.set(this.wavedLevel(), this.pan + this.waves.pan);
  }

  private startSource({ note, start }: Shape, sample: PreparedSample | null): void {
    const { recipe } = this.patch;
    this.sample.sounding = false;
    if (sample && this.patch.sample) this.sample.start(sample, this.patch.sample, this.touch, start);
    this.isStereo = this.sample.sounding && this.sample.isStereo;
    const { touch, track, pad } = this;
    if (recipe.body) this.body.start(recipe.body, touch);
    else this.body.left = 0;
    if (recipe.tone) this.tone.start(recipe.tone, 440 * exp2((note - 69) / 12) * touch.pitch, touch);
    else this.tone.sounding = false;
    this.layerCount = Math.min(MAX_LAYERS, recipe.layers.length);
    for (let i = 0; i < this.layerCount; i++) {
      this.layers[i]!.start(recipe.layers[i]!, touch, hash(touch.seed, track * 64 + pad, i));
    }
    let left = this.body.left;
    for (let i = 0; i < this.layerCount; i++) left = Math.max(left, this.layers[i]!.left);
    this.sourceEnd = this.startFrame + left;
  }

  private startFilter(shape: Shape, pitch: number, velocity: number): void {
    const { patch } = this;
    this.isFiltered = patch.isFiltered;
    if (!this.isFiltered) return;
    const above = Number.isNaN(shape.note) ? pitch : pitch + shape.note - 60;
    const octaves = shape.filter + (patch.filterKey * above) / 12 + patch.filterVelocity * (velocity - 1);
    this.cutoff = (patch.cutoff * exp2(octaves)) / this.sampleRate;
    const resonance = Math.max(0.5, patch.resonance * exp2(shape.resonance));
    this.filter.start(patch.filter, resonance);
    if (this.isStereo) this.rightFilter.start(patch.filter, resonance);
  }

  // --- waves ------------------------------------------------------------------------------------------------

  /**
   * Pitch and filter are where the waves are now; level and pan go in a line to where they will be at the next look. Here, too, ends
   * what rings on in its filter: at a frame that does not depend on how the sound is cut into blocks.
   */
  private control(clock: SongClock): void {
    const { waves } = this;
    const every = waves.areStill ? STILL_FRAMES : CONTROL_FRAMES;
    const frames = every - (this.frame % every);
    this.untilControl = frames;
    if (!this.isSourceSounding && (!this.isFiltered || this.isFilterQuiet)) this.active = false;
    if (this.isFiltered) this.tuneFilter(this.cutoff * exp2(waves.filter));
    if (waves.areStill) return;
    if (waves.movePitch) this.bend(exp2(waves.pitch / 12));
    waves.look(this.frame + frames, clock);
    if (waves.moveLevel) this.gains.moveTo(this.wavedLevel(), this.pan + waves.pan, frames);
  }

  private tuneFilter(cutoff: number): void {
    this.filter.tune(cutoff);
    if (this.isStereo) this.rightFilter.tune(cutoff);
  }

  private get isFilterQuiet(): boolean {
    return this.filter.isQuiet && (!this.isStereo || this.rightFilter.isQuiet);
  }

  private bend(ratio: number): void {
    if (this.sample.sounding) this.sample.bend(ratio);
    if (this.body.left > 0) this.body.bend(ratio);
    if (this.tone.sounding) this.tone.bend(ratio);
    for (let i = 0; i < this.layerCount; i++) if (this.layers[i]!.left > 0) this.layers[i]!.bend(ratio);
  }

  /** Told at a frame of a look: by then parts may have been rendered beyond it. */
  private get isSourceSounding(): boolean {
    if (this.patch.sample) return this.sample.sounding;
    return this.patch.recipe.tone ? this.tone.sounding : this.frame < this.sourceEnd;
  }

  private wavedLevel(): number {
    const { level } = this.waves;
    return level === 0 ? this.level : this.level * decibels(level);
  }

  // --- the end ----------------------------------------------------------------------------------------------

  /** A note's key goes up. */
  letGo(): void {
    if (!this.held) return;
    this.held = false;
    this.offTick = Infinity;
    this.offFrame = Infinity;
    if (this.patch.recipe.tone) this.tone.letGo();
    else this.fadeOut(RELEASE_SECONDS * this.sampleRate);
  }

  /** Fades to silence over `frames`; a voice already fading keeps the shorter way. */
  fadeOut(frames: number): void {
    const step = 1 / frames;
    this.fading = true;
    if (step > this.fadeStep) this.fadeStep = step;
  }

  // --- sound ------------------------------------------------------------------------------------------------

  /** Adds the next `frames` samples, at most MAX_STRETCH, to a bus, and their share to what it sends to the room. */
  render(bus: VoiceBus, frames: number, metal: Float64Array, clock: SongClock): void {
    if (this.waves.areStill && !this.isFiltered) {
      this.renderSource(frames, metal);
      this.finish(0, bus, 0, frames);
      this.frame += frames;
      this.active = this.isSourceSounding && this.fade > 0;
      return;
    }
    // What bends the pitch has the source rendered from look to look; a tone and a sample say only then whether they are over.
    const { recipe, sample } = this.patch;
    const isInPieces = this.waves.movePitch || recipe.tone !== undefined || sample !== null;
    if (!isInPieces) this.renderSource(frames, metal);
    for (let from = 0; from < frames && this.active;) {
      if (this.untilControl === 0) this.control(clock);
      if (!this.active) return;
      const run = Math.min(frames - from, this.untilControl);
      if (isInPieces) this.renderSource(run, metal);
      this.finish(isInPieces ? 0 : from, bus, from, run);
      if (this.fade <= 0) this.active = false;
      this.frame += run;
      this.untilControl -= run;
      from += run;
    }
  }

  /** The next samples of what sounds go to the beginning of `leftSound` and, where there are two channels, `rightSound`. */
  private renderSource(frames: number, metal: Float64Array): void {
    if (this.sample.sounding) return this.sample.render(frames);
    leftSound.fill(0, 0, frames);
    if (this.isStereo) rightSound.fill(0, 0, frames);
    if (this.body.left > 0) this.body.render(leftSound, frames);
    if (this.tone.sounding) this.tone.render(leftSound, frames);
    for (let l = 0; l < this.layerCount; l++) {
      if (this.layers[l]!.left > 0) this.layers[l]!.render(leftSound, frames, metal);
    }
  }

  /** Takes samples from `at` on through filter, saturation and level into a bus, from `to` on. */
  private finish(at: number, bus: VoiceBus, to: number, frames: number): void {
    if (this.isStereo) return this.finishStereo(at, bus, to, frames);
    if (this.isFiltered) this.filter.process(leftSound, at, frames);
    if (this.drive > 0) this.saturate(leftSound, at, frames);
    if (this.attack < 1 || this.fadeStep > 0) this.shapeLevel(at, frames);
    this.gains.mix(leftSound, at, bus, to, frames);
  }

  private finishStereo(at: number, bus: VoiceBus, to: number, frames: number): void {
    if (this.isFiltered) {
      this.filter.process(leftSound, at, frames);
      this.rightFilter.process(rightSound, at, frames);
    }
    if (this.drive > 0) {
      this.saturate(leftSound, at, frames);
      this.saturate(rightSound, at, frames);
    }
    if (this.attack < 1 || this.fadeStep > 0) this.shapeLevel(at, frames);
    this.gains.mixStereo(leftSound, rightSound, at, bus, to, frames);
  }

  private saturate(sound: Float64Array, at: number, frames: number): void {
    const { makeUp, drive } = this;
    for (let i = at; i < at + frames; i++) sound[i] = softClip(sound[i]! * drive) * makeUp;
  }

  /** The attack, and the fade of a voice that ends early. */
  private shapeLevel(at: number, frames: number): void {
    const { attackStep, fadeStep, isStereo } = this;
    let { attack, fade } = this;
    for (let i = at; i < at + frames; i++) {
      if (attack < 1) attack = Math.min(1, attack + attackStep);
      fade -= fadeStep;
      const gain = attack * (fade > 0 ? fade : 0);
      leftSound[i]! *= gain;
      if (isStereo) rightSound[i]! *= gain;
    }
    this.attack = attack;
    this.fade = fade;
  }
}
