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
import { Arpeggiator } from './arpeggiator';
import type { SoundRack } from './soundRack';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';
import { MAX_TRACKS, PADS } from '../document/limits';
import type { Arpeggio } from '../document/tones';

const RATE_TICKS = REPEAT_RATES.map(gridTicks);

/** Note repeat: held and latched pads, and the rate of each. Where a track asks for an arpeggio its pads take turns. */
export class NoteRepeater implements FramePart {
  on = false;
  private latch = false;
  private readonly pads = Array.from({ length: MAX_TRACKS }, () =>
    Array.from({ length: PADS }, () => new RepeatingPad()),
  );
  /** Ticks between strokes as the player has chosen them. */
  private readonly rates = Array.from({ length: MAX_TRACKS }, () => new Float64Array(PADS).fill(240));
  private readonly arpeggiators = Array.from({ length: MAX_TRACKS }, () => new Arpeggiator());
  /** How many repeat; and which of each track, one bit each: most do not, and all would be many to ask for each line. */
  private repeating = 0;
  private readonly repeatingOn = new Uint16Array(MAX_TRACKS);
  private lastOwnId = 0;
  private readonly stroke = newStroke();
  private readonly rateSnap: Snap = { grid: 240, strength: 1 };

  constructor(
    private readonly transport: Transport,
    private readonly rack: TrackRack,
    private readonly sounds: SoundRack,
    private readonly controls: PadControls,
    private readonly recorder: Recorder,
    private readonly striker: Striker,
  ) {}

