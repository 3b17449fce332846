import { type StoredSet } from './sets';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { touchItem } from './menu';
import { giveEar, hears } from './ear';

/** The instrument as a player sees it: its controls by the names that assistive technology reads. */
export class App {
  readonly play: Locator;
  readonly stop: Locator;
  readonly record: Locator;
  readonly tempo: Locator;
  readonly position: Locator;
  readonly undo: Locator;
  readonly redo: Locator;

  constructor(readonly page: Page) {
    const button = (name: string) => page.getByRole('button', { name, exact: true });
    this.play = button('Play');
    this.stop = button('Stop');
    this.record = button('Record');
    this.undo = button('Undo');
    this.redo = button('Redo');
    this.tempo = page.getByRole('spinbutton', { name: 'Tempo' });
    this.position = page.getByRole('timer', { name: 'Position' });
  }

  button(name: string): Locator {
    return this.page.getByRole('button', { name, exact: true });
  }

  pad(number: number): Locator {
    return this.page.getByRole('button', { name: new RegExp(`^Pad ${number} `) });
  }

  /** Opens the pads: the page of the first visit is guide.spec's. */
  async open(): Promise<void> {
    await this.page.goto('/pads');
    await expect(this.play).toBeVisible();
    await this.hears();
  }

  /** Waits until the engine has begun to make sound, were it silence: what is asked of it before that is lost. */
  async hears(): Promise<void> {
    await hears(this.page);
  }

  /** Opens the app with a set that is stored there. */
  async openSet(set: StoredSet): Promise<void> {
    await this.store('set', JSON.stringify(set));
    await this.open();
  }

  /** Notes every pad that lights from now on. A light is short, and a look from outside may miss it. */
  async watchLights(): Promise<void> {
    await this.page.evaluate(() => {
      const lit = new Set<string>();
      (window as unknown as { lit: Set<string> }).lit = lit;
      const look = (records: MutationRecord[]) =>
        records.forEach(({ target }) => {
          const { dataset } = target as HTMLElement;
          if (dataset.lit && dataset.pad) lit.add(dataset.pad);
        });
      new MutationObserver(look).observe(document, { attributes: true, attributeFilter: ['data-lit'], subtree: true });
    });
  }

  /** Waits until these pads (1..16) have lit since `watchLights`. */
  async expectLit(...pads: number[]): Promise<void> {
    const lit = () =>
      this.page.evaluate(() => [...(window as unknown as { lit: Set<string> }).lit].map((pad) => Number(pad) + 1));
    await expect.poll(lit).toEqual(expect.arrayContaining(pads));
  }

  /** Notes every position that is shown from now on. A busy page shows one for a moment only, and a look from outside may miss it. */
  async watchPositions(): Promise<void> {
    await this.position.evaluate((readout) => {
      const shown: string[] = [];
      (window as unknown as { positions: string[] }).positions = shown;
      const look = () => shown.push(readout.textContent ?? '');
      new MutationObserver(look).observe(readout, { characterData: true, childList: true, subtree: true });
    });
  }

  /** The positions that were shown since `watchPositions`. */
  positions(): Promise<string[]> {
    return this.page.evaluate(() => (window as unknown as { positions: string[] }).positions);
  }

  async menu(item: string): Promise<void> {
    await this.button('Set menu').click();
    await touchItem(this.page, item);
  }

  /** Unfolds tempo and click in the head, or the tools of Pads. */
  async unfold(key: 'Tempo and click' | 'More tools'): Promise<void> {
    if ((await this.button(key).count()) === 0) return; // there is room for them always
    if ((await this.button(key).getAttribute('aria-expanded')) === 'false') await this.button(key).click();
    await expect(this.button(key)).toHaveAttribute('aria-expanded', 'true');
  }

  /** Touches one of the tools of Pads that are folded away to begin with. */
  async tool(name: string): Promise<void> {
    await this.unfold('More tools');
    await this.button(name).click();
  }

  /** Touches a key of tempo and click. */
  async timeKey(name: string): Promise<void> {
    await this.unfold('Tempo and click');
    await this.button(name).click();
  }

  async setTempo(bpm: number | string): Promise<void> {
    await this.unfold('Tempo and click');
    await this.tempo.fill(String(bpm));
    await this.tempo.press('Enter');
  }

  async chooseGrid(grid: string): Promise<void> {
    await this.tool('Grid');
    await touchItem(this.page, grid, true);
  }

  /** A strip, by its name. */
  strip(name: string): Locator {
    return this.page.getByRole('spinbutton', { name, exact: true });
  }

  async countIn(text: 'None' | '1 bar' | '2 bars'): Promise<void> {
    await this.unfold('Tempo and click');
    while (!(await this.button('Count-in').innerText()).includes(text)) await this.button('Count-in').click();
  }

  /** What the browser holds under a key of the app's storage. */
  stored(key: string): Promise<string | null> {
    return this.page.evaluate(
      (wanted) =>
        new Promise<string | null>((done, fail) => {
          const request = indexedDB.open('chaffinch');
          request.onerror = () => fail(request.error);
          request.onsuccess = () => {
            const get = request.result.transaction('entries').objectStore('entries').get(wanted);
            get.onsuccess = () => {
              request.result.close();
              done((get.result as string | undefined) ?? null);
            };
          };
        }),
      key,
    );
  }

