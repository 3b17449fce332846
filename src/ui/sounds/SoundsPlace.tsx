import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { cutsOf } from '@/core/document/kit';
import { kindName } from '@/core/document/soundKinds';
import { presetName, presetOf, voiceName } from '@/core/document/toneVoices';
import { counted } from '@/core/counted';
import { selectTrack } from '@/store/selectors';
import { sheetShown, shelfOpened } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useSharesRoom } from '../shared/PaneContext';
import { PADS_WIDTH } from '../shared/Sheet';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, WORDS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { FilterKinds } from './FilterKinds';
import { Nest } from './Nest';
import { PlayingKeys } from './PlayingKeys';
import { SampleKeys, SampleStrips } from './SampleKeys';
import { SamplePicture } from './SamplePicture';
import { SettingStrip } from './SettingStrip';
import { SoundAbout } from './SoundAbout';
import { SoundKeys } from './SoundKeys';
import { SoundPicture, useSoundPeaks } from './SoundPicture';
import { StripGroup } from './StripGroup';
import { patchAt, useSound, type ShownSound } from './useSound';

/** The kit of the shown track, all its sounds in small, and the one that is shaped. */
export function SoundsPlace() {
  const { layout } = useRoom();
  const shares = useSharesRoom();
  const beside = layout !== 'upright' && !shares;
  const sound = useSound();
  const [about, setAbout] = useState(false);
  const top = (
    <>
      <KitKeys />
      <Nest />
      <Picture sound={sound} />
      <SoundKeys sound={sound} onAbout={() => setAbout(!about)} />
      {sound.kind && <SampleKeys sound={sound} />}
      {about && <SoundAbout sound={sound} />}
    </>
  );
  if (beside) {
    return (
      <View style={styles.beside}>
        <ScrollView style={layout === 'wide' ? styles.left : styles.half} contentContainerStyle={styles.content}>
          {top}
        </ScrollView>
        <ScrollView style={styles.right} contentContainerStyle={styles.content}>
          <Strips sound={sound} />
        </ScrollView>
      </View>
    );
  }
  return (
    <ScrollView style={styles.place} contentContainerStyle={styles.content}>
      {top}
      <Strips sound={sound} />
    </ScrollView>
  );
}

function KitKeys() {
  const dispatch = useAppDispatch();
  const { name, kit, tones } = useAppSelector(selectTrack);
  const tried = useAppSelector((state) => state.session.tried);
  const shownName = tried && 'kit' in tried ? tried.name : kit.name;
  if (tones) {
    const sounding = tried && 'tones' in tried ? tried.tones : tones;
    const words = `${presetName(presetOf(sounding))} · ${voiceName(sounding.voice).toLowerCase()}`;
    const open = () => dispatch(shelfOpened('voices'));
    return (
      <View style={styles.row}>
        <ControlButton
          label="Preset"
          caption={`Notes of ${name}`}
          text={words}
          description={words}
          lines={2}
          onPress={open}
          style={styles.kit}
        />
        <ControlButton label="Shelf" text="Shelf" onPress={open} style={styles.shelf} />
        <MixKey />
      </View>
    );
  }
  return (
    <View style={styles.row}>
      <ControlButton
        label="Kit"
        caption={`Kit of ${name}`}
        text={shownName}
        description={shownName}
        lines={2}
        onPress={() => dispatch(sheetShown('kit'))}
        style={styles.kit}
      />
      <ControlButton label="Shelf" text="Shelf" onPress={() => dispatch(shelfOpened('kits'))} style={styles.shelf} />
      <MixKey />
    </View>
  );
}

function MixKey() {
  const dispatch = useAppDispatch();
  return <ControlButton label="Mix" text="Mix" onPress={() => dispatch(sheetShown('mix'))} style={styles.shelf} />;
}

const COLUMNS = 96;

function Picture({ sound }: { sound: ShownSound }) {
  const tokens = useTokens();
  const tall = useRoom().layout === 'wide';
  const peaks = useSoundPeaks(patchAt(sound), COLUMNS);
  const { pad, name, kind, from, source } = sound;
  const sample = 'sample' in source ? source : null;
  const seconds = peaks ? `${peaks.seconds.toFixed(2)} s` : '';
  return (
    <View
      role="img"
      aria-label={`${pad + 1}, ${name}, ${from}, ${seconds}`}
      style={[styles.picture, tall && styles.tall, { backgroundColor: tokens.deep }]}
    >
      <View style={styles.drawing}>
        {sample ? (
          <SamplePicture sound={sound} source={sample} />
        ) : (
          <SoundPicture peaks={peaks} columns={COLUMNS} color={tokens.wing} fitted />
        )}
      </View>
      <Text numberOfLines={1} style={[styles.name, { color: tokens.wing }]}>
        {`${pad + 1}  ${name}`}
      </Text>
      <View style={styles.foot}>
        <Text numberOfLines={2} style={[styles.from, { color: tokens.cap }]}>
          {kind ? `${from} · ${kindName(kind).toLowerCase()}` : from}
        </Text>
        <Text style={[styles.seconds, { color: tokens.cap }]}>{seconds}</Text>
      </View>
    </View>
  );
}

