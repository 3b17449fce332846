import { newSet } from '@/core/document/create';
import { FIRST_STAGE } from '@/core/document/stage';
import type { StoredSet } from './sets';
import { expect, type App } from './app';
import { touchItem } from './menu';
import type { EngineEvent } from '@/core/protocol/events';
import { listen, of } from './ear';
import type { Pattern } from '@/core/document/pattern';
import { newTrack } from '@/core/document/track';

export const BEAT = 960;
export const BAR = 3840;
/** The slot of a track that is silent. */
export const SILENT = -1;
export const loops = (events: readonly EngineEvent[]) => of(events, 'loop');
/** BPM at which even a slow machine touches what waits before it drops. */
export const SLOW = 40;

/** The changes of what plays since the song began, as [track, slot, bar]. */
export const changes = (events: readonly EngineEvent[]) => {
  const start = events.find((e) => e.kind === 'anchor' && e.playing)!.frame;
  return loops(events).filter((e) => e.frame > start).map((e) => [e.track, e.slot, e.tick / BAR]); // prettier-ignore
};

/** Bars of a pattern with one hit at its top. */
export function oneHit(name: string, length: number, id: number, pad = 0): Pattern {
  return { name, length, hits: [{ id, pad, tick: 0, length: 120, velocity: 0.8, snap: null }] };
}

/** A set of tracks T1, T2 ... whose slots hold patterns a, b, c ... of these lengths, in ticks; each has one hit, at its top. */
export function band(lengths: readonly (readonly number[])[], tempo = 120): StoredSet {
  const tracks = lengths.map((slots, id) => {
    const patterns = slots.map((length, slot) => oneHit('abcdefghijklmnop'[slot]!, length, 1 + 2 * (slot + 100 * id), id % 16)); // prettier-ignore
    return { ...newTrack(`T${id + 1}`, id % 8, patterns), id };
  });
  const set = newSet('Band', tempo, tracks);
  const stage = { shown: 0, tracks: Object.fromEntries(set.order.map((id) => [id, FIRST_STAGE])) };
  return { ...set, countIn: 0, stage };
}

/** Opens the place Launch with a set. */
export async function openLaunch(app: App, set: StoredSet): Promise<void> {
  await app.openSet(set);
  await app.page.getByRole('link', { name: 'Launch', exact: true }).click();
  await expect(app.button('Drop on')).toBeVisible();
}

export async function dropOn(app: App, drop: string): Promise<void> {
  await app.button('Drop on').click();
  await touchItem(app.page, drop, true);
  await expect(app.button('Drop on')).toHaveAccessibleDescription(drop);
}

/** How a card, section or key says that it stands. */
export const says = (app: App, name: string, words: string | RegExp) =>
  expect(app.button(name)).toHaveAccessibleDescription(words);

/**
 * Touches a key so shortly that it stays on. On a busy machine a click may last long enough to be a hold, which ends as it began: then it is
 * touched again.
 */
export async function touchShortly(app: App, name: string): Promise<void> {
  for (let attempt = 1; attempt <= 12; attempt++) {
    await app.button(name).click();
    // What the engine makes of it has been told by then.
    await listen(app.page, 0.5);
    if ((await app.button(name).getAttribute('aria-pressed')) === 'true') return;
    console.log(`The machine was starved (a touch of ${name} was a hold): touched again.`);
  }
  throw new Error(`No touch of ${name} was short on this machine.`);
}
