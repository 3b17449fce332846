import { median } from '../statistics';
import { MAX_TEMPO, MIN_TEMPO } from './ticks';

/**
 * Clamps a tempo to what Chaffinch plays, and rounds it to a hundredth of a BPM (finer cannot be typed or heard).
 * @example clampTempo(112.346) // 112.35; clampTempo(500) // 300
 */
export function clampTempo(bpm: number): number {
  const kept = Math.round(bpm * 100) / 100;
  return Math.min(MAX_TEMPO, Math.max(MIN_TEMPO, kept));
}

/**
 * Reads a typed tempo. A decimal comma is as good as a point.
 * @returns BPM, or a sentence that says what is wrong with the text.
 * @example parseTempo('92,5') // { bpm: 92.5 }
 */
export function parseTempo(text: string): { bpm: number } | { error: string } {
  const clean = text.trim().replace(',', '.');
  if (!/^\d+(\.\d*)?$|^\.\d+$/.test(clean)) return { error: `Tempo “${text.trim()}” is not a number.` };
  const bpm = Number(clean);
  if (bpm < MIN_TEMPO || bpm > MAX_TEMPO) {
    return { error: `Tempo ${clean} is outside ${MIN_TEMPO} to ${MAX_TEMPO} BPM.` };
  }
  return { bpm: clampTempo(bpm) };
}

/**
 * Writes a tempo without needless decimals.
 * @example formatTempo(92.5) // '92.5'
 */
export function formatTempo(bpm: number): string {
  return String(Math.round(bpm * 100) / 100);
}

/** Longest pause between two taps that still counts as one series: a beat at the slowest tempo. */
export const TAP_PAUSE_MS = 60000 / MIN_TEMPO;
const TAPS_KEPT = 8;
/** A gap this much longer than the beat so far is the start of something new, not a slow tap. */
const NEW_SERIES_RATIO = 1.9;

/**
 * Adds a tap to a series; the series starts anew after a pause.
 * @param taps times of the taps so far, ms, ascending
 * @param now time of this tap, ms (the event's own time stamp)
 * @example addTap([1000, 1500], 2000) // [1000, 1500, 2000]; addTap([1000, 1500], 9000) // [9000]
 */
export function addTap(taps: readonly number[], now: number): number[] {
  const last = taps[taps.length - 1];
  if (last === undefined || now <= last || now - last > TAP_PAUSE_MS) return [now];
  if (taps.length > 2 && now - last > NEW_SERIES_RATIO * median(intervals(taps))) return [now];
  return [...taps.slice(1 - TAPS_KEPT), now];
}

/**
 * Tempo of a series of taps: the median of its intervals, rounded to a whole number.
 * The median, so that one fumbled tap changes nothing.
 * @returns BPM, or null with fewer than two taps
 * @example tappedTempo([0, 500, 1000]) // 120
 */
export function tappedTempo(taps: readonly number[]): number | null {
  if (taps.length < 2) return null;
  return clampTempo(Math.round(60000 / median(intervals(taps))));
}

function intervals(times: readonly number[]): number[] {
  return times.slice(1).map((t, i) => t - times[i]!);
}
