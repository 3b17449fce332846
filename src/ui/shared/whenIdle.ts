/** However busy the page is, late code is asked for by then, ms. */
const IDLE_BY_MS = 5000;

/**
 * Asks for code that the first picture can do without, once the page has nothing else to do: so that it is there when it is needed,
 * even if the network has gone by then. What fails is asked for again when it is needed.
 */
export function whenIdle(...loads: readonly (() => Promise<unknown>)[]): void {
  const soon = () => loads.forEach((load) => void load().catch(() => undefined));
  if ('requestIdleCallback' in window) window.requestIdleCallback(soon, { timeout: IDLE_BY_MS });
  else setTimeout(soon, IDLE_BY_MS);
}

/**
 * Does something once the page has nothing else to do.
 * @returns takes it back
 */
export function onceIdle(act: () => void): () => void {
  if (!('requestIdleCallback' in window)) {
    const timer = setTimeout(act, 0);
    return () => clearTimeout(timer);
  }
  const handle = window.requestIdleCallback(act, { timeout: IDLE_BY_MS });
  return () => window.cancelIdleCallback(handle);
}
