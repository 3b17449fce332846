import { emptySet, newTrack } from '@/core/document/create';
import type { BeatSet, Pattern } from '@/core/document/set';
import { expect, type App } from './app';

/** Bars of a pattern with one hit at its top. */
export function oneHit(name: string, length: number, id: number, pad = 0): Pattern {
  return { name, length, hits: [{ id, pad, tick: 0, length: 120, velocity: 0.8, snap: null }] };
}

/** A set of tracks T1, T2 ... whose slots hold patterns a, b, c ... of these lengths, in ticks; each has one hit, at its top. */
export function band(lengths: readonly (readonly number[])[], tempo = 120): BeatSet {
  const tracks = lengths.map((slots, channel) => {
    const patterns = slots.map((length, slot) => oneHit('abcdefghijklmnop'[slot]!, length, 1 + 2 * (slot + 100 * channel), channel % 16)); // prettier-ignore
    return { ...newTrack(`T${channel + 1}`, channel % 8, patterns), channel };
  });
  return { ...emptySet(), tempo, countIn: 0, tracks };
}

/** Opens the place Launch with a set. */
export async function openLaunch(app: App, set: BeatSet): Promise<void> {
  await app.openSet(set);
  await app.page.getByRole('link', { name: 'Launch', exact: true }).click();
  await expect(app.button('Drop on')).toBeVisible();
}

export async function dropOn(app: App, drop: string): Promise<void> {
  await app.button('Drop on').click();
  await app.page.getByRole('menuitem', { name: drop, exact: true }).click();
  await expect(app.button('Drop on')).toHaveAccessibleDescription(drop);
}

/** How a card, section or key says that it stands. */
export const says = (app: App, name: string, words: string | RegExp) =>
  expect(app.button(name)).toHaveAccessibleDescription(words);
