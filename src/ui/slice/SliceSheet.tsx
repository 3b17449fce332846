import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useStore } from 'react-redux';
import { MOST_CUTS } from '@/core/document/sample';
import { SAMPLE_RATE } from '@/core/sample/levels';
import { asCuts, nearestCrossing, SHORTEST_PIECE, withCutMoved, type Piece } from '@/core/slice/cuts';
import { sheetClosed } from '@/store/sessionSlice';
import { sampleCut, soundNumberSet } from '@/store/soundsSlice';
import { useAppDispatch, type Store } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { Sheet } from '../shared/Sheet';
import { Strip } from '../shared/Strip';
import { Words } from '../shared/Words';
import { hearAudio } from '../sounds/hearAudio';
import { CutWays } from './CutWays';
import { FitKeys } from './FitKeys';
import { LayKeys, type Laying } from './LayKeys';
import { saveRecording, toPads } from './sliceActs';
import { LEAST_VIEW, SliceOverview, SlicePicture, within, type Edge } from './SlicePicture';
import { useRecording, type Recording } from './useRecording';

/** How pieces were last laid, for as long as the page is open. */
let lastLaying: Laying = { onto: 'new', withPattern: true };

/** A recording opened large: cut into pieces, each heard, each given a pad of its own. */
export function SliceSheet() {
  const store = useStore() as Store;
  const instrument = useInstrument();
  const recording = useRecording();
  const [laying, setLaying] = useState(lastLaying);
  const lay = () => {
    if (recording && toPads(store, instrument, recording, laying)) store.dispatch(sheetClosed());
  };
  return (
    <Sheet
      title="Slice"
      about="Cuts a recording into pieces and gives each of them a pad: to be played in another order, or turned round."
      action={<ControlButton label="To pads" text="To pads" tone="primary" disabled={!recording} onPress={lay} />}
    >
      {recording ? (
        // What is shown and chosen is that of one recording.
        <Slicing key={`${recording.track} ${recording.pad} ${recording.id}`} recording={recording}>
          <LayKeys
            laying={laying}
            hasTempo={recording.tempo !== null}
            onChange={(next) => setLaying((lastLaying = next))}
          />
        </Slicing>
      ) : (
        <Words>This pad plays no recording. Load or record one, or turn its sound into a sample by its menu.</Words>
      )}
    </Sheet>
  );
}

