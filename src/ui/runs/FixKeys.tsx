import { StyleSheet, View } from 'react-native';
import { useStore } from 'react-redux';
import { windowOf } from '@/core/sequence/loopWindow';
import { loopStrokes } from '@/core/sequence/loopStrokes';
import type { Dropped } from '@/core/score/fix';
import { tracksOf } from '@/core/document/set';
import { ticksPerBar } from '@/core/time/ticks';
import { lanesOf } from '@/core/document/lanes';
import type { OpenedRun } from '@/instrument/openedRun';
import { selectSet } from '@/store/selectors';
import type { Store } from '@/store/store';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { PopMenu, type PopMenuItem } from '../shared/PopMenu';
import { endFixes, lineFix } from './scoreNudges';
import { chosenBlocks, chosenHits, SNAPS, snapTicks, type RunDesk, type Snap } from './useRunDesk';
import { copyChosen, removeChosen } from './useScoreKeys';
import { useRunClipboard } from './useRunClipboard';

const SNAP_NAMES: Record<Snap, string> = { bar: 'Bars', beat: 'Beats', free: 'Free' };
/** Grids on offer for hits, in ticks. */
const GRIDS = [
  { name: '1/8', grid: 480 },
  { name: '1/16', grid: 240 },
  { name: '1/8 triplet', grid: 320 },
];

/** What is done while a run is put right. What was played stays as it is. */
export function FixKeys({ opened, desk }: { opened: OpenedRun; desk: RunDesk }) {
  const { score } = opened;
  const blocks = chosenBlocks(score, desk.chosen);
  const hits = chosenHits(score, desk.chosen);
  const clipboard = useRunClipboard();
  const drops = useDrops(opened, desk);
  const { stretch } = desk;
  const bar = ticksPerBar(score.meter);
  const paste = () => {
    const from = Math.min(...clipboard.dropped.map(({ block }) => block.from));
    const by = desk.cursor - from;
    opened.fix({
      type: 'dropBlocks',
      dropped: clipboard.dropped.map(({ track, block }) => ({ track, block: { ...block, from: block.from + by } })),
    });
  };
  const step = snapTicks(desk.snap, score) || bar / 16;
  const ends = (way: 1 | -1) =>
    endFixes(
      blocks.map(({ block }) => block),
      way * step,
    ).forEach((fix) => opened.fix(fix));
  const draw = (way: 1 | -1) => {
    const of = stretch ?? { from: desk.cursor, to: desk.cursor + bar };
    const fix = lineFix(score, score.tracks[Math.min(desk.row, score.tracks.length - 1)]!, desk.line, of, way);
    if (fix) opened.fix(fix);
  };
  const feel = GRIDS.map(({ name, grid }): PopMenuItem => ({ title: name, act: () => opened.fix({ type: 'placeHits', hits, feel: { grid, strength: 1 } }) })); // prettier-ignore
  return (
    <View style={styles.keys}>
      <ControlButton
        label="Undo fix"
        icon="undo"
        disabled={!opened.canUndo}
        onPress={() => opened.undo()}
        style={styles.key}
      />
      <ControlButton
        label="Redo fix"
        icon="redo"
        disabled={!opened.canRedo}
        onPress={() => opened.redo()}
        style={styles.key}
      />
      <Choice
        label="Snap"
        caption="Snap"
        value={desk.snap}
        options={SNAPS.map((snap) => ({ value: snap, name: SNAP_NAMES[snap] }))}
        onChoose={(snap) => desk.set({ snap })}
      />
      {hits.length > 0 && (
        <PopMenu
          label="Feel of hits"
          text="Feel"
          items={[...feel, { title: 'As struck', ruled: true, act: () => opened.fix({ type: 'placeHits', hits, feel: { grid: 0, strength: 1 } }) }]} // prettier-ignore
        />
      )}
      {blocks.length > 0 && (
        <>
          <ControlButton
            label="Duplicate"
            text="Duplicate"
            onPress={() => copyChosen(opened, desk)}
            style={styles.key}
          />
          <ControlButton
            label="Copy"
            text="Copy"
            onPress={() => clipboard.put(blocks.map(({ row, block: { id: _, ...block } }): Dropped => ({ track: score.tracks[row]!.id, block }))) } // prettier-ignore
            style={styles.key}
          />
        </>
      )}
      {blocks.length > 0 && (
        <>
          <ControlButton label="Shorter" text="Shorter" onPress={() => ends(-1)} style={styles.key} />
          <ControlButton label="Longer" text="Longer" onPress={() => ends(1)} style={styles.key} />
        </>
      )}
      {desk.chosen.size > 0 ? (
        <ControlButton
          label="Take away"
          text="Take away"
          onPress={() => removeChosen(opened, desk)}
          style={styles.key}
        />
      ) : (
        <>
          {clipboard.dropped.length > 0 && (
            <ControlButton label="Paste" text="Paste" onPress={paste} style={styles.key} />
          )}
          <PopMenu label="Drop in" text="Drop in" items={drops} />
          <ControlButton label="Line lower" icon="arrow-down" onPress={() => draw(-1)} style={styles.key} />
          <ControlButton label="Line higher" icon="arrow-up" onPress={() => draw(1)} style={styles.key} />
          <ControlButton
            label="Open up"
            text="Open up"
            onPress={() => opened.fix({ type: 'openStretch', at: stretch?.from ?? desk.cursor, ticks: stretch ? stretch.to - stretch.from : snapTicks(desk.snap, score) || bar })} // prettier-ignore
            style={styles.key}
          />
          <ControlButton
            label="Cut out"
            text="Cut out"
            disabled={!stretch}
            onPress={() => {
              if (stretch) opened.fix({ type: 'closeStretch', ...stretch });
              desk.set({ stretch: null, loops: false });
            }}
            style={styles.key}
          />
        </>
      )}
    </View>
  );
}

