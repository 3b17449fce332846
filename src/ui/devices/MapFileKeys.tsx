import { View } from 'react-native';
import { useStore } from 'react-redux';
import type { Device } from '@/core/midi/device';
import { chooseMap, exportMap } from '@/storage/mapFiles';
import type { Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';

/** A device's settings and map as a file, and back. */
export function MapFileKeys({ device }: { device: Device }) {
  const store = useStore() as Store;
  return (
    <View style={{ flexDirection: 'row', gap: 4 }}>
      <ControlButton
        label={`Export map of ${device.name}`}
        text="Export map"
        onPress={() => exportMap(store, device)}
        style={{ flexGrow: 1, flexBasis: 0 }}
      />
      <ControlButton
        label={`Bring in map of ${device.name}`}
        text="Bring in map"
        onPress={() => chooseMap(store, device.name)}
        style={{ flexGrow: 1, flexBasis: 0 }}
      />
    </View>
  );
}
