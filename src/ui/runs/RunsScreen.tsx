import { lazy, Suspense, useState } from 'react';
import { Guard } from '../shared/Guard';

/** Its code is fetched when the place is opened: nobody plays on it. */
const loadPlace = () => import('./RunsPlace');

/** The place *Runs*: captured performances, looked at, heard again, put right and carried away. */
export function RunsScreen() {
  const [Place, setPlace] = useState(() => lazy(loadPlace));
  return (
    <Guard name="This place" onAgain={() => setPlace(() => lazy(loadPlace))}>
      <Suspense fallback={null}>
        <Place />
      </Suspense>
    </Guard>
  );
}
