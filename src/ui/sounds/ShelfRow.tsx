import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import type { Shelved } from '@/core/shelf/shelved';
import { patchOf, type Patch } from '@/core/sound/patch';
import { likedToggled } from '@/store/shelfSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useTokens } from '../theme/theme';
import { RADIUS, TOUCH, WORDS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { SoundPicture, useSoundPeaks } from './SoundPicture';
import { patchOfVoice } from './useSound';

const COLUMNS = 40;
const patches = new WeakMap<object, Patch>();

/** The sound that stands for an entry in its picture: itself, or the kit's first. */
function patchOfEntry({ kit, sound, tones }: Shelved): Patch {
  if (tones) return patchOfVoice(tones);
  const shown = sound ?? kit!.pads[0]!.sound;
  let patch = patches.get(shown);
  if (!patch) patches.set(shown, (patch = patchOf(shown)));
  return patch;
}

/** One kit, sound or voice of the shelf. */
export function ShelfRow({ entry, isTried, onTry }: { entry: Shelved; isTried: boolean; onTry: () => void }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const isLiked = useAppSelector((state) => state.shelf.liked.includes(entry.id));
  const peaks = useSoundPeaks(patchOfEntry(entry), COLUMNS);
  const { id, name, tags, tempo, sound } = entry;
  const more = [sound?.from, tempo && `${tempo} BPM`, tags.join(', ')].filter(Boolean).join(' · ');
  return (
    <View role="listitem" aria-label={name} style={styles.row}>
      <Pressable
        role="button"
        aria-label={`Try ${name}${sound?.from ? ` of ${sound.from}` : ''}`}
        aria-description={more}
        aria-pressed={isTried}
        onPress={onTry}
        style={[
          styles.card,
          { backgroundColor: tokens.slate, borderColor: tokens.edge },
          isTried && { borderColor: tokens.straw, borderStyle: 'dashed' },
        ]}
      >
        <View style={styles.words}>
          <Text numberOfLines={1} style={[styles.name, { color: tokens.wing }]}>
            {name}
          </Text>
          <Text numberOfLines={3} style={[styles.more, { color: tokens.cap }]}>
            {isTried ? `tried · ${more}` : more}
          </Text>
        </View>
        <View style={styles.picture}>
          <SoundPicture peaks={peaks} columns={COLUMNS} color={tokens.cap} fitted />
        </View>
      </Pressable>
      <ControlButton
        label={`Like ${name}${sound?.from ? ` of ${sound.from}` : ''}`}
        icon={isLiked ? 'heart' : 'heart-outline'}
        pressed={isLiked}
        onPress={() => dispatch(likedToggled(id))}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 6 },
  card: {
    flex: 1,
    minWidth: 0,
    minHeight: TOUCH + 8,
    borderRadius: RADIUS,
    borderWidth: 2,
    paddingHorizontal: 10,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 10,
  },
  words: { flex: 1, minWidth: 0 },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(18), lineHeight: grown(23) },
  more: { fontFamily: WORDS, fontSize: grown(14), lineHeight: grown(18) },
  picture: { width: 72, height: 36 },
});