/** Patterns and single hits that can be dropped in at the cursor, on the track that was touched last. */
function useDrops(opened: OpenedRun, desk: RunDesk): () => PopMenuItem[] {
  const store = useStore() as Store;
  return () => {
    const set = selectSet(store.getState());
    const { score } = opened;
    const played = score.tracks[desk.row]!;
    const track = tracksOf(set).find(({ id }) => id === played.id);
    if (!track) return [{ title: 'This set has no such track', act: () => undefined }];
    const patterns = track.patterns.flatMap((pattern): PopMenuItem[] => {
      if (!pattern || pattern.hits.length === 0) return [];
      const { length } = windowOf(pattern);
      const strokes = loopStrokes(pattern, track).map((stroke, i) => ({ ...stroke, id: i + 1, late: 0, filter: 0, decay: 0, level: 1, pan: 0 })); // prettier-ignore
      const content = { length, loop: length, strokes };
      const block = {
        name: pattern.name,
        colour: pattern.colour ?? track.colour,
        from: desk.cursor,
        length,
        into: 0,
        content,
      };
      const act = () => opened.fix({ type: 'dropBlocks', dropped: [{ track: track.id, block }] });
      return [{ title: pattern.name, act }];
    });
    const pads = lanesOf(track).map(({ name }, pad): PopMenuItem => {
      const hit = {
        tick: desk.cursor,
        late: 0,
        pad,
        velocity: 0.8,
        length: 240,
        pitch: 0,
        filter: 0,
        decay: 0,
        level: 1,
        pan: 0,
      };
      return { title: name, act: () => opened.fix({ type: 'dropHit', track: track.id, hit }) };
    });
    return [...patterns, ...pads.map((item, i) => ({ ...item, ruled: i === 0 }))];
  };
}

const styles = StyleSheet.create({
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: 4 },
  key: { flexGrow: 1, paddingHorizontal: 6 },
});
