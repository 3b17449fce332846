import { lazy, Suspense, useState, type ComponentProps } from 'react';
import { View } from 'react-native';
import { Guard } from '../shared/Guard';

import type EarlyLateChart from './EarlyLateChart';

const load = () => import('./EarlyLateChart');

/** Charts are a fifth of the bundle: they are loaded after the first render, at once, so that they are there when the network goes. */
export function loadChartsSoon(): void {
  const soon = () => void load().catch(() => undefined);
  if ('requestIdleCallback' in window) window.requestIdleCallback(soon, { timeout: IDLE_BY_MS });
  else setTimeout(soon, IDLE_BY_MS);
}

const IDLE_BY_MS = 5000;

/** The early/late picture of some hits. Its code may not have come: it is asked for again when the player wants. */
export function EarlyLate(props: ComponentProps<typeof EarlyLateChart>) {
  const [Chart, setChart] = useState(() => lazy(load));
  return (
    <Guard name="The chart" onAgain={() => setChart(() => lazy(load))}>
      <Suspense fallback={<View style={{ height: 190 }} />}>
        <Chart {...props} />
      </Suspense>
    </Guard>
  );
}
