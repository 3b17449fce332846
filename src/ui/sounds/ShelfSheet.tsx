import { useState } from 'react';
import { FlatList, ScrollView, StyleSheet, View } from 'react-native';
import { tagsOf, type Shelved } from '@/core/shelf/shelved';
import { kindName } from '@/core/document/soundKinds';
import { selectTrack } from '@/store/selectors';
import { shelfTurned, tried, type Tried } from '@/store/sessionSlice';
import { used } from '@/store/shelfSlice';
import { kitTaken, soundTaken } from '@/store/soundsSlice';
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
const WHICH = [
  { value: 'all', name: 'All' },
  { value: 'liked', name: 'Liked' },
  { value: 'recent', name: 'Taken' },
  { value: 'own', name: 'Own' },
] as const;
const MOST_TAGS_SHOWN = 14;

/** Kits and single sounds, found by words and tags: a touched one is tried in the running beat, and taken or left. */
export function ShelfSheet() {
  const dispatch = useAppDispatch();
  const track = useAppSelector(selectTrack);
  const pad = useAppSelector((state) => state.steps.pad);
  const what = useAppSelector((state) => state.session.shelf);
  const now = useAppSelector((state) => state.session.tried);
  const { kind, name } = track.kit.pads[pad]!.sound;
  const kindTag = kindName(kind).toLowerCase();
  const [wish, setWish] = useState<Omit<ShelfWish, 'what'>>({ text: '', tags: what === 'sounds' ? [kindTag] : [], which: 'all' }); // prettier-ignore
  const { found, all } = useShelf({ ...wish, what });
  const playing = useAppSelector((state) => state.session.playing);
  useOwnBeat(now, all);
  const change = (part: Partial<ShelfWish>) => setWish({ ...wish, ...part });
  const turn = (to: ShelfWish['what']) => {
    dispatch(shelfTurned(to));
    dispatch(tried(null));
    change({ tags: to === 'sounds' ? [kindTag] : [], text: '' });
  };
  const tryOut = ({ id, name: tried_, kit, sound }: Shelved) => {
    const at = { track: track.id, id, name: tried_ };
    dispatch(tried(kit ? { ...at, kit } : { ...at, pad, sound: sound! }));
  };
  const tags = [...new Set([...wish.tags, ...tagsOf(all).slice(0, MOST_TAGS_SHOWN)])];
  const toggle = (tag: string) => change({ tags: wish.tags.includes(tag) ? wish.tags.filter((one) => one !== tag) : [...wish.tags, tag] }); // prettier-ignore
  return (
    <Sheet
      title="Shelf"
      about={
        what === 'kits'
          ? `Touch a kit to hear it in ${playing ? `the beat of ${track.name}` : 'a beat of its own'}.`
          : `Touch a sound to hear it in the place of ${pad + 1} ${name}.`
      }
      action={now && <TakeOrLeave now={now} />}
    >
      <Segments label="Look for" value={what} options={WHAT} onChoose={turn} />
      <SearchField label="Find a sound" text={wish.text} onText={(text) => change({ text })} />
      <Segments label="Of these" value={wish.which} options={WHICH} onChoose={(which) => change({ which })} />
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
        aria-label={what === 'kits' ? 'Kits' : 'Sounds'}
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
    dispatch('kit' in now ? kitTaken({ track, kit: now.kit }) : soundTaken({ track, pad: now.pad, sound: now.sound }));
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
