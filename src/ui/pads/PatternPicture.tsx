import { memo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { KITS } from '@/core/model/kits';
import type { SoundingHit } from '@/core/sequence/soundingHits';
import { mod, ticksPerBar, ticksPerBeat } from '@/core/time/ticks';
import { selectPattern, selectSet, selectSounding, selectTrack } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { useFrame } from '../shared/useFrame';
import { WingBars } from '../shared/WingBars';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS, WORDS, type Tokens } from '../theme/tokens';

const LABEL_PX = 92;
const QUILL = 7;

/** The current pattern beside the pads: a lane for each sound it uses, hits as slanted strokes as tall as they are strong. */
export function PatternPicture() {
  const tokens = useTokens();
  const { performance } = useInstrument();
  const track = useAppSelector(selectTrack);
  const pattern = useAppSelector(selectPattern);
  const hits = useAppSelector(selectSounding);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const playing = useAppSelector((state) => state.session.playing);
  const head = useRef<HTMLElement | null>(null);
  const length = pattern?.length ?? ticksPerBar(meter);
  useFrame((now) => {
    if (!head.current) return;
    const tick = playing ? performance.tickHeard(now) : performance.anchor.tick;
    head.current.style.left = `${(100 * mod(Math.max(0, tick), length)) / length}%`;
  }, playing);
  const pads = [...new Set(hits.map((hit) => hit.pad))].sort((a, b) => b - a);
  const beats = Array.from({ length: Math.round(length / ticksPerBeat(meter)) }, (_, i) => i);
  return (
    <View role="region" aria-label="Pattern" style={[styles.frame, { backgroundColor: tokens.deep }]}>
      <View style={styles.ruler}>
        {beats
          .filter((i) => beats.length <= 8 || i % meter.beats === 0)
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
      <View style={styles.lanes}>
        {pads.map((pad) => (
          <Lane
            key={pad}
            name={KITS[track.kit].pads[pad]!.name}
            hits={hits.filter((hit) => hit.pad === pad)}
            length={length}
            beats={beats.length}
            beatsPerBar={meter.beats}
            tokens={tokens}
          />
        ))}
        <View style={styles.headBox}>
          <View ref={(node: unknown) => void (head.current = node as HTMLElement | null)} style={styles.head}>
            <WingBars color={tokens.wing} height="100%" slant={0.6} />
          </View>
        </View>
      </View>
    </View>
  );
}

interface LaneProps {
  name: string;
  hits: readonly SoundingHit[];
  length: number;
  beats: number;
  beatsPerBar: number;
  tokens: Tokens;
}

const Lane = memo(function Lane({ name, hits, length, beats, beatsPerBar, tokens }: LaneProps) {
  return (
    <View style={styles.lane}>
      <Text numberOfLines={1} style={[styles.label, { color: tokens.wing }]}>
        {name}
      </Text>
      <View style={[styles.cells, { backgroundColor: tokens.ground }]}>
        {Array.from({ length: beats }, (_, i) => (
          <View
            key={i}
            style={[
              styles.beat,
              { left: `${(100 * i) / beats}%`, backgroundColor: tokens.rule, opacity: i % beatsPerBar === 0 ? 1 : 0.5 },
            ]}
          />
        ))}
        {hits.map((hit) => (
          <View
            key={hit.id}
            style={[
              styles.quill,
              {
                left: `${(100 * hit.struck) / length}%`,
                height: `${20 + 70 * hit.velocity}%`,
                backgroundColor: tokens.wing,
              },
            ]}
          />
        ))}
        {hits.map((hit) => (
          <View
            key={`placed ${hit.id}`}
            style={[styles.placed, { left: `${(100 * hit.tick) / length}%`, backgroundColor: tokens.moss }]}
          />
        ))}
      </View>
    </View>
  );
});

const styles = StyleSheet.create({
  frame: { flex: 1, borderRadius: RADIUS, padding: 12, overflow: 'hidden' },
  ruler: { height: 22, marginLeft: LABEL_PX },
  rulerText: { position: 'absolute', fontFamily: NUMBERS, fontSize: 12, lineHeight: 16 },
  lanes: { flex: 1, gap: 4, overflow: 'hidden' },
  lane: { flex: 1, maxHeight: 56, flexDirection: 'row', alignItems: 'stretch' },
  label: { width: LABEL_PX, fontFamily: WORDS, fontSize: 17, lineHeight: 22, alignSelf: 'center' },
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
  placed: { position: 'absolute', bottom: 0, width: QUILL + 2, height: 3 },
  headBox: { position: 'absolute', left: LABEL_PX, right: 0, top: 0, bottom: 0, pointerEvents: 'none' },
  head: { position: 'absolute', top: 0, bottom: 0, marginLeft: -4 },
  empty: { flex: 1, alignItems: 'center', justifyContent: 'center', padding: 32 },
  emptyText: { fontFamily: WORDS, fontSize: 18, lineHeight: 26, textAlign: 'center', maxWidth: 420 },
});
