import type { HeldControl } from '../document/moves';
import type { SongClock } from './lfoVoice';
import { decibels, exp2, hash } from '../math';
import type { PreparedSample } from '../sample/levels';
import { NO_PATCH, type Patch } from './patch';
import { leftSound, rightSound } from './sampleReader';
import { differs, newTouch } from './touch';
import { VoiceFilter } from './voiceFilter';
import type { VoiceBus } from './voiceBus';
import { VoiceGains } from './voiceGains';
import { isStruck, VoiceSource } from './voiceSource';
import { PLAIN, type Shape } from './shape';
import { VoiceWaves } from './voiceWaves';

/** Frames between two looks at the waves, counted from frame 0: fifteen hundred steps a second are a glide to the ear. */
const CONTROL_FRAMES = 32;
/** And where there are no waves, and only the end of what rings in the filter is waited for. */
const STILL_FRAMES = 128;
/** A sound that is held only as long as its pad ends so softly when it is let go. */
const RELEASE_SECONDS = 0.02;
/** How much strokes differ at full variation: octaves of decay and of cutoff, dB. */
const VARIATION = { decay: 0.18, filter: 0.08, level: 0.6 };
/** Octaves by which a full stroke rings longer than the softest. */
const HARD_RINGS = 0.3;

/** Which pad is struck, and how hard. */
export interface PadStroke {
  track: number;
  pad: number;
  /** 0..1 */
  velocity: number;
}

/** Velocity, by how much it matters to the sound. */
function feltBy(velocity: number, response: number): number {
  return Math.min(1, Math.max(0, 1 + (velocity - 1) * response));
}

/** Hands feel loudness roughly as the square of velocity; a linear part keeps ghost notes audible. */
function gainOf(velocity: number): number {
  return velocity * (0.3 + 0.7 * velocity);
}

/** One stroke of one pad, from its trigger to silence. Lives in a pool; starting it allocates nothing. */
export class DrumVoice {
  active = false;
  /** When it began, for stealing the oldest. */
  startFrame = 0;
  track = 0;
  pad = 0;
  /** With which it was struck, 0..1. */
  velocity = 0;
  /** The pad whose key holds it: another one where a pad also plays this one. */
  key = 0;
  /** Voices of one track and group cut each other off; 0 is none. */
  cutGroup = 0;
  /** True once the voice is fading out. */
  fading = false;
  /** MIDI note that was struck, with the stroke's own pitch; NaN for drums. */
  note = NaN;
  /** A note that is held, until the song tick or the frame at which it is let go: Infinity for as long as a key is down. */
  held = false;
  offTick = Infinity;
  offFrame = Infinity;

  private readonly source: VoiceSource;
  private readonly filter = new VoiceFilter();
  private readonly rightFilter = new VoiceFilter();
  private readonly waves: VoiceWaves;
  private readonly touch = newTouch();
  private patch: Patch = NO_PATCH;
  private readonly gains = new VoiceGains();
  private fade = 1;
  private fadeStep = 0;
  private attack = 1;
  private attackStep = 0;
  /** What the stroke has without any wave. */
  private level = 0;
  private pan = 0;
  private cutoff = 0;
  private isFiltered = false;
  /** The next frame to be rendered, and frames until the waves are looked at again. */
  private frame = 0;
  private untilControl = 0;

  constructor(private readonly sampleRate: number) {
    this.source = new VoiceSource(sampleRate);
    this.waves = new VoiceWaves(sampleRate);
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
    this.patch = patch;
    this.active = true;
    this.fading = false;
    this.held = patch.tone !== null || patch.isHeld;
    this.offTick = Infinity;
    this.offFrame = Infinity;
    this.fade = 1;
    this.fadeStep = 0;
    this.startFrame = frame;
    this.frame = frame;
    this.untilControl = 0;
    this.track = track;
    this.pad = pad;
    this.velocity = velocity;
    this.key = pad;
    this.gains.room = Math.min(1, Math.max(0, patch.room + shape.room));
    this.note = shape.note + shape.pitch;
    // A note has an attack of its own.
    this.attack = patch.attack > 0 && !patch.tone ? 0 : 1;
    this.attackStep = patch.attack > 0 ? 1 / (patch.attack * this.sampleRate) : 0;

    const { touch } = this;
    touch.variation = patch.variation;
    // Without variation each stroke is the same as the last.
    touch.seed = hash(patch.variation > 0 ? frame : 0, track * 64 + pad, 1);
    const waved = this.waves.start(patch.lfos, frame, track * 64 + pad, clock);
    const decay = shape.decay + patch.decay + waved;
    const felt = feltBy(velocity, patch.response);
    const pitch = shape.pitch + patch.pitch;
    touch.velocity = felt;
    touch.gain = gainOf(felt);
    touch.pitch = exp2(pitch / 12);
    touch.filter = exp2(shape.filter + VARIATION.filter * differs(touch, 2));
    const longer = VARIATION.decay * differs(touch, 3);
    touch.longer = exp2(decay + (isStruck(patch) ? HARD_RINGS * (felt - 1) : 0) + longer);
    touch.hold = patch.hold;
    this.source.start(patch, touch, shape, pitch, track * 64 + pad, frame, sample);

    // What rings longer is softer, so that one stroke has as much energy as the next.
    this.level = patch.level * shape.level * decibels(VARIATION.level * differs(touch, 4)) * exp2(-longer / 2);
    this.pan = patch.pan + shape.pan;
    this.startFilter(shape, pitch, felt);
    this.gains.set(this.wavedLevel(), this.pan + this.waves.pan);
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
    if (this.source.isStereo) this.rightFilter.start(patch.filter, resonance);
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
    if (!this.source.isSoundingAt(this.frame) && (!this.isFiltered || this.isFilterQuiet)) this.active = false;
    if (this.isFiltered) this.tuneFilter(this.cutoff * exp2(waves.filter));
    if (waves.areStill) return;
    if (waves.movePitch) this.source.bend(exp2(waves.pitch / 12));
    waves.look(this.frame + frames, clock);
    if (waves.moveLevel) this.gains.moveTo(this.wavedLevel(), this.pan + waves.pan, frames);
  }

