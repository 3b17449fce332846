import type { Launcher } from '../launch/launcher';
import type { Handlers } from '../protocol/commands';
import { DcBlocker } from '../sound/dcBlocker';
import { Limiter } from '../sound/limiter';
import type { Click } from '../sound/click';
import { MixBus } from '../sound/mix/mixBus';
import { RAMP_SECONDS, Strip } from '../sound/mix/strip';
import type { VoicePool } from '../sound/voicePool';
import { tickAt } from '../time/timeline';
import type { EventQueue } from '../protocol/events';
import { Meters } from './meters';
import type { Part } from './part';
import { Returns } from './returns';
import { TrackSounds } from './trackSounds';
import type { TrackTape } from './trackTape';
import type { Transport } from './transport';
import type { VoiceEnds } from './voiceEnds';
import { MAX_TRACKS } from '../document/limits';
import { RETURN_CONTROLS } from '../document/returns';
import {
  ANY_PAD,
  CHANNELS,
  FIRST_GROUP_CHANNEL,
  MAX_GROUPS,
  MIX_CONTROLS,
  MIX_RANGES,
  NO_KEY,
  TO_WHOLE,
  WHOLE_CHANNEL,
  type MixControl,
} from '../document/mix';

/** Places of all that can be moved: the controls of each channel, then those of the echo and the room. */
export const MOVED_RETURNS_FROM = CHANNELS * MIX_CONTROLS.length;
export const MOVED_PLACES = MOVED_RETURNS_FROM + RETURN_CONTROLS.length;

/** A strip is as loud as what comes in until it is told its level. */
const NEUTRALS = MIX_CONTROLS.map((control) => (control === 'level' ? 1 : MIX_RANGES[control].neutral));

const trackBus = new MixBus();
/** For pads of the track that go to a group of their own. */
const padBus = new MixBus();
const groupBuses = Array.from({ length: MAX_GROUPS }, () => new MixBus());
const mixBus = new MixBus();

/** What of the mix goes out. */
export interface Tap {
  /** Id of the only track that is heard, with its own share of the room; null: all of them. */
  track: number | null;
  /** Through the limiter, and with the click. Without them the tracks one by one add up to the whole. */
  limited: boolean;
}

/** Brings the voices together: the channels of tracks, groups and the whole mix, fade, room, echo, click, limiter. */
export class Mixer implements Part {
  /** Loudest output sample since it was last set to 0. */
  peak = 0;
  readonly meters: Meters;
  /** Where controls are moved to in the place of their settings; NaN where they are not. */
  readonly moved = new Float64Array(MOVED_PLACES).fill(NaN);
  /** What the controls of channels are set to. */
  private readonly settings = Float64Array.from({ length: MOVED_RETURNS_FROM }, (_, i) => NEUTRALS[i % NEUTRALS.length]!); // prettier-ignore
  private readonly strips: readonly Strip[];
  /** What has each channel duck: a track, and a pad of it or ANY_PAD. */
  private readonly keyTracks = new Int8Array(CHANNELS).fill(NO_KEY);
  private readonly keyPads = new Int8Array(CHANNELS);
  private isKeyed = false;
  /** The group that each track and each group goes to, or TO_WHOLE. */
  private readonly goesTo = new Int8Array(CHANNELS).fill(TO_WHOLE);
  /** Groups that something goes to, each before the one that it goes to. */
  private groups: number[] = [];
  private readonly sounds: TrackSounds;
  private readonly returns: Returns;
  private readonly limiter: Limiter;
  private readonly dcLeft: DcBlocker;
  private readonly dcRight: DcBlocker;
  private readonly rampStep: number;
  private tap: Tap = { track: null, limited: true };
  private isMixing = true;
  /** Gain of the fade where rendering stands. */
  private fadeGain = 1;

  constructor(
    sampleRate: number,
    private readonly transport: Transport,
    private readonly launcher: Launcher,
    private readonly voices: VoicePool,
    private readonly click: Click,
    events: EventQueue,
  ) {
    this.strips = Array.from({ length: CHANNELS }, () => new Strip(sampleRate));
    this.meters = new Meters(sampleRate, transport, events, this.strips);
    this.sounds = new TrackSounds(voices, this.strips);
    this.returns = new Returns(sampleRate, transport, this.moved.subarray(MOVED_RETURNS_FROM));
    this.commands = { ...this.ownCommands, ...this.returns.commands };
    this.limiter = new Limiter(sampleRate);
    this.dcLeft = new DcBlocker(sampleRate);
    this.dcRight = new DcBlocker(sampleRate);
    this.rampStep = 1 / (RAMP_SECONDS * sampleRate);
  }

