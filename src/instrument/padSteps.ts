import { padPages, type PadPage } from '@/core/edit/padPages';
import { hitsInStep } from '@/core/edit/steps';
import type { Instrument } from './instrument';
import { selectPattern, selectPlace, selectSet } from '@/store/selectors';
import { selectStepTicks } from '@/store/stepsSlice';
import type { RootState, Store } from '@/store/store';
import type { Hit } from '@/core/document/hit';
import type { Pattern } from '@/core/document/pattern';
import { edited } from '@/store/patternsSlice';

/** The steps that the pads are now, or null while they are pads. */
export function padPage(state: RootState): { page: PadPage; index: number; count: number; pattern: Pattern } | null {
  const pattern = selectPattern(state);
  if (!state.steps.padSteps) return null;
  const pages = padPages(pattern.length, selectStepTicks(state), selectSet(state).meter);
  const index = Math.min(pages.length - 1, state.steps.padSteps.page);
  return { page: pages[index]!, index, count: pages.length, pattern };
}

/** A pad that is a step is pressed: it fills the step, or empties it. `velocity` 0..1. */
export function pressPadStep(store: Store, instrument: Instrument, index: number, velocity: number): void {
  const state = store.getState();
  const shown = padPage(state);
  if (!shown || index >= shown.page.steps) return;
  const place = selectPlace(state);
  const step = selectStepTicks(state);
  const { pad } = state.steps;
  const tick = shown.page.start + index * step;
  const there = hitsInStep(shown.pattern, { lane: (hit) => hit.pad === pad, tick, length: step });
  if (there.length > 0) {
    store.dispatch(edited({ place, edit: { kind: 'erase', ids: there.map((hit) => hit.id) } }));
  } else if (!instrument.isFull(place)) {
    const hit: Hit = { id: instrument.nextId(), pad, tick, length: step / 2, velocity, snap: null };
    store.dispatch(edited({ place, edit: { kind: 'paint', hits: [hit] } }));
  }
}
