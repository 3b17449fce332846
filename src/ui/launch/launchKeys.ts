/** The keys of the place Launch, as the overlay of keys lists them. */
export const LAUNCH_KEYS = [
  { keys: '← → ↑ ↓', does: 'From card to card' },
  { keys: 'Enter', does: 'Launch, take back, stop' },
  { keys: '← →', does: 'On a flag of the plan: by a bar' },
] as const;

/** Arrow keys walk from card to card. */
export function walkCards(event: KeyboardEvent): void {
  const steps: Record<string, readonly [number, number]> = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }; // prettier-ignore
  const step = steps[event.key];
  const from = event.target instanceof HTMLElement ? event.target.dataset.card : undefined;
  if (!step || from === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  const all = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('[data-card]')];
  const trackIds = [...new Set(all.map((card) => card.dataset.card!.split(' ')[0]))];
  const [trackId, slot] = from.split(' ');
  const next = trackIds[trackIds.indexOf(trackId) + step[0]];
  all.find((card) => card.dataset.card === `${next} ${Number(slot) + step[1]}`)?.focus();
}
