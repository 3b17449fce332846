import { CONTROL_RANGES, type Control } from '../document/moves';
import type { Feel } from '../quantize/feel';
import { placedTick } from '../quantize/place';
import { MAX_TEMPO, MIN_TEMPO, SAME_TICKS, ticksPerBar } from '../time/ticks';
import { blocksWithout, inOrder, laidOver, stepsDrawn, stepsMoved, stepsWithout } from './stretches';
import type { Block, Score, ScoreTrack, Step, Stroke } from './score';

/** A block that is not in the score yet, and where it is to lie. */
export interface Dropped {
  /** Id of the track. */
  track: number;
  block: Omit<Block, 'id'>;
}

/** What of a stroke can be drawn as a line. */
export type StrokeLine = Exclude<Control, 'rate'> | 'velocity';

/**
 * One thing that hands put right in a score. All that they have put right is a list of these, applied to what was played: that
 * stays as it was. Ticks are those of the score as it is before the fix; blocks and hits are named by their ids.
 */
export type Fix =
  /** `rows`: to how many tracks further down. */
  | { type: 'moveBlocks'; blocks: readonly number[]; by: number; rows: number }
  /** Its ends lie elsewhere; what it plays stays where it is. */
  | { type: 'boundBlock'; block: number; from: number; length: number }
  | { type: 'copyBlocks'; blocks: readonly number[]; by: number }
  | { type: 'removeBlocks'; blocks: readonly number[] }
  | { type: 'dropBlocks'; dropped: readonly Dropped[] }
  /** A stretch of all tracks goes, and what follows comes forward. */
  | { type: 'closeStretch'; from: number; to: number }
  /** All tracks make room. */
  | { type: 'openStretch'; at: number; ticks: number }
  | { type: 'removeHits'; hits: readonly number[] }
  | { type: 'moveHits'; hits: readonly number[]; by: number }
  /** From where they were struck. */
  | { type: 'placeHits'; hits: readonly number[]; feel: Feel }
  | { type: 'dropHit'; track: number; hit: Omit<Stroke, 'id'> }
  /** Lines drawn anew in a stretch: levels 0..1, tempo in quarter notes per minute. */
  | { type: 'drawLevels'; track: number; from: number; to: number; steps: readonly Step[] }
  | { type: 'drawTempo'; from: number; to: number; steps: readonly Step[] }
  /** Strokes that lie in the stretch follow the line. */
  | { type: 'drawStrokes'; track: number; line: StrokeLine; from: number; to: number; steps: readonly Step[] }
  /** Each stroke that lies in the stretch by as much higher on its line, or lower. */
  | { type: 'raiseStrokes'; track: number; line: StrokeLine; from: number; to: number; by: number };

/** The most bars that a score can be made long. */
export const MOST_BARS = 4000;

/** A score with one thing put right. The score itself stays as it is. */
export function fixed(score: Score, fix: Fix): Score {
  switch (fix.type) {
    case 'moveBlocks':
      return blocksMoved(score, fix);
    case 'boundBlock':
      return blockBound(score, fix);
    case 'copyBlocks': {
      const copies = score.tracks.flatMap(({ id, blocks }) =>
        blocks
          .filter((block) => fix.blocks.includes(block.id))
          .map((block): Dropped => ({ track: id, block: { ...block, from: block.from + fix.by } })),
      );
      return dropped(score, copies);
    }
    case 'removeBlocks':
      return onTracks(score, (track) => ({ ...track, blocks: track.blocks.filter(({ id }) => !fix.blocks.includes(id)) })); // prettier-ignore
    case 'dropBlocks':
      return dropped(score, fix.dropped);
    case 'closeStretch':
      return stretchClosed(score, fix.from, fix.to);
    case 'openStretch':
      return stretchOpened(score, fix.at, fix.ticks);
    case 'removeHits':
      return onHits(score, fix.hits, () => null);
    case 'moveHits':
      return onHits(score, fix.hits, (hit) => ({ ...hit, tick: Math.max(0, hit.tick + fix.by), late: 0 }));
    case 'placeHits':
      return onHits(score, fix.hits, (hit) => placed(hit, fix.feel));
    case 'dropHit': {
      const hit = { ...fix.hit, id: nextId(score) };
      return grown(onTrack(score, fix.track, (track) => ({ ...track, hits: inOrder([...track.hits, hit]) })));
    }
    case 'drawLevels':
      return onTrack(score, fix.track, (track) => ({ ...track, levels: stepsDrawn(track.levels, fix, 0, 1) }));
    case 'drawTempo':
      return { ...score, tempo: stepsDrawn(score.tempo, fix, MIN_TEMPO, MAX_TEMPO) };
    case 'drawStrokes':
      return fix.steps.length === 0
        ? score
        : onTrack(score, fix.track, (track) => onLine(track, fix, (_, tick) => valueOn(fix.steps, tick)));
    case 'raiseStrokes':
      return onTrack(score, fix.track, (track) => onLine(track, fix, (value) => value + fix.by));
  }
}

