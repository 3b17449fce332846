import { Click } from '../sound/click';
import { DcBlocker } from '../sound/dcBlocker';
import type { DrumVoice, Shape } from '../sound/drumVoice';
import { Limiter, LIMITER_LATENCY } from '../sound/limiter';
import { metalTable } from '../sound/metal';
import { exp2 } from '../sound/math';
import { RECIPES, type Recipe } from '../sound/recipes';
import { Room } from '../sound/room';
import { TONE_RECIPES } from '../sound/toneRecipes';
import { VoicePool } from '../sound/voicePool';
import { LaunchState, SILENT } from '../launch/launchState';
import { Launcher } from '../launch/launcher';
import { KITS, type KitId } from '../document/kits';
import { MAX_TRACKS, PADS } from '../document/set';
import { placeRecorded, type RecordedPlace } from '../record/recordHit';
import { CLICK, clickStrength, nextClick } from '../sequence/metronome';
import { CONTROL_RANGES, CONTROLS, MOVE_TABLES, moveIndex, moveValue } from '../sequence/moves';
import { RepeatingPad } from '../sequence/noteRepeat';
import { isLucky } from '../sequence/odds';
import { REPEAT_RATES } from '../sequence/repeatRates';
import { rollPitch, rollVelocity, SoundingRoll } from '../sequence/roll';
import { HIT, SAME_TICKS, TrackPlayer } from '../sequence/trackPlayer';
import { framesPerTick, ticksPerBar, type Meter } from '../time/ticks';
import { atTempo, frameAt, tickAt, Timeline, type Anchor } from '../time/timeline';
import { gridTicks, nearestLine, nextLine } from '../quantize/grid';
import { placedTick, type Snap } from '../quantize/place';
import { EVENT, EventQueue, type Command } from './protocol';

/** Longest stretch rendered at once; longer requests are cut. Events cut it too, so nothing depends on it. */
const CHUNK = 128;
/** Recorded strokes remembered so that they do not sound twice, and are not lost to a pattern message that crossed them. */
const STROKES_KEPT = 256;
/** Frames between two `state` events. */
const STATE_EVERY = 2048;
const GAIN_RAMP_SECONDS = 0.01;
/** Rolls that may go on at once; one more makes the oldest end. */
const ROLLS = 64;
const [PITCH, FILTER, DECAY, LEVEL, PAN, RATE] = [0, 1, 2, 3, 4, 5] as const; // places in CONTROLS
const NEUTRAL = CONTROLS.map((control) => CONTROL_RANGES[control].neutral);
const RATE_TICKS = REPEAT_RATES.map(gridTicks);

/** One recorded stroke. */
interface Stroke {
  serial: number;
  track: number;
  slot: number;
  id: number;
  pad: number;
  velocity: number;
  pitch: number;
  length: number;
  /** Song tick at which it would sound next had it not been heard live. */
  songTick: number;
  /** In the loop. */
  placed: number;
  struck: number;
}

/** A stroke that is still held down. */
interface HeldPad {
  id: number;
  slot: number;
  songTick: number;
  heardFrame: number;
}

/** When the metronome clicks: places in CLICK_TIMES. */
const ALWAYS = 0;
const WHILE_RECORDING = 1;
const IN_COUNT_IN = 2;
/** Seconds between the clicks of the latency check: a calm 100 to the minute. */
const CHECK_SECONDS = 0.6;

class Track {
  /** What lies in its pattern slots, each where it was last used. */
  readonly slots: (TrackPlayer | null)[] = [];
  /** What plays while it is silent. */
  readonly silence = new TrackPlayer();
  slot = SILENT;
  player = this.silence;
  /** Song tick at which it took over, and what played before, for strokes that were heard then. */
  since = 0;
  readonly before = { player: this.silence, slot: SILENT, launchTick: 0 };
  readonly held: (HeldPad | null)[] = new Array<HeldPad | null>(PADS).fill(null);
  readonly repeats = Array.from({ length: PADS }, () => new RepeatingPad());
  /** Ticks between strokes of note repeat as the player has chosen them. */
  readonly rates = new Float64Array(PADS).fill(240);
  /** Where hands hold the pads' controls, NaN where they do not. */
  readonly turns = new Float64Array(MOVE_TABLES).fill(NaN);
  /** The loop window that waits for its slot, and the song tick at which it takes over; Infinity for none. */
  readonly coming = { slot: SILENT, start: 0, length: 0, tick: Infinity };
  /** One bit for each pad whose pattern hits are heard. */
  heardPads = 0xffff;
  kit: KitId = 'polished-floor';
  recipes: readonly Recipe[] = recipesOf('polished-floor');
  /** MIDI notes of its pads, when it plays notes; and semitones by which hands play higher. */
  notes: Float64Array | null = null;
  handPitch = 0;
  level = 1;
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
  private readonly launcher = new Launcher({
    span: (track, slot) => this.track(track).slots[slot]?.span ?? 0,
    start: (track, slot) => this.track(track).slots[slot]?.start ?? 0,
  });
  /** The launcher's state as the page was told it. */
  private readonly told = new LaunchState();
  private readonly toldLift = { lift: 0, liftTick: Infinity, fadeFrom: Infinity, fadeTo: Infinity };
  /** To look ahead in. */
  private readonly ahead = new LaunchState();
  /** Gain of the fade where rendering stands. */
  private fadeGain = 1;
  private ratio = 1;
  private readonly voices: VoicePool;
  private readonly click: Click;
  private readonly room: Room;
  private readonly limiter: Limiter;
  private readonly dcLeft: DcBlocker;
  private readonly dcRight: DcBlocker;
  private readonly metal: Float64Array;

