import { useStore } from 'react-redux';
import { chooseFile } from '@/storage/setFiles';
import type { Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';

/** Brings in a file from elsewhere. It can be dropped on the page as well. */
export function BringIn() {
  const store = useStore() as Store;
  const instrument = useInstrument();
  return (
    <ControlButton
      label="Bring in"
      text="Bring in"
      icon="tray-arrow-down"
      onPress={() => chooseFile(store, (set) => instrument.open(set))}
      style={{ flexGrow: 1, flexBasis: 0 }}
    />
  );
}