function Strips({ sound }: { sound: ShownSound }) {
  const isVoice = 'voice' in sound.source;
  return (
    <>
      {isVoice && (
        <StripGroup name="Voice" first>
          <SettingStrip setting="bright" sound={sound} />
          <SettingStrip setting="motion" sound={sound} />
          <SettingStrip setting="attack" sound={sound} />
          <SettingStrip setting="release" sound={sound} />
          <SettingStrip setting="width" sound={sound} />
        </StripGroup>
      )}
      <StripGroup name="Shape" first>
        <SettingStrip setting="pitch" sound={sound} />
        <SettingStrip setting="decay" sound={sound} />
        <SettingStrip setting="cutoff" sound={sound} />
        <SettingStrip setting="drive" sound={sound} />
      </StripGroup>
      <SampleStrips sound={sound} />
      <TogetherKeys sound={sound} />
      <StripGroup name="Out">
        <SettingStrip setting="level" sound={sound} />
        <SettingStrip setting="pan" sound={sound} />
        <SettingStrip setting="room" sound={sound} />
      </StripGroup>
      <StripGroup name="Playing">
        <PlayingKeys sound={sound} />
        <SettingStrip setting={isVoice ? 'glide' : 'voices'} sound={sound} />
        <SettingStrip setting="response" sound={sound} />
        <SettingStrip setting="variation" sound={sound} />
      </StripGroup>
      <StripGroup name="Finer">
        <FilterKinds sound={sound} />
        <SettingStrip setting="resonance" sound={sound} />
        <SettingStrip setting="filterVelocity" sound={sound} />
        <SettingStrip setting="filterKey" sound={sound} />
        {!isVoice && <SettingStrip setting="attack" sound={sound} />}
        <SettingStrip setting="hold" sound={sound} />
      </StripGroup>
    </>
  );
}

/** What a sound does to others, and what moves it: each says what it is now, and opens its sheet. */
function TogetherKeys({ sound }: { sound: ShownSound }) {
  const dispatch = useAppDispatch();
  const { kit, tones } = useAppSelector(selectTrack);
  const { pad, settings } = sound;
  const cuts = cutsOf(kit, pad).map((other) => kit.pads[other]!.sound.name);
  const also = (kit.pads[pad]!.alsoPlays ?? []).map(({ pad: other }) => kit.pads[other]!.sound.name);
  const waves = (settings.lfos ?? []).map(({ moves, note, hz }) => `${moves} ${note ?? `${hz} Hz`}`);
  return (
    <View style={styles.row}>
      {!tones && (
        <>
          <ControlButton
            label="Cuts off"
            caption="Cuts off"
            text={summary(cuts)}
            description={cuts.join(', ') || 'none'}
            onPress={() => dispatch(sheetShown('cuts'))}
            style={styles.third}
          />
          <ControlButton
            label="Also plays"
            caption="Also plays"
            text={summary(also)}
            description={also.join(', ') || 'none'}
            onPress={() => dispatch(sheetShown('also'))}
            style={styles.third}
          />
        </>
      )}
      <ControlButton
        label="LFO"
        caption="LFO"
        text={summary(waves)}
        description={waves.join(', ') || 'none'}
        onPress={() => dispatch(sheetShown('lfo'))}
        style={styles.third}
      />
    </View>
  );
}

function summary(things: readonly string[]): string {
  if (things.length === 0) return 'none';
  return things.length === 1 ? things[0]! : counted(things.length, 'sound');
}

const styles = StyleSheet.create({
  place: { flex: 1, minHeight: 0 },
  content: { padding: 8, gap: 6 },
  beside: { flex: 1, minHeight: 0, flexDirection: 'row' },
  left: { width: grown(PADS_WIDTH + 16), flexGrow: 0, flexShrink: 0 },
  half: { flex: 1 },
  right: { flex: 1 },
  row: { flexDirection: 'row', gap: 6 },
  kit: { flexGrow: 1, flexShrink: 1, flexBasis: 130, minWidth: 0, alignItems: 'flex-start' },
  shelf: { flexShrink: 1, flexBasis: 92 },
  third: { flex: 1, minWidth: 0 },
  picture: { height: 104, borderRadius: RADIUS, overflow: 'hidden' },
  tall: { height: 190 },
  drawing: { position: 'absolute', left: 8, right: 8, top: 24, bottom: 20 },
  name: {
    position: 'absolute',
    left: 10,
    top: 2,
    fontFamily: WORDS_STRONG,
    fontSize: grown(17),
    lineHeight: grown(22),
  },
  foot: {
    position: 'absolute',
    left: 10,
    right: 10,
    bottom: 2,
    flexDirection: 'row',
    justifyContent: 'space-between',
    gap: 8,
  },
  from: { fontFamily: WORDS, fontSize: grown(14), lineHeight: grown(18), flexShrink: 1 },
  seconds: { fontFamily: NUMBERS, fontSize: grown(12), lineHeight: grown(18) },
});