  async storedKeys(): Promise<string[]> {
    return Object.keys(await this.storage());
  }

  /** All that the browser holds of the app. */
  storage(): Promise<Record<string, string>> {
    return this.page.evaluate(
      () =>
        new Promise<Record<string, string>>((done) => {
          const request = indexedDB.open('chaffinch');
          request.onsuccess = () => {
            const store = request.result.transaction('entries').objectStore('entries');
            const [keys, texts] = [store.getAllKeys(), store.getAll()];
            texts.onsuccess = () => {
              request.result.close();
              done(Object.fromEntries(keys.result.map((key, i) => [key, texts.result[i] as string])));
            };
          };
        }),
    );
  }

  /** The stored set, put together from its pieces. */
  private async storedSet(): Promise<StoredSet | null> {
    return this.putTogether(await this.storage(), 'set');
  }

  /** The set of a key, with the pieces that it names in their places. */
  putTogether(all: Record<string, string>, key: string): StoredSet | null {
    const set = parsed(all[key] ?? null);
    // Some tests begin with a set that is none.
    if (typeof set?.tracks !== 'object') return set;
    for (const { patterns } of Object.values(set.tracks)) {
      patterns.forEach((piece, slot) => {
        if (typeof piece !== 'string') return;
        const pattern = JSON.parse(all[piece]!) as { hits: string[] };
        const hits = pattern.hits.flatMap((name) => JSON.parse(all[name]!) as unknown[]);
        patterns[slot] = { ...pattern, hits } as unknown as (typeof patterns)[number];
      });
    }
    return set;
  }

  /** Puts a record into the app's storage before the app is opened. */
  async store(key: string, text: string): Promise<void> {
    await this.page.goto('/wingbars.svg');
    await this.page.evaluate(
      ([k, value]) =>
        new Promise<void>((done) => {
          const request = indexedDB.open('chaffinch', 1);
          request.onupgradeneeded = () => request.result.createObjectStore('entries');
          request.onsuccess = () => {
            const transaction = request.result.transaction('entries', 'readwrite');
            transaction.objectStore('entries').put(value, k);
            transaction.oncomplete = () => {
              request.result.close();
              done();
            };
          };
        }),
      [key, text] as const,
    );
  }

  /** The set as it is now: asks the app to save at once, as a page that goes away does, and reads what that left. */
  async savedNow(): Promise<StoredSet> {
    await this.page.evaluate(() => window.dispatchEvent(new Event('pagehide')));
    // Reading waits for the writing that was asked for before it; a save that was going on then is followed by another.
    await this.stored('set');
    return (await this.storedSet())!;
  }

  /** Waits for the autosave to leave such a set, and reads it. */
  async savedSet(until: (set: StoredSet) => boolean): Promise<StoredSet> {
    let set: StoredSet | null = null;
    const found = async () => {
      set = await this.storedSet();
      return set !== null && until(set);
    };
    await expect
      .poll(found)
      .toBe(true)
      .catch(() => {
        throw new Error(
          `The stored set did not become what was waited for. It is ${JSON.stringify(set)?.slice(0, 4000)}`,
        );
      });
    return set!;
  }
}

/** A stored set; null when there is none, or it is broken, as those are that some tests begin with. */
function parsed(text: string | null): StoredSet | null {
  try {
    return JSON.parse(text ?? 'null') as StoredSet | null;
  } catch {
    return null;
  }
}

/**
 * Has what is drawn without end, such as what moves with the song, wait between its frames. Without a graphics card each is drawn by the
 * processor: sixty a second of one page that plays take half of a core, which the tests beside it wait for. It is what a slow phone shows, and
 * nothing that sounds depends on it. What is soon over, as a menu that opens, has all of its frames: what is touched stands where it seems to.
 */
function drawLessOften(): void {
  const [LONG_MS, WAIT_MS] = [1000, 34];
  const { requestAnimationFrame: request, cancelAnimationFrame: cancel } = window;
  /** Where each request stands: the timer before its frame is asked for, or the frame. */
  const asked = new Map<number, { timer: number } | { frame: number }>();
  let last = 0;
  /** Since when the frame that is being drawn has been asking for the next one. */
  let since: number | null = null;
  window.requestAnimationFrame = (callback) => {
    const id = ++last;
    const began = since ?? performance.now();
    const ask = () => {
      const frame = request((now) => {
        asked.delete(id);
        since = began;
        try {
          callback(now);
        } finally {
          since = null;
        }
      });
      asked.set(id, { frame });
    };
    if (performance.now() - began < LONG_MS) ask();
    else asked.set(id, { timer: window.setTimeout(ask, WAIT_MS) });
    return id;
  };
  window.cancelAnimationFrame = (id) => {
    const found = asked.get(id ?? 0);
    if (found && 'timer' in found) clearTimeout(found.timer);
    else if (found) cancel(found.frame);
    asked.delete(id ?? 0);
  };
}

export const test = base.extend<{ app: App; warmUp: boolean }>({
  warmUp: [false, { option: true }],
  app: async ({ page, warmUp }, use) => {
    await page.addInitScript(drawLessOften);
    await giveEar(page, { warmUp });
    const problems: string[] = [];
    page.on('pageerror', (error) => problems.push(error.message));
    await use(new App(page));
    expect(problems, 'errors in the page').toEqual([]);
  },
});

export { expect };
