import { emptySet, type StoredSet } from './sets';
import { expect, type App } from './app';
import { touchItem } from './menu';
import type { Hit } from '@/core/document/hit';
import { newPattern, type Pattern } from '@/core/document/pattern';

/** The first track's open pattern, as it is saved. */
export const patternOf = ({ tracks, stage, meter }: StoredSet): Pattern => {
  const { slot } = stage.tracks[0]!;
  return tracks[0]!.patterns[slot] ?? newPattern(slot, meter);
};
export const hitsOf = (set: StoredSet): Hit[] => patternOf(set).hits;

/** A set of one empty track whose first pattern has some hits, each of length 120 and velocity 0.8 unless it says otherwise. */
export function setWith(
  hits: readonly (Pick<Hit, 'pad' | 'tick'> & Partial<Hit>)[],
  length = 3840,
  tempo = 120,
): StoredSet {
  const set = { ...emptySet(), tempo };
  const pattern = set.tracks[0]!.patterns[0]!;
  pattern.length = length;
  pattern.hits = hits.map((hit, i) => ({ id: 2 * i + 1, length: 120, velocity: 0.8, snap: null, ...hit }));
  return set;
}

/** Opens the place Steps with a set. */
export async function openSteps(app: App, set: StoredSet = emptySet()): Promise<void> {
  await app.openSet(set);
  await app.page.getByRole('link', { name: 'Steps' }).click();
  await expect(app.page.getByRole('grid', { name: 'Steps' })).toBeVisible();
}

export const cell = (app: App, name: string) => app.page.getByRole('gridcell', { name, exact: true });

export async function middle(app: App, name: string): Promise<{ x: number; y: number }> {
  const { x, y, width, height } = (await cell(app, name).boundingBox())!;
  return { x: x + width / 2, y: y + height / 2 };
}

/** Chooses an item of a menu that a key opens. */
export async function choose(app: App, key: string, item: string | RegExp): Promise<void> {
  await app.button(key).click();
  await touchItem(app.page, item, true);
}

/**
 * Chooses an item of a menu by keys alone. An open menu gives its first item the focus once it has faded in, so that
 * a focus set before that would be taken away again.
 */
export async function chooseByKeys({ app, key, item }: { app: App; key: string; item: string }): Promise<void> {
  await app.button(key).focus();
  await app.page.keyboard.press('Enter');
  await expect(app.page.getByRole('menuitem').first()).toBeFocused();
  await app.page.getByRole('menuitem', { name: item }).focus();
  await app.page.keyboard.press('Enter');
}

/** Opens one of the sheets by its key. */
export async function openSheet(app: App, key: string, title: string | RegExp = key): Promise<void> {
  await app.button(key).click();
  await expect(app.page.getByRole('dialog', { name: title })).toBeVisible();
}

/** A mouse drag from one point to another, in some steps. */
export async function drag(
  app: App,
  from: { x: number; y: number },
  to: { x: number; y: number },
  steps = 4,
): Promise<void> {
  const { mouse } = app.page;
  await mouse.move(from.x, from.y);
  await mouse.down();
  await mouse.move(to.x, to.y, { steps });
  await mouse.up();
}

export async function typeInto(app: App, field: string, text: string): Promise<void> {
  await app.strip(field).fill(text);
  await app.strip(field).press('Enter');
}
