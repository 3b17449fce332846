import { Click } from '../dsp/click';
import { DcBlocker } from '../dsp/dcBlocker';
import type { DrumVoice } from '../dsp/drumVoice';
import { Limiter, LIMITER_LATENCY } from '../dsp/limiter';
import { metalTable } from '../dsp/metal';
import { RECIPES, type Recipe } from '../dsp/recipes';
import { Room } from '../dsp/room';
import { VoicePool } from '../dsp/voicePool';
import { KITS, type KitId } from '../model/kits';
import { MAX_TRACKS, PADS } from '../model/set';
import { placeRecorded } from '../record/recordHit';
import { TrackPlayer } from '../sequence/trackPlayer';
import { framesPerTick, ticksPerBar, ticksPerBeat, type Meter } from '../time/ticks';
import { atTempo, frameAt, tickAt, Timeline, type Anchor } from '../time/timeline';
import type { Snap } from '../timing/place';
import { EVENT, EventQueue, type Command } from './protocol';

/** Longest stretch rendered at once; longer requests are cut. Events cut it too, so nothing depends on it. */
const CHUNK = 128;
/** Recorded strokes remembered so that they do not sound twice, and are not lost to a pattern message that crossed them. */
const STROKES_KEPT = 256;
/** Frames between two `state` events. */
const STATE_EVERY = 1024;
const GAIN_RAMP_SECONDS = 0.01;
/** Far below a frame at any tempo, far above the error of the arithmetic after days. */
const ROUNDING_TICKS = 1e-6;

/** One recorded stroke. */
interface Stroke {
  serial: number;
  track: number;
  id: number;
  pad: number;
  velocity: number;
  /** Song tick at which it would sound next had it not been heard live. */
  songTick: number;
  /** In the loop. */
  placed: number;
  struck: number;
}

/** A pad that is held down. */
interface HeldPad {
  id: number;
  songTick: number;
  recorded: boolean;
}

class Track {
  readonly player = new TrackPlayer();
  readonly held: (HeldPad | null)[] = new Array<HeldPad | null>(PADS).fill(null);
  recipes: readonly Recipe[] = recipesOf('polished-floor');
  gain = 1;
  targetGain = 1;
  /** Voices that ring in the stretch being rendered. */
  ringing = 0;
}

function recipesOf(kit: KitId): readonly Recipe[] {
  return KITS[kit].pads.map((pad) => RECIPES[pad.sound]);
}

/**
 * The instrument: it knows time, plays patterns, records hits and makes the sound. Commands go in, samples and events
 * come out. The same commands at the same frames give the same samples wherever it runs and however its output is cut into blocks.
 */
export class Engine {
  /** The next frame to be rendered. */
  frame = 0;
  readonly events = new EventQueue();
  /** Commands as they were applied, with their frames: played into a new engine they give the same samples. */
  readonly applied: Command[] = [];

  private readonly pending: Command[] = [];
  private readonly timeline: Timeline;
  private readonly tracks = Array.from({ length: MAX_TRACKS }, () => new Track());
  private readonly voices: VoicePool;
  private readonly click: Click;
  private readonly room: Room;
  private readonly limiter: Limiter;
  private readonly dcLeft: DcBlocker;
  private readonly dcRight: DcBlocker;
  private readonly metal: Float64Array;

  private meter: Meter = { beats: 4, unit: 4 };
  private tempo = 120;
  /** Song ticks up to which hits and clicks have been played. */
  private playedThrough = -1;
  private clickedThrough = -1;
  /** Where the count-in ends and the patterns begin. */
  private fromTick = 0;
  private metronome = { on: false, level: 0.7 };
  private session = 0;
  private grid = 240;
  private quantize = true;
  private readonly strokes: Stroke[] = [];
  private strokeSerial = 0;
  private untilState = 0;
  private peak = 0;

  private readonly mono = new Float64Array(CHUNK);
  private readonly busLeft = new Float64Array(CHUNK);
  private readonly busRight = new Float64Array(CHUNK);
  private readonly busSend = new Float64Array(CHUNK);
  private readonly left = new Float64Array(CHUNK);
  private readonly right = new Float64Array(CHUNK);
  private readonly send = new Float64Array(CHUNK);

  /** @param sampleRate frames per second */
  constructor(readonly sampleRate: number) {
    this.voices = new VoicePool(sampleRate);
    this.click = new Click(sampleRate);
    this.room = new Room(sampleRate);
    this.limiter = new Limiter(sampleRate);
    this.dcLeft = new DcBlocker(sampleRate);
    this.dcRight = new DcBlocker(sampleRate);
    this.metal = metalTable(sampleRate);
    this.timeline = new Timeline({
      frame: 0,
      tick: 0,
      framesPerTick: framesPerTick(this.tempo, sampleRate),
      playing: false,
      recording: false,
    });
  }

