import { lazy, Suspense, useState, type ComponentProps } from 'react';
import { View } from 'react-native';
import { Guard } from '../shared/Guard';

import type EarlyLateChart from './EarlyLateChart';

/** Charts are a fifth of the app's code. */
export const loadCharts = () => import('./EarlyLateChart');

/** The early/late picture of some hits. Its code may not have come: it is asked for again when the player wants. */
export function EarlyLate(props: ComponentProps<typeof EarlyLateChart>) {
  const [Chart, setChart] = useState(() => lazy(loadCharts));
  return (
    <Guard name="The chart" onAgain={() => setChart(() => lazy(loadCharts))}>
      <Suspense fallback={<View style={{ height: 190 }} />}>
        <Chart {...props} />
      </Suspense>
    </Guard>
  );
}
