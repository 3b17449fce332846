import { Microphone } from '@/audio/microphone';
import { MOST_SAMPLE_FRAMES } from '@/core/document/sample';
import type { SampleAudio } from '@/core/sample/levels';
import { ticksPerBar, ticksPerBeat } from '@/core/time/ticks';
import { selectSet } from '@/store/selectors';
import type { Store } from '@/store/store';
import type { Instrument } from './instrument';

/** When a recording begins: at once, or with the next bar of the song. */
export const RECORD_STARTS = ['hand', 'bar'] as const;
export type RecordStart = (typeof RECORD_STARTS)[number];

/** What the microphone is doing. */
type Recording =
  | { state: 'opening' }
  | { state: 'failed'; problem: string }
  | { state: 'ready' }
  | { state: 'waiting'; tick: number }
  | { state: 'recording' }
  | { state: 'done'; audio: SampleAudio };

/** Records a sample from the microphone, by hand or with a bar of the song. Close it: the microphone is open as long as it is. */
export class SampleRecorder {
  private now_: Recording = { state: 'opening' };
  private microphone: Microphone | null = null;
  private isClosed = false;
  private readonly listeners = new Set<() => void>();
  private readonly endFollowing: () => void;

  constructor(
    private readonly store: Store,
    private readonly instrument: Instrument,
  ) {
    this.endFollowing = instrument.onTold(() => this.lookForBar());
  }

  /** Asks to be told of changes. Returns what ends it. */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly now = (): Recording => this.now_;

  /** How loud it is now, 0..1. */
  get level(): number {
    return this.microphone?.level ?? 0;
  }

  /** Seconds of what is recorded so far. */
  get seconds(): number {
    return this.microphone?.seconds ?? 0;
  }

  /** Beats of the song until it begins. */
  get beatsLeft(): number {
    if (this.now_.state !== 'waiting') return 0;
    const { meter } = selectSet(this.store.getState());
    return Math.max(0, Math.ceil((this.now_.tick - this.instrument.performance.tickNow) / ticksPerBeat(meter)));
  }

  /** A song that stands still begins to play, after its count-in of at least one bar. */
  start(when: RecordStart, endsItself: boolean): void {
    if (!this.microphone) return;
    this.microphone.listen({ most: MOST_SAMPLE_FRAMES, endsItself }, () => this.stop());
    if (when === 'bar') return this.change({ state: 'waiting', tick: this.nextBar() });
    this.microphone.beginAt(performance.now());
    this.change({ state: 'recording' });
  }

  /** What there is of it is the recording; before it began, there is none. */
  stop(): void {
    const { state } = this.now_;
    if (!this.microphone || (state !== 'recording' && state !== 'waiting')) return;
    const audio = this.microphone.end();
    this.change(state === 'recording' && audio.channels[0]!.length > 0 ? { state: 'done', audio } : { state: 'ready' });
  }

  /** The recording is another now, or is thrown away. */
  become(audio: SampleAudio | null): void {
    this.change(audio ? { state: 'done', audio } : { state: 'ready' });
  }

  close(): void {
    this.isClosed = true;
    this.endFollowing();
    this.microphone?.close();
    this.microphone = null;
    this.listeners.clear();
  }

  /** Asks for the microphone; what comes of it is told. */
  async open(): Promise<void> {
    try {
      const microphone = await Microphone.open();
      if (this.isClosed) return microphone.close();
      this.microphone = microphone;
      this.change({ state: 'ready' });
    } catch (error) {
      this.change({ state: 'failed', problem: error instanceof Error ? error.message : String(error) });
    }
  }

  private nextBar(): number {
    const { meter, countIn } = selectSet(this.store.getState());
    const bar = ticksPerBar(meter);
    const { anchor, tickNow } = this.instrument.performance;
    if (anchor.playing) return (Math.floor(tickNow / bar) + 1) * bar;
    const startTick = Math.floor(anchor.tick / bar) * bar;
    this.instrument.perform({ type: 'play', startTick, countInTicks: Math.max(1, countIn) * bar });
    return startTick;
  }

  /** The bar has come: it began when that was heard, however late this is seen. */
  private lookForBar(): void {
    const { now_, instrument } = this;
    if (now_.state !== 'waiting' || !instrument.performance.anchor.playing) return;
    const heardAt = instrument.timeHeard(instrument.performance.frameOf(now_.tick));
    if (!(performance.now() >= heardAt)) return;
    this.microphone?.beginAt(heardAt);
    this.change({ state: 'recording' });
  }

  private change(next: Recording): void {
    this.now_ = next;
    for (const listener of this.listeners) listener();
  }
}
