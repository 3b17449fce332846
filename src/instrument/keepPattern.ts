import { counted } from '@/core/counted';
import type { SoundKind } from '@/core/document/soundKinds';
import { lanesOf } from '@/core/document/lanes';
import type { PlayedStroke } from '@/core/record/justPlayed';
import { keptFrom, keptHits, onBeat, onSong, type PlacedStroke } from '@/core/record/keep';
import { PPQ, ticksPerBar, ticksPerBeat, type Meter } from '@/core/time/ticks';
import type { Role } from '@/core/quantize/barModel';
import { estimateBeat, type Beat } from '@/core/quantize/estimateBeat';
import { gridTicks } from '@/core/quantize/grid';
import type { Instrument } from './instrument';
import { freeSlot } from '@/core/edit/slots';
import { selectInputSnap, selectSet, selectShown, selectSlot, selectTrack } from '@/store/selectors';
import { slotOpened } from '@/store/stageSlice';
import { noticed } from '@/store/sessionSlice';
import type { RootState, Store } from '@/store/store';
import { idsFrom } from '@/core/document/hit';
import type { Pattern } from '@/core/document/pattern';
import { patternKept } from '@/store/slotsSlice';

/** The last stretch of playing, as Keep offers it. */
export interface Keepable {
  strokes: readonly PlayedStroke[];
  /** The estimated beat of free playing; null when the song gave it, or when the playing gives none. */
  beat: Beat | null;
  withSong: boolean;
}

const ROLES: Partial<Record<SoundKind, Role>> = {
  kick: 'low',
  lowTom: 'low',
  snare: 'back',
  clap: 'back',
  rim: 'back',
};

function roleOf(sound: SoundKind | undefined): Role {
  return (sound && ROLES[sound]) ?? 'other';
}

/** Looks at what was just played on the current track. */
export function lookBack(instrument: Instrument, state: RootState): Keepable {
  const strokes = instrument.justPlayed.lastStretch(selectShown(state));
  const withSong = strokes[0]?.songTick !== null;
  const pads = lanesOf(selectTrack(state));
  const onsets = withSong
    ? []
    : strokes.map(({ ms, pad, velocity }) => ({ ms, velocity, role: roleOf(pads[pad]!.kind) }));
  return { strokes, withSong, beat: withSong ? null : estimateBeat(onsets, selectSet(state).meter) };
}

/** A window of whole bars onto the playing. */
export interface KeepWindow {
  placed: PlacedStroke[];
  /** Tick of its first bar's start, and its length in ticks. */
  from: number;
  length: number;
}

/** What the player asks Keep for. */
export interface KeepAsked {
  bars: number;
  /** Whole bars by which the player has moved the window. */
  shift: number;
  meter: Meter;
  /** Of the input quantize, ticks. */
  grid: number;
  /** Song tick, or null when nothing plays. */
  now: number | null;
}

/**
 * The window that keeping would take.
 * @param beat as estimated, and as the player has corrected it
 */
export function keepWindow(
  { strokes, withSong }: Keepable,
  beat: Beat | null,
  { bars, shift, meter, grid, now }: KeepAsked,
): KeepWindow {
  const bar = ticksPerBar(meter);
  const placed = withSong ? onSong(strokes) : beat ? onBeat(strokes, beat) : [];
  const from =
    keptFrom(placed, { bars, bar, beat: ticksPerBeat(meter), grid, now: withSong ? now : null }) + shift * bar;
  return { placed, from, length: bars * bar };
}

/** Makes the window a pattern, in the next free slot, and opens it. Returns how many hits it has; 0 keeps nothing. */
export function keep(store: Store, instrument: Instrument, { placed, from, length }: KeepWindow, beat: Beat | null) {
  const state = store.getState();
  const set = selectSet(state);
  const track = selectTrack(state);
  const first = instrument.reserveIds(placed.length);
  const ticksPerMs = ((beat?.tempo ?? set.tempo) * PPQ) / 60000;
  const stretch = { from, length, snap: selectInputSnap(state), grid: gridTicks(set.inputQuantize.grid), ticksPerMs };
  const hits = keptHits(placed, stretch, idsFrom(first));
  if (hits.length === 0) {
    store.dispatch(noticed('Nothing was played in these bars.'));
    return 0;
  }
  const name = keptName(track.patterns);
  const place = { track: track.id, slot: freeSlot(track, selectSlot(state)) };
  store.dispatch(patternKept({ place, pattern: { name, length, hits }, ...(beat && { tempo: beat.tempo }) }));
  instrument.perform({ type: 'launch', ...place, on: 0, inPlace: true });
  store.dispatch(slotOpened(place));
  // With the song, the pattern goes on in step with how it was played.
  if (!beat && instrument.performance.anchor.playing) instrument.launchAt(track.id, from);
  const bars = length / ticksPerBar(set.meter);
  store.dispatch(noticed(`Kept ${counted(bars, 'bar')}, ${counted(hits.length, 'hit')}, as “${name}”.`, true));
  return hits.length;
}

function keptName(patterns: readonly (Pattern | null)[]): string {
  const names = new Set(patterns.map((pattern) => pattern?.name));
  let n = 1;
  while (names.has(`Kept ${n}`)) n++;
  return `Kept ${n}`;
}
