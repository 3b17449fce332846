import { lazy, Suspense, type ComponentProps } from 'react';
import { View } from 'react-native';

const load = () => import('./EarlyLateChart');
const Chart = lazy(load);

/** Charts are a fifth of the bundle: they are loaded after the first render, at once, so that they are there when the network goes. */
export function loadChartsSoon(): void {
  const soon = () => void load().catch(() => undefined);
  if ('requestIdleCallback' in window) window.requestIdleCallback(soon, { timeout: IDLE_BY_MS });
  else setTimeout(soon, IDLE_BY_MS);
}

const IDLE_BY_MS = 5000;

/** The early/late picture of some hits. */
export function EarlyLate(props: ComponentProps<typeof Chart>) {
  return (
    <Suspense fallback={<View style={{ height: 190 }} />}>
      <Chart {...props} />
    </Suspense>
  );
}