  private meter: Meter = { beats: 4, unit: 4 };
  private tempo = 120;
  /** Frame of the next hit, click or stroke of note repeat. */
  private due = 0;
  /** Song ticks up to which hits and clicks have been played. */
  private playedThrough = -1;
  private clickedThrough = -1;
  /** Where the count-in ends and the patterns begin. */
  private fromTick = 0;
  private metronome = { on: false, level: 0.7, sound: 0, when: 0, between: 0 };
  /** The time of note repeat while the song stands still: tick 0 is the first press. */
  private free: Anchor;
  private repeat = { on: false, latch: false };
  private repeating = 0;
  private lastOwnId = 0;
  private check = { left: 0, click: 0, frame: Infinity };
  private session = 0;
  private grid = 240;
  private quantize = true;
  private readonly rolls = Array.from({ length: ROLLS }, () => new SoundingRoll());
  private rolling = 0;
  private readonly shape: Shape = { pitch: 0, filter: 0, decay: 0, level: 1, pan: 0, hz: 0 };
  private readonly strokes: Stroke[] = [];
  private strokeSerial = 0;
  /** The slot into which the last stroke was recorded. */
  private recordedSlot = 0;
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
    this.free = {
      frame: 0,
      tick: 0,
      framesPerTick: framesPerTick(this.tempo, sampleRate),
      playing: true,
      recording: false,
    };
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
      if (this.due <= this.frame) this.playDue();
      if (this.pending.length > 0 && this.pending[0]![0] <= this.frame) {
        this.passBy();
        while (this.pending.length > 0 && this.pending[0]![0] <= this.frame) this.apply(this.pending.shift()!);
        this.playDue();
      }
      const untilEvent = this.due - this.frame;
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
        return this.changeTempo();
      case 'nudge':
        this.ratio = command[2];
        return this.changeTempo();
      case 'meter':
        this.meter = { beats: command[2], unit: command[3] };
        this.launcher.bar = ticksPerBar(this.meter);
        return this.passClicksBy();
      case 'record':
        this.session = command[3];
        this.passClicksBy();
        return this.lay({ ...this.now, frame: this.frame, tick: this.songTick, recording: command[2] });
      case 'quantize':
        this.grid = command[2];
        this.quantize = command[3];
        return;
      case 'metronome':
        this.metronome = {
          on: command[2],
          level: command[3],
          sound: command[4],
          when: command[5],
          between: command[6],
        };
        return this.passClicksBy();
      case 'kit':
        this.track(command[2]).kit = command[3];
        return this.changeSounds(command[2]);
      case 'tones':
        return this.setTones(command[2], command[3], command[4], command[5]);
      case 'track':
        this.track(command[2]).level = command[3];
        return this.setGains();
      case 'drop':
        return this.dropTrack(command[2]);
      case 'pattern':
        return this.loadPattern(command[2], command[3], command[4], command[5], command[6], command[7]);
      case 'window':
        return this.dropWindow(command[2], command[3], command[4], command[5], command[6]);
      case 'moves':
        return this.slotPlayer(command[2], command[3]).loadMoves(command[4]);
      case 'turn':
        this.track(command[2]).turns[moveIndex(command[3], command[4])] = command[5];
        return;
      case 'heardPads':
        this.track(command[2]).heardPads = command[3];
        return;
      case 'padDown':
        return this.padDown(command[2], command[3], command[4], this.heardFrame(command[5]), command[6]);
      case 'padUp':
        return this.padUp(command[2], command[3], this.heardFrame(command[4]));
      case 'padPress':
        this.track(command[2]).repeats[command[3]]!.velocity = command[4];
        return;
      case 'repeat':
        return this.setRepeat(command[2], command[3]);
      case 'repeatRate': {
        const track = this.track(command[2]);
        track.rates[command[3]] = command[4];
        if (this.hasRateOfItsOwn(command[2], command[3])) return;
        const swing = track.player.feels[command[3]]?.swing;
        return track.repeats[command[3]]!.changeRate(command[4], this.repeatTick(this.frame), swing);
      }
      case 'ids':
        this.lastOwnId = Math.max(this.lastOwnId, command[2]);
        return;
      case 'check':
        this.check = { left: command[2], click: 0, frame: command[2] > 0 ? this.frame : Infinity };
        return;
      case 'releaseAll':
        for (let t = 0; t < this.tracks.length; t++) this.release(t);
        return;
      default:
        this.launch(command);
        return this.followLauncher();
    }
  }

  private setTones(index: number, voice: number, notes: Float64Array, octave: number): void {
    const track = this.track(index);
    track.handPitch = 12 * octave;
    const same = voice >= 0 && track.recipes[0] === TONE_RECIPES[voice];
    track.notes = voice < 0 ? null : notes;
    if (!same) this.changeSounds(index, voice);
  }

  /** A track's sounds are others: what rings of the old ones ends. */
  private changeSounds(index: number, voice = -1): void {
    const track = this.track(index);
    const tone = TONE_RECIPES[voice];
    if (!tone && track.notes) return; // a kit that is chosen while notes are played waits for its turn
    this.release(index);
    this.voices.silence(index);
    track.recipes = tone ? new Array<Recipe>(PADS).fill(tone) : recipesOf(track.kit);
  }

  /** What goes to the launcher. */
  private launch(command: Command): void {
    const { launcher } = this;
    const now = this.dropTick;
    // In a count-in nothing plays yet: what is launched is there when it ends.
    const wait = (on: number) => (this.now.playing && this.songTick < this.fromTick ? 0 : on);
    switch (command[1]) {
      case 'phase':
        return launcher.setPhase(command[2], command[3]);
      case 'launch':
        return launcher.launch(command[2], command[3], wait(command[4]), command[5], now);
      case 'cancel':
        return launcher.cancel(command[2]);
      case 'move':
        return launcher.move(command[2], command[3], now);
      case 'gate':
        return launcher.gate(command[2], command[3], command[4], wait(command[5]), now);
      case 'cancelGate':
        return launcher.cancelGate(command[2]);
      case 'sections':
        launcher.sections = command[2];
        return;
      case 'chain':
        launcher.chains[command[2]] = command[3];
        return;
      case 'section':
        return launcher.launchSection(command[2], wait(command[3]), command[4], now);
      case 'leaveSection':
        return launcher.leaveSection();
      case 'cancelSection':
        return launcher.cancelSection();
      case 'moveSection':
        return launcher.moveSection(command[2], now);
      case 'stopAll':
        launcher.stopAll(wait(command[2]), now);
        if (command[2] === 0) this.voices.silence(-1);
        return;
      case 'fade':
        return launcher.fade(command[2], wait(command[3]), now);
      case 'lift':
        return command[2] ? launcher.liftDown() : launcher.liftUp(wait(command[3]), now);
    }
  }

  /** The first song tick that has not been played yet: where what is launched at once begins. */
  private get dropTick(): number {
    const { playing } = this.now;
    return playing ? Math.max(this.songTick, this.fromTick, this.playedThrough + 2 * SAME_TICKS) : this.songTick;
  }

  /** Brings players, gains and the page to where the launcher is. */
  private followLauncher(): void {
    const { live } = this.launcher;
    for (let t = 0; t < this.tracks.length; t++) {
      const track = this.tracks[t]!;
      const slot = live.slot[t]!;
      const same = slot === track.slot && (slot === SILENT || live.launchTick[t] === track.player.launchTick);
      if (same) continue;
      this.takeOver(t, slot, live.launchTick[t]!, live.since[t]!);
    }
    this.setGains();
    this.reportLauncher();
  }

  /** Another slot plays on a track, or the same one from another tick on. */
  private takeOver(index: number, slot: number, launchTick: number, since: number): void {
    const track = this.track(index);
    this.takeWindow(index);
    this.endNotes(index);
    track.before.player = track.player;
    track.before.slot = track.slot;
    track.before.launchTick = track.player.launchTick;
    for (const roll of this.rolls) {
      if (!roll.active || roll.track !== index) continue;
      roll.active = false;
      this.rolling--;
    }
    track.slot = slot;
    track.player = slot === SILENT ? track.silence : this.slotPlayer(index, slot);
    track.player.launchTick = launchTick;
    track.since = since;
    this.reportLoop(index, since);
  }

  /** Notes that a pattern or note repeat plays end; keys that are down go on. */
  private endNotes(index: number): void {
    for (const voice of this.voices.voices) {
      const timed = voice.offTick < Infinity || voice.offFrame < Infinity;
      if (voice.active && voice.held && voice.track === index && timed) voice.letGo();
    }
  }

  private slotPlayer(index: number, slot: number): TrackPlayer {
    const { slots } = this.track(index);
    return (slots[slot] ??= new TrackPlayer());
  }

  private dropTrack(index: number): void {
    this.release(index);
    this.voices.silence(index);
    this.launcher.launch(index, SILENT, 0, false, this.dropTick);
    this.followLauncher();
    const track = this.track(index);
    track.slots.length = 0;
    track.turns.fill(NaN);
    this.setTones(index, -1, new Float64Array(0), 0);
  }

  private setGains(): void {
    for (let t = 0; t < this.tracks.length; t++) {
      const track = this.tracks[t]!;
      track.targetGain = this.launcher.live.isHeard(t) ? track.level : 0;
    }
  }

  private changeTempo(): void {
    const tempo = this.tempo * this.ratio;
    this.free = atTempo(this.free, this.frame, tempo, this.sampleRate);
    this.lay(atTempo(this.now, this.frame, tempo, this.sampleRate));
  }

  /** Tells the page what has changed in the launcher. */
  private reportLauncher(): void {
    const { launcher, told } = this;
    const { live } = launcher;
    for (let t = 0; t < this.tracks.length; t++) {
      if (sameWaiting(live, told, t)) continue;
      this.events.push(
        EVENT.WAITING,
        this.frame,
        t,
        live.next[t],
        live.nextInPlace[t],
        live.nextTick[t],
        live.link[t],
        live.linkTick[t],
        live.muted[t],
        live.soloed[t],
        live.nextMute[t],
        live.nextSolo[t],
        live.gateTick[t],
      );
    }
    if (!sameSection(live, told) || !sameLift(launcher, this.toldLift)) {
      this.events.push(
        EVENT.LAUNCHER,
        this.frame,
        live.section,
        live.nextSection,
        live.sectionTick,
        live.sectionFollows ? 1 : 0,
        live.sectionInPlace ? 1 : 0,
        launcher.lift,
        launcher.liftTick,
        launcher.fadeFrom,
        launcher.fadeTo,
      );
    }
    told.copyFrom(live);
    const { toldLift } = this;
    toldLift.lift = launcher.lift;
    toldLift.liftTick = launcher.liftTick;
    toldLift.fadeFrom = launcher.fadeFrom;
    toldLift.fadeTo = launcher.fadeTo;
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
    this.playedThrough = startTick - 2 * SAME_TICKS; // the start itself is still to be played
    this.clickedThrough = startTick - countInTicks - SAME_TICKS;
    // Song ticks come round again: what was heard live the last time must sound this time.
    for (const stroke of this.strokes) stroke.songTick = NaN;
    this.launcher.start(startTick);
    this.followLauncher();
    for (const track of this.tracks) {
      track.before.player = track.silence;
      track.before.slot = SILENT;
      track.since = startTick - countInTicks;
      track.repeats.forEach((pad, i) => pad.resume(startTick - countInTicks, track.player.feels[i]?.swing));
    }
    this.lay({
      ...this.now,
      frame: this.frame,
      tick: startTick - countInTicks,
      framesPerTick: framesPerTick(this.tempo * this.ratio, this.sampleRate),
      playing: true,
    });
  }

  private stop(): void {
    if (!this.now.playing) return;
    const tick = this.songTick;
    for (let t = 0; t < this.tracks.length; t++) {
      this.release(t);
      this.voices.letGo(t, -1);
      this.takeWindow(t);
    }
    for (const roll of this.rolls) roll.active = false;
    this.rolling = 0;
    this.launcher.halt(tick);
    this.followLauncher();
    // Stopped within the count-in, nothing was played yet: the song stands where it was to begin.
    this.lay({ ...this.now, frame: this.frame, tick: Math.max(tick, this.fromTick), playing: false, recording: false });
  }

  private loadPattern(
    index: number,
    slot: number,
    length: number,
    seen: number,
    hits: Float64Array,
    feels?: Float64Array,
  ): void {
    const player = this.slotPlayer(index, slot);
    const { start, span } = player;
    player.load(length, hits, feels);
    if (slot === this.track(index).slot && (player.start !== start || player.span !== span)) {
      this.reportLoop(index, this.songTick);
    }
    for (const s of this.strokes) {
      if (s.track === index && s.slot === slot && s.serial > seen) {
        player.insert(s.placed, s.struck, s.pad, s.velocity, s.id, s.pitch, s.length);
      }
    }
  }

  /** The loop window of a pattern changes, at once or, if it plays, on the next line of a grid. */
  private dropWindow(index: number, slot: number, start: number, length: number, on: number): void {
    const { coming, slot: played } = this.track(index);
    const player = this.slotPlayer(index, slot);
    if (coming.slot === slot) this.forgetWindow(index);
    const plays = slot === played && this.now.playing;
    if (on > 0 && plays && player.hasWindow(start, length)) return;
    coming.slot = slot;
    coming.start = start;
    coming.length = length;
    coming.tick = on > 0 && plays ? nextLine(this.songTick + SAME_TICKS, on) : this.songTick;
    if (on > 0 && plays) this.events.push(EVENT.WINDOW, this.frame, index, start, length, coming.tick);
    else this.takeWindow(index);
  }

  /** The window that waits takes over. */
  private takeWindow(index: number): void {
    const { coming, slot } = this.track(index);
    const { tick, start, length } = coming;
    if (tick === Infinity) return;
    this.forgetWindow(index);
    this.slotPlayer(index, coming.slot).setWindow(start, length);
    if (coming.slot === slot) this.reportLoop(index, tick);
  }

  private forgetWindow(index: number): void {
    const { coming } = this.track(index);
    if (coming.tick === Infinity) return;
    coming.tick = Infinity;
    this.events.push(EVENT.WINDOW, this.frame, index, 0, 0, Infinity);
  }

  private reportLoop(index: number, tick: number): void {
    const { slot, player } = this.track(index);
    this.events.push(EVENT.LOOP, this.frame, index, slot, player.launchTick, player.start, player.span, tick);
  }

  // --- pads -------------------------------------------------------------------------------------------------

  private padDown(index: number, pad: number, velocity: number, heardFrame: number, id: number): void {
    const track = this.track(index);
    this.padUp(index, pad, heardFrame);
    const struck = this.timeline.tickAt(heardFrame);
    if (this.repeat.on) return this.startRepeat(index, pad, velocity, heardFrame, id);
    const snap = this.quantize ? (track.player.feels[pad] ?? { grid: this.grid, strength: 1 }) : null;
    this.recordedSlot = Math.max(0, track.slot);
    const placed = this.record(index, pad, velocity, heardFrame, struck, id, snap, this.quantize ? this.grid : 0);
    track.held[pad] = { id, slot: this.recordedSlot, songTick: struck, heardFrame };
    this.sound(index, pad, velocity, id, placed, struck, heardFrame, Infinity);
  }

  /** A stroke by hand or by note repeat sounds now, and the page is told. `length` in ticks, Infinity while a key is down. */
  private sound(
    index: number,
    pad: number,
    velocity: number,
    id: number,
    placed: number | null,
    struck: number,
    heard: number,
    length: number,
  ): void {
    const { player, handPitch, notes } = this.track(index);
    const position = this.now.playing && player.span > 0 ? player.positionAt(this.songTick) : NaN;
    this.strike(index, pad, velocity, notes ? handPitch : 0, position, this.songTick, length);
    this.events.push(EVENT.SOUNDED, this.frame, index, pad, velocity, id, 1, placed ?? NaN, struck, heard);
  }

  /**
   * Starts a voice, as the Moves and the hands on the controls have it.
   * @param pitch semitones of the hit's own
   * @param position where the loop is, NaN when it stands still
   * @param songTick at which it begins, and for how many ticks a note is held
   */
  private strike(
    index: number,
    pad: number,
    velocity: number,
    pitch: number,
    position: number,
    songTick: number,
    length: number,
  ): void {
    const { shape } = this;
    const { notes, recipes } = this.track(index);
    shape.pitch = pitch + this.control(index, pad, PITCH, position);
    shape.filter = this.control(index, pad, FILTER, position);
    shape.decay = this.control(index, pad, DECAY, position);
    shape.level = this.control(index, pad, LEVEL, position);
    shape.pan = this.control(index, pad, PAN, position);
    shape.hz = notes ? 440 * exp2((notes[pad]! - 69) / 12) : 0;
    const voice = this.voices.trigger(recipes[pad]!, index, pad, velocity, this.frame, shape);
    if (!voice.held || length === Infinity) return;
    if (this.now.playing) voice.offTick = songTick + length;
    else voice.offFrame = this.frame + length * this.free.framesPerTick;
  }

  /** What a pad's control is now: where a hand holds it, else where its Move has it, else neutral. */
  private control(index: number, pad: number, control: number, position: number): number {
    const { turns, player } = this.track(index);
    const table = moveIndex(pad, control);
    const turn = turns[table]!;
    if (turn === turn) return turn; // not NaN
    const points = player.moves[table];
    if (!points || position !== position) return NEUTRAL[control]!;
    return moveValue(points, position, control === RATE);
  }

  /** Whether a hand or a Move has a pad's repeat rate. */
  private hasRateOfItsOwn(index: number, pad: number): boolean {
    const { player, turns } = this.track(index);
    const table = moveIndex(pad, RATE);
    return player.moves[table] !== null || turns[table] === turns[table];
  }

  /** From a song tick on a pad repeats as a hand or its Move has it, else as the player has chosen. */
  private followRate(index: number, pad: number, songTick: number): void {
    const { player, repeats, rates } = this.track(index);
    const own = this.hasRateOfItsOwn(index, pad);
    const position = this.now.playing && player.span > 0 ? player.positionAt(songTick + SAME_TICKS) : NaN;
    repeats[pad]!.rate = own ? RATE_TICKS[Math.round(this.control(index, pad, RATE, position))]! : rates[pad]!;
  }

  /**
   * Records a stroke if it was heard while recording.
   * @param snap what places it now
   * @param snapGrid grid in ticks of the snap that it keeps in the document, 0 for none
   * @param length ticks, when it is known already
   * @returns the song tick at which it is placed, or null
   */
  private record(
    index: number,
    pad: number,
    velocity: number,
    heardFrame: number,
    songTick: number,
    id: number,
    snap: Snap | null,
    snapGrid: number,
    length = 1,
  ): number | null {
    const heard = this.timeline.at(heardFrame);
    if (!heard.playing || !heard.recording) return null;
    const found = this.placeOf(index, songTick, snap);
    if (!found) return null;
    const { slot, player, origin, place } = found;
    const { start, span } = player;
    this.recordedSlot = slot;

    const placed = start + (place.placed < 0 ? place.placed + span : place.placed);
    // Just before a window's start lies more of the tape: what sounds at the window's end is kept there.
    const inWindow = span < player.length && place.placed < 0 ? place.struck + span : place.struck;
    const struck = start + inWindow;
    const passTick = origin + place.pass * span;
    const stroke: Stroke = {
      serial: ++this.strokeSerial,
      track: index,
      slot,
      id,
      pad,
      velocity,
      pitch: this.track(index).notes ? this.track(index).handPitch : 0,
      length,
      songTick: passTick + place.placed,
      placed,
      struck: placed + place.struck - place.placed,
    };
    this.strokes.push(stroke);
    if (this.strokes.length > STROKES_KEPT) this.strokes.shift();
    player.insert(placed, stroke.struck, pad, velocity, id, stroke.pitch, length);
    const feel = player.feels[pad];
    // In the document the pad's Feel places the hit, unless it is said to stand on its own.
    const asPlayed = feel && snap !== feel && placedTick(struck, feel) !== placed ? 1 : 0;
    this.events.push(
      EVENT.RECORDED,
      this.frame,
      index,
      pad,
      velocity,
      id,
      struck,
      snapGrid,
      this.session,
      Math.round(passTick),
      stroke.serial,
      length,
      slot * 2 + asPlayed,
    );
    return stroke.songTick;
  }

  /**
   * Which pattern a stroke belongs to, and where: the one that played when it was heard, unless it is placed where the next
   * one has taken over by then, on whose first step it was meant to be.
   */
  private placeOf(index: number, songTick: number, snap: Snap | null): FoundPlace | null {
    const { player, slot, since, before } = this.track(index);
    const isBefore = songTick < since - SAME_TICKS;
    const first = isBefore ? before : { player, slot, launchTick: player.launchTick };
    const found = this.placeIn(first, songTick, snap, this.fromTick);
    const sounds = found ? found.origin + found.place.pass * found.player.span + found.place.placed : NaN;
    const line = found ? sounds : nearestLine(songTick, this.grid);
    const end = isBefore ? since : this.changeTick(index);
    if (end === Infinity || line < end - SAME_TICKS) return found;
    if (isBefore) return this.placeIn({ player, slot, launchTick: player.launchTick }, songTick, snap, end) ?? found;
    this.ahead.copyFrom(this.launcher.live);
    this.launcher.takeChanges(this.ahead, end);
    const next = this.ahead.slot[index]!;
    if (next === SILENT) return found;
    const launchTick = this.ahead.launchTick[index]!;
    return this.placeIn({ player: this.slotPlayer(index, next), slot: next, launchTick }, songTick, snap, end) ?? found;
  }

  private placeIn(tape: Track['before'], songTick: number, snap: Snap | null, from: number): FoundPlace | null {
    const { player, slot, launchTick } = tape;
    if (player.span <= 0) return null;
    const origin = launchTick + player.start;
    const place = placeRecorded(songTick - origin, player.span, snap, this.grid, from - origin);
    return place && { slot, player, origin, place };
  }

  /** The song tick at which another pattern takes over on a track; Infinity when none is to. */
  private changeTick(index: number): number {
    return this.now.playing ? this.launcher.changeTick(this.launcher.live, index) : Infinity;
  }

  private padUp(index: number, pad: number, heardFrame: number): void {
    const track = this.track(index);
    const repeat = track.repeats[pad]!;
    repeat.down = false;
    // A press that was let go before its line still gets the one stroke that it asked for.
    if (!this.repeat.latch && !repeat.owed) this.endRepeat(repeat);
    const held = track.held[pad];
    if (!held) return;
    track.held[pad] = null;
    this.voices.letGo(index, pad);
    const longest = Math.max(1, this.slotPlayer(index, held.slot).span);
    const length = Math.min(longest, Math.max(1, Math.round(this.timeline.tickAt(heardFrame) - held.songTick)));
    const frames = Math.max(0, heardFrame - held.heardFrame);
    this.slotPlayer(index, held.slot).setLength(held.id, length);
    for (const stroke of this.strokes) if (stroke.id === held.id) stroke.length = length;
    this.events.push(EVENT.RELEASED, this.frame, index, held.slot, held.id, length, frames);
  }

  private release(index: number): void {
    for (let pad = 0; pad < PADS; pad++) {
      this.padUp(index, pad, this.frame);
      this.endRepeat(this.track(index).repeats[pad]!);
    }
  }

  // --- note repeat ------------------------------------------------------------------------------------------

  private setRepeat(on: boolean, latch: boolean): void {
    this.repeat = { on, latch };
    for (const track of this.tracks) {
      for (const pad of track.repeats) if (!on || (!latch && !pad.down)) this.endRepeat(pad);
    }
  }

  private endRepeat(pad: RepeatingPad): void {
    if (!pad.active) return;
    pad.end();
    this.repeating--;
  }

  /** What note repeat counts its lines on. */
  private get repeatClock(): Anchor {
    return this.now.playing ? this.now : this.free;
  }

  private repeatTick(frame: number): number {
    return tickAt(this.repeatClock, frame);
  }

  private startRepeat(index: number, pad: number, velocity: number, heardFrame: number, id: number): void {
    const track = this.track(index);
    const repeat = track.repeats[pad]!;
    if (repeat.active) return this.endRepeat(repeat); // latched: struck again, it ends
    if (!this.now.playing && this.repeating === 0) this.free = { ...this.free, frame: this.frame, tick: 0 };
    this.repeating++;
    const { playing } = this.now;
    const first = !playing && this.repeating === 1;
    const heard = first ? 0 : playing ? this.timeline.tickAt(heardFrame) : this.repeatTick(heardFrame);
    this.followRate(index, pad, heard);
    const meant = repeat.press(heard, this.repeatTick(this.frame), velocity, track.player.feels[pad]?.swing);
    if (meant === null) return;
    // Late, it keeps the time at which it was struck; early but due already, it has that of its line.
    const struck = playing ? Math.max(heard, meant) : this.songTick;
    const snap = this.quantize ? (track.player.feels[pad] ?? { grid: repeat.rate, strength: 1 }) : null;
    const placed = this.record(
      index,
      pad,
      velocity,
      heardFrame,
      struck,
      id,
      snap,
      snap ? repeat.rate : 0,
      repeat.rate / 2,
    );
    this.sound(index, pad, velocity, id, placed, struck, heardFrame, repeat.rate / 2);
    repeat.lastFrame = this.frame;
  }

  /** Frame of the next stroke of note repeat. */
  private nextRepeat(): number {
    if (this.repeating === 0) return Infinity;
    let next = Infinity;
    for (const track of this.tracks) {
      for (const pad of track.repeats) if (pad.active && pad.next < next) next = pad.next;
    }
    return frameAt(this.repeatClock, next);
  }

  private playRepeats(): void {
    const clock = this.repeatClock;
    for (let t = 0; t < this.tracks.length; t++) {
      const { repeats, player } = this.tracks[t]!;
      for (let pad = 0; pad < PADS; pad++) {
        const repeat = repeats[pad]!;
        if (!repeat.active || frameAt(clock, repeat.next) > this.frame) continue;
        this.lastOwnId += 2 - (this.lastOwnId % 2);
        const struck = clock.playing && this.now.playing ? repeat.next : this.songTick;
        // Already on its line: no grid may pull strokes of a roll onto each other.
        const { velocity, rate } = repeat;
        const placed = this.record(t, pad, velocity, this.frame, struck, this.lastOwnId, null, 0, rate / 2);
        this.sound(t, pad, velocity, this.lastOwnId, placed, struck, this.frame, rate / 2);
        this.followRate(t, pad, repeat.next);
        repeat.advance(this.frame, player.feels[pad]?.swing);
        if (!repeat.down && !this.repeat.latch) this.endRepeat(repeat);
      }
    }
  }

  // --- the song ---------------------------------------------------------------------------------------------

  /** Plays all that is due at this frame, and notes the frame of what comes next. Only commands can change that before it comes. */
  private playDue(): void {
    for (;;) {
      let hitTick = Infinity;
      let clickTick = Infinity;
      let rollTick = Infinity;
      let windowTick = Infinity;
      if (this.now.playing) {
        for (const { player, coming } of this.tracks) {
          hitTick = Math.min(hitTick, player.nextTick(this.playedThrough));
          windowTick = Math.min(windowTick, coming.tick);
        }
        clickTick = this.nextClick();
        rollTick = this.nextRoll();
      }
      const changeTick = this.launcher.due;
      const songTick = Math.min(hitTick, clickTick, rollTick, windowTick, changeTick);
      const songFrame = songTick === Infinity ? Infinity : frameAt(this.now, songTick);
      const repeatFrame = this.nextRepeat();
      const offFrame = this.nextOff();
      const next = Math.min(songFrame, repeatFrame, this.check.frame, offFrame);
      if (next > this.frame) {
        this.due = next;
        return;
      }
      // A note ends before another begins on its key. Then hands: the pattern's hit of the same pad gives way to them.
      if (offFrame <= this.frame) this.endDueNotes();
      else if (repeatFrame <= this.frame) this.playRepeats();
      else if (this.check.frame <= this.frame) this.playCheck();
      // Another pattern or window takes over before what is played on its first tick.
      else if (changeTick <= songTick) this.takeChangesAt(changeTick);
      else if (windowTick <= songTick) this.takeWindowsAt(windowTick);
      else {
        if (rollTick <= songTick) this.playRolls(rollTick);
        if (hitTick <= songTick) this.playHits(hitTick);
        if (clickTick <= songTick) this.playClick(clickTick);
      }
    }
  }

  private offFrame(voice: DrumVoice): number {
    const byTick = voice.offTick < Infinity && this.now.playing ? frameAt(this.now, voice.offTick) : Infinity;
    return Math.min(byTick, voice.offFrame);
  }

  /** Frame at which the next note ends. */
  private nextOff(): number {
    let next = Infinity;
    for (const voice of this.voices.voices) if (voice.held && voice.active) next = Math.min(next, this.offFrame(voice));
    return next;
  }

  private endDueNotes(): void {
    for (const voice of this.voices.voices) {
      if (voice.held && voice.active && this.offFrame(voice) <= this.frame) voice.letGo();
    }
  }

  private takeChangesAt(tick: number): void {
    this.playedThrough = Math.max(this.playedThrough, tick - 2 * SAME_TICKS);
    const fades = this.launcher.fadeTo <= tick + SAME_TICKS;
    this.launcher.take(tick);
    // What faded out is over.
    if (fades) this.voices.end();
    this.followLauncher();
  }

  private takeWindowsAt(tick: number): void {
    // What the new window would have played before is not made up for.
    this.playedThrough = Math.max(this.playedThrough, tick - 2 * SAME_TICKS);
    for (let t = 0; t < this.tracks.length; t++) if (this.tracks[t]!.coming.tick <= tick) this.takeWindow(t);
  }

  /** Counts every tick up to this frame as played, so that a hit that is recorded or drawn there waits for its next pass. */
  private passBy(): void {
    if (!this.now.playing) return;
    const through = tickAt(this.now, this.frame + 0.5) - 2 * SAME_TICKS;
    if (through > this.playedThrough) this.playedThrough = through;
  }

  private playHits(songTick: number): void {
    for (let t = 0; t < this.tracks.length; t++) {
      const { player } = this.tracks[t]!;
      if (player.nextTick(this.playedThrough) > songTick + SAME_TICKS) continue;
      const { nextPassTick, nextIndex } = player;
      for (let i = nextIndex; i < player.windowEnd; i++) {
        const placed = nextPassTick + player.get(i, HIT.TICK);
        if (placed > songTick + SAME_TICKS) break;
        this.playHit(t, i, placed);
      }
    }
    this.playedThrough = songTick;
  }

  private playHit(index: number, hit: number, placed: number): void {
    const { player, repeats, heardPads, held, notes } = this.track(index);
    const id = player.get(hit, HIT.ID);
    const pad = player.get(hit, HIT.PAD);
    if (this.alreadyHeard(id, placed) || !(heardPads & (1 << pad))) return;
    if (repeats[pad]!.active && repeats[pad]!.lastFrame === this.frame) return;
    if (notes && held[pad]?.id === id) return; // the note still sounds under its key
    if (!isLucky(player.get(hit, HIT.ODDS), index, pad, placed - player.launchTick)) return;
    const velocity = player.get(hit, HIT.VELOCITY);
    const pitch = player.get(hit, HIT.PITCH);
    const strokes = player.get(hit, HIT.STROKES);
    const swell = player.get(hit, HIT.SWELL);
    const first = strokes > 1 ? rollVelocity(velocity, 0, strokes, swell) : velocity;
    const length = strokes > 1 ? player.get(hit, HIT.OVER) / strokes : player.get(hit, HIT.LENGTH);
    this.strike(index, pad, first, pitch, player.get(hit, HIT.TICK), placed, length);
    const struck = placed + player.get(hit, HIT.STRUCK) - player.get(hit, HIT.TICK);
    this.events.push(EVENT.SOUNDED, this.frame, index, pad, first, id, 0, placed, struck, this.frame);
    if (strokes <= 1) return;
    const roll = this.freeRoll();
    roll.active = true;
    roll.track = index;
    roll.pad = pad;
    roll.id = id;
    roll.velocity = velocity;
    roll.pitch = pitch;
    roll.start = placed;
    roll.strokes = strokes;
    roll.over = player.get(hit, HIT.OVER);
    roll.swell = swell;
    roll.glide = player.get(hit, HIT.GLIDE);
    roll.stroke = 1;
    this.rolling++;
  }

  private freeRoll(): SoundingRoll {
    let oldest = this.rolls[0]!;
    for (const roll of this.rolls) {
      if (!roll.active) return roll;
      if (roll.start < oldest.start) oldest = roll;
    }
    this.rolling--;
    return oldest;
  }

  private nextRoll(): number {
    if (this.rolling === 0) return Infinity;
    let next = Infinity;
    for (const roll of this.rolls) if (roll.active && roll.next < next) next = roll.next;
    return next;
  }

  private playRolls(songTick: number): void {
    for (const roll of this.rolls) {
      if (!roll.active || roll.next > songTick + SAME_TICKS) continue;
      const { track, pad, id, stroke, strokes } = roll;
      const placed = roll.next;
      roll.advance();
      if (!roll.active) this.rolling--;
      const { player, heardPads } = this.track(track);
      if (!(heardPads & (1 << pad))) continue;
      const velocity = rollVelocity(roll.velocity, stroke, strokes, roll.swell);
      const pitch = roll.pitch + rollPitch(stroke, strokes, roll.glide);
      const position = player.span > 0 ? player.positionAt(placed) : NaN;
      this.strike(track, pad, velocity, pitch, position, placed, roll.over / strokes);
      this.events.push(EVENT.SOUNDED, this.frame, track, pad, velocity, id, 0, placed, placed, this.frame);
    }
  }

  /** Whether the hit was struck by hand for this very moment, and has sounded. */
  private alreadyHeard(id: number, songTick: number): boolean {
    for (const stroke of this.strokes) {
      if (stroke.id === id && Math.abs(stroke.songTick - songTick) <= SAME_TICKS) return true;
    }
    return false;
  }

  private nextClick(): number {
    const { on, when, between } = this.metronome;
    const counting = this.clickedThrough < this.fromTick;
    const clicks = on && (when === ALWAYS || (when === WHILE_RECORDING && this.now.recording));
    // The count-in clicks its beats in any case; what comes between them only when it is wanted.
    const wanted = clicks || (on && when === IN_COUNT_IN && counting);
    const next = nextClick(this.clickedThrough, this.meter, wanted ? between : 0);
    return clicks || next < this.fromTick ? next : Infinity;
  }

  /** Beats that went by in silence are not made up for. */
  private passClicksBy(): void {
    if (this.now.playing) this.clickedThrough = Math.max(this.clickedThrough, this.songTick - SAME_TICKS);
  }

  private playClick(songTick: number): void {
    this.clickedThrough = songTick;
    this.click.start(this.metronome.sound, clickStrength(songTick, this.meter), this.metronome.level);
  }

  private playCheck(): void {
    const { check } = this;
    this.click.start(this.metronome.sound, CLICK.BEAT, 1);
    this.events.push(EVENT.CHECKED, this.frame, check.click);
    check.click++;
    check.frame = --check.left > 0 ? this.frame + Math.round(CHECK_SECONDS * this.sampleRate) : Infinity;
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
    this.renderFade(frames);
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

  /**
   * Everything but the click goes down between the fade's two ticks, evenly to the ear; taken back, it comes up again in a
   * short ramp. Sample by sample, so that it does not depend on how the output is cut.
   */
  private renderFade(frames: number): void {
    if (this.fadeGain === 1 && this.launcher.fadeFrom === Infinity) return;
    const { left, right, send } = this;
    const step = 1 / (GAIN_RAMP_SECONDS * this.sampleRate);
    let gain = this.fadeGain;
    for (let i = 0; i < frames; i++) {
      const target = this.fadeGainAt(this.frame + i);
      gain = target > gain ? Math.min(target, gain + step) : target;
      left[i]! *= gain;
      right[i]! *= gain;
      send[i]! *= gain;
    }
    this.fadeGain = gain;
  }

  private fadeGainAt(frame: number): number {
    const { fadeFrom, fadeTo } = this.launcher;
    if (fadeFrom === Infinity) return 1;
    const left = Math.min(1, Math.max(0, (fadeTo - tickAt(this.now, frame)) / (fadeTo - fadeFrom)));
    return left * left;
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

interface FoundPlace {
  slot: number;
  player: TrackPlayer;
  /** Song tick at which the first time round of its loop began. */
  origin: number;
  place: RecordedPlace;
}

/** Whether all that the page is told of a track is as it was. */
function sameWaiting(a: LaunchState, b: LaunchState, t: number): boolean {
  return (
    a.nextTick[t] === b.nextTick[t] &&
    a.next[t] === b.next[t] &&
    a.nextInPlace[t] === b.nextInPlace[t] &&
    a.link[t] === b.link[t] &&
    a.linkTick[t] === b.linkTick[t] &&
    a.muted[t] === b.muted[t] &&
    a.soloed[t] === b.soloed[t] &&
    a.nextMute[t] === b.nextMute[t] &&
    a.nextSolo[t] === b.nextSolo[t] &&
    a.gateTick[t] === b.gateTick[t]
  );
}

function sameSection(a: LaunchState, b: LaunchState): boolean {
  return (
    a.section === b.section &&
    a.nextSection === b.nextSection &&
    a.sectionTick === b.sectionTick &&
    a.sectionFollows === b.sectionFollows &&
    a.sectionInPlace === b.sectionInPlace
  );
}

type Lifting = Pick<Launcher, 'lift' | 'liftTick' | 'fadeFrom' | 'fadeTo'>;

function sameLift(a: Lifting, b: { [key in keyof Lifting]: number }): boolean {
  return a.lift === b.lift && a.liftTick === b.liftTick && a.fadeFrom === b.fadeFrom && a.fadeTo === b.fadeTo;
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
