import { useEffect, useLayoutEffect, useRef, type ReactNode } from 'react';
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
import { grown } from '../theme/type';

/** How far keys scroll, as a share of what is seen. */
const SCROLLS: Record<string, number> = { ArrowDown: 0.15, ArrowUp: -0.15, PageDown: 0.9, PageUp: -0.9, Home: -1e4, End: 1e4 }; // prettier-ignore

/** Width of the pads on a wide screen, which grows with the room: sheets leave them free to be played. */
export const PADS_WIDTH = 520;

/** Greatest width of what stands in a sheet, which grows with the room. */
export const SHEET_WIDTH = 720;

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
  // From its first picture on, which an effect may come after.
  useLayoutEffect(() => {
    const escape = (event: KeyboardEvent) => event.key === 'Escape' && dispatch(sheetClosed());
    window.addEventListener('keydown', escape);
    return () => window.removeEventListener('keydown', escape);
  }, [dispatch]);
  const sheet = useRef<View>(null);
  const content = useRef<ScrollView>(null);
  useEffect(() => {
    const opener = lastPress();
    (sheet.current as unknown as HTMLElement).focus({ preventScroll: true });
    return () => giveFocusBack(opener);
  }, []);
  /** The sheet itself has the focus to begin with: its content scrolls all the same. */
  const scroll = (event: KeyboardEvent) => {
    const share = SCROLLS[event.key];
    const page = content.current?.getScrollableNode() as HTMLElement | undefined;
    if (share === undefined || !page || event.target !== (sheet.current as unknown)) return;
    event.preventDefault();
    page.scrollBy({ top: share * page.clientHeight });
  };
  return (
    <View
      ref={sheet}
      tabIndex={-1}
      {...{ onKeyDown: scroll }}
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
  beside: { left: grown(PADS_WIDTH + 16), borderLeftWidth: 1 },
  half: { bottom: '40%', borderBottomWidth: 2 },
  head: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
    paddingHorizontal: 12,
    paddingVertical: 6,
    maxWidth: grown(SHEET_WIDTH),
  },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(24), lineHeight: grown(30), flex: 1 },
  content: { paddingHorizontal: 12, paddingBottom: 16, gap: 10, maxWidth: grown(SHEET_WIDTH), width: '100%' },
  title: { fontFamily: WORDS_STRONG, fontSize: grown(18), lineHeight: grown(24), marginTop: 8 },
});
