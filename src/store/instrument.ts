import { LiveHost } from '@/audio/liveHost';
import { patternNumbers, trackInstructions } from '@/core/engine/offline';
import type { EngineEvent, Instruction } from '@/core/engine/protocol';
import { currentPattern, MAX_HITS, nextHitId, type BeatSet, type Hit } from '@/core/model/set';
import { ticksPerBar } from '@/core/time/ticks';
import { gridTicks } from '@/core/timing/grid';
import { Performance } from './performance';
import { CURRENT_TRACK, selectSet } from './selectors';
import { audioChanged, noticed, transportReported } from './sessionSlice';
import { hitRecorded, hitReleased, setOpened } from './setSlice';
import type { Store } from './store';

/**
 * The player's hands on the engine. It keeps the engine in step with the document, sends what is played, and brings
 * what the engine recorded back into the document.
 */
export class Instrument {
  readonly performance: Performance;
  private readonly host: LiveHost;
  private told: BeatSet | null = null;
  private lastHitId = 0;
  /** Serial of the engine's last recorded hit that the document has. */
  private seen = 0;
  private session = Date.now();
  private saidFull = 0;

  constructor(private readonly store: Store) {
    this.host = new LiveHost(
      (state, problem) => {
        store.dispatch(audioChanged(state));
        if (problem) store.dispatch(noticed(problem));
      },
      (events) => events.forEach((event) => this.take(event)),
    );
    this.performance = new Performance((timeStamp) => this.host.engineFrameHeard(timeStamp));
  }

  /** Starts the sound engine and tells it the set; from then on it follows every change. */
  async start(): Promise<void> {
    await this.host.start();
    this.follow();
    this.store.subscribe(() => this.follow());
  }

  /** Call from any gesture: browsers give sound only to a page that was touched. */
  unlock(): void {
    this.host.unlock();
  }

  // --- playing ----------------------------------------------------------------------------------------------

  /**
   * @param velocity 0..1
   * @param timeStamp of the event, ms
   */
  padDown(pad: number, velocity: number, timeStamp: number): void {
    const heard = this.host.frameHeard(timeStamp);
    this.host.send(['padDown', CURRENT_TRACK, pad, velocity, heard, ++this.lastHitId]);
  }

  padUp(pad: number, timeStamp: number): void {
    this.host.send(['padUp', CURRENT_TRACK, pad, this.host.frameHeard(timeStamp)]);
  }

  /** Lets go of everything, as when the page loses the keyboard. */
  releaseAll(): void {
    this.host.send(['releaseAll']);
  }

  // --- transport --------------------------------------------------------------------------------------------

  /** Plays from where the song stands; when recording is armed, after the count-in and from the start of the bar. */
  play(): void {
    const { meter, countIn } = selectSet(this.store.getState());
    const { tick, recording } = this.performance.anchor;
    const bar = ticksPerBar(meter);
    if (recording && countIn > 0) this.host.send(['play', Math.floor(tick / bar) * bar, countIn * bar]);
    else this.host.send(['play', tick, 0]);
  }

  /** Stops; when the song stands still already, goes back to its top. */
  stop(): void {
    this.host.send(this.performance.anchor.playing ? ['stop'] : ['locate', 0]);
  }

  playOrStop(): void {
    if (this.performance.anchor.playing) this.stop();
    else this.play();
  }

  toggleRecord(): void {
    const on = !this.performance.anchor.recording;
    if (on) this.session++;
    this.host.send(['record', on, this.session]);
  }

  // --- both ways --------------------------------------------------------------------------------------------

  private take(event: EngineEvent): void {
    this.performance.take(event);
    switch (event.kind) {
      case 'anchor': {
        const { playing, recording, tick } = event;
        const { session } = this.store.getState();
        const awayFromTop = !playing && tick > 0;
        if (session.playing !== playing || session.recording !== recording || session.awayFromTop !== awayFromTop) {
          this.store.dispatch(transportReported({ playing, recording, awayFromTop }));
        }
        return;
      }
      case 'recorded': {
        this.seen = event.serial;
        const { track, id, pad, struck, velocity, snapGrid } = event;
        if (this.isFull(track)) return;
        const snap = snapGrid > 0 ? { grid: snapGrid, strength: 1 } : null;
        const hit: Hit = { id, pad, tick: struck, length: 1, velocity, snap };
        this.store.dispatch(hitRecorded({ track, hit, take: `${event.session} ${track} ${event.pass}` }));
        return;
      }
      case 'released':
        this.store.dispatch(hitReleased({ track: event.track, id: event.id, length: event.length }));
        return;
    }
  }

  /** Whether the pattern holds all it can; says so once a recording. */
  private isFull(track: number): boolean {
    const pattern = currentPattern(selectSet(this.store.getState()).tracks[track]!);
    if ((pattern?.hits.length ?? 0) < MAX_HITS) return false;
    if (this.saidFull !== this.session) {
      this.store.dispatch(noticed(`This pattern is full: it holds ${MAX_HITS} hits. New ones sound and are not kept.`));
    }
    this.saidFull = this.session;
    return true;
  }

  /** Tells the engine what is new in the document since it was last told. */
  private follow(): void {
    const set = selectSet(this.store.getState());
    const before = this.told;
    if (set === before) return;
    this.told = set;
    for (const instruction of changes(before, set, this.seen)) this.host.send(instruction);
    // Undo may bring back hits with numbers that were given out before.
    this.lastHitId = Math.max(this.lastHitId, nextHitId(set) - 1);
  }

  /** Puts another set in the place of this one, letting go of what is held. */
  open(set: BeatSet): void {
    this.releaseAll();
    this.store.dispatch(setOpened(set));
  }
}

/** The instructions that bring an engine from one state of the document to another. */
export function changes(before: BeatSet | null, set: BeatSet, seen: number): Instruction[] {
  const out: Instruction[] = [];
  if (before?.tempo !== set.tempo) out.push(['tempo', set.tempo]);
  if (before?.meter !== set.meter) out.push(['meter', set.meter.beats, set.meter.unit]);
  if (before?.metronome !== set.metronome) out.push(['metronome', set.metronome.on, set.metronome.level]);
  if (before?.inputQuantize !== set.inputQuantize) {
    out.push(['quantize', gridTicks(set.inputQuantize.grid), set.inputQuantize.on]);
  }
  set.tracks.forEach((track, i) => {
    const old = before?.tracks[i];
    if (track === old) return;
    if (!old) return void out.push(...trackInstructions(track, i, seen));
    if (track.kit !== old.kit) out.push(['kit', i, track.kit]);
    if (track.level !== old.level || track.mute !== old.mute) out.push(['track', i, track.level, track.mute]);
    const pattern = currentPattern(track);
    if (pattern !== currentPattern(old)) {
      out.push(['pattern', i, pattern?.length ?? 0, seen, pattern ? patternNumbers(pattern) : new Float64Array(0)]);
    }
  });
  for (let i = set.tracks.length; i < (before?.tracks.length ?? 0); i++)
    out.push(['pattern', i, 0, seen, new Float64Array(0)]);
  return out;
}
