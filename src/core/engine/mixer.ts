import type { Launcher } from '../launch/launcher';
import type { Handlers } from '../protocol/commands';
import { DcBlocker } from '../sound/dcBlocker';
import { Limiter } from '../sound/limiter';
import { Room } from '../sound/room';
import type { Click } from '../sound/click';
import { VoiceBus } from '../sound/voiceBus';
import { addBus, gains } from '../sound/voiceLoops';
import type { VoicePool } from '../sound/voicePool';
import { tickAt } from '../time/timeline';
import type { Part } from './part';
import type { Transport } from './transport';
import { MAX_TRACKS } from '../document/limits';

const GAIN_RAMP_SECONDS = 0.01;

const trackBus = new VoiceBus();
const mixBus = new VoiceBus();

/** One track's way into the mix. */
class TrackBus {
  level = 1;
  gain = 1;
  /** Voices that ring in the stretch being rendered. */
  ringing = 0;
}

/** What of the mix goes out. */
export interface Tap {
  /** Id of the only track that is heard, with its own share of the room; null: all of them. */
  track: number | null;
  /** Through the limiter, and with the click. Without them the tracks one by one add up to the whole. */
  limited: boolean;
}

/** Brings the voices together: track levels, fade, room, click, limiter. */
export class Mixer implements Part {
  /** Loudest output sample since it was last set to 0. */
  peak = 0;
  private readonly tracks = Array.from({ length: MAX_TRACKS }, () => new TrackBus());
  private readonly room: Room;
  private readonly limiter: Limiter;
  private readonly dcLeft: DcBlocker;
  private readonly dcRight: DcBlocker;
  private readonly rampStep: number;
  private tap: Tap = { track: null, limited: true };
  /** Gain of the fade where rendering stands. */
  private fadeGain = 1;

  constructor(
    sampleRate: number,
    private readonly transport: Transport,
    private readonly launcher: Launcher,
    private readonly voices: VoicePool,
    private readonly click: Click,
  ) {
    this.room = new Room(sampleRate);
    this.limiter = new Limiter(sampleRate);
    this.dcLeft = new DcBlocker(sampleRate);
    this.dcRight = new DcBlocker(sampleRate);
    this.rampStep = 1 / (GAIN_RAMP_SECONDS * sampleRate);
  }

  readonly commands: Handlers<'trackLevel'> = {
    trackLevel: ({ track, level }) => {
      this.tracks[track]!.level = level;
    },
  };

  /** From the next sample on something else goes out. */
  hear(tap: Tap): void {
    this.tap = tap;
  }

  /** Whether nothing is left to be heard, and every level has arrived: then it is as a new one. */
  get isSilent(): boolean {
    const { room, limiter, dcLeft, dcRight, click } = this;
    const settled = this.tracks.every((track, index) => track.gain === this.targetOf(index));
    const quiet = room.isAsleep && dcLeft.isSilent && dcRight.isSilent && limiter.isSilent && click.isSilent;
    return settled && quiet && this.fadeGain === 1;
  }

  /** Every level is at once where it is to be. */
  arrive(): void {
    this.tracks.forEach((track, index) => (track.gain = this.targetOf(index)));
  }

  /** Renders up to MAX_STRETCH frames into both outputs, from index `offset`. */
  render(outLeft: Float32Array, outRight: Float32Array, offset: number, frames: number): void {
    const { left, right, send } = mixBus;
    mixBus.clear(frames);
    for (const track of this.tracks) track.ringing = 0;
    for (const voice of this.voices.voices) if (voice.active) this.tracks[voice.track]!.ringing++;
    for (let t = 0; t < this.tracks.length; t++) this.renderTrack(t, frames);
    this.renderFade(frames);
    this.room.process(send, left, right, frames, this.transport.frame);
    if (this.tap.limited) this.click.render(left, right, frames);
    this.dcLeft.process(left, frames);
    this.dcRight.process(right, frames);
    if (this.tap.limited) this.limiter.process(left, right, outLeft, outRight, offset, frames);
    else {
      outLeft.set(left.subarray(0, frames), offset);
      outRight.set(right.subarray(0, frames), offset);
    }
    for (let i = offset; i < offset + frames; i++) {
      const l = Math.abs(outLeft[i]!);
      const r = Math.abs(outRight[i]!);
      if (l > this.peak) this.peak = l;
      if (r > this.peak) this.peak = r;
    }
  }

  private targetOf(index: number): number {
    return this.launcher.live.heard[index] === 1 ? this.tracks[index]!.level : 0;
  }

  private renderTrack(index: number, frames: number): void {
    const track = this.tracks[index]!;
    const target = this.targetOf(index);
    if (track.ringing === 0 && track.gain === target) return;
    trackBus.clear(frames);
    for (const voice of this.voices.voices) {
      if (voice.active && voice.track === index) voice.render(trackBus, frames, this.voices.clock);
    }
    if (this.tap.track !== null && this.tap.track !== index) trackBus.clear(frames);
    this.mixTrack(track, target, frames);
  }

  /** Adds a track's bus to the mix through its level, which moves to a new one in a ramp. */
  private mixTrack(track: TrackBus, target: number, frames: number): void {
    if (track.gain === target) {
      gains[0] = target;
      return addBus(trackBus, mixBus, frames);
    }
    const { rampStep } = this;
    const { left, right, send } = mixBus;
    let { gain } = track;
    for (let i = 0; i < frames; i++) {
      if (gain < target) gain = Math.min(target, gain + rampStep);
      else if (gain > target) gain = Math.max(target, gain - rampStep);
      left[i]! += trackBus.left[i]! * gain;
      right[i]! += trackBus.right[i]! * gain;
      send[i]! += trackBus.send[i]! * gain;
    }
    track.gain = gain;
  }

  /**
   * Everything but the click goes down between the fade's two ticks, evenly to the ear; taken back, it comes up again in a
   * short ramp. Sample by sample, so that it does not depend on how the output is cut.
   */
  private renderFade(frames: number): void {
    if (this.fadeGain === 1 && this.launcher.fadeFrom === Infinity) return;
    const { left, right, send } = mixBus;
    let gain = this.fadeGain;
    for (let i = 0; i < frames; i++) {
      const target = this.fadeGainAt(this.transport.frame + i);
      gain = target > gain ? Math.min(target, gain + this.rampStep) : target;
      left[i]! *= gain;
      right[i]! *= gain;
      send[i]! *= gain;
    }
    this.fadeGain = gain;
  }

  private fadeGainAt(frame: number): number {
    const { fadeFrom, fadeTo } = this.launcher;
    if (fadeFrom === Infinity) return 1;
    const left = Math.min(1, Math.max(0, (fadeTo - tickAt(this.transport.now, frame)) / (fadeTo - fadeFrom)));
    return left * left;
  }
}
