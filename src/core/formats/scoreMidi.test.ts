import { parseMidi } from 'midi-file';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { lanesOf } from '../document/lanes';
import { randomDeeds } from '../engine/performances.testing';
import { at } from '../protocol/commands';
import { readScore } from '../score/readScore';
import { trackStrokes, type Score } from '../score/score';
import { copied, performed, play, SR } from '../score/score.testing';
import { writeScoreMidi } from './scoreMidi';

const MIDO = `
import mido, json, sys
m = mido.MidiFile(sys.argv[1])
out = dict(type=m.type, ppq=m.ticks_per_beat, tracks=[], tempos=[], markers=[])
for t in m.tracks:
    now, notes, controllers = 0, [], []
    for e in t:
        now += e.time
        if e.type == 'set_tempo': out['tempos'].append([now, e.tempo])
        if e.type == 'marker': out['markers'].append([now, e.text.encode('latin1').decode('utf8')])
        if e.type == 'note_on' and e.velocity > 0: notes.append([now, e.note, e.velocity])
        if e.type == 'control_change': controllers.append([now, e.control, e.value])
    out['tracks'].append(dict(name=t.name.encode('latin1').decode('utf8'), notes=notes, controllers=controllers))
print(json.dumps(out))`;

interface Read {
  type: number;
  ppq: number;
  tempos: [number, number][];
  markers: [number, string][];
  tracks: { name: string; notes: number[][]; controllers: number[][] }[];
}

/** Debian's own Python, which has python3-mido. */
function mido(bytes: Uint8Array): Read {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'chaffinch-')), 'file.mid');
  writeFileSync(file, bytes);
  const { stdout, stderr } = spawnSync('/usr/bin/python3', ['-c', MIDO, file], { encoding: 'utf8' });
  expect(stderr).toBe('');
  return JSON.parse(stdout) as Read;
}

function someScore(seed: number): Score {
  const hands = randomDeeds(seed, 1000, 4 * SR, 30).filter(({ type }) => ['padDown', 'padUp', 'turn', 'launch'].includes(type));
  const more = [
    at(SR, { type: 'launchSection', section: 1, on: 3840, inPlace: false } as const),
    at(3 * SR, { type: 'tempo', bpm: 131 } as const),
    at(3.5 * SR, { type: 'launchSection', section: 2, on: 960, inPlace: false } as const),
  ];
  const run = performed([play(1000), ...hands, ...more].sort((a, b) => a.frame - b.frame), 6 * SR);
  return readScore(copied(run), run);
} // prettier-ignore

/** The notes that a file of a track must have: at whole ticks, two within one tick being the later one. */
function expectedNotes(score: Score, row: number): number[][] {
  const track = score.tracks[row]!;
  const lanes = lanesOf(track);
  const notes = new Map<string, number[]>();
  for (const { tick, pad, pitch, velocity } of trackStrokes(track)) {
    const key = lanes[pad]!.note + (track.tones ? Math.round(pitch) : 0);
    if (tick >= score.length || key < 0 || key > 127) continue;
    const at_ = Math.min(Math.round(tick), score.length - 1);
    notes.set(`${at_} ${key}`, [at_, key, Math.max(1, Math.round(velocity * 127))]);
  }
  return [...notes.values()].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
}

const sorted = (notes: readonly number[][]) => [...notes].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);

test('python3-mido reads the notes as they sounded, the tempo map, the sections and what moved the sounds', () => {
  for (const seed of [1, 2, 3, 4]) {
    const score = someScore(seed);
    const read = mido(writeScoreMidi(score, { from: 0, to: score.length }, 'Rink Night – zweiter Lauf'));
    expect([read.type, read.ppq, read.tracks[0]!.name]).toEqual([1, 960, 'Rink Night – zweiter Lauf']);
    expect(read.tempos).toEqual(score.tempo.map(({ tick, value }) => [Math.round(tick), Math.round(6e7 / value)]));
    expect(read.markers).toEqual(score.marks.map(({ tick, name }) => [tick, name]));
    expect(read.markers.length).toBeGreaterThan(0);
    score.tracks.forEach((track, row) => {
      const { name, notes, controllers } = read.tracks[row + 1]!;
      expect(name).toBe(track.name);
      expect([seed, row, sorted(notes)]).toEqual([seed, row, expectedNotes(score, row)]);
      // Channel volume is the level of the track.
      expect(controllers.filter(([, control]) => control === 7).map(([tick, , value]) => [tick, value])).toEqual(
        track.levels.map(({ tick, value }) => [Math.round(tick), Math.round(value * 127)]),
      );
    });
  }
});

test('another library reads the same; in a stretch ticks count from its beginning, and its notes end within it', () => {
  const score = someScore(9);
  const stretch = { from: 3840, to: 7680 };
  const { header, tracks } = parseMidi(writeScoreMidi(score, stretch, 'Two'));
  expect([header.format, header.numTracks, header.ticksPerBeat]).toEqual([1, score.tracks.length + 1, 960]);
  tracks.slice(1).forEach((events, row) => {
    let now = 0;
    const [ons, offs] = [new Map<number, number>(), [] as number[]];
    let notes = 0;
    for (const event of events) {
      now += event.deltaTime;
      if (event.type === 'noteOn') {
        expect(ons.has(event.noteNumber)).toBe(false); // a note ends before its key is struck again
        ons.set(event.noteNumber, now);
        notes++;
      } else if (event.type === 'noteOff') {
        expect(ons.delete(event.noteNumber)).toBe(true);
        offs.push(now);
      }
    }
    expect(now).toBe(3840);
    expect([ons.size, offs.every((tick) => tick <= 3840)]).toEqual([0, true]);
    const inside = trackStrokes(score.tracks[row]!).filter(({ tick }) => tick >= stretch.from && tick < stretch.to);
    expect(notes).toBeLessThanOrEqual(inside.length);
    if (inside.length > 0) expect(notes).toBeGreaterThan(0);
  });
});
