import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { MOST_ARP_OCTAVES, MOST_OCTAVES, MOST_STRUM, noteName, SCALES, withArpeggio, withChord, withVoice, type Tones } from '@/core/document/tones'; // prettier-ignore
import { presetName, presetOf, TONE_VOICES, voiceName, type ToneVoice } from '@/core/document/toneVoices';
import type { Track } from '@/core/document/track';
import { playedScales } from '@/instrument/playedScales';
import { noticed, shelfOpened } from '@/store/sessionSlice';
import { useAppDispatch, type Store } from '@/store/store';
import { keyMoved, octaveSet, tonesSet } from '@/store/tracksSlice';
import { ArpeggioChoice } from '../shared/ArpeggioChoice';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { PopMenu } from '../shared/PopMenu';
import { Segments } from '../shared/Segments';
import { SheetTitle } from '../shared/Sheet';
import { WholeNumber } from '../shared/WholeNumber';
import { Words } from '../shared/Words';

const PLAYS = [{ value: 'kit', name: 'Kit' }, ...TONE_VOICES.map((value) => ({ value, name: voiceName(value) }))];
const FIRST_TONES: Tones = { voice: 'bass', root: 9, scale: 'minor', chromatic: false, octave: 0 };
/** Roots from C up, by name alone. */
const ROOTS = Array.from({ length: 12 }, (_, root) => ({
  value: String(root),
  name: noteName(60 + root).replace(/\d/, ''),
}));
const ONE_PAD = [
  { value: 'note', name: 'One note' },
  { value: 'triad', name: 'Triad' },
  { value: 'seventh', name: 'Seventh' },
] as const;
const SCALE_OPTIONS = SCALES.map((value) => ({ value, name: value[0]!.toUpperCase() + value.slice(1) }));

/** Whether the track plays a kit or notes, and which notes lie on the pads. */
export function NotesOfTrack({ track }: { track: Track }) {
  const dispatch = useAppDispatch();
  const { id, tones } = track;
  const set = (next: Tones | null) => dispatch(tonesSet({ track: id, tones: next }));
  return (
    <>
      <SheetTitle>What it plays</SheetTitle>
      <View style={styles.line}>
        <Choice
          label="Plays"
          caption="Plays"
          value={tones?.voice ?? 'kit'}
          options={PLAYS}
          grow
          onChoose={(value) =>
            set(value === 'kit' ? null : withVoice(tones ?? FIRST_TONES, { voice: value as ToneVoice }))
          }
          style={styles.grow}
        />
        {tones && (
          <ControlButton
            label="Preset"
            caption="Preset"
            text={presetName(presetOf(tones))}
            onPress={() => dispatch(shelfOpened('voices'))}
            style={styles.grow}
          />
        )}
      </View>
      {tones && (
        <>
          <View style={styles.line}>
            <Choice
              label="Root"
              caption="Root"
              value={String(tones.root)}
              options={ROOTS}
              onChoose={(root) => set({ ...tones, root: Number(root) })}
            />
            <Choice
              label="Scale"
              caption="Scale"
              value={tones.scale}
              options={SCALE_OPTIONS}
              grow
              onChoose={(scale) => set({ ...tones, scale })}
              style={styles.grow}
            />
            <WholeNumber
              label="Octave"
              caption="Octave"
              value={tones.octave}
              min={-MOST_OCTAVES}
              max={MOST_OCTAVES}
              onChange={(octave) => dispatch(octaveSet({ track: id, octave }))}
            />
          </View>
          <View style={styles.line}>
            <View style={styles.grow}>
              <Segments
                label="Notes"
                value={tones.chromatic ? 'all' : 'scale'}
                options={[
                  { value: 'scale', name: 'The scale’s notes' },
                  { value: 'all', name: 'All twelve' },
                ]}
                onChoose={(value) => set({ ...tones, chromatic: value === 'all' })}
              />
            </View>
            <FindScale tones={tones} onFound={set} />
          </View>
          <View style={styles.line}>
            <View style={styles.grow}>
              <Segments
                label="One pad plays"
                value={tones.chord ?? 'note'}
                options={ONE_PAD}
                onChoose={(value) => set(withChord(tones, value === 'note' ? null : value))}
              />
            </View>
            {tones.chord && (
              <WholeNumber
                label="Strum"
                caption="Strum, ms"
                value={tones.strum ?? 0}
                min={0}
                max={MOST_STRUM}
                onChange={(strum) => set({ ...tones, strum })}
              />
            )}
          </View>
          <View style={styles.line}>
            <ArpeggioChoice track={id} tones={tones} style={styles.grow} />
            {tones.arpeggio && (
              <WholeNumber
                label="Arpeggio octaves"
                caption="Octaves"
                value={tones.arpeggio.octaves}
                min={1}
                max={MOST_ARP_OCTAVES}
                onChange={(octaves) => set(withArpeggio(tones, { ...tones.arpeggio!, octaves }))}
              />
            )}
          </View>
          <Words>
            A pad plays one note, or a chord that lies close to the one before it. As an arpeggio, held notes take turns
            at the rate of Repeat, while that is on. What is recorded keeps its notes, whatever lies on the pads
            afterwards.
          </Words>
          <KeyRow
            caption="Key of the whole set"
            keys={[-1, 1].map((semitones) => ({
              label: `Whole set a semitone ${semitones < 0 ? 'down' : 'up'}`,
              text: semitones < 0 ? 'Semitone −' : 'Semitone +',
              act: () => {
                dispatch(keyMoved({ semitones }));
                dispatch(noticed(`All notes of the set are a semitone ${semitones < 0 ? 'lower' : 'higher'}.`, true));
              },
            }))}
          />
        </>
      )}
    </>
  );
}

/** Offers the scales that fit what was played. */
function FindScale({ tones, onFound }: { tones: Tones; onFound: (tones: Tones) => void }) {
  const store = useStore() as Store;
  const instrument = useInstrument();
  const items = () => {
    const found = playedScales(instrument, store.getState());
    if (found.length === 0) return [{ title: 'Play three different notes first', act: () => {} }];
    return found.map(({ root, scale, share }) => ({
      title: `${ROOTS[root]!.name} ${scale} · ${share > 0.999 ? 'all notes' : `${Math.floor(share * 100)} %`}`,
      chosen: root === tones.root && scale === tones.scale,
      act: () => onFound({ ...tones, root, scale }),
    }));
  };
  return <PopMenu label="Find scale" text="Find" description="from what was played" items={items} />;
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', alignItems: 'center', gap: 6 },
  grow: { flexGrow: 1 },
});
