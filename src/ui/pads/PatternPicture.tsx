import { memo, useMemo, useRef, useState } from 'react';
import { StyleSheet, View, type ViewStyle } from 'react-native';
import { Text } from 'react-native-paper';
import { lanesOf } from '@/core/document/lanes';
import { passOf, type SoundingHit } from '@/core/sequence/soundingHits';
import { mod, ticksPerBar, ticksPerBeat } from '@/core/time/ticks';
import { selectPattern, selectSet, selectTrack } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { useDrag, type DragPoint } from '../shared/useDrag';
import { useFrame } from '../shared/useFrame';
import { WingBars } from '../shared/WingBars';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, WORDS, type Tokens } from '../theme/tokens';
import { grown } from '../theme/type';
import type { Pattern } from '@/core/document/pattern';

const LABEL_PX = 92;
const QUILL = 7;
const NARROW_QUILL = 4;
/** How near a tap must be to a hit to mean it, px. */
const TAP_PX = 16;

interface Props {
  /** Instead of the current pattern: how it would be. */
  shown?: Pattern;
  /** Only this pad's lane. */
  onlyPad?: number;
  /** Height of each lane in px; without it the lanes share the height there is. */
  laneHeight?: number;
  selected?: ReadonlySet<number>;
  /** Hits can be chosen, by a tap or by drawing a box around them. */
  onSelect?: (ids: number[]) => void;
}

/**
 * A pattern as a picture: a lane for each sound it uses, hits as slanted strokes where they were struck and as tall as
 * they are strong, with a moss mark where they are placed. A hit that another one covers is an outline.
 */
export function PatternPicture({ shown, onlyPad, laneHeight, selected, onSelect }: Props) {
  const tokens = useTokens();
  const { performance } = useInstrument();
  const track = useAppSelector(selectTrack);
  const current = useAppSelector(selectPattern);
  const pattern = shown ?? current;
  const meter = useAppSelector((state) => selectSet(state).meter);
  const playing = useAppSelector((state) => state.session.playing);
  const step = useAppSelector((state) => state.session.step?.cursor ?? null);
  const head = useRef<HTMLElement | null>(null);
  const length = pattern?.length ?? ticksPerBar(meter);
  const { sounding, covered } = useMemo(() => (pattern ? passOf(pattern) : { sounding: [], covered: [] }), [pattern]);
  useFrame((now) => {
    if (!head.current) return;
    // Stopped, step input shows where it stands.
    const at = !playing && step !== null ? step : performance.positionAt(playing ? performance.tickHeard(now) : performance.anchor.tick); // prettier-ignore
    head.current.style.left = `${(100 * mod(at, length)) / length}%`;
  }, playing);
  const used = [...new Set([...sounding, ...covered].map((hit) => hit.pad))].sort((a, b) => b - a);
  const pads = onlyPad === undefined ? used : used.filter((pad) => pad === onlyPad);
  const beats = Array.from({ length: Math.max(1, Math.round(length / ticksPerBeat(meter))) }, (_, i) => i);
  return (
    <View
      role="region"
      aria-label="Pattern"
      style={[styles.frame, laneHeight === undefined && styles.fill, { backgroundColor: tokens.deep }]}
    >
      <View style={styles.ruler}>
        {beats
          .filter((i) => (beats.length <= 8 ? true : i % (meter.beats * Math.ceil(beats.length / 64)) === 0))
          .map((i) => (
            <Text key={i} style={[styles.rulerText, { color: tokens.cap, left: `${(100 * i) / beats.length}%` }]}>
              {Math.floor(i / meter.beats) + 1}.{(i % meter.beats) + 1}
            </Text>
          ))}
      </View>
      {pads.length === 0 && (
        <View style={styles.empty}>
          <Text style={[styles.emptyText, { color: tokens.cap }]}>
            Nothing here yet. Press Record, then Play, and tap the pads: every pass round the loop adds to this picture.
          </Text>
        </View>
      )}
      <View style={[styles.lanes, laneHeight === undefined && styles.fill]}>
        {pads.map((pad) => (
          <Lane
            key={pad}
            name={lanesOf(track)[pad]!.name}
            hits={sounding}
            covered={covered}
            pad={pad}
            length={length}
            beats={beats.length}
            beatsPerBar={meter.beats}
            height={laneHeight}
            selected={selected}
            tokens={tokens}
          />
        ))}
        <View style={styles.headBox}>
          <View ref={(node: unknown) => void (head.current = node as HTMLElement | null)} style={styles.head}>
            <WingBars color={tokens.wing} height="100%" slant={0.6} />
          </View>
        </View>
        {onSelect && (
          <Selector
            pads={pads}
            hits={[...sounding, ...covered]}
            length={length}
            selected={selected}
            onSelect={onSelect}
          />
        )}
      </View>
    </View>
  );
}

