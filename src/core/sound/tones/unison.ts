import type { OscillatorDesign } from './toneDesign';

/**
 * Where the waves of a unison begin in their cycles: so far from each other that their edges do not peak at once, and so near that
 * their fundamentals do not begin by cancelling each other, which a slow beat of low notes would take seconds to undo.
 */
const PHASES = [0, 0.11, 0.91, 0.18, 0.84, 0.06, 0.95];

/**
 * Several waves beside each other, evenly from lowest to highest and from side to side, together as loud as one.
 * @param count at most 7
 * @param cents from the lowest to the highest at full motion
 */
export function unison(
  wave: OscillatorDesign['wave'],
  count: number,
  cents: number,
  more: Partial<OscillatorDesign> = {},
): OscillatorDesign[] {
  // prettier-ignore
  const { level = 1 } = more;
  return Array.from({ length: count }, (_, i) => {
    const place = count === 1 ? 0 : (2 * i) / (count - 1) - 1;
    // Neighbours in pitch stand on opposite sides.
    const side = i % 2 === 0 ? place : -place;
    return { wave, ratio: 1, ...more, level: level / Math.sqrt(count), detune: (place * cents) / 2, pan: side, phase: PHASES[i]! }; // prettier-ignore
  });
}
