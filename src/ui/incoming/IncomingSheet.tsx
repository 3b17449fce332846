import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { counted } from '@/core/counted';
import { MAX_TRACKS } from '@/core/document/limits';
import { tracksOf } from '@/core/document/set';
import { setOfSong, CUTS, firstChoices, type MidiChoices, type PartChoice } from '@/core/formats/midiSet';
import type { MidiSong } from '@/core/formats/readMidi';
import { playTracks } from '@/core/score/playThrough';
import { formatTempo } from '@/core/time/tempo';
import { ticksPerBar } from '@/core/time/ticks';
import { PART_RATE, PlayedPart } from '@/instrument/playedPart';
import { tracksBroughtIn } from '@/store/openSlice';
import { selectSet } from '@/store/selectors';
import { noticed, sheetClosed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ListenKey } from '../carry/ListenKey';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';
import { KeyRow } from '../shared/KeyRow';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { IncomingPart } from './IncomingPart';

/** A MIDI file on its way into a set: seen, heard and changed before it is taken. */
export function IncomingSheet() {
  const incoming = useAppSelector((state) => state.session.incoming);
  return (
    <Sheet
      title="Bring in"
      about="What a MIDI file holds, and how it becomes tracks. Nothing is taken until you say so."
    >
      {incoming ? <Song key={incoming.name} {...incoming} /> : <Words>No file was chosen.</Words>}
    </Sheet>
  );
}

function Song({ name, song }: { name: string; song: MidiSong }) {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const taken = useAppSelector((state) => selectSet(state).order.length);
  const [choices, setChoices] = useState(() => firstChoices(song));
  const brought = useMemo(() => setOfSong(song, choices, name), [song, choices, name]);
  const part = useMemo(
    () => new PlayedPart(name, () => playTracks(brought, brought.length, PART_RATE)),
    [name, brought],
  );
  const count = choices.parts.filter((part) => part.taken).length;
  const change = (part: Partial<MidiChoices>) => setChoices({ ...choices, ...part });
  const changePart = (i: number, part: Partial<PartChoice>) =>
    change({ parts: choices.parts.map((one, at) => (at === i ? { ...one, ...part } : one)) });
  const take = (done: string, act: () => void) => {
    act();
    dispatch(sheetClosed());
    dispatch(noticed(done, true));
  };
  const leftOut = [...song.leftOut, ...brought.leftOut];
  const room = MAX_TRACKS - taken;
  let place = 0;
  return (
    <View style={styles.all}>
      <Words>{songWords(name, song)}</Words>
      <View style={styles.row}>
        <ListenKey part={part} />
        <Choice
          label="Patterns of"
          caption="Patterns of"
          value={String(choices.bars)}
          options={CUTS.map((bars) => ({ value: String(bars), name: cutName(bars) }))}
          onChoose={(value) => change({ bars: value === 'null' ? null : Number(value) })}
          grow
        />
      </View>
      <View style={styles.row}>
        <ControlButton
          label="Take as a new set"
          text="As a new set"
          tone="primary"
          disabled={count === 0}
          onPress={() => take(`“${name}” is open.`, () => instrument.open(brought))}
          style={styles.key}
        />
        <ControlButton
          label="Take beside what is there"
          text="Beside what is there"
          disabled={count === 0 || count > room}
          description={count > room ? `There is room for ${room} more tracks.` : undefined}
          onPress={() =>
            take(`${counted(count, 'track')} came in.`, () => void dispatch(tracksBroughtIn(tracksOf(brought.set))))
          }
          style={styles.key}
        />
      </View>
      {song.tempo.length > 1 && (
        <KeyRow
          caption="Tempo"
          keys={[
            {
              label: 'Notes keep their beats',
              text: 'Keep beats',
              pressed: !choices.followsTempo,
              act: () => change({ followsTempo: false }),
            },
            {
              label: 'Notes follow the tempo map',
              text: 'Follow tempo map',
              pressed: choices.followsTempo,
              act: () => change({ followsTempo: true }),
            },
          ]}
        />
      )}
      {song.parts.map((part, i) => {
        const choice = choices.parts[i]!;
        const track = choice.taken ? tracksOf(brought.set)[place++] : undefined;
        return (
          <IncomingPart key={i} part={part} choice={choice} track={track} onChange={(now) => changePart(i, now)} />
        );
      })}
      {leftOut.length > 0 && (
        <>
          <SheetTitle>Left out</SheetTitle>
          {leftOut.map((sentence, i) => (
            <Words key={i}>{sentence}</Words>
          ))}
        </>
      )}
      {count > room && <Words>{`Beside what is there is room for ${room} more tracks.`}</Words>}
    </View>
  );
}

/** “Kerb”: 96 bars of 4/4 at 112 BPM, 5 tempo changes, 7 parts. */
function songWords(name: string, { meter, tempo, length, parts }: MidiSong): string {
  const bars = Math.ceil(length / ticksPerBar(meter));
  const changes = tempo.length > 1 ? `, ${tempo.length - 1} tempo changes` : '';
  return `“${name}”: ${counted(bars, 'bar')} of ${meter.beats}/${meter.unit} at ${formatTempo(tempo[0]!.bpm)} BPM${changes}, ${counted(parts.length, 'part')}.`;
}

function cutName(bars: number | null): string {
  return bars === null ? 'All of it' : counted(bars, 'bar');
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  row: { flexDirection: 'row', gap: 4, flexWrap: 'wrap' },
  key: { flexGrow: 1, paddingHorizontal: 6 },
});
