import { lazy, Suspense, type ComponentProps } from 'react';
import { View } from 'react-native';

// Charts are a third of the app's weight and are looked at now and then: they come when they are first wanted.
const Chart = lazy(() => import('./EarlyLateChart'));

/** The early/late picture of some hits. */
export function EarlyLate(props: ComponentProps<typeof Chart>) {
  return (
    <Suspense fallback={<View style={{ height: 190 }} />}>
      <Chart {...props} />
    </Suspense>
  );
}