/** @param children what else is decided of its pieces */
function Slicing({ recording, children }: { recording: Recording; children: ReactNode }) {
  const store = useStore() as Store;
  const dispatch = useAppDispatch();
  const { track, pad, sound, audio, frames, part, cuts, pieces } = recording;
  const [view, setView] = useState<Piece>({ from: 0, to: frames });
  const [chosenIndex, choose] = useState(0);
  const [mark, setMark] = useState<number | null>(null);
  const chosen = Math.min(chosenIndex, pieces.length - 1);
  const piece = pieces[chosen]!;
  const hear = useHearing(recording);

  const cut = (next: readonly number[], gesture?: string) =>
    dispatch(sampleCut({ track, pad, cuts: next, ...(gesture && { gesture }) }));
  const moveEdge = (edge: Edge, frame: number, gesture: string) => {
    if (!audio) return;
    const now = edge === 'start' ? part.from : edge === 'end' ? part.to : cuts[edge]!;
    const to = crossingTowards(recording, now, frame);
    if (typeof edge === 'number') {
      cut(withCutMoved(cuts, edge, to, part), gesture);
      return;
    }
    const [least, most] = edge === 'start' ? [0, part.to - SHORTEST_PIECE] : [part.from + SHORTEST_PIECE, frames];
    const value = Math.max(least, Math.min(most, to)) / frames;
    dispatch(soundNumberSet({ track, pad, setting: edge, value, gesture }));
  };
  const touch = (frame: number) => {
    const touched = pieces.findIndex(({ from, to }) => frame >= from && frame < to);
    if (touched < 0) return;
    setMark(Math.round(frame));
    choose(touched);
    hear(pieces[touched]!);
  };
  const step = (by: number) => {
    const next = Math.min(pieces.length - 1, Math.max(0, chosen + by));
    choose(next);
    setMark(null);
    const { from, to } = pieces[next]!;
    if (from < view.from || to > view.to)
      setView(within(frames, from - (view.to - view.from) / 8, view.to - view.from));
    hear(pieces[next]!);
  };
  const addCut = () => {
    if (!audio) return;
    const at = mark !== null && mark > piece.from && mark < piece.to ? mark : (piece.from + piece.to) / 2;
    const next = asCuts([...cuts, nearestCrossing(audio, Math.round(at))], part);
    cut(next);
    setMark(null);
    if (next.length > cuts.length) choose(chosen + 1);
  };
  const zoom = (factor: number) => {
    const length = Math.min(frames, Math.max(Math.min(frames, LEAST_VIEW), (view.to - view.from) * factor));
    const centre = mark ?? (piece.from + piece.to) / 2;
    // The place that one looks at stays in sight, in the middle as far as it goes.
    setView(within(frames, centre - length / 2, length));
  };

  return (
    <>
      <SlicePicture
        recording={recording}
        view={view}
        chosen={chosen}
        mark={mark}
        onEdge={moveEdge}
        onTouch={touch}
        onView={setView}
      />
      <SliceOverview recording={recording} view={view} onView={setView} />
      <KeyRow
        keys={[
          { label: 'Previous piece', icon: 'arrow-left', disabled: chosen === 0, act: () => step(-1) },
          {
            label: 'Hear piece',
            text: `Hear ${chosen + 1} of ${pieces.length}`,
            disabled: !audio,
            act: () => hear(piece),
          },
          { label: 'Next piece', icon: 'arrow-right', disabled: chosen === pieces.length - 1, act: () => step(1) },
          { label: 'Zoom out', icon: 'magnify-minus-outline', act: () => zoom(2) },
          { label: 'Zoom in', icon: 'magnify-plus-outline', act: () => zoom(0.5) },
        ]}
      />
      <Strip
        slides
        label="Piece begins"
        value={piece.from / SAMPLE_RATE}
        min={0}
        max={frames / SAMPLE_RATE}
        step={0.001}
        scale={1000}
        unit="ms"
        onChange={(seconds, gesture) =>
          moveEdge(chosen === 0 ? 'start' : chosen - 1 + cutsBefore(recording), seconds * SAMPLE_RATE, gesture)
        }
      />
      <KeyRow
        keys={[
          { text: 'Add cut', disabled: !audio || cuts.length >= MOST_CUTS, act: addCut },
          {
            text: 'Remove cut',
            disabled: chosen === 0,
            act: () => void cut(cuts.filter((frame) => frame !== piece.from)),
          },
          { text: 'Remove all cuts', disabled: pieces.length === 1, act: () => void cut([]) },
        ]}
      />
      <CutWays recording={recording} onCut={cut} />
      {children}
      <FitKeys recording={recording} />
      <ControlButton
        label="Save as WAV"
        text="Save as WAV"
        footnote="its cuts as cue points"
        disabled={!audio}
        onPress={() => saveRecording(store, recording)}
      />
      {!audio && <Words>{`${sound.name} is being read, or is not on this device.`}</Words>}
    </>
  );
}

/** Cuts that lie before what is played. */
function cutsBefore({ cuts, part }: Recording): number {
  return cuts.filter((cut) => cut <= part.from).length;
}

/**
 * The zero crossing nearest to a frame; but one that lies where the edge is already, or behind it, would hold the edge back: then the
 * frame itself.
 */
function crossingTowards({ audio }: Recording, now: number, frame: number): number {
  const wanted = Math.round(frame);
  const found = nearestCrossing(audio!, wanted);
  return (found - now) * (wanted - now) > 0 ? found : wanted;
}

/** Plays a piece as it was recorded; the last one ends with the next, and with the sheet. */
function useHearing({ audio }: Recording): (piece: Piece) => void {
  const heard = useRef<() => void>(() => undefined);
  useEffect(() => () => heard.current(), []);
  return ({ from, to }) => {
    heard.current();
    if (audio) heard.current = hearAudio({ channels: audio.channels.map((channel) => channel.subarray(from, to)) });
  };
}
