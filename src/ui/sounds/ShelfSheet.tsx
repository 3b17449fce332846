import { useState } from 'react';
import { FlatList, ScrollView, StyleSheet, View } from 'react-native';
import { tagsOf, type Shelved } from '@/core/shelf/shelved';
import { kindName } from '@/core/document/soundKinds';
import { TONE_VOICES, voiceName } from '@/core/document/toneVoices';
import { selectTrack } from '@/store/selectors';
import { shelfTurned, tried, type Tried } from '@/store/sessionSlice';
import { used } from '@/store/shelfSlice';
import { kitTaken, soundTaken, voiceTaken } from '@/store/soundsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { SearchField } from '../shared/SearchField';
import { Segments } from '../shared/Segments';
import { Sheet } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { ShelfRow } from './ShelfRow';
import { useOwnBeat } from './useOwnBeat';
import { useShelf, type ShelfWish } from './useShelf';

const WHAT = [
  { value: 'kits', name: 'Kits' },
  { value: 'sounds', name: 'Sounds' },
] as const;
const VOICE_TAGS = TONE_VOICES.map((voice) => voiceName(voice).toLowerCase());
const WHICH = [
  { value: 'all', name: 'All' },
  { value: 'liked', name: 'Liked' },
  { value: 'recent', name: 'Taken' },
  { value: 'own', name: 'Own' },
] as const;
/** Presets of voices are all ours. */
const WHICH_VOICES = WHICH.slice(0, 3);
const MOST_TAGS_SHOWN = 14;

/** Kits and single sounds, or for a track that plays notes voices, found by words and tags: a touched one is tried in the running beat, and taken or left. */
export function ShelfSheet() {
  const dispatch = useAppDispatch();
  const track = useAppSelector(selectTrack);
  const pad = useAppSelector((state) => state.steps.pad);
  const what = useAppSelector((state) => state.session.shelf);
  const now = useAppSelector((state) => state.session.tried);
  const { kind, name } = track.kit.pads[pad]!.sound;
  const kindTag = kindName(kind).toLowerCase();
  const isOfNotes = what === 'voices';
  // It begins with what is like the one that is there now.
  const first = {
    kits: [],
    sounds: [kindTag],
    voices: track.tones ? [voiceName(track.tones.voice).toLowerCase()] : [],
  };
  const [wish, setWish] = useState<Omit<ShelfWish, 'what'>>({ text: '', tags: first[what], which: 'all' });
  const { found, all } = useShelf({ ...wish, what });
  const playing = useAppSelector((state) => state.session.playing);
  useOwnBeat(now, all);
  const change = (part: Partial<ShelfWish>) => setWish({ ...wish, ...part });
  const turn = (to: ShelfWish['what']) => {
    dispatch(shelfTurned(to));
    dispatch(tried(null));
    change({ tags: first[to], text: '' });
  };
  const tryOut = ({ id, name: tried_, kit, sound, tones }: Shelved) => {
    const at = { track: track.id, id, name: tried_ };
    if (tones) dispatch(tried({ ...at, tones }));
    else dispatch(tried(kit ? { ...at, kit } : { ...at, pad, sound: sound! }));
  };
  const common = isOfNotes ? VOICE_TAGS : [];
  const tags = [...new Set([...wish.tags, ...common, ...tagsOf(all).slice(0, MOST_TAGS_SHOWN)])];
  const toggle = (tag: string) => change({ tags: wish.tags.includes(tag) ? wish.tags.filter((one) => one !== tag) : [...wish.tags, tag] }); // prettier-ignore
  return (
    <Sheet
      title="Shelf"
      about={
        {
          kits: `Touch a kit to hear it in ${playing ? `the beat of ${track.name}` : 'a beat of its own'}.`,
          sounds: `Touch a sound to hear it in the place of ${pad + 1} ${name}.`,
          voices: `Touch a voice to hear it play ${playing ? `the notes of ${track.name}` : 'a phrase of its own'}.`,
        }[what]
      }
      action={now && <TakeOrLeave now={now} />}
    >
      {!isOfNotes && <Segments label="Look for" value={what} options={WHAT} onChoose={turn} />}
      <SearchField label="Find a sound" text={wish.text} onText={(text) => change({ text })} />
      <Segments
        label="Of these"
        value={wish.which}
        options={isOfNotes ? WHICH_VOICES : WHICH}
        onChoose={(which) => change({ which })}
      />
      <ScrollView
        horizontal
        role="group"
        aria-label="Tags"
        tabIndex={0}
        style={styles.line}
        contentContainerStyle={styles.tags}
      >
        {tags.map((tag) => (
          <ControlButton
            key={tag}
            label={`Tag ${tag}`}
            text={tag}
            pressed={wish.tags.includes(tag)}
            onPress={() => toggle(tag)}
          />
        ))}
      </ScrollView>
      {found.length === 0 && <Words>{emptyWords(wish)}</Words>}
      <FlatList
        role="list"
        aria-label={{ kits: 'Kits', sounds: 'Sounds', voices: 'Voices' }[what]}
        data={found}
        keyExtractor={({ id }) => id}
        scrollEnabled={false}
        initialNumToRender={12}
        contentContainerStyle={styles.list}
        renderItem={({ item }) => <ShelfRow entry={item} isTried={now?.id === item.id} onTry={() => tryOut(item)} />}
      />
    </Sheet>
  );
}

function emptyWords({ text, which }: Omit<ShelfWish, 'what'>): string {
  if (text.trim() !== '') return `Nothing is found by “${text}” and these tags.`;
  if (which === 'liked') return 'Nothing is liked yet: touch the heart of what you want to find again.';
  if (which === 'recent') return 'Nothing was taken yet.';
  if (which === 'own') return 'Nothing of your own lies here yet: save a kit, or a sound, from Sounds.';
  return 'Nothing has all of these tags.';
}

/** What was tried becomes the sound of the track, or the old one is back. */
export function TakeOrLeave({ now }: { now: Tried }) {
  const dispatch = useAppDispatch();
  const take = () => {
    const { track, id } = now;
    if ('tones' in now) dispatch(voiceTaken({ track, tones: now.tones }));
    else if ('kit' in now) dispatch(kitTaken({ track, kit: now.kit }));
    else dispatch(soundTaken({ track, pad: now.pad, sound: now.sound }));
    dispatch(used(id));
  };
  return (
    <View style={styles.act}>
      <ControlButton label="Take it" text="Take it" tone="primary" onPress={take} />
      <ControlButton label="Leave it" text="Leave it" onPress={() => dispatch(tried(null))} />
    </View>
  );
}

const styles = StyleSheet.create({
  line: { flexGrow: 0 },
  tags: { gap: 6 },
  list: { gap: 6 },
  act: { flexDirection: 'row', gap: 6 },
});