  private tuneFilter(cutoff: number): void {
    this.filter.tune(cutoff);
    if (this.source.isStereo) this.rightFilter.tune(cutoff);
  }

  private get isFilterQuiet(): boolean {
    return this.filter.isQuiet && (!this.source.isStereo || this.rightFilter.isQuiet);
  }

  private wavedLevel(): number {
    const { level } = this.waves;
    return level === 0 ? this.level : this.level * decibels(level);
  }

  // --- while it is held -------------------------------------------------------------------------------------

  /**
   * A note goes on as another one, that of another pad.
   * @param note MIDI note, with its stroke's own pitch
   * @param velocity of the new stroke; NaN: as loud as it was struck
   */
  slur(pad: number, note: number, velocity: number): void {
    const { patch } = this;
    this.pad = this.key = pad;
    this.note = note;
    this.source.slur(note + patch.pitch, Number.isNaN(velocity) ? NaN : gainOf(feltBy(velocity, patch.response)));
  }

  /** A control of its key is moved there: a note follows in a few ms. */
  move(control: HeldControl, value: number): void {
    this.source.move(control, value);
  }

  // --- the end ----------------------------------------------------------------------------------------------

  /** A note's key goes up. */
  letGo(): void {
    if (!this.held) return;
    this.held = false;
    this.offTick = Infinity;
    this.offFrame = Infinity;
    if (this.patch.tone) this.source.letGo();
    else this.fadeOut(RELEASE_SECONDS * this.sampleRate);
  }

  /** Another pad ends it: in the way of its kind. */
  cutOff(): void {
    this.fadeOut(this.patch.closes * this.sampleRate);
  }

  /** Fades to silence over `frames`; a voice already fading keeps the shorter way. */
  fadeOut(frames: number): void {
    const step = 1 / frames;
    this.fading = true;
    if (step > this.fadeStep) this.fadeStep = step;
  }

  // --- sound ------------------------------------------------------------------------------------------------

  /** Adds the next `frames` samples, at most MAX_STRETCH, to a bus, and their share to what it sends to the room. */
  render(bus: VoiceBus, frames: number, clock: SongClock): void {
    if (this.waves.areStill && !this.isFiltered) {
      this.source.render(frames);
      this.finish(0, bus, 0, frames);
      this.frame += frames;
      this.active = this.source.isSoundingAt(this.frame) && this.fade > 0;
      return;
    }
    // What bends the pitch has the source rendered from look to look; a tone and a sample say only then whether they are over.
    const isInPieces = this.waves.movePitch || !isStruck(this.patch);
    if (!isInPieces) this.source.render(frames);
    for (let from = 0; from < frames && this.active;) {
      if (this.untilControl === 0) this.control(clock);
      if (!this.active) return;
      const run = Math.min(frames - from, this.untilControl);
      if (isInPieces) this.source.render(run);
      this.finish(isInPieces ? 0 : from, bus, from, run);
      if (this.fade <= 0) this.active = false;
      this.frame += run;
      this.untilControl -= run;
      from += run;
    }
  }

  /** Takes samples from `at` on through filter and level into a bus, from `to` on. */
  private finish(at: number, bus: VoiceBus, to: number, frames: number): void {
    if (this.isFiltered) {
      this.filter.process(leftSound, at, frames);
      if (this.source.isStereo) this.rightFilter.process(rightSound, at, frames);
    }
    if (this.attack < 1 || this.fadeStep > 0) this.shapeLevel(at, frames);
    if (this.source.isStereo) this.gains.mixStereo(this.source.hasSides, at, bus, to, frames);
    else this.gains.mix(at, bus, to, frames);
  }

  /** The attack, and the fade of a voice that ends early. */
  private shapeLevel(at: number, frames: number): void {
    const { attackStep, fadeStep } = this;
    const { isStereo } = this.source;
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
