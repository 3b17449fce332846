import { StyleSheet, View } from 'react-native';
import { install, takeUpdate } from '@/storage/offline';
import { useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';

/** Whether the app opens without a network, and the ways to install it and to take a newer version. */
export function OnThisDevice() {
  const { ready, updateWaits, canInstall } = useAppSelector((state) => state.session.offline);
  const playing = useAppSelector((state) => state.session.playing);
  return (
    <View style={styles.part}>
      <SheetTitle>On this device</SheetTitle>
      <View role="status" aria-label={ready ? 'Offline ready' : 'Not offline yet'}>
        <Words>
          {ready
            ? 'Chaffinch is kept on this device and opens without a network.'
            : 'Chaffinch is not kept on this device yet: it needs its server to open.'}
        </Words>
      </View>
      {canInstall && <ControlButton label="Install" text="Install as an app" onPress={() => void install()} />}
      {updateWaits && (
        <>
          <ControlButton
            label="Update"
            text="Start the newer version"
            description={playing ? 'Stop first: the page is loaded anew' : 'The page is loaded anew'}
            disabled={playing}
            onPress={takeUpdate}
          />
          <Words>
            A newer version is here. It starts when you touch this while stopped, or when all its tabs were closed.
          </Words>
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ part: { gap: 10 } });
