import type { Hit } from '@/core/document/hit';
import { MAX_HITS } from '@/core/document/limits';
import type { PatternPlace } from '@/core/document/pattern';
import { patternAt } from '@/core/document/set';
import { nextTake } from '@/core/edit/takes';
import type { EngineEvent } from '@/core/protocol/events';
import { AS_PLAYED } from '@/core/quantize/feel';
import { windowOf } from '@/core/sequence/loopWindow';
import { hitsRecorded, hitsReleased } from '@/store/patternsSlice';
import { selectSet } from '@/store/selectors';
import { noticed } from '@/store/sessionSlice';
import type { Store } from '@/store/store';

/** With room for so many hits more a pattern is said to be nearly full: some minutes of playing. */
const NEARLY_FULL = 1000;

type Recorded = Extract<EngineEvent, { kind: 'recorded' }>;

/** The hits of one pass into one pattern. */
interface Pass {
  place: PatternPlace;
  hits: Hit[];
  take: string;
}

/** Brings what the engine recorded into the document: once a message, however many hits it tells of. */
export class RecordedHits {
  /** Numbers of the takes of this page, by recording, track and pass. */
  private readonly takes = new Map<string, number>();
  /** The recordings for which it was said that a pattern is full, and that it soon is. */
  private saidFull = 0;
  private saidNearlyFull = 0;

  constructor(private readonly store: Store) {}

  take(events: readonly EngineEvent[]): void {
    const passes = new Map<string, Pass>();
    const released = new Map<string, { place: PatternPlace; lengths: { id: number; length: number }[] }>();
    for (const event of events) {
      if (event.kind === 'recorded') this.add(event, passes);
      else if (event.kind === 'released') {
        const { track, slot, id, length } = event;
        const key = `${track} ${slot}`;
        if (!released.has(key)) released.set(key, { place: { track, slot }, lengths: [] });
        released.get(key)!.lengths.push({ id, length });
      }
    }
    for (const pass of passes.values()) this.store.dispatch(hitsRecorded(pass));
    for (const lengths of released.values()) this.store.dispatch(hitsReleased(lengths));
  }

  /** Whether a pattern holds all it can, with so many hits more; says so once a recording. */
  isFull(place: PatternPlace, session: number, more = 0): boolean {
    const hits = patternAt(selectSet(this.store.getState()), place)?.hits.length ?? 0;
    if (hits + more < MAX_HITS) {
      if (hits + more >= MAX_HITS - NEARLY_FULL) this.sayNearlyFull(session);
      return false;
    }
    if (this.saidFull !== session) {
      this.store.dispatch(noticed(`This pattern is full: it holds ${MAX_HITS} hits. New ones sound and are not kept.`));
    }
    this.saidFull = session;
    return true;
  }

  private sayNearlyFull(session: number): void {
    if (this.saidNearlyFull === session) return;
    this.saidNearlyFull = session;
    this.store.dispatch(
      noticed(
        `This pattern has room for ${NEARLY_FULL} more hits. Another slot is empty, or drop takes that you do not need.`,
      ),
    );
  }

  private add(event: Recorded, passes: Map<string, Pass>): void {
    const { track, slot, session } = event;
    const take = `${session} ${track} ${slot} ${event.pass}`;
    const pass = passes.get(take) ?? { place: { track, slot }, hits: [], take };
    if (this.isFull(pass.place, session, pass.hits.length)) return;
    pass.hits.push(this.hit(event, pass));
    passes.set(take, pass);
  }

  private hit({ id, pad, struck, length, velocity, pitch, snapGrid, asPlayed }: Recorded, pass: Pass): Hit {
    const snap = snapGrid > 0 ? { grid: snapGrid, strength: 1 } : null;
    const hit: Hit = { id, pad, tick: struck, length, velocity, snap, take: this.takeNumber(pass) };
    if (asPlayed) hit.feel = snap ?? AS_PLAYED;
    if (pitch !== 0) hit.pitch = pitch;
    return hit;
  }

  /** A pass is a take of the pattern it is recorded into; one that changes within it gets a take of its own. */
  private takeNumber({ place, take }: Pass): number {
    const pattern = patternAt(selectSet(this.store.getState()), place);
    // Passes of another window are counted anew.
    const { start, length } = pattern ? windowOf(pattern) : { start: 0, length: 0 };
    const key = `${take} ${start} ${length}`;
    const number = this.takes.get(key) ?? (pattern ? nextTake(pattern) : 1);
    this.takes.set(key, number);
    return number;
  }
}