  /** Takes a command. A frame that has passed, or NOW, means the next sample. */
  post(command: Command): void {
    const [frame, ...instruction] = command;
    const due = [Math.max(frame, this.frame), ...instruction] as unknown as Command;
    let i = this.pending.length;
    while (i > 0 && this.pending[i - 1]![0] > due[0]) i--;
    this.pending.splice(i, 0, due);
  }

  /** Renders the next `frames` samples into both outputs, from index `offset`. */
  process(outLeft: Float32Array, outRight: Float32Array, frames = outLeft.length, offset = 0): void {
    let done = 0;
    while (done < frames) {
      let next = this.playDue();
      if (this.pending.length > 0 && this.pending[0]![0] <= this.frame) {
        while (this.pending.length > 0 && this.pending[0]![0] <= this.frame) this.apply(this.pending.shift()!);
        next = this.playDue();
      }
      const untilEvent = next - this.frame;
      const untilCommand = this.pending.length > 0 ? this.pending[0]![0] - this.frame : Infinity;
      const n = Math.min(frames - done, CHUNK, untilEvent, untilCommand);
      this.render(outLeft, outRight, offset + done, n);
      this.frame += n;
      done += n;
      this.reportState(n);
    }
  }

  /** Voices that sound now, those fading out included. */
  get ringing(): number {
    return this.voices.ringing;
  }

  // --- commands ---------------------------------------------------------------------------------------------

  private apply(command: Command): void {
    this.applied.push(command);
    switch (command[1]) {
      case 'play':
        return this.play(command[2], command[3]);
      case 'stop':
        return this.stop();
      case 'locate':
        if (!this.now.playing) this.lay({ ...this.now, frame: this.frame, tick: command[2] });
        return;
      case 'tempo':
        this.tempo = command[2];
        return this.lay(atTempo(this.now, this.frame, this.tempo, this.sampleRate));
      case 'meter':
        this.meter = { beats: command[2], unit: command[3] };
        return;
      case 'record':
        this.session = command[3];
        return this.lay({ ...this.now, frame: this.frame, tick: this.songTick, recording: command[2] });
      case 'quantize':
        this.grid = command[2];
        this.quantize = command[3];
        return;
      case 'metronome':
        this.metronome = { on: command[2], level: command[3] };
        // Beats that went by in silence are not made up for.
        if (this.now.playing) this.clickedThrough = Math.max(this.clickedThrough, Math.ceil(this.songTick) - 1);
        return;
      case 'kit':
        this.release(command[2]);
        this.voices.silence(command[2]);
        this.track(command[2]).recipes = recipesOf(command[3]);
        return;
      case 'track':
        this.track(command[2]).targetGain = command[4] ? 0 : command[3];
        return;
      case 'pattern':
        return this.loadPattern(command[2], command[3], command[4], command[5]);
      case 'padDown':
        return this.padDown(command[2], command[3], command[4], this.heardFrame(command[5]), command[6]);
      case 'padUp':
        return this.padUp(command[2], command[3], this.heardFrame(command[4]));
      case 'releaseAll':
        for (let t = 0; t < this.tracks.length; t++) this.release(t);
        return;
    }
  }

  /** Engine frame of what was heard at an output frame. Nothing can be heard before it is made. */
  private heardFrame(output: number): number {
    return Number.isFinite(output) ? Math.min(this.frame, output - LIMITER_LATENCY) : this.frame;
  }

  private get now(): Anchor {
    return this.timeline.now;
  }

  private get songTick(): number {
    return tickAt(this.now, this.frame);
  }

  private track(index: number): Track {
    return this.tracks[index]!;
  }

  private lay(anchor: Anchor): void {
    this.timeline.push(anchor);
    this.reportAnchor();
  }

  private play(startTick: number, countInTicks: number): void {
    if (this.now.playing) return;
    this.fromTick = startTick;
    this.playedThrough = Math.ceil(startTick) - 1;
    this.clickedThrough = Math.ceil(startTick - countInTicks) - 1;
    // Song ticks come round again: what was heard live the last time must sound this time.
    for (const stroke of this.strokes) stroke.songTick = NaN;
    this.lay({
      ...this.now,
      frame: this.frame,
      tick: startTick - countInTicks,
      framesPerTick: framesPerTick(this.tempo, this.sampleRate),
      playing: true,
    });
  }

