import fc from 'fast-check';
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { writeMidi, type MidiEvent } from 'midi-file';
import { emptySet } from '../document/create';
import { demoSet } from '../document/demo';
import { lanesOf } from '../document/lanes';
import { PADS } from '../document/limits';
import { readSet, writeSet } from '../document/readSet';
import { tracksOf, type BeatSet } from '../document/set';
import type { Track } from '../document/track';
import { random } from '../random';
import { playTracks } from '../score/playThrough';
import { readScore } from '../score/readScore';
import { drumName, nearestPad } from './gmDrums';
import { writePatternMidi } from './midiFile';
import { setOfSong, firstChoices, padOf, type MidiChoices } from './midiSet';
import { readMidi, type MidiSong } from './readMidi';
import { writeScoreMidi } from './scoreMidi';

/** Of Node, which the core's own library knows nothing of. */
declare function structuredClone<T>(value: T): T;

const FOREIGN = '/usr/share/games/openttd/baseset/openmsx';
const foreign = readdirSync(FOREIGN).filter((name) => name.endsWith('.mid')).sort(); // prettier-ignore
const song = (file: Uint8Array): MidiSong => {
  const read = readMidi(file);
  if ('error' in read) throw new Error(read.error);
  return read;
};
const opens = (open: Parameters<typeof writeSet>[0]) => expect(readSet(writeSet(open))).toHaveProperty('set');

/** What another reader, by other people, finds in the files: notes in ticks of 960 to the quarter, and all tempos. */
const MIDO = `
import mido, json, sys
out = {}
for name in sys.argv[1:]:
    m = mido.MidiFile(name, clip=True)
    notes, tempos = [], []
    for t in m.tracks:
        now = 0
        for e in t:
            now += e.time
            if e.type == 'set_tempo': tempos.append([now * 960 / m.ticks_per_beat, e.tempo])
            if e.type == 'note_on' and e.velocity > 0: notes.append([now * 960 / m.ticks_per_beat, e.channel, e.note, e.velocity])
    out[name] = dict(notes=sorted(notes), tempos=sorted(tempos))
print(json.dumps(out))`;

describe('MIDI files of other people (Debian openttd-openmsx)', () => {
  test('all 31 are read, with the notes and tempos that python3-mido finds in them', () => {
    expect(foreign).toHaveLength(31);
    const files = foreign.map((name) => path.join(FOREIGN, name));
    const { stdout, stderr } = spawnSync('/usr/bin/python3', ['-c', MIDO, ...files], {
      encoding: 'utf8',
      maxBuffer: 1e9,
    });
    expect(stderr).toBe('');
    const other = JSON.parse(stdout) as Record<string, { notes: number[][]; tempos: [number, number][] }>;
    for (const file of files) {
      const read = song(readFileSync(file));
      const mine = read.parts.flatMap(({ channel, notes }) =>
        notes.map(({ tick, key, velocity }) => [tick, channel, key, Math.round(velocity * 127)]),
      );
      expect(mine.sort(byAll)).toEqual(other[file]!.notes.sort(byAll));
      // The last tempo at each tick holds.
      const tempos = new Map(other[file]!.tempos.map(([tick, us]) => [tick, Math.round(6e9 / us) / 100]));
      const at = (tick: number) => read.tempo.filter((step) => step.tick <= tick).at(-1)!.bpm;
      for (const [tick, bpm] of tempos) expect(at(tick)).toBeCloseTo(bpm, 2);
    }
  });

  test('each becomes a set that opens again, in which nothing is lost that is not said', () => {
    for (const name of foreign) {
      const read = song(readFileSync(path.join(FOREIGN, name)));
      for (const bars of [null, 4]) {
        const brought = setOfSong(read, { ...firstChoices(read), bars }, name);
        opens(brought);
        const sounding = tracksOf(brought.set).reduce((sum, track) => sum + strokes(track).length, 0);
        const notes = read.parts.reduce((sum, part) => sum + part.notes.length, 0);
        const without = read.parts.reduce((sum, part, i) => sum + keysWithout(part.notes.map(({ key }) => key), firstChoices(read), i), 0); // prettier-ignore
        const isCut = brought.leftOut.some((sentence) => /stretch|tracks|notes of one/.test(sentence));
        if (!isCut) expect(sounding).toBe(notes - without);
        if (without > 0) expect(brought.leftOut.join()).toMatch(/without a pad/);
      }
    }
  });
});

