import { ticksPerBar, ticksPerPulse, type Meter } from '../time/ticks';
import type { BeatFeel } from './beatFeels';

/** What a stroke tells of the bar: a bass drum marks its ones and threes, a snare its twos and fours (common practice). */
export type Role = 'low' | 'back' | 'other';

/** Where in a bar each role usually is. */
export interface BarModel {
  /** Beats to the bar (three eighths are one beat of a compound meter). */
  beats: number;
  /** Beats a minute that are the most usual. */
  usualBeats: number;
  /** How usual a role is on each beat, 0..1. */
  onBeat: Record<Role, readonly number[]>;
}

/** The most usual beats a minute: of a simple meter, and of a compound one. */
const USUAL_SIMPLE = 110;
const USUAL_COMPOUND = 72;

/** How usual a role is off the beat. */
const OFF_BEAT: Record<Role, number> = { low: 0.25, back: 0.08, other: 0.8 };

export function barModel(meter: Meter): BarModel {
  const pulse = ticksPerPulse(meter);
  const beats = Math.round(ticksPerBar(meter) / pulse);
  const isEven = beats % 2 === 0;
  const each = (usual: (beat: number) => number) => Array.from({ length: beats }, (_, beat) => usual(beat));
  return {
    beats,
    usualBeats: pulse > 960 && pulse % 720 === 0 ? USUAL_COMPOUND : (USUAL_SIMPLE * 960) / pulse,
    onBeat: {
      low: each((beat) => (beat === 0 ? 1 : isEven && beat === beats / 2 ? 0.5 : 0.25)),
      back: each((beat) => {
        if (beat === 0) return 0.04;
        if (!isEven) return 0.6;
        return beat % 2 === 1 ? 1 : 0.5;
      }),
      other: each((beat) => (beat === 0 ? 1.05 : 1)),
    },
  };
}

/** How usual each role is at each place of the bar (beat by beat, line by line): shares that add up to one. */
export function usualPlaces({ beats, onBeat }: BarModel, { lines }: BeatFeel): Record<Role, readonly number[]> {
  const of = (role: Role) => {
    const usual: number[] = [];
    for (let beat = 0; beat < beats; beat++) {
      lines.forEach(({ strength }, line) => usual.push(line === 0 ? onBeat[role][beat]! : OFF_BEAT[role] * strength));
    }
    const sum = usual.reduce((a, b) => a + b, 0);
    return usual.map((value) => value / sum);
  };
  return { low: of('low'), back: of('back'), other: of('other') };
}
