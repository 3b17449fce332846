import type { Handlers } from '../protocol/commands';
import type { EngineState } from '../protocol/engineState';
import { gridTicks, REPEAT_RATES } from '../quantize/grid';
import type { Snap } from '../quantize/place';
import { RepeatingPad } from '../sequence/noteRepeat';
import { SAME_TICKS } from '../time/ticks';
import { frameAt, tickAt } from '../time/timeline';
import type { PadControls } from './padControls';
import type { FramePart } from './part';
import type { Recorder } from './recorder';
import { newStroke, type Striker, type Stroke } from './striker';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';
import { MAX_TRACKS, PADS } from '../document/limits';

const RATE_TICKS = REPEAT_RATES.map(gridTicks);

/** Note repeat: held and latched pads, and the rate of each. */
export class NoteRepeater implements FramePart {
  on = false;
  private latch = false;
  private readonly pads = Array.from({ length: MAX_TRACKS }, () =>
    Array.from({ length: PADS }, () => new RepeatingPad()),
  );
  /** Ticks between strokes as the player has chosen them. */
  private readonly rates = Array.from({ length: MAX_TRACKS }, () => new Float64Array(PADS).fill(240));
  /** How many repeat. */
  private repeating = 0;
  private lastOwnId = 0;
  private readonly stroke = newStroke();
  private readonly rateSnap: Snap = { grid: 240, strength: 1 };

  constructor(
    private readonly transport: Transport,
    private readonly rack: TrackRack,
    private readonly controls: PadControls,
    private readonly recorder: Recorder,
    private readonly striker: Striker,
  ) {}

  readonly commands: Handlers<'noteRepeat' | 'repeatRate' | 'padPress' | 'reserveIds'> = {
    noteRepeat: ({ on, latch }) => {
      this.on = on;
      this.latch = latch;
      for (const pads of this.pads) for (const pad of pads) if (!on || (!latch && !pad.down)) this.end(pad);
    },
    repeatRate: ({ track, pad, ticks }) => {
      this.rates[track]![pad] = ticks;
      if (this.controls.repeatRate(track, pad, NaN) >= 0) return;
      this.pads[track]![pad]!.changeRate(ticks, this.tickNow, this.swing(track, pad));
    },
    padPress: ({ track, pad, velocity }) => {
      this.pads[track]![pad]!.velocity = velocity;
    },
    reserveIds: ({ above }) => {
      this.lastOwnId = Math.max(this.lastOwnId, above);
    },
  };

  get isRepeating(): boolean {
    return this.repeating > 0;
  }

  /** While no pad repeats: all it knows. */
  get data(): EngineState['repeater'] {
    const { on, latch, lastOwnId } = this;
    return { on, latch, lastOwnId, rates: this.rates.map((rates) => Array.from(rates)) };
  }

  /** Takes over what another one knew. */
  takeData({ on, latch, lastOwnId, rates }: EngineState['repeater']): void {
    this.on = on;
    this.latch = latch;
    this.lastOwnId = lastOwnId;
    rates.forEach((own, track) => this.rates[track]!.set(own));
  }

  /** A pad is struck while note repeat is on. `stroke` says which, how hard, its id and the frame that was heard. */
  press(stroke: Stroke): void {
    const { track, pad } = stroke;
    const { playing } = this.transport;
    const repeat = this.pads[track]![pad]!;
    if (repeat.active) return this.pressAgain(repeat, stroke.velocity);
    if (!playing && this.repeating === 0) this.transport.restartStanding();
    this.repeating++;
    const heard = this.heardTick(stroke.heard);
    this.followRate(track, pad, heard);
    repeat.pitch = stroke.pitch;
    repeat.through = stroke.through;
    const meant = repeat.press(heard, this.tickNow, stroke.velocity, this.swing(track, pad));
    if (meant === null) return;
    // Late, it keeps the time at which it was struck; early but due already, it has that of its line.
    stroke.struck = playing ? Math.max(heard, meant) : this.transport.songTick;
    stroke.length = repeat.rate / 2;
    this.rateSnap.grid = repeat.rate;
    const feel = this.rack.tracks[track]!.player.feels[pad] ?? null;
    const snap = this.recorder.inputSnap && this.rateSnap;
    this.recorder.record(stroke, snap, snap && (feel ?? snap));
    this.striker.strikeByHand(stroke);
    repeat.lastFrame = this.transport.frame;
  }