  readonly commands: Handlers<'trackLevel' | 'channel' | 'duckedBy' | 'goesTo' | 'padGoesTo' | 'echo' | 'room'>;
  private readonly ownCommands: Handlers<'trackLevel' | 'channel' | 'duckedBy' | 'goesTo' | 'padGoesTo'> = {
    trackLevel: ({ track, level }) => this.set(track, 'level', level),
    channel: ({ channel, control, value }) => this.set(channel, control, value),
    duckedBy: ({ channel, track, pad }) => {
      this.keyTracks[channel] = track;
      this.keyPads[channel] = pad;
      this.isKeyed = this.keyTracks.some((key) => key !== NO_KEY);
    },
    goesTo: ({ channel, group }) => {
      this.goesTo[channel] = group;
      this.orderGroups();
    },
    padGoesTo: ({ track, pad, group }) => {
      this.sounds.send(track, pad, group);
      this.orderGroups();
    },
  };

  /**
   * A control is moved in the place of its setting; NaN: it goes back to that.
   * @param at place in `moved`
   */
  move(at: number, value: number): void {
    if (at >= MOVED_RETURNS_FROM) return this.returns.move(at - MOVED_RETURNS_FROM, value);
    this.moved[at] = value;
    const control = MIX_CONTROLS[at % MIX_CONTROLS.length]!;
    const strip = this.strips[Math.floor(at / MIX_CONTROLS.length)]!;
    strip.set(control, Number.isNaN(value) ? this.settings[at]! : value, this.transport.frame);
  }

  /** The group that a track goes to, or TO_WHOLE. */
  groupOf(track: number): number {
    return this.goesTo[track]!;
  }

  private set(channel: number, control: MixControl, value: number): void {
    const at = channel * MIX_CONTROLS.length + MIX_CONTROLS.indexOf(control);
    this.settings[at] = value;
    if (Number.isNaN(this.moved[at]!)) this.strips[channel]!.set(control, value, this.transport.frame);
  }

  trackRemoved(track: number): void {
    for (const control of MIX_CONTROLS) if (control !== 'level') this.set(track, control, MIX_RANGES[control].neutral);
    this.goesTo[track] = TO_WHOLE;
    this.sounds.trackRemoved(track);
    this.commands.duckedBy({ channel: track, track: NO_KEY, pad: ANY_PAD });
    this.orderGroups();
  }

  /** Groups that something goes to; one that goes to another comes before that. */
  private orderGroups(): void {
    const used = Array.from({ length: MAX_GROUPS }, (_, group) => group).filter(
      (group) => this.goesTo.includes(group) || this.sounds.hasPadsFor(group),
    );
    const isInner = (group: number) => this.goesTo[FIRST_GROUP_CHANNEL + group] !== TO_WHOLE;
    this.groups = [...used.filter(isInner), ...used.filter((group) => !isInner(group))];
  }

  /** From the next sample on something else goes out. */
  hear(tap: Tap): void {
    this.tap = tap;
    this.sounds.heard = tap.track;
  }

  /** From the next sample on nothing is mixed: the tracks go onto a tape. */
  writeTracks(tape: TrackTape): void {
    this.sounds.writeTo(tape);
    this.isMixing = false;
  }

  /** From the next sample on the tracks come from a tape. */
  readTracks(tape: TrackTape): void {
    this.sounds.readFrom(tape);
  }

  /** From the next sample on it is noted which voices end when. */
  learnEnds(ends: VoiceEnds): void {
    this.sounds.learnEnds(ends);
  }

  /** From the next sample on voices that are not heard end as another engine has learnt. */
  followEnds(ends: VoiceEnds): void {
    this.sounds.followEnds(ends);
  }

  /** Whether nothing is left to be heard, and every level has arrived: then it is as a new one. */
  get isSilent(): boolean {
    const { returns, limiter, dcLeft, dcRight, click } = this;
    const { frame } = this.transport;
    const settled = this.strips.every(
      (strip, channel) => strip.gain === this.targetOf(channel) && !strip.isAwake && strip.isUpAt(frame),
    );
    const quiet = returns.isSilent && dcLeft.isSilent && dcRight.isSilent && limiter.isSilent && click.isSilent;
    return settled && quiet && this.fadeGain === 1;
  }

  /** Every level is at once where it is to be. */
  arrive(): void {
    this.strips.forEach((strip, channel) => (strip.gain = this.targetOf(channel)));
  }

  /** Renders up to MAX_STRETCH frames into both outputs, from index `offset`. */
  render(outLeft: Float32Array, outRight: Float32Array, offset: number, frames: number): void {
    this.sounds.beginStretch();
    if (this.isKeyed) this.makeRoom(this.transport.frame);
    if (this.isMixing) this.mix(outLeft, outRight, offset, frames);
    else this.renderTracks(frames);
    this.sounds.endStretch(this.transport.frame + frames);
  }

