import { lazy, Suspense, useState, type ComponentType } from 'react';
import { Guard } from './Guard';

/** A place whose code is fetched when it is opened: nobody plays on it. */
export function lazyPlace(load: () => Promise<{ default: ComponentType }>): ComponentType {
  return function LazyPlace() {
    const [Place, setPlace] = useState(() => lazy(load));
    return (
      <Guard name="This place" onAgain={() => setPlace(() => lazy(load))}>
        <Suspense fallback={null}>
          <Place />
        </Suspense>
      </Guard>
    );
  };
}
