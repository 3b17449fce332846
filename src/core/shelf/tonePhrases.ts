import { idsFrom } from '../document/hit';
import type { Pattern } from '../document/pattern';
import type { Tones } from '../document/tones';
import type { ToneSource, ToneVoice } from '../document/toneVoices';
import { writtenNotes, type WrittenNotes } from '../document/written';

/** Pads of a minor key: 0 is its root, 7 the root an octave higher. Two bars in which a voice does what it is for. */
const PHRASES: Record<ToneVoice, WrittenNotes> = {
  bass: { bars: 2, notes: [[7, 0, 3, 9], [7, 6, 7, 6], [7, 10, 12, 8], [9, 12, 15, 7], [5, 16, 19, 9], [5, 22, 23, 6], [4, 24, 28, 8], [6, 28, 31, 7]] },
  deepBass: { bars: 2, notes: [[7, 0, 6, 9], [7, 6, 8, 6], [5, 10, 15, 8], [3, 16, 24, 9], [4, 24, 31, 8]] },
  keys: { bars: 2, notes: [[0, 0, 6, 7], [2, 0, 6, 6], [4, 0, 6, 6], [6, 0, 6, 5], [4, 8, 10, 5], [5, 16, 22, 7], [7, 16, 22, 6], [9, 16, 22, 6], [7, 26, 31, 5]] },
  organ: { bars: 2, notes: [[0, 0, 7, 7], [2, 0, 7, 7], [4, 0, 7, 7], [3, 8, 15, 7], [5, 8, 15, 7], [7, 8, 15, 7], [4, 16, 31, 7], [6, 16, 31, 7], [8, 16, 31, 7]] },
  pad: { bars: 2, notes: [[0, 0, 30, 7], [2, 0, 15, 7], [4, 0, 30, 7], [3, 16, 30, 7], [7, 16, 30, 6]] },
  pluck: { bars: 2, notes: [[0, 0, 2, 8], [4, 2, 4, 6], [7, 4, 6, 7], [9, 6, 8, 5], [7, 8, 10, 7], [4, 10, 12, 5], [2, 12, 14, 6], [0, 16, 18, 8], [3, 18, 20, 6], [5, 20, 22, 7], [7, 22, 26, 8], [5, 26, 28, 5], [2, 28, 31, 7]] },
  mallet: { bars: 2, notes: [[0, 0, 2, 8], [2, 3, 5, 6], [4, 6, 8, 7], [7, 8, 12, 8], [6, 12, 14, 5], [4, 16, 18, 7], [3, 19, 21, 6], [2, 22, 24, 7], [0, 24, 31, 8]] },
  lead: { bars: 2, notes: [[0, 0, 5, 7], [2, 4, 8, 7], [4, 8, 14, 8], [3, 14, 16, 6], [2, 16, 22, 8], [0, 21, 26, 7], [1, 26, 31, 8]] },
}; // prettier-ignore

const TEMPO = 100;
const STRENGTH = 0.6;

/** The notes in which a preset shows itself, and the tempo at which they are at home. */
export function phraseOf(source: ToneSource): { pattern: Pattern; tones: Tones; tempo: number } {
  const tones: Tones = { ...source, root: 9, scale: 'minor', chromatic: false, octave: 0 };
  const pattern = writtenNotes('Phrase', PHRASES[source.voice], { tempo: TEMPO, strength: STRENGTH }, idsFrom(1));
  return { pattern, tones, tempo: TEMPO };
}
