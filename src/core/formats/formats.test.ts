import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { emptySet } from '../document/create';
import { POLISHED_FLOOR } from '../document/kits';
import type { BeatSet } from '../document/set';
import { soundingHits } from '../sequence/soundingHits';
import { writePatternMidi } from './midiFile';
import { writeWav } from './wav';
import type { Hit } from '../document/hit';
import { demoSet } from '../document/demo';

/* eslint-disable @typescript-eslint/no-require-imports -- plugins in the old module style */
const JZZ = require('jzz') as { MIDI: { SMF: new (bytes: string) => JzzFile } };
require('jzz-midi-smf')(JZZ);

interface JzzEvent extends Array<number> {
  tt: number;
  ff?: number;
  dd?: string;
}
type JzzFile = JzzEvent[][] & { type: number; ppqn: number };

/** Debian's own Python, which has python3-mido: another reader by other people. */
const PYTHON = '/usr/bin/python3';

function python(script: string, bytes: Uint8Array, extension: string): unknown {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'chaffinch-')), `file.${extension}`);
  writeFileSync(file, bytes);
  const { status, stdout, stderr } = spawnSync(PYTHON, ['-c', script, file], { encoding: 'utf8' });
  if (status !== 0) throw new Error(`python3 with mido is needed (npm test installs it): ${stderr}`);
  return JSON.parse(stdout);
}

const MIDO = `
import mido, json, sys
m = mido.MidiFile(sys.argv[1])
out = dict(type=m.type, ppq=m.ticks_per_beat, notes=[], tempo=None, meter=None, names=[], ends=[])
for t in m.tracks:
    now = 0
    for e in t:
        now += e.time
        if e.type == 'set_tempo': out['tempo'] = e.tempo
        if e.type == 'time_signature': out['meter'] = [e.numerator, e.denominator, e.clocks_per_click, e.notated_32nd_notes_per_beat]
        if e.type == 'track_name': out['names'].append(e.name.encode('latin1').decode('utf8'))
        if e.type in ('note_on', 'note_off'): out['notes'].append([now, e.type, e.channel, e.note, e.velocity])
        if e.type == 'end_of_track': out['ends'].append(now)
print(json.dumps(out))`;

interface Read {
  type: number;
  ppq: number;
  tempo: number;
  meter: number[];
  names: string[];
  ends: number[];
  notes: [number, string, number, number, number][];
}

const withTempo = (tempo: number): BeatSet => ({ ...demoSet().set, tempo });
const midi = (set: BeatSet) => writePatternMidi(set, set.tracks[0]!, set.tracks[0]!.patterns[0]!);
const expectedNotes = (set: BeatSet) =>
  soundingHits(set.tracks[0]!.patterns[0]!).map((h) => [
    Math.round(h.tick),
    POLISHED_FLOOR.pads[h.pad]!.note,
    Math.max(1, Math.round(h.velocity * 127)),
  ]);

