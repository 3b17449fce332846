import { lazy, Suspense, useState, type ComponentProps } from 'react';
import { View } from 'react-native';
import { Guard } from '../shared/Guard';

import type EarlyLateChart from './EarlyLateChart';

export const loadCharts = () => import('../shared/charts');
const loadChart = () => loadCharts().then(({ EarlyLateChart: Chart }) => ({ default: Chart }));

/** The early/late picture of some hits. Its code may not have come: it is asked for again when the player wants. */
export function EarlyLate(props: ComponentProps<typeof EarlyLateChart>) {
  const [Chart, setChart] = useState(() => lazy(loadChart));
  return (
    <Guard name="The chart" onAgain={() => setChart(() => lazy(loadChart))}>
      <Suspense fallback={<View style={{ height: 190 }} />}>
        <Chart {...props} />
      </Suspense>
    </Guard>
  );
}