type Of<T extends Fix['type']> = Extract<Fix, { type: T }>;

function onTracks(score: Score, change: (track: ScoreTrack) => ScoreTrack): Score {
  return { ...score, tracks: score.tracks.map(change) };
}

function onTrack(score: Score, id: number, change: (track: ScoreTrack) => ScoreTrack): Score {
  return onTracks(score, (track) => (track.id === id ? change(track) : track));
}

/** Changes hits by their ids; null takes one away. */
function onHits(score: Score, ids: readonly number[], change: (hit: Stroke) => Stroke | null): Score {
  const chosen = new Set(ids);
  return grown(
    onTracks(score, (track) => {
      if (!track.hits.some(({ id }) => chosen.has(id))) return track;
      const hits = track.hits.flatMap((hit) => (chosen.has(hit.id) ? (change(hit) ?? []) : hit));
      return { ...track, hits: inOrder(hits) };
    }),
  );
}

/** A hit where a Feel places what was struck. It keeps when it was struck. */
function placed(hit: Stroke, feel: Feel): Stroke {
  const struck = hit.tick - hit.late;
  const tick = Math.max(0, placedTick(struck, feel));
  return { ...hit, tick, late: tick - struck };
}

// --- blocks ------------------------------------------------------------------------------------------------------

function blocksMoved(score: Score, { blocks, by, rows }: Of<'moveBlocks'>): Score {
  const moved: { row: number; block: Block }[] = [];
  const left = score.tracks.map((track, row) => {
    const going = track.blocks.filter(({ id }) => blocks.includes(id));
    // What would leave the score at its beginning, top or bottom stays at its edge.
    const to = Math.min(score.tracks.length - 1, Math.max(0, row + rows));
    for (const block of going) moved.push({ row: to, block: { ...block, from: Math.max(0, block.from + by) } });
    return going.length === 0 ? track : { ...track, blocks: track.blocks.filter(({ id }) => !blocks.includes(id)) };
  });
  const ids = idsFrom(score);
  const tracks = left.map((track, row) => {
    const coming = moved.filter((one) => one.row === row).map(({ block }) => block);
    return coming.length === 0 ? track : { ...track, blocks: laidOver(track.blocks, coming, ids) };
  });
  return grown({ ...score, tracks });
}

function blockBound(score: Score, { block: id, from, length }: Of<'boundBlock'>): Score {
  const ids = idsFrom(score);
  return grown(
    onTracks(score, (track) => {
      const block = track.blocks.find((other) => other.id === id);
      if (!block) return track;
      const start = Math.max(0, from);
      const bound = { ...block, from: start, length: Math.max(1, length), into: block.into + start - block.from };
      return { ...track, blocks: laidOver(track.blocks.filter((other) => other !== block), [bound], ids) }; // prettier-ignore
    }),
  );
}

function dropped(score: Score, all: readonly Dropped[]): Score {
  const ids = idsFrom(score);
  return grown(
    onTracks(score, (track) => {
      const coming = all.filter((one) => one.track === track.id).map(({ block }) => ({ ...block, id: ids() }));
      return coming.length === 0 ? track : { ...track, blocks: laidOver(track.blocks, coming, ids) };
    }),
  );
}

// --- stretches ---------------------------------------------------------------------------------------------------

function stretchClosed(score: Score, from: number, to: number): Score {
  const end = Math.min(to, score.length);
  const gone = end - from;
  // Something is always left.
  if (gone <= 0 || gone >= score.length) return score;
  const ids = idsFrom(score);
  const moved = <T extends { tick: number }>(list: readonly T[]) =>
    list.flatMap((item) => (item.tick < from ? item : item.tick < end ? [] : { ...item, tick: item.tick - gone }));
  return {
    ...score,
    length: wholeBars(score, score.length - gone),
    tempo: stepsWithout(score.tempo, from, end),
    marks: moved(score.marks),
    // What was set in it holds after it.
    turned: score.turned.map((step) => (step.tick < from ? step : { ...step, tick: Math.max(from, step.tick - gone) })),
    tracks: score.tracks.map((track) => ({
      ...track,
      blocks: blocksWithout(track.blocks, from, end, ids).map((block) =>
        block.from < end ? block : { ...block, from: block.from - gone },
      ),
      hits: moved(track.hits),
      levels: stepsWithout(track.levels, from, end),
    })),
  };
}