describe('standard MIDI file', () => {
  test('begins as the standard has it: type 1, two tracks, 960 to the quarter', () => {
    // Standard MIDI Files 1.0: "MThd", length 6, format, tracks, division.
    expect([...midi(demoSet().set).subarray(0, 14)]).toEqual([
      0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1, 0, 2, 0x03, 0xc0,
    ]);
  });

  test.each([
    // Microseconds per quarter: 60,000,000 / BPM, rounded.
    [60, 1000000],
    [90, 666667],
    [112, 535714],
    [120, 500000],
    [133.33, 450011],
    [140, 428571],
    [174, 344828],
  ])('tempo %d BPM is %d µs, in bytes FF 51 03', (bpm, micros) => {
    const hex = Buffer.from(midi(withTempo(bpm))).toString('hex');
    expect(hex).toContain(`ff5103${micros.toString(16).padStart(6, '0')}`);
  });

  test('4/4 is FF 58 04 04 02 18 08', () => {
    expect(Buffer.from(midi(demoSet().set)).toString('hex')).toContain('ff580404021808');
  });

  test('python3-mido reads the same notes, ticks, tempo and meter', () => {
    const set = { ...demoSet().set, name: 'Rink Night – Kanäle' };
    const read = python(MIDO, midi(set), 'mid') as Read;
    expect(read).toMatchObject({ type: 1, ppq: 960, tempo: 535714, meter: [4, 4, 24, 8], ends: [7680, 7680] });
    expect(read.names).toEqual(['Rink Night – Kanäle', 'Wheels Fast Laps']);
    const on = read.notes.filter(([, type, , , velocity]) => type === 'note_on' && velocity > 0);
    expect(on.every(([, , channel]) => channel === 9)).toBe(true);
    const byTime = (a: number[], b: number[]) => a[0]! - b[0]! || a[1]! - b[1]!;
    expect(on.map(([tick, , , note, velocity]) => [tick, note, velocity]).sort(byTime)).toEqual(
      expectedNotes(set).sort(byTime),
    );
    expect(read.notes).toHaveLength(2 * on.length);
  });

  test('a library from the registry that shares no code with ours reads the same', () => {
    const set = demoSet().set;
    const file = new JZZ.MIDI.SMF(Buffer.from(midi(set)).toString('latin1'));
    expect([file.type, file.ppqn, file.length]).toEqual([1, 960, 2]);
    const on = file[1]!.filter((e) => e[0] === 0x99 && e[2]! > 0).map((e) => [e.tt, e[1], e[2]]);
    expect(on).toEqual(expect.arrayContaining(expectedNotes(set)));
    expect(on).toHaveLength(expectedNotes(set).length);
    expect(file[0]!.find((e) => e.ff === 0x51)!.dd).toBe(String.fromCharCode(0x08, 0x2c, 0xa2)); // 535714
  });

  test('every note ends before its key is struck again, and within the loop', () => {
    const set = emptySet().set;
    const hit = (id: number, tick: number, length: number): Hit => ({
      id,
      pad: 0,
      tick,
      length,
      velocity: 0.5,
      snap: null,
    });
    set.tracks[0]!.patterns[0]!.hits = [hit(1, 0, 5000), hit(2, 480, 9000), hit(3, 3000, 9000), hit(4, 3839, 0)];
    const { notes } = python(MIDO, midi(set), 'mid') as Read;
    expect(notes.map(([tick, type]) => [tick, type])).toEqual([
      [0, 'note_on'],
      [480, 'note_off'],
      [480, 'note_on'],
      [3000, 'note_off'],
      [3000, 'note_on'],
      [3839, 'note_off'],
      [3839, 'note_on'],
      [3840, 'note_off'],
    ]);
  });

  test('hits hidden by a shorter loop stay at home; an empty pattern makes a valid file', () => {
    const set = demoSet().set;
    set.tracks[0]!.patterns[0]!.length = 3840;
    const read = python(MIDO, midi(set), 'mid') as Read;
    expect(Math.max(...read.notes.map(([tick]) => tick))).toBeLessThanOrEqual(3840);
    expect((python(MIDO, midi(emptySet().set), 'mid') as Read).notes).toEqual([]);
  });

  test('the pads’ notes are the percussion keys of General MIDI Level 1 (from memory of the published map)', () => {
    const gm: Record<number, string> = {
      36: 'Bass Drum 1', 37: 'Side Stick', 38: 'Acoustic Snare', 39: 'Hand Clap', 42: 'Closed Hi-Hat', 44: 'Pedal Hi-Hat',
      45: 'Low Tom', 46: 'Open Hi-Hat', 47: 'Low-Mid Tom', 49: 'Crash Cymbal 1', 50: 'High Tom', 51: 'Ride Cymbal 1',
      54: 'Tambourine', 56: 'Cowbell', 70: 'Maracas', 75: 'Claves',
    }; // prettier-ignore
    const { pads } = POLISHED_FLOOR;
    expect(new Set(pads.map((p) => p.note)).size).toBe(16);
    expect(pads.map((p) => gm[p.note])).toEqual([
      'Bass Drum 1', 'Side Stick', 'Acoustic Snare', 'Hand Clap', 'Closed Hi-Hat', 'Pedal Hi-Hat', 'Open Hi-Hat', 'Low Tom',
      'Low-Mid Tom', 'High Tom', 'Crash Cymbal 1', 'Ride Cymbal 1', 'Maracas', 'Cowbell', 'Tambourine', 'Claves',
    ]); // prettier-ignore
  });
});

describe('WAV file', () => {
  const left = Float32Array.from([0, 1, -1, 0.5, 2, 1e-9]);
  const bytes = writeWav({ left, right: left.map((x) => -x) }, 48000);

  test('has the header of RIFF/WAVE', () => {
    const view = new DataView(bytes.buffer);
    const u32 = (at: number) => view.getUint32(at, true);
    const u16 = (at: number) => view.getUint16(at, true);
    const text = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
    expect([text(0), text(8), text(12), text(36)]).toEqual(['RIFF', 'WAVE', 'fmt ', 'data']);
    expect([u32(4), u32(16), u16(20), u16(22), u32(24), u32(28), u16(32), u16(34), u32(40)]).toEqual([
      bytes.length - 8, 16, 1, 2, 48000, 288000, 6, 24, 36,
    ]); // prettier-ignore
  });

  test('Python’s own reader finds the same samples', () => {
    const script = `
import wave, json, sys
w = wave.open(sys.argv[1])
raw = w.readframes(w.getnframes())
print(json.dumps([w.getparams()[:4], [int.from_bytes(raw[i:i+3], 'little', signed=True) for i in range(0, len(raw), 3)]]))`;
    const [params, samples] = python(script, bytes, 'wav') as [number[], number[]];
    expect(params).toEqual([2, 3, 48000, 6]);
    const full = 8388607;
    expect(samples.filter((_, i) => i % 2 === 0)).toEqual([0, full, -full, Math.round(full / 2), full, 0]);
    expect(samples.filter((_, i) => i % 2 === 1)).toEqual([0, -full, full, -Math.round(full / 2) + 1, -full, 0]);
  });
});