  private stop(): void {
    if (!this.now.playing) return;
    const tick = this.songTick;
    for (let t = 0; t < this.tracks.length; t++) this.release(t);
    // Stopped within the count-in, nothing was played yet: the song stands where it was to begin.
    this.lay({ ...this.now, frame: this.frame, tick: Math.max(tick, this.fromTick), playing: false, recording: false });
  }

  private loadPattern(index: number, length: number, seen: number, hits: Float64Array): void {
    const { player } = this.track(index);
    player.load(length, hits);
    for (const s of this.strokes) {
      if (s.track === index && s.serial > seen) player.insert(s.placed, s.struck, s.pad, s.velocity, s.id);
    }
  }

  // --- pads -------------------------------------------------------------------------------------------------

  private padDown(index: number, pad: number, velocity: number, heardFrame: number, id: number): void {
    const track = this.track(index);
    this.padUp(index, pad, heardFrame);
    this.voices.trigger(track.recipes[pad]!, index, pad, velocity, this.frame);
    const struck = this.timeline.tickAt(heardFrame);
    const placed = this.record(index, pad, velocity, heardFrame, struck, id);
    track.held[pad] = { id, songTick: struck, recorded: placed !== null };
    this.events.push(EVENT.SOUNDED, this.frame, index, pad, velocity, id, 1, placed ?? NaN, struck);
  }

  /** Records a stroke if it was heard while recording. Returns the song tick at which it is placed, or null. */
  private record(
    index: number,
    pad: number,
    velocity: number,
    heardFrame: number,
    songTick: number,
    id: number,
  ): number | null {
    const { player } = this.track(index);
    const heard = this.timeline.at(heardFrame);
    if (!heard.playing || !heard.recording || player.length <= 0) return null;
    const snap: Snap | null = this.quantize ? { grid: this.grid, strength: 1 } : null;
    const from = this.fromTick - player.launchTick;
    const place = placeRecorded(songTick - player.launchTick, player.length, snap, this.grid, from);
    if (!place) return null;

    const placedInPass = place.placedFromLaunch - place.pass * player.length;
    const placed = placedInPass < 0 ? placedInPass + player.length : placedInPass;
    const stroke: Stroke = {
      serial: ++this.strokeSerial,
      track: index,
      id,
      pad,
      velocity,
      songTick: player.launchTick + place.placedFromLaunch,
      placed,
      struck: placed + place.struck - placedInPass,
    };
    this.strokes.push(stroke);
    if (this.strokes.length > STROKES_KEPT) this.strokes.shift();
    player.insert(placed, stroke.struck, pad, velocity, id);
    const grid = snap ? this.grid : 0;
    this.events.push(
      EVENT.RECORDED,
      this.frame,
      index,
      pad,
      velocity,
      id,
      place.struck,
      grid,
      this.session,
      place.pass,
      stroke.serial,
    );
    return stroke.songTick;
  }

  private padUp(index: number, pad: number, heardFrame: number): void {
    const track = this.track(index);
    const held = track.held[pad];
    if (!held) return;
    track.held[pad] = null;
    if (!held.recorded) return;
    const longest = Math.max(1, track.player.length);
    const length = Math.min(longest, Math.max(1, Math.round(this.timeline.tickAt(heardFrame) - held.songTick)));
    this.events.push(EVENT.RELEASED, this.frame, index, held.id, length);
  }

  private release(index: number): void {
    for (let pad = 0; pad < PADS; pad++) this.padUp(index, pad, this.frame);
  }

  // --- the song ---------------------------------------------------------------------------------------------

  /** Plays all that is due at this frame. Returns the frame of what comes next. */
  private playDue(): number {
    if (!this.now.playing) return Infinity;
    for (;;) {
      let hitTick = Infinity;
      for (const track of this.tracks) hitTick = Math.min(hitTick, track.player.nextTick(this.playedThrough));
      const clickTick = this.nextClick();
      const next = frameAt(this.now, Math.min(hitTick, clickTick));
      if (next > this.frame) {
        this.passBy();
        return next;
      }
      if (hitTick <= clickTick) this.playHits(hitTick);
      if (clickTick <= hitTick) this.playClick(clickTick);
    }
  }

  /** Counts every tick up to this frame as played, so that a hit that is recorded or drawn there waits for its next pass. */
  private passBy(): void {
    const through = Math.floor(tickAt(this.now, this.frame + 0.5) - ROUNDING_TICKS);
    if (through > this.playedThrough) this.playedThrough = through;
  }

