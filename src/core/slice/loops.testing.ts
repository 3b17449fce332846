import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import type { SoundKind } from '../document/soundKinds';
import { newTrack } from '../document/track';
import { renderLoop } from '../engine/offline';
import { STYLES } from '../generate/styles';
import { random } from '../random';
import { SAMPLE_RATE, type SampleAudio } from '../sample/levels';
import { SHIPPED_KITS } from '../shelf/shippedKits';
import { framesPerTick, PPQ } from '../time/ticks';

/** A loop whose strokes are known. */
export interface KnownLoop {
  name: string;
  audio: SampleAudio;
  /** BPM, and bars of four quarters. */
  tempo: number;
  bars: number;
  /** Frames at which something is struck, in order: what is struck within 30 ms of another is one with it. */
  onsets: number[];
}

const BARS = 2;
const SIXTEENTH = PPQ / 4;
/** A flam's first stroke comes so much earlier, ms, and is so loud. */
const FLAM = { ms: 22, velocity: 0.4 };
/** Strokes nearer than this are one for the ear and for a cut: as usual where onset detectors are judged (common practice). */
export const ONE_MS = 30;

/**
 * A loop as a drummer would play it in one of the styles: accents, ghost notes at a quarter of full velocity, flams on some of the
 * backbeats; every second one in a room.
 */
export function knownLoop(index: number, tempo: number): KnownLoop {
  const next = random(index + 1);
  const style = Object.values(STYLES)[index % Object.keys(STYLES).length]!;
  const shelved = SHIPPED_KITS[index % SHIPPED_KITS.length]!;
  const kit = shelved.kit!;
  const ticksPerMs = (tempo * PPQ) / 60000;
  const hits: Hit[] = [];
  const strike = (kind: SoundKind, tick: number, velocity: number) => {
    const pad = kit.pads.findIndex(({ sound }) => sound.kind === kind);
    if (pad >= 0)
      hits.push({ id: 2 * hits.length + 1, pad, tick: Math.max(0, tick), length: SIXTEENTH / 2, velocity, snap: null });
  };
  for (const [kind, lane] of Object.entries(style.lanes) as [SoundKind, string][]) {
    for (let step = 0; step < 16 * BARS; step++) {
      const odds = lane[step % 16]!;
      if (odds === '-' || (odds !== 'X' && next() > Number(odds) / 10)) continue;
      const swung = step % 2 === 1 ? (style.swing - 0.5) * 2 * SIXTEENTH : 0;
      const tick = step * SIXTEENTH + swung;
      const isGhost = kind === 'snare' && odds !== 'X';
      const isFlam = kind === 'snare' && odds === 'X' && step > 0 && next() < 0.3;
      if (isFlam) strike(kind, tick - FLAM.ms * ticksPerMs, FLAM.velocity);
      strike(kind, tick, isGhost ? 0.25 : 0.55 + 0.4 * next());
    }
  }
  const pads = kit.pads.map((pad) => ({ ...pad, sound: { ...pad.sound, settings: { ...pad.sound.settings, ...(index % 2 === 1 && { room: 0.3 }) } } })); // prettier-ignore
  const pattern: Pattern = { name: 'Loop', length: 4 * PPQ * BARS, hits };
  const track = { ...newTrack('Drums', 0, [pattern]), kit: { ...kit, pads } };
  const { left, right } = renderLoop({ track, pattern, tempo, sampleRate: SAMPLE_RATE });
  const frames = hits.map(({ tick }) => tick * framesPerTick(tempo, SAMPLE_RATE)).sort((a, b) => a - b);
  const onsets: number[] = [];
  for (const frame of frames) if (onsets.length === 0 || frame - onsets.at(-1)! > (ONE_MS * SAMPLE_RATE) / 1000) onsets.push(frame); // prettier-ignore
  return { name: `${style.name}, ${kit.name}`, audio: { channels: [left, right] }, tempo, bars: BARS, onsets };
}

/** Twenty loops from 70 to 174 BPM. */
export function knownLoops(): KnownLoop[] {
  return Array.from({ length: 20 }, (_, i) => knownLoop(i, Math.round(70 + (104 * i) / 19)));
}

/** How well found onsets are those that there are: each counts once, within a tolerance. */
export function fMeasure(found: readonly number[], truth: readonly number[], toleranceMs: number): number {
  const reach = (toleranceMs * SAMPLE_RATE) / 1000;
  let [right, f, t] = [0, 0, 0];
  while (f < found.length && t < truth.length) {
    const off = found[f]! - truth[t]!;
    if (Math.abs(off) <= reach) {
      right++;
      f++;
      t++;
    } else if (off < 0) f++;
    else t++;
  }
  return found.length + truth.length === 0 ? 1 : (2 * right) / (found.length + truth.length);
}