  readonly commands: Handlers<'noteRepeat' | 'repeatRate' | 'padPress' | 'reserveIds'> = {
    noteRepeat: ({ on, latch }) => {
      this.on = on;
      this.latch = latch;
      for (let track = 0; track < MAX_TRACKS; track++) {
        for (let pad = 0; pad < PADS; pad++) if (!on || (!latch && !this.pads[track]![pad]!.down)) this.end(track, pad);
      }
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
    const pads = this.pads[track]!;
    const repeat = pads[pad]!;
    const isInTurn = this.sounds.tracks[track]!.arpeggio !== null;
    const arpeggiator = this.arpeggiators[track]!;
    if (isInTurn) this.takeTurnsAnew(track);
    if (repeat.active) return this.pressAgain(track, pad, stroke.velocity, isInTurn);
    if (isInTurn) arpeggiator.join(pads, repeat);
    if (!playing && this.repeating === 0) this.transport.restartStanding();
    this.repeating++;
    this.repeatingOn[track]! |= 1 << pad;
    const heard = this.heardTick(stroke.heard);
    this.followRate(track, pad, heard);
    repeat.pitch = stroke.pitch;
    repeat.through = stroke.through;
    const meant = repeat.press(heard, this.tickNow, stroke.velocity, this.swing(track, pad));
    if (meant === null) return;
    if (isInTurn) {
      // Another note has sounded on this line already: this one has its turn later.
      if (meant <= arpeggiator.lastLine + SAME_TICKS) {
        repeat.owed = true;
        return;
      }
      arpeggiator.sounded(meant);
    }
    // Late, it keeps the time at which it was struck; early but due already, it has that of its line.
    stroke.struck = playing ? Math.max(heard, meant) : this.transport.songTick;
    stroke.length = repeat.rate / 2;
    this.rateSnap.grid = repeat.rate;
    const feel = this.rack.tracks[track]!.player.feels[pad] ?? null;
    const snap = this.recorder.inputSnap && this.rateSnap;
    this.recorder.record(stroke, snap, snap && (feel ?? snap));
    this.striker.strikeByHand(stroke);
    repeat.sounded(this.transport.frame);
  }

  /** Latched notes that take turns make way when a hand that held none of them presses others. */
  private takeTurnsAnew(track: number): void {
    if (!this.latch) return;
    for (let pad = 0; pad < PADS; pad++) if (this.pads[track]![pad]!.down) return;
    for (let pad = 0; pad < PADS; pad++) this.end(track, pad);
  }

  /** Latched, a pad that is struck again ends. One that was let go before its first stroke came is held again. */
  private pressAgain(track: number, pad: number, velocity: number, isInTurn: boolean): void {
    if (this.latch && !isInTurn) return this.end(track, pad);
    const repeat = this.pads[track]![pad]!;
    repeat.down = true;
    repeat.velocity = velocity;
  }

  /** A pad is let go. */
  letGo(track: number, pad: number): void {
    const repeat = this.pads[track]![pad]!;
    repeat.down = false;
    // A press that was let go before its line still gets the one stroke that it asked for.
    if (!this.latch && !repeat.owed) this.end(track, pad);
  }

  /** A pad repeats no more, latched or not. */
  stop(track: number, pad: number): void {
    this.end(track, pad);
  }

  /** Whether a pad has repeated at this very frame: the pattern's own hit of that moment gives way to it. */
  struckNow(track: number, pad: number): boolean {
    const repeat = this.pads[track]![pad]!;
    return repeat.active && repeat.lastFrame === this.transport.frame;
  }

  songStarts(startTick: number): void {
    this.pads.forEach((pads, track) => pads.forEach((pad, i) => pad.resume(startTick, this.swing(track, i))));
    for (const arpeggiator of this.arpeggiators) arpeggiator.lastLine = -Infinity;
  }

  nextFrame(): number {
    if (this.repeating === 0) return Infinity;
    let next = Infinity;
    for (let track = 0; track < MAX_TRACKS; track++) {
      for (let rest = this.repeatingOn[track]!; rest !== 0; rest &= rest - 1) {
        const at = this.pads[track]![lowestBit(rest)]!.next;
        if (at < next) next = at;
      }
    }
    return frameAt(this.transport.repeatClock, next);
  }

  playFrame(): void {
    if (this.repeating === 0) return;
    for (let track = 0; track < MAX_TRACKS; track++) {
      let rest = this.repeatingOn[track]!;
      if (rest === 0) continue;
      const { arpeggio } = this.sounds.tracks[track]!;
      if (arpeggio) {
        this.playTurn(track, arpeggio);
        continue;
      }
      for (; rest !== 0; rest &= rest - 1) {
        const pad = lowestBit(rest);
        const repeat = this.pads[track]![pad]!;
        if (!this.isDue(repeat)) continue;
        this.strike(track, pad, repeat.next, 0);
        this.passLine(track, pad);
        this.endIfLetGo(track, pad);
      }
    }
  }

  private isDue({ active, next }: RepeatingPad): boolean {
    return active && frameAt(this.transport.repeatClock, next) <= this.transport.frame;
  }

  /** One of a track's held notes sounds, if a line of any of them is due. */
  private playTurn(track: number, arpeggio: Arpeggio): void {
    const pads = this.pads[track]!;
    let line = Infinity;
    for (let pad = 0; pad < PADS; pad++) if (this.isDue(pads[pad]!)) line = Math.min(line, pads[pad]!.next);
    if (line === Infinity) return;
    const arpeggiator = this.arpeggiators[track]!;
    arpeggiator.goOn(pads, arpeggio, line);
    this.strike(track, arpeggiator.pad, line, arpeggiator.higher);
    for (let pad = 0; pad < PADS; pad++) if (this.isDue(pads[pad]!)) this.passLine(track, pad);
    this.endIfLetGo(track, arpeggiator.pad);
    if (!pads[arpeggiator.pad]!.active) arpeggiator.left();
  }

  /** @param line song ticks */
  private strike(track: number, pad: number, line: number, higher: number): void {
    const { stroke, transport } = this;
    const repeat = this.pads[track]![pad]!;
    const { frame, playing, songTick } = transport;
    this.lastOwnId += 2 - (this.lastOwnId % 2);
    stroke.track = track;
    stroke.pad = pad;
    stroke.id = this.lastOwnId;
    stroke.velocity = repeat.velocity;
    stroke.pitch = repeat.pitch + higher;
    stroke.through = repeat.through;
    stroke.struck = playing ? line : songTick;
    stroke.heard = frame;
    stroke.length = repeat.rate / 2;
    // Already on its line: no grid may pull strokes of a roll onto each other.
    this.recorder.record(stroke, null, null);
    this.striker.strikeByHand(stroke);
    repeat.sounded(frame);
  }

  private passLine(track: number, pad: number): void {
    const repeat = this.pads[track]![pad]!;
    this.followRate(track, pad, repeat.next);
    repeat.advance(this.swing(track, pad));
  }

  private endIfLetGo(track: number, pad: number): void {
    if (!this.pads[track]![pad]!.down && !this.latch) this.end(track, pad);
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

  private end(track: number, pad: number): void {
    const repeat = this.pads[track]![pad]!;
    if (!repeat.active) return;
    repeat.end();
    this.repeating--;
    this.repeatingOn[track]! &= ~(1 << pad);
  }
}

/** Place of the lowest bit that is set. @example lowestBit(0b1100) // 2 */
function lowestBit(bits: number): number {
  return 31 - Math.clz32(bits & -bits);
}
