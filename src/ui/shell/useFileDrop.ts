import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { bringIn } from '@/storage/setFiles';
import type { Store } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';

/** A file that is dropped anywhere on the page is brought in. */
export function useFileDrop(): void {
  const store = useStore() as Store;
  const instrument = useInstrument();
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true;
    const over = (event: DragEvent) => {
      if (hasFiles(event)) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      const file = event.dataTransfer?.files[0];
      if (!file) return;
      // Else the browser leaves the page for the file.
      event.preventDefault();
      void bringIn(store, file, (set) => instrument.open(set));
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, [store, instrument]);
}
