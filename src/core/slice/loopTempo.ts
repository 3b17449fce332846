import { estimateBeat } from '../quantize/estimateBeat';
import { SAMPLE_RATE } from '../sample/levels';
import { ticksPerPulse, PPQ, type Meter } from '../time/ticks';
import type { SoundOnset } from './onsets';

/** A loop is a whole number of beats long if its length is so near one, as a share of its length. */
const WHOLE = 0.006;

/**
 * The tempo of a recording, quarter notes per minute, by where its strokes lie and, if it could be a whole number of beats, by its
 * length.
 * @param frames its length at SAMPLE_RATE
 * @returns null where nothing tells it
 */
export function tempoOf(onsets: readonly SoundOnset[], frames: number, meter: Meter): number | null {
  const strongest = Math.max(...onsets.map(({ rise }) => rise));
  const strokes = onsets.map(({ frame, rise, role }) => ({ ms: (frame * 1000) / SAMPLE_RATE, role, velocity: Math.min(1, Math.sqrt(rise / strongest)) })); // prettier-ignore
  const beat = estimateBeat(strokes, meter);
  if (!beat) return null;
  const quarters = ticksPerPulse(meter) / PPQ;
  const beats = ((frames / SAMPLE_RATE) * beat.tempo) / 60 / quarters;
  const whole = Math.round(beats);
  return whole > 0 && Math.abs(beats / whole - 1) < WHOLE ? (beat.tempo * whole) / beats : beat.tempo;
}
