import { tracksOf } from '@/core/document/set';
import type { Instruction } from '@/core/protocol/commands';
import { useEffect, useRef, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { NO_SECTION, SILENT, THEN_STOP } from '@/core/launch/launchState';
import { planAhead } from '@/core/launch/planAhead';
import { ticksPerBar } from '@/core/time/ticks';
import { selectSet } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { useDrag } from '../shared/useDrag';
import { useFrame } from '../shared/useFrame';
import { WingBars } from '../shared/WingBars';
import { useRoom } from '../theme/room';
import { useTokens } from '../theme/theme';
import { FEATHERS, INK, NUMBERS, WORDS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { inBeats, useBeatsLeft, useLaunch } from './useLaunch';
import type { Track } from '@/core/document/track';

const BARS = 8;
/** Width of the names, px where type has its own size. */
const NAMES_PX = 64;
const ROW_PX = 44;
/** From the line of a drop to beyond its flag, where type has its own size. */
const PAST_FLAG_PX = 32;

/** The next eight bars: what sounds on each track and what drops where. What hands have queued is dragged to another bar. */
export function LaunchPlan() {
  const tokens = useTokens();
  const { performance } = useInstrument();
  const set = useAppSelector(selectSet);
  const bar = ticksPerBar(set.meter);
  useLaunch(({ launches }) => launches);
  const first = useBar(bar);
  const [width, setWidth] = useState(0);
  const { launcher } = performance;
  const [from, to] = [first * bar, (first + BARS) * bar];
  const lines = planAhead(launcher, from, to);
  const { type } = useRoom();
  const names = NAMES_PX * type;
  const px = (width - names) / (BARS * bar);
  const { nextSection, sectionTick } = launcher.live;
  const nameOf = (id: number) => set.sections.find((section) => section.id === id)?.name;
  const coming = nextSection === THEN_STOP ? 'All stop' : nextSection === NO_SECTION ? null : nameOf(nextSection); // prettier-ignore
  const drops = coming && sectionTick < to ? sectionTick : null;
  const x = (tick: number) => names + (tick - from) * px;
  return (
    <View
      role="region"
      aria-label="Plan of the next 8 bars"
      style={[styles.plan, { borderColor: tokens.rule }]}
      onLayout={(event) => setWidth(event.nativeEvent.layout.width)}
    >
      <View style={styles.ruler}>
        {Array.from({ length: BARS }, (_, i) => (
          <Text key={i} style={[styles.bar, { left: x(from + i * bar) + 4, color: tokens.cap }]}>
            {first + i + 1}
          </Text>
        ))}
      </View>
      <ScrollView>
        <View style={[styles.row, { borderColor: tokens.rule }]}>
          <Text style={[styles.name, { color: tokens.cap }]}>Section</Text>
          <Text
            numberOfLines={1}
            style={[
              styles.playing,
              { left: names + 4, maxWidth: Math.max(0, x(drops ?? to) - names - 8), color: tokens.wing },
            ]}
          >
            {nameOf(launcher.live.section) ?? ''}
          </Text>
          {coming && drops !== null && (
            <>
              <Text style={[styles.playing, { left: x(drops) + PAST_FLAG_PX * type, color: tokens.wing }]}>
                {coming}
              </Text>
              <Drop
                name="section"
                words={coming}
                tick={drops}
                left={x(drops)}
                bar={bar}
                px={px}
                command={(tick) => ({ type: 'moveSection', tick })}
              />
            </>
          )}
        </View>
        {tracksOf(set).map((track) => (
          <Row key={track.id} track={track}>
            {lines[track.id]!.map(({ slot, ...stretch }) =>
              slot === SILENT || !track.patterns[slot] ? null : (
                <Stretch
                  key={stretch.from}
                  left={x(stretch.from)}
                  width={(stretch.to - stretch.from) * px}
                  isDropped={stretch.from === launcher.live.nextTick[track.id]}
                  colour={FEATHERS[track.patterns[slot].colour ?? track.colour]!.colour}
                  words={track.patterns[slot].name}
                />
              ),
            )}
            <TrackDrop track={track} names={names} from={from} to={to} bar={bar} px={px} />
          </Row>
        ))}
      </ScrollView>
      {width > 0 && <Now names={names} from={from} px={px} />}
    </View>
  );
}

/** The bar that is heard, followed as the song goes. */
function useBar(bar: number): number {
  const { performance } = useInstrument();
  const playing = useAppSelector((state) => state.session.playing);
  const read = () => Math.max(0, Math.floor(performance.tickNow / bar));
  const [at, setAt] = useState(read);
  useEffect(() => {
    let request = 0;
    const look = () => {
      setAt(Math.max(0, Math.floor(performance.tickNow / bar)));
      if (playing) request = requestAnimationFrame(look);
    };
    look();
    return () => cancelAnimationFrame(request);
  }, [performance, playing, bar]);
  return at;
}

function Row({ track, children }: { track: Track; children: React.ReactNode }) {
  const tokens = useTokens();
  return (
    <View role="group" aria-label={`Plan of ${track.name}`} style={[styles.row, { borderColor: tokens.rule }]}>
      <Text numberOfLines={1} style={[styles.name, { color: tokens.wing }]}>
        {track.name}
      </Text>
      {children}
    </View>
  );
}

interface StretchProps {
  left: number;
  width: number;
  /** The flag of a drop stands where it begins. */
  isDropped: boolean;
  colour: string;
  words: string;
}

function Stretch({ left, width, isDropped, colour, words }: StretchProps) {
  const place = { left: left + 1, width: Math.max(0, width - 2), backgroundColor: colour };
  return (
    <View style={[styles.stretch, isDropped && styles.dropped, place]}>
      <Text numberOfLines={1} style={styles.word}>
        {words}
      </Text>
    </View>
  );
}

/** The change of a track that hands have queued. */
function TrackDrop(props: { track: Track; names: number; from: number; to: number; bar: number; px: number }) {
  const { track, names, from, to, bar, px } = props;
  const { performance } = useInstrument();
  const { live } = performance.launcher;
  const { id: trackId, patterns } = track;
  const tick = live.nextTick[trackId]!;
  if (tick >= to) return null;
  const slot = live.next[trackId]!;
  const words = slot === SILENT ? 'Stop' : (patterns[slot]?.name ?? 'Chain');
  return (
    <Drop
      name={track.name}
      words={words}
      tick={tick}
      left={names + (tick - from) * px}
      bar={bar}
      px={px}
      command={(to_) => ({ type: 'moveLaunch', track: trackId, tick: to_ })}
    />
  );
}

interface DropProps {
  name: string;
  words: string;
  tick: number;
  left: number;
  bar: number;
  px: number;
  command: (tick: number) => Instruction<'moveLaunch' | 'moveSection'>;
}

/** A flag at the line on which something drops; it is dragged to another bar, or moved with the arrow keys. */
function Drop({ name, words, tick, left, bar, px, command }: DropProps) {
  const tokens = useTokens();
  const instrument = useInstrument();
  const beats = useBeatsLeft(tick);
  const [shift, setShift] = useState(0);
  const line = (px_: number) => Math.round((tick + px_ / px) / bar) * bar;
  const dragging = useDrag({
    begin: () => null,
    move: ({ dx }) => setShift(dx),
    end: ({ dx }, _, cancelled) => {
      if (!cancelled) move(line(dx));
      setShift(0);
    },
  });
  const move = (to: number) => {
    if (to > instrument.performance.tickNow && to !== tick) instrument.perform(command(to));
  };
  return (
    <div
      role="button"
      tabIndex={0}
      aria-label={`Move ${name}`}
      aria-description={`${words}${inBeats(beats)}; arrow keys move it by a bar`}
      {...dragging()}
      onKeyDown={(event) => {
        const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
        if (step === 0) return;
        event.preventDefault();
        event.stopPropagation();
        // From between two bar lines: to the next one in the direction of the key.
        move((step > 0 ? Math.floor(tick / bar) + 1 : Math.ceil(tick / bar) - 1) * bar);
      }}
      style={{ ...flag, left: left - 22 + shift, color: tokens.onStraw }}
    >
      <div style={{ ...stem, background: tokens.straw }} />
      <span style={{ ...cloth, background: tokens.straw }}>{beats ?? ''}</span>
    </div>
  );
}

/** The wing bars over the plan, drawn on the frame. */
function Now({ names, from, px }: { names: number; from: number; px: number }) {
  const tokens = useTokens();
  const { performance } = useInstrument();
  const playing = useAppSelector((state) => state.session.playing);
  // Going back to the top while stopped moves it too.
  useAppSelector((state) => state.session.awayFromTop);
  const head = useRef<HTMLElement | null>(null);
  useFrame(() => {
    if (head.current) head.current.style.transform = `translateX(${names + (performance.tickNow - from) * px}px)`;
  }, playing);
  return (
    <View ref={(node: unknown) => void (head.current = node as HTMLElement | null)} style={styles.now}>
      <WingBars color={tokens.wing} height="100%" slant={12} />
      <View style={[styles.line, { backgroundColor: tokens.wing }]} />
    </View>
  );
}

const flag = { position: 'absolute', top: 0, width: 44, height: ROW_PX, cursor: 'ew-resize', touchAction: 'none', userSelect: 'none' } as const; // prettier-ignore
const stem = { position: 'absolute', left: 21, top: 0, bottom: 0, width: 3 } as const;
const cloth = { position: 'absolute', left: 24, top: 2, minWidth: grown(22), height: grown(20), padding: '0 3px', boxSizing: 'border-box', textAlign: 'center', borderRadius: '0 6px 6px 0', fontFamily: NUMBERS, fontSize: grown(12), lineHeight: grown(20) } as const; // prettier-ignore

const styles = StyleSheet.create({
  plan: { flexGrow: 2, flexBasis: 0, minWidth: 320, maxWidth: grown(520), borderLeftWidth: 1, overflow: 'hidden' },
  ruler: { height: 32 },
  bar: { position: 'absolute', top: 8, fontFamily: NUMBERS, fontSize: grown(12), lineHeight: 16 },
  row: { height: ROW_PX, borderTopWidth: 1, justifyContent: 'center' },
  name: { width: grown(NAMES_PX - 6), paddingLeft: 8, fontFamily: WORDS, fontSize: grown(15) },
  playing: { position: 'absolute', top: 11, fontFamily: WORDS_STRONG, fontSize: grown(16) },
  stretch: { position: 'absolute', top: 4, bottom: 4, borderRadius: 6, paddingHorizontal: 6, justifyContent: 'center' },
  dropped: { paddingLeft: grown(PAST_FLAG_PX) },
  word: { fontFamily: WORDS_STRONG, fontSize: grown(14), color: INK },
  now: { position: 'absolute', left: -4, top: 6, height: 26, pointerEvents: 'none' },
  line: { position: 'absolute', left: 4, top: 26, height: 2000, width: 1, opacity: 0.6 },
});
