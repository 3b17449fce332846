import { ClockEstimate } from '@/core/midi/clockEstimate';
import { CLOCK_TICKS } from '@/core/midi/clockOut';
import type { MidiMessage } from '@/core/midi/message';
import { clampTempo } from '@/core/time/tempo';
import { ticksToMs } from '@/core/time/ticks';
import { selectSet } from '@/store/selectors';
import { clockHeard, noticed } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import { tempoSet } from '@/store/timeSlice';
import type { Instrument } from '../instrument';

/** Without clocks for so long the song goes on by itself, and after so long it is nobody's any more, ms. */
const FREE_AFTER_MS = 250;
const LOST_AFTER_MS = 2000;
/** A distance is made up within about so long, ms, by going no more than so much faster or slower. */
const MADE_UP_IN_MS = 300;
const MOST_BEND = 0.05;
/** The shown tempo follows in steps of so much, BPM, no oftener than this, ms. */
const TEMPO_STEP = 0.1;
const TELL_EVERY_MS = 500;

/** The song follows the clock of a device: by bending its tempo, so that nothing jumps. */
export class ClockIn {
  private readonly estimate = new ClockEstimate();
  /** The clock's count at the top of the song, and the song tick there. */
  private from = NaN;
  private fromTick = 0;
  /** A start was heard: the next clock is the first. */
  private begins = false;
  private bend = 1;
  private toldAt = -Infinity;
  private state: 'none' | 'follows' | 'free' = 'none';

  constructor(
    private readonly store: Store,
    private readonly instrument: Instrument,
    private readonly name: string,
  ) {}

  /** A message of the device that is followed, at its time, ms. */
  take(message: MidiMessage, at: number): void {
    switch (message.type) {
      case 'clock':
        this.estimate.take(at);
        if (this.state === 'none') this.state = 'follows';
        if (!this.begins) return;
        this.begins = false;
        this.from = this.estimate.lastCount;
        return;
      case 'start':
        this.fromTick = 0;
        return this.begin();
      case 'continue':
        return this.begin();
      case 'songPosition':
        this.fromTick = message.sixteenths * 6 * CLOCK_TICKS;
        return;
      case 'stop':
        this.from = NaN;
        if (this.instrument.performance.anchor.playing) this.instrument.stop();
        return this.bendTo(1);
      default:
        return;
    }
  }

  /** Time has gone on, ms: the song is led to where the clock is. */
  follow(now: number): void {
    const { estimate } = this;
    if (this.state === 'none' || !estimate.isKnown) return;
    const silent = now - estimate.lastAt;
    if (silent > LOST_AFTER_MS) return this.lose();
    this.state = silent > FREE_AFTER_MS ? 'free' : 'follows';
    this.lead(now);
    this.tell(now);
  }

  /** The device is followed no more, or is gone. */
  end(): void {
    this.bendTo(1);
    this.store.dispatch(clockHeard(null));
  }

  private begin(): void {
    this.begins = true;
    const { instrument } = this;
    if (instrument.performance.anchor.playing) instrument.stop();
    instrument.playFrom(this.fromTick);
  }

  /** Bends the tempo to the clock's, and a little further for as long as the song is behind it, or ahead. */
  private lead(now: number): void {
    const { estimate, instrument } = this;
    const own = selectSet(this.store.getState()).tempo;
    const { anchor } = instrument.performance;
    let bend = estimate.tempo / own;
    if (anchor.playing && !Number.isNaN(this.from) && this.state === 'follows') {
      const meant = this.fromTick + (estimate.countAt(now) - this.from) * CLOCK_TICKS;
      const behindMs = ticksToMs(meant - instrument.performance.tickHeard(now), estimate.tempo);
      bend *= 1 + Math.min(MOST_BEND, Math.max(-MOST_BEND, behindMs / MADE_UP_IN_MS));
    }
    this.bendTo(bend);
  }

  /** The set's own tempo becomes the clock's, so that the song goes on at it when the clock is gone. */
  private tell(now: number): void {
    if (now - this.toldAt < TELL_EVERY_MS) return;
    this.toldAt = now;
    const { tempo, steadyMs } = this.estimate;
    const shown = clampTempo(Math.round(tempo / TEMPO_STEP) * TEMPO_STEP);
    if (Math.abs(shown - selectSet(this.store.getState()).tempo) >= TEMPO_STEP / 2) {
      this.store.dispatch(tempoSet(shown));
      this.lead(now);
    }
    this.store.dispatch(
      clockHeard({
        device: this.name,
        tempo: shown,
        steadyMs: Math.round(steadyMs * 10) / 10,
        free: this.state === 'free',
      }),
    );
  }

  private lose(): void {
    this.state = 'none';
    this.from = NaN;
    this.estimate.restart();
    this.bendTo(1);
    this.store.dispatch(clockHeard(null));
    this.store.dispatch(noticed(`The clock of ${this.name} has stopped: the song goes on by itself.`));
  }

  private bendTo(ratio: number): void {
    if (!(ratio > 0.1 && ratio < 10) || Math.abs(ratio - this.bend) < 1e-5) return;
    this.bend = ratio;
    this.instrument.bendTempo(ratio);
  }
}