interface SelectorProps {
  pads: readonly number[];
  hits: readonly SoundingHit[];
  length: number;
  selected: ReadonlySet<number> | undefined;
  onSelect: (ids: number[]) => void;
}

/** Lies over the lanes and takes taps and drawn boxes. */
function Selector({ pads, hits, length, selected, onSelect }: SelectorProps) {
  const tokens = useTokens();
  // Keys choose one hit after the other, lane by lane as the eye reads.
  const inOrder = pads.flatMap((pad) => hits.filter((hit) => hit.pad === pad));
  const [box, setBox] = useState<{ x: number; y: number; width: number; height: number } | null>(null);
  const inside = (from: DragPoint, to: DragPoint) => {
    const isTap = Math.abs(to.dx) < 6 && Math.abs(to.dy) < 6;
    const reach = isTap ? TAP_PX : 0;
    const [x1, x2] = [Math.min(from.x, to.x) - reach, Math.max(from.x, to.x) + reach];
    const rowOf = (y: number) => Math.floor((y / to.height) * pads.length);
    const [row1, row2] = [rowOf(Math.min(from.y, to.y)), rowOf(Math.max(from.y, to.y))];
    const xOf = (hit: SoundingHit) => (hit.struck / length) * to.width + QUILL / 2;
    const found = hits.filter((hit) => {
      const row = pads.indexOf(hit.pad);
      return row >= row1 && row <= row2 && xOf(hit) >= x1 && xOf(hit) <= x2;
    });
    if (!isTap) return found;
    return found.sort((a, b) => Math.abs(xOf(a) - to.x) - Math.abs(xOf(b) - to.x)).slice(0, 1);
  };
  const dragging = useDrag({
    begin: (at) => at,
    move: (to, from) => {
      const [x, y] = [Math.min(from.x, to.x), Math.min(from.y, to.y)];
      setBox({ x, y, width: Math.abs(to.dx), height: Math.abs(to.dy) });
    },
    end: (to, from, cancelled) => {
      if (!cancelled) onSelect(inside(from, to).map((hit) => hit.id));
      setBox(null);
    },
  });
  return (
    <View
      role="group"
      aria-label="Choose hits"
      tabIndex={0}
      {...{
        onKeyDown: (event: KeyboardEvent) => {
          const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
          if (step === 0 || inOrder.length === 0) return;
          event.preventDefault();
          event.stopPropagation();
          const at = inOrder.findIndex((hit) => selected?.has(hit.id));
          const next = at < 0 ? (step > 0 ? 0 : -1) : at + step;
          onSelect([inOrder[mod(next, inOrder.length)]!.id]);
        },
      }}
      {...dragging()}
      style={styles.selector}
    >
      {box && (
        <View
          style={[
            styles.box,
            { left: box.x, top: box.y, width: box.width, height: box.height, borderColor: tokens.wing },
          ]}
        />
      )}
    </View>
  );
}

interface LaneProps {
  name: string;
  pad: number;
  hits: readonly SoundingHit[];
  covered: readonly SoundingHit[];
  length: number;
  beats: number;
  beatsPerBar: number;
  height: number | undefined;
  selected: ReadonlySet<number> | undefined;
  tokens: Tokens;
}