/** How many notes of a drum part have no pad. */
function keysWithout(keys: readonly number[], { parts }: MidiChoices, i: number): number {
  const choice = parts[i]!;
  return choice.player === 'drums' ? keys.filter((key) => padOf(key, choice) === null).length : 0;
}

/** What a track plays from beginning to end, through its chain: tick, MIDI key and velocity of each stroke. */
function strokes(track: Track): [number, number, number][] {
  const links = track.chain?.links ?? [{ slot: 0, times: 1 }];
  const out: [number, number, number][] = [];
  const lanes = lanesOf(track);
  let at = 0;
  for (const { slot, times } of links) {
    for (let round = 0; round < times; round++) {
      const { hits, length } = track.patterns[slot]!;
      for (const { tick, pad, pitch = 0, velocity } of hits) out.push([Math.round(at + tick), lanes[pad]!.note + pitch, Math.round(velocity * 127)]); // prettier-ignore
      at += length;
    }
  }
  return out.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
}

/** A set that hands might have made: drums, a bass and keys, of so many bars. */
function randomSet(seed: number): BeatSet {
  const next = random(seed);
  const pick = (most: number) => Math.floor(next() * most);
  const { set } = emptySet();
  const demo = demoSet().set;
  const bars = 1 + pick(8);
  let id = 1;
  const tracks = [demo.tracks[0]!, ...tracksOf(demo).filter(({ tones }) => tones)].map((track, i): Track => {
    const hits = Array.from({ length: 1 + pick(60) }, () => {
      const tick = pick(bars * 3840);
      return { id: id++, pad: pick(PADS), tick, length: 1 + pick(900), velocity: (1 + pick(127)) / 127, snap: null };
    });
    // Two strokes of one key at one tick are one note in a file.
    const seen = new Set<string>();
    const own = hits.filter(({ pad, tick }) => !seen.has(`${pad} ${tick}`) && seen.add(`${pad} ${tick}`));
    const pattern = { name: `P${i}`, length: bars * 3840, hits: own.sort((a, b) => a.tick - b.tick) };
    return { ...track, id: i, name: `Träck ${seed} ${i}`, mutedPads: [], patterns: [pattern] };
  });
  const order = tracks.map((track) => track.id);
  return { ...set, name: `Set ${seed}`, tempo: 60 + pick(200), order, tracks: Object.fromEntries(order.map((o, i) => [o, tracks[i]!])) };
} // prettier-ignore

test('random sets there and back: the same notes, velocities, tempo and names', () => {
  // SETS=200 looks longer than every test run can; so does MUTATIONS=500 below.
  const sets = Number(process.env.SETS ?? 60);
  const stageOf = (set: BeatSet) => ({ shown: 0, tracks: Object.fromEntries(set.order.map((id) => [id, { slot: 0, stopped: false, mute: false, solo: false }])) }); // prettier-ignore
  for (let seed = 1; seed <= sets; seed++) {
    const set = randomSet(seed);
    const { length } = set.tracks[0]!.patterns[0]!;
    const { performed, run } = playTracks({ set, stage: stageOf(set) }, length, 48000);
    const score = readScore({ ...performed, log: structuredClone([...performed.log]) }, run);
    const back = song(writeScoreMidi(score, { from: 0, to: length }, set.name));
    const { set: brought } = setOfSong(back, { ...firstChoices(back), bars: null }, back.name);
    expect([brought.name, brought.tempo]).toEqual([set.name, set.tempo]);
    expect(tracksOf(brought).map(({ name }) => name)).toEqual(tracksOf(set).map(({ name }) => name));
    for (const track of tracksOf(set)) {
      // A key that is struck again while it sounds chokes, and a file's tick may be the next one: both are of a stroke's frame.
      const [mine, its] = [strokes(brought.tracks[track.id]!), strokes(track)];
      expect(mine.map(([, key, velocity]) => [key, velocity]).sort(byAll)).toEqual(its.map(([, key, velocity]) => [key, velocity]).sort(byAll)); // prettier-ignore
      for (let i = 0; i < its.length; i++) expect(Math.abs(mine[i]![0] - its[i]![0])).toBeLessThanOrEqual(1);
    }
  }
});

/** Lists of numbers in order of the first in which they differ. */
const byAll = (a: readonly number[], b: readonly number[]): number => {
  const at = a.findIndex((x, i) => x !== b[i]);
  return at < 0 ? 0 : a[at]! - b[at]!;
};

