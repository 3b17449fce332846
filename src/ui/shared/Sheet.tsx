import { useEffect, useRef, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { sheetClosed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { CLOSE_SHEET } from '../guide/guideWords';
import { giveFocusBack, lastPress } from '../shell/focus';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { WORDS_STRONG } from '../theme/tokens';
import { Words } from './Words';
import { ControlButton } from './ControlButton';

/** Width of the pads on a wide screen: sheets leave them free to be played. */
export const PADS_WIDTH = 520;

interface Props {
  title: string;
  /** One sentence that says what the sheet is for. */
  about: string;
  /** Beside the title: controls that stay in reach wherever the sheet is scrolled to. */
  action?: ReactNode;
  /** On a phone it covers only the upper half of the place. */
  half?: boolean;
  children: ReactNode;
}

/** A sheet over the place, or on a wide screen beside the pads. Transport, Flyway and music go on; Escape closes it. */
export function Sheet({ title, about, action, half, children }: Props) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { layout } = useRoom();
  useEffect(() => {
    const escape = (event: KeyboardEvent) => event.key === 'Escape' && dispatch(sheetClosed());
    window.addEventListener('keydown', escape);
    return () => window.removeEventListener('keydown', escape);
  }, [dispatch]);
  const content = useRef<ScrollView>(null);
  useEffect(() => {
    const opener = lastPress();
    // The part that scrolls, so that its keys scroll it.
    (content.current?.getScrollableNode() as HTMLElement | undefined)?.focus({ preventScroll: true });
    return () => giveFocusBack(opener);
  }, []);
  return (
    <View
      role="dialog"
      aria-label={title}
      style={[
        styles.sheet,
        layout === 'wide' ? styles.beside : half && layout === 'upright' && styles.half,
        { backgroundColor: tokens.ground, borderColor: tokens.rule },
      ]}
    >
      <View style={styles.head}>
        <Text role="heading" aria-level={2} numberOfLines={1} style={[styles.name, { color: tokens.wing }]}>
          {title}
        </Text>
        {action}
        <ControlButton
          label={`Close ${title.toLowerCase()}`}
          guideName={CLOSE_SHEET}
          icon="close"
          onPress={() => dispatch(sheetClosed())}
        />
      </View>
      <ScrollView ref={content} tabIndex={0} contentContainerStyle={styles.content}>
        <Words>{about}</Words>
        {children}
      </ScrollView>
    </View>
  );
}

/** A heading within a sheet. */
export function SheetTitle({ children }: { children: string }) {
  const tokens = useTokens();
  return (
    <Text role="heading" aria-level={3} style={[styles.title, { color: tokens.wing }]}>
      {children}
    </Text>
  );
}

const styles = StyleSheet.create({
  sheet: { position: 'absolute', left: 0, right: 0, top: 0, bottom: 0, zIndex: 2 },
  beside: { left: PADS_WIDTH + 16, borderLeftWidth: 1 },
  half: { bottom: '40%', borderBottomWidth: 2 },
  head: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
    paddingHorizontal: 12,
    paddingVertical: 6,
    maxWidth: 720,
  },
  name: { fontFamily: WORDS_STRONG, fontSize: 24, lineHeight: 30, flex: 1 },
  content: { paddingHorizontal: 12, paddingBottom: 16, gap: 10, maxWidth: 720, width: '100%' },
  title: { fontFamily: WORDS_STRONG, fontSize: 18, lineHeight: 24, marginTop: 8 },
});
