import { lazy, Suspense } from 'react';
import { StyleSheet, View } from 'react-native';
import { canShare, shareFile } from '@/storage/shareFile';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { Guard } from '../shared/Guard';
import { Progress } from '../shared/Progress';
import { sizeWords } from '../shared/sizeWords';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { RADIUS } from '../theme/tokens';
import { KIND_NAMES, type Carry, type Carrying } from './useCarry';

const LoudnessReport = lazy(() =>
  import('../shared/charts').then(({ LoudnessReport: Report }) => ({ default: Report })),
);

/** The file that is being made: how far it is; then what it is, how loud, and where it may go. */
export function CarryPanel({ carry }: { carry: Carry }) {
  const tokens = useTokens();
  const { now } = carry;
  if (!now) return null;
  return (
    <View style={[styles.panel, { backgroundColor: tokens.slate }]}>
      {now.state === 'making' ? (
        <View style={styles.row}>
          <View style={styles.words}>
            <Words>{makingWords(now)}</Words>
            <Progress label={KIND_NAMES[now.kind]} done={now.done} />
          </View>
          <ControlButton label="Cancel" text="Cancel" onPress={carry.cancel} />
        </View>
      ) : (
        <Made made={now} onClose={carry.close} />
      )}
    </View>
  );
}

function makingWords({ kind, done, secondsLeft }: Extract<Carrying, { state: 'making' }>): string {
  const left =
    secondsLeft === null ? '' : `, ${secondsLeft < 1 ? 'less than a second' : `${Math.ceil(secondsLeft)} s`} left`;
  return `${KIND_NAMES[kind]}: ${Math.round(done * 100)} %${left}`;
}

function Made({ made, onClose }: { made: Extract<Carrying, { state: 'made' }>; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const { name, file, loudness } = made;
  const share = () => {
    shareFile(file, name).catch((error: unknown) => dispatch(noticed(`It could not be shared: ${String(error)}.`)));
  };
  return (
    <>
      <View style={styles.row}>
        <View style={styles.words}>
          <Words>{`Saved “${name}”, ${sizeWords(file.size)}.`}</Words>
        </View>
        {canShare(file, name) && <ControlButton label="Share" text="Share" onPress={share} />}
        <ControlButton label="Close report" icon="close" onPress={onClose} />
      </View>
      {loudness && (
        <Guard name="The report">
          <Suspense fallback={null}>
            <LoudnessReport loudness={loudness} />
          </Suspense>
        </Guard>
      )}
    </>
  );
}

const styles = StyleSheet.create({
  panel: { borderRadius: RADIUS, padding: 8, gap: 4 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  words: { flex: 1, minWidth: 0, gap: 4 },
});