  /** Latched, a pad that is struck again ends. One that was let go before its first stroke came is held again. */
  private pressAgain(repeat: RepeatingPad, velocity: number): void {
    if (this.latch) return this.end(repeat);
    repeat.down = true;
    repeat.velocity = velocity;
  }

  /** A pad is let go. */
  letGo(track: number, pad: number): void {
    const repeat = this.pads[track]![pad]!;
    repeat.down = false;
    // A press that was let go before its line still gets the one stroke that it asked for.
    if (!this.latch && !repeat.owed) this.end(repeat);
  }

  /** A pad repeats no more, latched or not. */
  stop(track: number, pad: number): void {
    this.end(this.pads[track]![pad]!);
  }

  /** Whether a pad has repeated at this very frame: the pattern's own hit of that moment gives way to it. */
  struckNow(track: number, pad: number): boolean {
    const repeat = this.pads[track]![pad]!;
    return repeat.active && repeat.lastFrame === this.transport.frame;
  }

  songStarts(startTick: number): void {
    this.pads.forEach((pads, track) => pads.forEach((pad, i) => pad.resume(startTick, this.swing(track, i))));
  }

  nextFrame(): number {
    if (this.repeating === 0) return Infinity;
    let next = Infinity;
    for (const pads of this.pads) for (const pad of pads) if (pad.active && pad.next < next) next = pad.next;
    return frameAt(this.transport.repeatClock, next);
  }

  playFrame(): void {
    const { frame, repeatClock } = this.transport;
    for (let track = 0; track < MAX_TRACKS; track++) {
      for (let pad = 0; pad < PADS; pad++) {
        const repeat = this.pads[track]![pad]!;
        if (repeat.active && frameAt(repeatClock, repeat.next) <= frame) this.strike(track, pad, repeat);
      }
    }
  }

  private strike(track: number, pad: number, repeat: RepeatingPad): void {
    const { stroke, transport } = this;
    const { frame, playing, songTick } = transport;
    this.lastOwnId += 2 - (this.lastOwnId % 2);
    stroke.track = track;
    stroke.pad = pad;
    stroke.id = this.lastOwnId;
    stroke.velocity = repeat.velocity;
    stroke.pitch = repeat.pitch;
    stroke.through = repeat.through;
    stroke.struck = playing ? repeat.next : songTick;
    stroke.heard = frame;
    stroke.length = repeat.rate / 2;
    // Already on its line: no grid may pull strokes of a roll onto each other.
    this.recorder.record(stroke, null, null);
    this.striker.strikeByHand(stroke);
    this.followRate(track, pad, repeat.next);
    repeat.advance(frame, this.swing(track, pad));
    if (!repeat.down && !this.latch) this.end(repeat);
  }

  /** From a song tick on a pad repeats as a hand or its Move has it, else as the player has chosen. */
  private followRate(track: number, pad: number, songTick: number): void {
    const { player } = this.rack.tracks[track]!;
    const position = this.transport.playing ? player.positionAt(songTick + SAME_TICKS) : NaN;
    const own = this.controls.repeatRate(track, pad, position);
    this.pads[track]![pad]!.rate = own >= 0 ? RATE_TICKS[own]! : this.rates[track]![pad]!;
  }

  private heardTick(frame: number): number {
    const { playing, timeline, now, repeatClock } = this.transport;
    // Heard before the song began to play, it is counted back from there: the song stood elsewhere.
    if (playing) return tickAt(timeline.at(frame).playing ? timeline.at(frame) : now, frame);
    return this.repeating === 1 ? 0 : tickAt(repeatClock, frame); // the first press is where time begins
  }

  private get tickNow(): number {
    return tickAt(this.transport.repeatClock, this.transport.frame);
  }

  private swing(track: number, pad: number) {
    return this.rack.tracks[track]!.player.feels[pad]?.swing;
  }

  private end(pad: RepeatingPad): void {
    if (!pad.active) return;
    pad.end();
    this.repeating--;
  }
}
