import { lazy, Suspense, useState } from 'react';
import { sheetClosed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Guard } from '../shared/Guard';

/** All sheets together are code that the first picture can do without. */
export const loadSheets = () => import('./NamedSheet');

/** The sheet that is open, if any. */
export function Sheets() {
  const dispatch = useAppDispatch();
  const name = useAppSelector((state) => state.session.sheet);
  const [Named, setNamed] = useState(() => lazy(loadSheets));
  if (!name) return null;
  return (
    <Guard
      key={name}
      name="This sheet"
      onAgain={() => setNamed(() => lazy(loadSheets))}
      onClose={() => dispatch(sheetClosed())}
    >
      <Suspense fallback={null}>
        <Named name={name} />
      </Suspense>
    </Guard>
  );
}