  /** All that `mix` asks of the tracks, in its order. */
  private renderTracks(frames: number): void {
    for (let track = 0; track < MAX_TRACKS; track++) {
      this.sounds.render(trackBus, track, frames, this.transport.frame);
      if (!this.sounds.hasPadsApart(track)) continue;
      for (const group of this.groups) this.sounds.renderApart(padBus, track, group, frames);
    }
  }

  private mix(outLeft: Float32Array, outRight: Float32Array, offset: number, frames: number): void {
    const { left, right } = mixBus;
    const { frame } = this.transport;
    mixBus.clear(frames);
    for (const group of this.groups) groupBuses[group]!.clear(frames);
    for (let track = 0; track < MAX_TRACKS; track++) this.mixTrack(track, frames);
    for (const group of this.groups) this.renderGroup(group, frames);
    this.renderFade(frames);
    this.returns.process(mixBus, frames);
    const whole = this.strips[WHOLE_CHANNEL]!;
    whole.treat(mixBus, frames, frame);
    whole.bring(mixBus, this.targetOf(WHOLE_CHANNEL), frames);
    if (this.tap.limited) this.click.render(left, right, frames);
    this.dcLeft.process(left, frames);
    this.dcRight.process(right, frames);
    if (this.tap.limited) this.limiter.process(left, right, outLeft, outRight, offset, frames);
    else {
      outLeft.set(left.subarray(0, frames), offset);
      outRight.set(right.subarray(0, frames), offset);
    }
    if (this.meters.isOn) this.meters.lookOut(outLeft, outRight, offset, frames);
    for (let i = offset; i < offset + frames; i++) {
      const l = Math.abs(outLeft[i]!);
      const r = Math.abs(outRight[i]!);
      if (l > this.peak) this.peak = l;
      if (r > this.peak) this.peak = r;
    }
  }

  /** Channels that duck for a voice that begins do. */
  private makeRoom(frame: number): void {
    for (const voice of this.voices.voices) {
      if (!voice.active || voice.startFrame !== frame) continue;
      for (let channel = 0; channel < CHANNELS; channel++) {
        if (this.keyTracks[channel] !== voice.track) continue;
        const key = this.keyPads[channel]!;
        if (key === ANY_PAD || key === voice.pad) this.strips[channel]!.strike(voice.velocity, frame);
      }
    }
  }

  private targetOf(channel: number): number {
    const isHeard = channel >= MAX_TRACKS || this.launcher.live.heard[channel] === 1;
    return isHeard ? this.strips[channel]!.level : 0;
  }

  private mixTrack(track: number, frames: number): void {
    const strip = this.strips[track]!;
    const target = this.targetOf(track);
    const sounds = this.sounds.render(trackBus, track, frames, this.transport.frame);
    // Before its level moves: that of its pads goes the same way.
    if (this.sounds.hasPadsApart(track)) this.mixApart(track, target, frames);
    if (!sounds) {
      if (strip.gain === target) return;
      trackBus.clear(frames);
    }
    if (this.meters.isOn) this.meters.look(track, trackBus, strip.gain, frames);
    strip.mixInto(trackBus, this.busAfter(track), target, frames);
  }

  /** What of a track goes to a group of its own passes by its channel, and is as loud as the track is. */
  private mixApart(track: number, target: number, frames: number): void {
    const strip = this.strips[track]!;
    const { gain } = strip;
    for (const group of this.groups) {
      if (!this.sounds.renderApart(padBus, track, group, frames)) continue;
      if (this.meters.isOn) this.meters.look(track, padBus, gain, frames);
      strip.mixInto(padBus, groupBuses[group]!, target, frames);
      strip.gain = gain;
    }
  }

  private renderGroup(group: number, frames: number): void {
    const channel = FIRST_GROUP_CHANNEL + group;
    const strip = this.strips[channel]!;
    strip.treat(groupBuses[group]!, frames, this.transport.frame);
    if (this.meters.isOn) this.meters.look(channel, groupBuses[group]!, strip.gain, frames);
    strip.mixInto(groupBuses[group]!, this.busAfter(channel), this.targetOf(channel), frames);
  }

  private busAfter(channel: number): MixBus {
    const group = this.goesTo[channel]!;
    return group === TO_WHOLE ? mixBus : groupBuses[group]!;
  }

  /**
   * Everything but the click goes down between the fade's two ticks, evenly to the ear; taken back, it comes up again in a
   * short ramp. Sample by sample, so that it does not depend on how the output is cut.
   */
  private renderFade(frames: number): void {
    if (this.fadeGain === 1 && this.launcher.fadeFrom === Infinity) return;
    const { left, right, send, echo } = mixBus;
    let gain = this.fadeGain;
    for (let i = 0; i < frames; i++) {
      const target = this.fadeGainAt(this.transport.frame + i);
      gain = target > gain ? Math.min(target, gain + this.rampStep) : target;
      left[i]! *= gain;
      right[i]! *= gain;
      send[i]! *= gain;
      echo[i]! *= gain;
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
