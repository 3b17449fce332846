import { stepAt, type Block, type Step } from './score';

/** A new id at each call. */
type NextId = () => number;

/** A list in order of time. */
export function inOrder<T extends { tick: number }>(list: readonly T[]): T[] {
  return [...list].sort((a, b) => a.tick - b.tick);
}

/**
 * Blocks without a stretch: those that reach into it end or begin there, and one that lies around it becomes two. An empty
 * stretch only cuts.
 */
export function blocksWithout(blocks: readonly Block[], from: number, to: number, nextId: NextId): Block[] {
  return blocks.flatMap((block) => {
    const end = block.from + block.length;
    if (end <= from || block.from >= to) return block;
    const parts: Block[] = [];
    if (block.from < from) parts.push({ ...block, length: from - block.from });
    if (end > to) {
      const into = block.into + to - block.from;
      parts.push({ ...block, id: parts.length > 0 ? nextId() : block.id, from: to, length: end - to, into });
    }
    return parts;
  });
}

/** Blocks with others laid over them: what lies beneath those gives way. */
export function laidOver(blocks: readonly Block[], coming: readonly Block[], nextId: NextId): Block[] {
  const sorted = [...coming].sort((a, b) => a.from - b.from);
  let beneath = [...blocks];
  const laid: Block[] = [];
  for (const block of sorted) {
    const cut = (list: readonly Block[]) => blocksWithout(list, block.from, block.from + block.length, nextId);
    beneath = cut(beneath);
    // Those that come may lie over each other too: the later one is on top.
    laid.splice(0, laid.length, ...cut(laid), block);
  }
  return [...beneath, ...laid].sort((a, b) => a.from - b.from);
}

/** Steps without a stretch, after which the value is what it was there. */
export function stepsWithout(steps: readonly Step[], from: number, to: number): Step[] {
  const before = steps.filter(({ tick }) => tick < from);
  const after = steps.filter(({ tick }) => tick > to).map(({ tick, value }) => ({ tick: tick - (to - from), value }));
  return plainSteps([...before, { tick: from, value: stepAt(steps, to) }, ...after]);
}

/** Steps of which those from a tick on come later. */
export function stepsMoved(steps: readonly Step[], at: number, by: number): Step[] {
  return steps.map((step) => (step.tick < at || step.tick === 0 ? step : { ...step, tick: step.tick + by }));
}

/** Steps drawn anew in a stretch, after which the line is what it was. Values are brought between two bounds. */
export function stepsDrawn(
  steps: readonly Step[],
  drawn: { from: number; to: number; steps: readonly Step[] },
  min: number,
  max: number,
): Step[] {
  const { from, to } = drawn;
  const inside = inOrder(drawn.steps)
    .filter(({ tick }) => tick >= from && tick < to)
    .map(({ tick, value }) => ({ tick, value: Math.min(max, Math.max(min, value)) }));
  if (inside.length === 0) return [...steps];
  const before = steps.filter(({ tick }) => tick < from);
  const after = steps.filter(({ tick }) => tick > to);
  return plainSteps([...before, ...inside, { tick: to, value: stepAt(steps, to) }, ...after]);
}

/** Without steps that change nothing. The first one lies at 0. */
function plainSteps(steps: readonly Step[]): Step[] {
  const plain = steps.filter(({ value }, i) => i === 0 || value !== steps[i - 1]!.value);
  return plain.map((step, i) => (i === 0 ? { ...step, tick: 0 } : step));
}