const Lane = memo(function Lane(props: LaneProps) {
  const { name, pad, hits, covered, length, beats, beatsPerBar, height, selected, tokens } = props;
  const share = (tick: number): `${number}%` => `${(100 * tick) / length}%`;
  const own = hits.filter((hit) => hit.pad === pad);
  const narrow = height !== undefined && { width: NARROW_QUILL };
  const lines = beats > 64 ? Math.ceil(beats / beatsPerBar) : beats;
  return (
    <View style={[styles.lane, height === undefined ? styles.shared : { height }]}>
      <Text numberOfLines={1} style={[styles.label, { color: tokens.wing }]}>
        {name}
      </Text>
      <View style={[styles.cells, { backgroundColor: tokens.ground }]}>
        {Array.from({ length: lines }, (_, i) => (
          <View
            key={i}
            style={[
              styles.beat,
              {
                left: `${(100 * i) / lines}%`,
                backgroundColor: tokens.rule,
                opacity: lines < beats || i % beatsPerBar === 0 ? 1 : 0.5,
              },
            ]}
          />
        ))}
        {covered
          .filter((hit) => hit.pad === pad)
          .map((hit) => (
            <View
              key={`covered ${hit.id}`}
              style={[
                styles.quill,
                narrow,
                styles.covered,
                { left: share(hit.struck), height: '80%', borderColor: tokens.straw },
              ]}
            />
          ))}
        {own.map((hit) => (
          <View
            key={hit.id}
            style={[
              styles.quill,
              narrow,
              {
                left: share(hit.struck),
                height: `${20 + 70 * hit.velocity}%`,
                backgroundColor: selected?.has(hit.id) ? tokens.breast : tokens.wing,
              },
            ]}
          />
        ))}
        {own.map((hit) => (
          <View
            key={`placed ${hit.id}`}
            style={[styles.placed, narrow, { left: share(hit.tick), backgroundColor: tokens.moss }]}
          />
        ))}
      </View>
    </View>
  );
});

const styles = StyleSheet.create({
  frame: { borderRadius: RADIUS, padding: 12, overflow: 'hidden' },
  fill: { flex: 1 },
  ruler: { height: 22, marginLeft: grown(LABEL_PX) },
  rulerText: { position: 'absolute', fontFamily: NUMBERS, fontSize: grown(12), lineHeight: 16 },
  lanes: { gap: 4, overflow: 'hidden' },
  shared: { flex: 1, maxHeight: 56 },
  lane: { flexDirection: 'row', alignItems: 'stretch' },
  label: { width: grown(LABEL_PX), fontFamily: WORDS, fontSize: grown(17), lineHeight: grown(22), alignSelf: 'center' },
  cells: { flex: 1, borderRadius: 6, overflow: 'hidden' },
  beat: { position: 'absolute', top: 0, bottom: 0, width: 1 },
  quill: {
    position: 'absolute',
    bottom: 4,
    width: QUILL,
    marginLeft: 1,
    transform: [{ skewX: '-10deg' }],
    borderRadius: 1,
  },
  covered: { borderWidth: 1.5 },
  selector: {
    position: 'absolute',
    left: grown(LABEL_PX),
    right: 0,
    top: 0,
    bottom: 0,
    touchAction: 'none',
    cursor: 'crosshair',
  } as unknown as ViewStyle,
  box: { position: 'absolute', borderWidth: 1 },
  placed: { position: 'absolute', bottom: 0, width: QUILL + 2, height: 3 },
  headBox: { position: 'absolute', left: grown(LABEL_PX), right: 0, top: 0, bottom: 0, pointerEvents: 'none' },
  head: { position: 'absolute', top: 0, bottom: 0, marginLeft: -4 },
  empty: { flex: 1, alignItems: 'center', justifyContent: 'center', padding: 32 },
  emptyText: { fontFamily: WORDS, fontSize: grown(18), lineHeight: grown(26), textAlign: 'center', maxWidth: 420 },
});
