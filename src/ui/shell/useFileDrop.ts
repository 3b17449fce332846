import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { isSampleFile } from '@/storage/sampleFiles';
import { bringIn } from '@/storage/setFiles';
import { selectShown } from '@/store/selectors';
import type { Store } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';

const loadSounds = () => import('../sounds/sounds');

/** The pad that something was dropped on, if it was one. */
function padOf(target: EventTarget | null): number | null {
  const pad = target instanceof Element ? target.closest<HTMLElement>('[data-pad]')?.dataset.pad : undefined;
  return pad === undefined ? null : Number(pad);
}

/** A file that is dropped anywhere on the page is brought in; recordings come to the pad that they are dropped on, and the next ones. */
export function useFileDrop(): void {
  const store = useStore() as Store;
  const instrument = useInstrument();
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true;
    const over = (event: DragEvent) => {
      if (hasFiles(event)) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length === 0) return;
      // Else the browser leaves the page for the file.
      event.preventDefault();
      const recordings = files.filter(isSampleFile);
      if (recordings.length === 0) return void bringIn(store, files[0]!, (set) => instrument.open(set));
      const state = store.getState();
      const place = { track: selectShown(state), pad: padOf(event.target) ?? state.steps.pad };
      void loadSounds().then(({ loadSamples }) => loadSamples(store, instrument, recordings, place));
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, [store, instrument]);
}
