import { lazy, Suspense, useState } from 'react';
import { Guard } from '../shared/Guard';

/** Its code is fetched when the place is opened: nobody plays on it. */
const loadPlace = () => import('./SetsPlace');

/** The place *Sets*: all sets of this device, their versions, and what comes from elsewhere. */
export function SetsScreen() {
  const [Place, setPlace] = useState(() => lazy(loadPlace));
  return (
    <Guard name="This place" onAgain={() => setPlace(() => lazy(loadPlace))}>
      <Suspense fallback={null}>
        <Place />
      </Suspense>
    </Guard>
  );
}
