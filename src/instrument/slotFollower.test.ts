import fc from 'fast-check';
import type { Hit } from '@/core/document/hit';
import type { Pattern } from '@/core/document/pattern';
import { HIT, HIT_WIDTH } from '@/core/sequence/hitRows';
import { soundingHits } from '@/core/sequence/soundingHits';
import { SlotFollower } from './slotFollower';

const BAR = 3840;
const FIELDS = [HIT.TICK, HIT.PAD, HIT.VELOCITY, HIT.LENGTH] as const;
const newHit = (id: number, pad: number, step: number): Hit => ({
  id,
  pad,
  tick: step * 240,
  length: 60,
  velocity: 0.5,
  snap: null,
});

/** A slot of the document and what the engine makes of all that it is told, by id: tick, pad, velocity, length. */
class Slot {
  pattern: Pattern = { name: 'Slot', length: BAR, hits: [] };
  readonly engine = new Map<number, number[]>();
  readonly told: string[] = [];
  private readonly follower = new SlotFollower({ track: 0, slot: 0 });
  private lastId = 1;

  edit(hits: readonly Hit[]): void {
    this.pattern = { ...this.pattern, hits: [...hits] };
    this.follow();
  }

  follow(): void {
    for (const instruction of this.follower.changes(this.pattern, 0, 0)) {
      this.told.push(instruction.type);
      if (instruction.type === 'pattern') this.engine.clear();
      if (instruction.type === 'patternEdit') for (const id of instruction.removed) this.engine.delete(id);
      if (instruction.type === 'pattern' || instruction.type === 'patternEdit') this.take(instruction.hits);
    }
  }

  newId(): number {
    return (this.lastId += 2);
  }

  /** The engine records a hit, and another of its pad and tick gives way. The document may hear of it, or may not keep it. */
  record(pad: number, step: number, isKept: boolean): void {
    const hit = newHit(this.newId(), pad, step);
    const { id, tick, velocity, length } = hit;
    for (const [other, [at, of]] of this.engine) if (at === tick && of === pad) this.engine.delete(other);
    this.engine.set(id, [tick, pad, velocity, length]);
    const event = { kind: 'recorded', frame: 0, track: 0, slot: 0, struck: tick, placed: tick, pitch: 0 } as const;
    const rest = { snapGrid: 0, session: 1, pass: 0, serial: 1, asPlayed: false };
    this.follower.recorded({ ...event, ...rest, id, pad, velocity, length });
    if (isKept) this.edit([...this.pattern.hits, hit]);
  }

  private take(rows: Float64Array): void {
    for (let row = 0; row < rows.length; row += HIT_WIDTH) {
      const id = rows[row + HIT.ID]!;
      this.engine.set(id, FIELDS.map((field) => rows[row + field]!)); // prettier-ignore
    }
  }
}

/** What the engine should play. */
const sounding = ({ pattern }: Slot) =>
  new Map(soundingHits(pattern).map(({ id, tick, pad, velocity, length }) => [id, [tick, pad, velocity, length]]));

type Act = (slot: Slot) => void;
const pad = fc.nat(3);
const step = fc.nat(15);
const at = fc.nat(40);
const acts: fc.Arbitrary<Act> = fc.oneof(
  fc.tuple(pad, step).map(([p, s]): Act => (slot) => slot.edit([...slot.pattern.hits, newHit(slot.newId(), p, s)])),
  at.map((i): Act => (slot) => slot.edit(slot.pattern.hits.filter((_, j) => j !== i))),
  fc.tuple(at, step).map(([i, s]): Act => (slot) => slot.edit(slot.pattern.hits.map((hit, j) => (j === i ? { ...hit, tick: s * 240 } : hit)))),
  fc.tuple(at, fc.double({ min: 0, max: 1, noNaN: true })).map(([i, velocity]): Act => (slot) => slot.edit(slot.pattern.hits.map((hit, j) => (j === i ? { ...hit, velocity } : hit)))),
  fc.constant<Act>((slot) => slot.edit([...slot.pattern.hits].reverse())),
  fc.tuple(pad, step, fc.boolean()).map(([p, s, isKept]): Act => (slot) => slot.record(p, s, isKept)),
); // prettier-ignore

test('whatever is edited and recorded in turns, the engine plays what the document holds once it has been told', () => {
  fc.assert(
    fc.property(fc.array(acts, { minLength: 1, maxLength: 60 }), (list) => {
      const slot = new Slot();
      slot.follow();
      for (const act of list) act(slot);
      slot.edit(slot.pattern.hits); // what was recorded last and not kept is taken out again
      expect(new Map([...slot.engine].sort())).toEqual(new Map([...sounding(slot)].sort()));
    }),
    { numRuns: 500 },
  );
});

test('a hit that the engine recorded itself is not told back, and one that is edited among thousands is told alone', () => {
  const slot = new Slot();
  slot.edit(Array.from({ length: 5000 }, () => newHit(slot.newId(), 0, 0)).map((hit, i) => ({ ...hit, pad: i % 16, tick: (i * BAR) / 5000 })));
  slot.told.length = 0;
  slot.record(5, 7, true);
  expect(slot.told).toEqual([]);
  slot.edit(slot.pattern.hits.map((hit, i) => (i === 2500 ? { ...hit, velocity: 1 } : hit)));
  expect(slot.told).toEqual(['patternEdit']);
  expect(slot.engine).toEqual(sounding(slot));
}); // prettier-ignore