  private playHits(songTick: number): void {
    for (let t = 0; t < this.tracks.length; t++) {
      const { player, recipes } = this.tracks[t]!;
      if (player.nextTick(this.playedThrough) !== songTick) continue;
      const { nextPassTick, nextIndex } = player;
      for (let i = nextIndex; i < player.count && nextPassTick + player.tick[i]! === songTick; i++) {
        const id = player.id[i]!;
        if (this.alreadyHeard(id, songTick)) continue;
        const pad = player.pad[i]!;
        const velocity = player.velocity[i]!;
        this.voices.trigger(recipes[pad]!, t, pad, velocity, this.frame);
        const struck = nextPassTick + player.struck[i]!;
        this.events.push(EVENT.SOUNDED, this.frame, t, pad, velocity, id, 0, songTick, struck);
      }
    }
    this.playedThrough = songTick;
  }

  /** Whether the hit was struck by hand for this very moment, and has sounded. */
  private alreadyHeard(id: number, songTick: number): boolean {
    for (const stroke of this.strokes) if (stroke.id === id && stroke.songTick === songTick) return true;
    return false;
  }

  private nextClick(): number {
    const beat = ticksPerBeat(this.meter);
    const next = (Math.floor(this.clickedThrough / beat) + 1) * beat;
    return this.metronome.on || next < this.fromTick ? next : Infinity;
  }

  private playClick(songTick: number): void {
    this.clickedThrough = songTick;
    this.click.start(songTick % ticksPerBar(this.meter) === 0, this.metronome.level);
  }

  // --- sound ------------------------------------------------------------------------------------------------

  private render(outLeft: Float32Array, outRight: Float32Array, offset: number, frames: number): void {
    const { left, right, send } = this;
    left.fill(0, 0, frames);
    right.fill(0, 0, frames);
    send.fill(0, 0, frames);
    for (const track of this.tracks) track.ringing = 0;
    for (const voice of this.voices.voices) if (voice.active) this.tracks[voice.track]!.ringing++;
    for (let t = 0; t < this.tracks.length; t++) this.renderTrack(t, frames);
    this.room.process(send, left, right, frames);
    this.click.render(left, right, frames);
    this.dcLeft.process(left, frames);
    this.dcRight.process(right, frames);
    this.limiter.process(left, right, outLeft, outRight, offset, frames);
    for (let i = offset; i < offset + frames; i++) {
      const l = Math.abs(outLeft[i]!);
      const r = Math.abs(outRight[i]!);
      if (l > this.peak) this.peak = l;
      if (r > this.peak) this.peak = r;
    }
  }

  private renderTrack(index: number, frames: number): void {
    const track = this.tracks[index]!;
    if (track.ringing === 0 && track.gain === track.targetGain) return;
    this.busLeft.fill(0, 0, frames);
    this.busRight.fill(0, 0, frames);
    this.busSend.fill(0, 0, frames);
    for (const voice of this.voices.voices) {
      if (!voice.active || voice.track !== index) continue;
      voice.render(this.mono, frames, this.metal);
      addVoice(this.mono, voice, this.busLeft, this.busRight, this.busSend, frames);
    }
    this.mixTrack(track, frames);
  }

  /** Adds the track's bus to the mix through its level, which moves to a new one in a ramp. */
  private mixTrack(track: Track, frames: number): void {
    const { busLeft, busRight, busSend, left, right, send } = this;
    const step = 1 / (GAIN_RAMP_SECONDS * this.sampleRate);
    let gain = track.gain;
    for (let i = 0; i < frames; i++) {
      if (gain < track.targetGain) gain = Math.min(track.targetGain, gain + step);
      else if (gain > track.targetGain) gain = Math.max(track.targetGain, gain - step);
      left[i]! += busLeft[i]! * gain;
      right[i]! += busRight[i]! * gain;
      send[i]! += busSend[i]! * gain;
    }
    track.gain = gain;
  }

  private reportAnchor(): void {
    const { frame, tick, framesPerTick: perTick, playing, recording } = this.now;
    this.events.push(EVENT.ANCHOR, frame, tick, perTick, playing ? 1 : 0, recording ? 1 : 0, this.fromTick);
  }

  private reportState(frames: number): void {
    this.untilState -= frames;
    if (this.untilState > 0) return;
    this.untilState += STATE_EVERY;
    this.events.push(EVENT.STATE, this.frame, this.songTick, this.voices.ringing, this.peak);
    this.peak = 0;
  }
}

/** Pans a voice into its track's bus and sends its share to the room. */
function addVoice(
  mono: Float64Array,
  voice: DrumVoice,
  left: Float64Array,
  right: Float64Array,
  send: Float64Array,
  frames: number,
): void {
  const { gainLeft, gainRight } = voice;
  const toRoom = voice.room * (gainLeft + gainRight) * 0.5;
  for (let i = 0; i < frames; i++) {
    const y = mono[i]!;
    left[i]! += y * gainLeft;
    right[i]! += y * gainRight;
    send[i]! += y * toRoom;
  }
}