function stretchOpened(score: Score, at: number, ticks: number): Score {
  if (ticks <= 0 || wholeBars(score, score.length + ticks) > MOST_BARS * ticksPerBar(score.meter)) return score;
  const ids = idsFrom(score);
  const moved = <T extends { tick: number }>(list: readonly T[]) =>
    list.map((item) => (item.tick < at ? item : { ...item, tick: item.tick + ticks }));
  return {
    ...score,
    length: wholeBars(score, score.length + ticks),
    tempo: stepsMoved(score.tempo, at, ticks),
    marks: moved(score.marks),
    turned: moved(score.turned),
    tracks: score.tracks.map((track) => ({
      ...track,
      blocks: blocksWithout(track.blocks, at, at, ids).map((block) =>
        block.from < at ? block : { ...block, from: block.from + ticks },
      ),
      hits: moved(track.hits),
      levels: stepsMoved(track.levels, at, ticks),
    })),
  };
}

/** A score that is as long as what lies in it. */
function grown(score: Score): Score {
  const most = MOST_BARS * ticksPerBar(score.meter);
  let end = score.length;
  for (const { blocks, hits } of score.tracks) {
    for (const { from, length } of blocks) end = Math.max(end, from + length);
    for (const { tick } of hits) end = Math.max(end, tick + 1);
  }
  return end === score.length ? score : { ...score, length: Math.min(most, wholeBars(score, end)) };
}

function wholeBars({ meter }: Score, ticks: number): number {
  const bar = ticksPerBar(meter);
  return Math.max(1, Math.ceil(ticks / bar - SAME_TICKS)) * bar;
}

// --- lines -------------------------------------------------------------------------------------------------------

/** The bounds of a line of strokes. */
export function lineRange(line: StrokeLine): { min: number; max: number } {
  return line === 'velocity' ? { min: 0.01, max: 1 } : CONTROL_RANGES[line];
}

/** What a stroke has on a line. */
export function lineValue(stroke: Stroke, line: StrokeLine): number {
  return stroke[line] ?? 0;
}

/** The strokes of a track that lie in a stretch, with other values on a line. */
function onLine(
  track: ScoreTrack,
  { line, from, to }: { line: StrokeLine; from: number; to: number },
  change: (value: number, tick: number) => number,
): ScoreTrack {
  const { min, max } = lineRange(line);
  const follow = (stroke: Stroke, tick: number): Stroke => {
    if (tick < from || tick >= to) return stroke;
    return { ...stroke, [line]: Math.min(max, Math.max(min, change(lineValue(stroke, line), tick))) };
  };
  const hits = track.hits.map((hit) => follow(hit, hit.tick));
  const blocks = track.blocks.map((block): Block => {
    if (block.from >= to || block.from + block.length <= from) return block;
    const shift = block.from - block.into;
    const strokes = block.content.strokes.map((stroke) => follow(stroke, stroke.tick + shift));
    return { ...block, content: { ...block.content, strokes } };
  });
  return { ...track, hits, blocks };
}

/** A drawn line at a tick: straight between its points. */
function valueOn(steps: readonly Step[], tick: number): number {
  const after = steps.findIndex((step) => step.tick > tick);
  if (after === 0) return steps[0]!.value;
  if (after < 0) return steps[steps.length - 1]!.value;
  const [a, b] = [steps[after - 1]!, steps[after]!];
  return a.value + ((b.value - a.value) * (tick - a.tick)) / (b.tick - a.tick);
}

// --- ids ---------------------------------------------------------------------------------------------------------

function nextId(score: Score): number {
  let id = 0;
  for (const { blocks, hits } of score.tracks) {
    for (const hit of hits) id = Math.max(id, hit.id);
    for (const block of blocks) id = Math.max(id, block.id);
  }
  return id + 1;
}

/** Ids that nothing in the score has. Blocks and hits are told apart by them; strokes within a block need none. */
function idsFrom(score: Score): () => number {
  let id = nextId(score);
  return () => id++;
}
