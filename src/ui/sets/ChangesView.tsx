import { useEffect, useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import type { BeatSet } from '@/core/document/set';
import { compareSets, isNoChange, type PatternChange, type TrackChange } from '@/core/library/compareSets';
import { trackRestored } from '@/store/openSlice';
import { noticed, versionHeard } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { HitsPicture } from '../shared/HitsPicture';
import { KeyRow } from '../shared/KeyRow';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { FEATHERS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';

interface Props {
  before: BeatSet;
  after: BeatSet;
  /** The later one is the set as it is now. */
  isNow: boolean;
}

/** What is different between two versions of the open set, in words and pictures; and how each sounds, in the running beat. */
export function ChangesView({ before, after, isNow }: Props) {
  const dispatch = useAppDispatch();
  const changes = useMemo(() => compareSets(before, after), [before, after]);
  const heard = useAppSelector((state) => state.session.heardVersion);
  useEffect(() => () => void dispatch(versionHeard(null)), [dispatch, before, after]);
  if (isNoChange(changes)) return <Words>Nothing is different.</Words>;
  const hear = (set: BeatSet | null) => dispatch(versionHeard(set));
  return (
    <View style={styles.all}>
      <KeyRow
        caption="Hear"
        keys={[
          { label: 'Hear it as it was', text: 'As it was', pressed: heard === before, act: () => hear(before) },
          {
            label: isNow ? 'Hear it as it is now' : 'Hear the other version',
            text: isNow ? 'As it is now' : 'The other one',
            pressed: isNow ? heard === null : heard === after,
            act: () => hear(isNow ? null : after),
          },
        ]}
      />
      {changes.words.length > 0 && <Words>{`The set: ${changes.words.join('; ')}.`}</Words>}
      {changes.tracks.map((track) => (
        <TrackChanges key={track.id} change={track} before={before} after={after} isNow={isNow} />
      ))}
    </View>
  );
}

const KIND_WORDS = { added: 'new', removed: 'not there any more', changed: '' };

function TrackChanges({ change, before, after, isNow }: { change: TrackChange } & Props) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { id, name, kind, words, patterns } = change;
  const track = (after.tracks[id] ?? before.tracks[id])!;
  const restore = () => {
    dispatch(trackRestored({ version: before, track: id }));
    dispatch(noticed(`“${name}” is as it was then.`, true));
  };
  return (
    <View role="group" aria-label={name} style={styles.track}>
      <Text style={[styles.name, { color: tokens.wing, borderLeftColor: FEATHERS[track.colour]?.colour }]}>
        {[name, KIND_WORDS[kind]].filter((word) => word !== '').join(', ')}
      </Text>
      {words.length > 0 && <Words>{`${words.join('; ')}.`}</Words>}
      {patterns.map((pattern) => (
        <PatternChanges key={pattern.slot} change={pattern} notes={track.tones !== undefined} />
      ))}
      {isNow && kind !== 'added' && (
        <KeyRow keys={[{ label: `Restore ${name} alone`, text: 'Restore this track', act: restore }]} />
      )}
    </View>
  );
}

const PICTURE = 28;

function PatternChanges({ change, notes }: { change: PatternChange; notes: boolean }) {
  const tokens = useTokens();
  const { name, kind, words, before, after } = change;
  const said = [KIND_WORDS[kind], ...words].filter((word) => word !== '').join(', ');
  return (
    <View style={styles.pattern}>
      <Words>{`${name}: ${said}`}</Words>
      <View style={styles.pictures}>
        <View style={styles.picture}>
          {before && <HitsPicture pattern={before} colour={tokens.cap} height={PICTURE} notes={notes} />}
        </View>
        <View style={[styles.picture, { borderLeftColor: tokens.rule, borderLeftWidth: 1 }]}>
          {after && <HitsPicture pattern={after} colour={tokens.breast} height={PICTURE} notes={notes} />}
        </View>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  track: { gap: 4 },
  name: { borderLeftWidth: 6, paddingLeft: 6, fontFamily: WORDS_STRONG, fontSize: grown(17), lineHeight: grown(22) },
  pattern: { gap: 2 },
  pictures: { flexDirection: 'row' },
  picture: { flex: 1, minWidth: 0, paddingHorizontal: 4 },
});