/** A file of one track. */
function file(events: readonly object[], head: object = { format: 1, numTracks: 1, ticksPerBeat: 480 }): Uint8Array {
  const end = { deltaTime: 0, type: 'endOfTrack', meta: true };
  return Uint8Array.from(writeMidi({ header: head as never, tracks: [[...events, end] as MidiEvent[]] }));
}
const on = (deltaTime: number, noteNumber: number, channel = 0, velocity = 100) => ({ deltaTime, type: 'noteOn', channel, noteNumber, velocity }); // prettier-ignore
const off = (deltaTime: number, noteNumber: number, channel = 0) => ({ deltaTime, type: 'noteOff', channel, noteNumber, velocity: 0 }); // prettier-ignore

describe('a MIDI file', () => {
  test('of type 0 comes apart by its channels; a note that hangs ends with its track', () => {
    const read = song(file([on(0, 36, 9), on(0, 60), on(0, 64), off(480, 60), off(480, 36, 9)], { format: 0, numTracks: 1, ticksPerBeat: 480 })); // prettier-ignore
    expect(read.parts.map(({ channel, name, notes }) => [channel, name, notes.map(({ key, length }) => [key, length])])).toEqual([
      [0, 'Channel 1', [[60, 960], [64, 1920]]],
      [9, 'Drums', [[36, 1920]]],
    ]); // prettier-ignore
  });

  test('that changes its tempo keeps its beats, or its seconds', () => {
    const tempo = (deltaTime: number, bpm: number) => ({ deltaTime, type: 'setTempo', meta: true, microsecondsPerBeat: 60e6 / bpm }); // prettier-ignore
    // A quarter at 120, then at 60: the notes sound at 0, 0.5 and 1.5 s, which at 120 throughout are quarters 0, 1 and 3.
    const read = song(file([tempo(0, 120), on(0, 36, 9), tempo(480, 60), on(0, 36, 9), on(480, 36, 9)]));
    const ticks = (followsTempo: boolean) => setOfSong(read, { ...firstChoices(read), followsTempo }, 'x').set.tracks[0]!.patterns[0]!.hits.map(({ tick }) => tick / 960); // prettier-ignore
    expect(ticks(false)).toEqual([0, 1, 2]);
    expect(ticks(true)).toEqual([0, 1, 3]);
    expect(setOfSong(read, firstChoices(read), 'x').leftOut.join()).toMatch(/1 tempo change:/);
  });

  test('is cut into patterns that a chain plays; stretches that are alike share one', () => {
    const bar = [on(0, 36, 9), off(480, 36, 9), on(0, 38, 9), off(1440, 38, 9)];
    const other = [on(0, 42, 9), off(1920, 42, 9)];
    const read = song(file([...bar, ...bar, ...other, ...bar]));
    const { set } = setOfSong(read, { ...firstChoices(read), bars: 1 }, 'x');
    const { patterns, chain } = set.tracks[0]!;
    expect(patterns.filter((pattern) => pattern !== null)).toHaveLength(2);
    expect(chain!.links).toEqual([{ slot: 0, times: 2 }, { slot: 1, times: 1 }, { slot: 0, times: 1 }]); // prettier-ignore
    expect(set.sections[0]!.parts).toEqual([{ track: 0, plays: 'chain' }]);
  });

  test('that is too long for a chain ends where that is full, and nothing later is played too early', () => {
    // 70 bars, each of another key, and then the 64th again: a chain has 64 links.
    const bar = (key: number) => [on(0, key), off(1920, key)];
    const keys = Array.from({ length: 70 }, (_, i) => 30 + i);
    const read = song(file([...keys, keys[63]!].flatMap(bar)));
    const { set, leftOut } = setOfSong(read, { ...firstChoices(read), bars: 1 }, 'x');
    expect(strokes(set.tracks[0]!).map(([, key]) => key)).toEqual(keys.slice(0, 64));
    expect(leftOut.join()).toMatch(/the last 7 stretches/);
  });

  test('says what of it is left out', () => {
    const events = [
      {
        deltaTime: 0,
        type: 'timeSignature',
        meta: true,
        numerator: 11,
        denominator: 8,
        metronome: 24,
        thirtyseconds: 8,
      },
      { deltaTime: 0, type: 'controller', channel: 0, controllerType: 1, value: 3 },
      { deltaTime: 0, type: 'pitchBend', channel: 0, value: 30 },
      { deltaTime: 0, type: 'pitchBend', channel: 0, value: 60 },
      on(0, 60),
      { deltaTime: 9, type: 'programChange', channel: 0, programNumber: 5 },
    ];
    expect(song(file(events)).leftOut).toEqual([
      'Its meter of 11/8: 4/4 stands in its place.',
      '1 controller movement.',
      '2 pitch bends.',
      '1 later instrument change.',
    ]);
  });

  test('in frames of film has a second of two beats (Standard MIDI Files 1.0: 0xE728 is 25 frames of 40 ticks)', () => {
    const bytes = file([on(0, 60), off(1000, 60)]);
    bytes.set([0xe7, 0x28], 12);
    const read = song(bytes);
    expect([read.tempo[0]!.bpm, read.parts[0]!.notes[0]!.length]).toEqual([120, 1920]);
  });

  test.each([
    ['nothing', () => new Uint8Array(0), /no standard MIDI file/],
    ['a text', () => new TextEncoder().encode('MThd is how they begin'), /no standard MIDI file|ticks|tracks/],
    ['one without ticks', () => file([on(0, 60)]).fill(0, 12, 14), /how long its ticks are/],
    ['one without tracks', () => file([on(0, 60)]).slice(0, 14), /no tracks/],
  ])('that is none: %s, gets a sentence', (_, bytes, sentence) => {
    expect(readMidi(bytes())).toEqual({ error: expect.stringMatching(sentence) as string });
  }); // prettier-ignore

  test('cut off anywhere is read as far as it goes, and says so', () => {
    const whole = writePatternMidi(demoSet().set, demoSet().set.tracks[0]!, demoSet().set.tracks[0]!.patterns[0]!);
    const notes = song(whole).parts[0]!.notes.length;
    for (let length = 60; length < whole.length; length += 37) {
      const read = song(whole.slice(0, length));
      expect(read.leftOut.join()).toMatch(/damaged|should have/);
      expect(read.parts[0]?.notes.length ?? 0).toBeLessThanOrEqual(notes);
      opens(setOfSong(read, firstChoices(read), 'x'));
    }
  });

  test('mutated ones: a sentence, or what can be read of it; what comes of that opens again', () => {
    const files = foreign.slice(0, 8).map((name) => readFileSync(path.join(FOREIGN, name)));
    const next = random(20261127);
    const pick = (most: number) => Math.floor(next() * most);
    const outcomes = { error: 0, partial: 0, whole: 0 };
    for (let i = 0; i < Number(process.env.MUTATIONS ?? 150); i++) {
      const bytes = Uint8Array.from(files[i % files.length]!);
      for (let n = 1 + pick(12); n > 0; n--) bytes[pick(i % 3 === 0 ? 200 : bytes.length)] = pick(256);
      const read = readMidi(i % 5 === 0 ? bytes.slice(0, pick(bytes.length)) : bytes);
      if ('error' in read) {
        expect(read.error).toMatch(/^[A-Z].*\.$/);
        outcomes.error++;
        continue;
      }
      outcomes[read.leftOut.length > 0 ? 'partial' : 'whole']++;
      opens(setOfSong(read, firstChoices(read), 'mutated'));
    }
    expect(Math.min(outcomes.error, outcomes.partial)).toBeGreaterThan(0);
  });

  test('of any bytes does no harm', () => {
    const head = [0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1, 0, 1, 1, 0xe0, 0x4d, 0x54, 0x72, 0x6b, 0, 0];
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (bytes) => {
        const read = readMidi(Uint8Array.of(...head, bytes.length >> 8, bytes.length & 255, ...bytes));
        if (!('error' in read)) opens(setOfSong(read, firstChoices(read), 'x'));
      }),
    );
  });
});

test('keys of the percussion map find the pad that they are, or that sounds most like them', () => {
  // MIDI Association, GM 1 Percussion Key Map: 38 is the acoustic snare, 40 the electric one, 71 a whistle.
  expect([36, 38, 40, 42, 57, 71].map(nearestPad)).toEqual([0, 2, 2, 4, 10, null]);
  expect([35, 38, 56, 81, 90].map(drumName)).toEqual(['Acoustic bass drum', 'Acoustic snare', 'Cowbell', 'Open triangle', 'Key 90']); // prettier-ignore
});
