import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { newSet } from '../document/create';
import { demoSet } from '../document/demo';
import { emptyPattern } from '../document/pattern';
import { readSet, writeSet } from '../document/readSet';
import { MOST_CUTS } from '../document/sample';
import type { BeatSet } from '../document/set';
import { asTaken, type Sound } from '../document/sound';
import { newTrack } from '../document/track';
import { renderCommands } from '../engine/offline';
import { STILL } from '../engine/rig.testing';
import { writeSampleWav } from '../formats/sampleWav';
import { at } from '../protocol/commands';
import { slotInstructions, trackInstructions } from '../protocol/fromDocument';
import { random } from '../random';
import { prepareSample, SAMPLE_RATE, type SampleAudio } from '../sample/levels';
import { LIMITER_LATENCY } from '../sound/limiter';
import {
  asCuts,
  equalCuts,
  evenCuts,
  nearestCrossing,
  piecesOf,
  playedPart,
  SHORTEST_PIECE,
  withCutMoved,
} from './cuts';
import { layPieces, type LaidOnto, type PiecesLaid } from './layPieces';
import { tempoOf } from './loopTempo';
import { fMeasure, knownLoop, knownLoops, ONE_MS } from './loops.testing';
import { findOnsets, sensitiveTo } from './onsets';
import { kitOfPieces, pagesOf, patternOfPieces } from './toPads';

const FOUR_FOUR = { beats: 4, unit: 4 } as const;
const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length;

/** What aubio's onset detector (Debian aubio-tools, its own settings) finds; what it finds twice within a stroke counts once. */
function aubio(audio: SampleAudio, folder: string): number[] {
  const file = path.join(folder, 'loop.wav');
  writeFileSync(file, writeSampleWav(audio, []));
  const said = execFileSync('/usr/bin/aubioonset', ['-i', file, '-r', String(SAMPLE_RATE), '-T', 'samples'], { encoding: 'utf8' }); // prettier-ignore
  const found = said.trim().split('\n').map(Number);
  return found.filter((frame, i) => i === 0 || frame - found[i - 1]! > (ONE_MS * SAMPLE_RATE) / 1000);
}

test('strokes of twenty loops are found within 50 and 5 ms, no worse than aubio finds them, and with them the tempo', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'chaffinch-'));
  const scores = knownLoops().map((loop) => {
    const frames = loop.audio.channels[0]!.length;
    const found = sensitiveTo(findOnsets(loop.audio, SAMPLE_RATE), 0.5);
    const theirs = aubio(loop.audio, folder);
    const own = found.map(({ frame }) => frame);
    const isRight = (tempo: number | null) =>
      [0.5, 1, 2].some((k) => Math.abs((tempo ?? 0) / (k * loop.tempo) - 1) < 0.005);
    // Not trimmed to whole beats, the strokes alone tell.
    const shorter = Math.round(frames * 0.93);
    return {
      ours: [50, 5].map((ms) => fMeasure(own, loop.onsets, ms)),
      aubio: [50, 5].map((ms) => fMeasure(theirs, loop.onsets, ms)),
      isRight: isRight(tempoOf(found, frames, FOUR_FOUR)),
      isRightShorter: isRight(tempoOf(found.filter(({ frame }) => frame < shorter), shorter, FOUR_FOUR)), // prettier-ignore
    };
  });
  rmSync(folder, { recursive: true });
  const [ours, theirs] = [scores.map((score) => score.ours), scores.map((score) => score.aubio)];
  const [at50, at5] = [0, 1].map((i) => mean(ours.map((score) => score[i]!)));
  const [aubio50, aubio5] = [0, 1].map((i) => mean(theirs.map((score) => score[i]!)));
  console.info(`F at 50 and 5 ms: ${at50!.toFixed(4)}, ${at5!.toFixed(4)}; aubio: ${aubio50!.toFixed(4)}, ${aubio5!.toFixed(4)}`); // prettier-ignore
  expect(at50).toBeGreaterThanOrEqual(Math.max(0.95, aubio50!));
  expect(at5).toBeGreaterThanOrEqual(Math.max(0.9, aubio5!));
  expect(scores.filter(({ isRight }) => isRight).length).toBeGreaterThanOrEqual(18);
  expect(scores.filter(({ isRightShorter }) => isRightShorter).length).toBeGreaterThanOrEqual(18);
});

test('noise, one channel and loudness change little; more is found the more sensitive it is; silence has no onsets', () => {
  const loop = knownLoop(7, 108);
  const next = random(9);
  const fOf = (audio: SampleAudio) => fMeasure(sensitiveTo(findOnsets(audio, SAMPLE_RATE), 0.5).map(({ frame }) => frame), loop.onsets, 50); // prettier-ignore
  const [left] = loop.audio.channels;
  expect(fOf({ channels: [left!.map((v) => v + 0.01 * (next() - 0.5))] })).toBeGreaterThan(0.95);
  expect(fOf({ channels: [left!.map((v) => v * 0.01)] })).toBeCloseTo(fOf({ channels: [left!] }), 5);
  const onsets = findOnsets(loop.audio, SAMPLE_RATE);
  const counts = [0, 0.25, 0.5, 0.75, 1].map((sensitivity) => sensitiveTo(onsets, sensitivity).length);
  expect(counts).toEqual([...counts].sort((a, b) => a - b));
  expect(counts[4]).toBeGreaterThan(2 * counts[0]!);
  expect([findOnsets({ channels: [new Float32Array(48000)] }, SAMPLE_RATE), tempoOf([], 48000, FOUR_FOUR)]).toEqual([[], null]); // prettier-ignore
  expect(findOnsets({ channels: [Float32Array.of(1)] }, SAMPLE_RATE).every(({ frame }) => frame === 0)).toBe(true);
});

const FRAMES = 100_000;
const anyPart = fc.tuple(fc.nat(FRAMES - 1), fc.nat(FRAMES - 1)).map(([a, b]) => ({ from: Math.min(a, b), to: Math.max(a, b) + 1 })); // prettier-ignore
const anyFrames = fc.array(fc.double({ min: -5000, max: FRAMES + 5000, noNaN: true }), { maxLength: 400 });

test('whatever is asked for, cuts are in order and in the part, no piece is too short, and the pieces are the part', () => {
  const fits = (cuts: readonly number[], part: { from: number; to: number }) => {
    const pieces = piecesOf(cuts, part);
    expect(pieces).toHaveLength(cuts.length + 1);
    expect(cuts.length).toBeLessThanOrEqual(MOST_CUTS);
    expect(pieces.every(({ from, to }, i) => (cuts.length === 0 || to - from >= SHORTEST_PIECE) && (i === 0 || from === pieces[i - 1]!.to))).toBe(true); // prettier-ignore
    expect([pieces[0]!.from, pieces.at(-1)!.to]).toEqual([part.from, part.to]);
  };
  fc.assert(
    fc.property(
      anyPart,
      anyFrames,
      fc.integer({ min: 1, max: 500 }),
      fc.nat(400),
      fc.nat(FRAMES),
      (part, frames, count, index, frame) => {
        const cuts = asCuts(frames, part);
        fits(cuts, part);
        fits(equalCuts(part, count), part);
        fits(evenCuts(part, 10 + count * 37.3), part);
        if (cuts.length > 0) fits(withCutMoved(cuts, index % cuts.length, frame, part), part);
      },
    ),
  );
  expect(equalCuts({ from: 0, to: 4800 }, 4)).toEqual([1200, 2400, 3600]);
  expect(evenCuts({ from: 100, to: 4900 }, 1600)).toEqual([1700, 3300]);
  expect(playedPart({ start: 0.75, end: 0.25 }, 1000)).toEqual({ from: 250, to: 750 });
});

test('a cut finds the nearest zero crossing, of both channels together, and stays where there is none', () => {
  const sine = Float32Array.from({ length: 4800 }, (_, i) => Math.sin((2 * Math.PI * (i + 0.5)) / 480));
  // Half a frame before 240, 480, ...
  expect([1, 130, 300, 479, 715].map((frame) => nearestCrossing({ channels: [sine] }, frame))).toEqual([240, 240, 240, 480, 720]); // prettier-ignore
  expect(nearestCrossing({ channels: [sine, sine.map((v) => -v)] }, 333)).toBe(333);
  expect(nearestCrossing({ channels: [new Float32Array(4800).fill(0.5)] }, 333)).toBe(333);
});

const loopSound = (frames: number): Sound => ({ name: 'Loop', kind: 'other', source: { sample: 'a'.repeat(32), frames }, settings: {} }); // prettier-ignore

test('put onto pads and played in the old order at its own tempo, a loop is what it was, more than 40 dB down', () => {
  const loop = knownLoop(3, 110);
  const frames = loop.audio.channels[0]!.length;
  const sample = prepareSample({ id: 'a'.repeat(32), channels: loop.audio.channels.map((channel) => channel.map((v) => v * 0.2)) }); // prettier-ignore
  const part = { from: 0, to: frames };
  const cuts = asCuts(sensitiveTo(findOnsets(loop.audio, SAMPLE_RATE), 0.5).map(({ frame }) => nearestCrossing(loop.audio, frame)), part); // prettier-ignore
  const pages = pagesOf(piecesOf(cuts, part));
  let id = 1;
  const sliced = pages.flatMap((page, i) => {
    const kit = kitOfPieces(STILL, loopSound(frames), frames, page, 16 * i);
    const pattern = patternOfPieces('Loop', page, { part, tempo: 110, meter: FOUR_FOUR, rate: SAMPLE_RATE, reverse: false, newId: () => (id += 2) }); // prettier-ignore
    expect(pattern.length).toBe(2 * 4 * 960);
    const track = { ...newTrack('Loop', 0, [pattern]), id: i, kit };
    return [...trackInstructions(i, track), ...slotInstructions({ track: i, slot: 0 }, pattern), { type: 'launch', track: i, slot: 0, on: 0, inPlace: false } as const]; // prettier-ignore
  });
  expect(pages.length).toBeGreaterThan(1);
  const play = [{ type: 'sample', sample } as const, ...sliced, { type: 'tempo', bpm: 110 } as const, { type: 'play', startTick: 0, countInTicks: 0 } as const]; // prettier-ignore
  const whole = kitOfPieces(STILL, loopSound(frames), frames, [part], 0);
  const stroke = [{ type: 'sample', sample } as const, ...trackInstructions(0, { ...newTrack('Loop', 0, []), kit: whole }), { type: 'padDown', track: 0, pad: 0, velocity: 1, heard: 0, id: 1 } as const]; // prettier-ignore
  const [pieces, old] = [play, stroke].map((all) => renderCommands(all.map((one) => at(0, one)), SAMPLE_RATE, frames + LIMITER_LATENCY - 480).left.subarray(LIMITER_LATENCY)); // prettier-ignore
  const power = (x: Float32Array) => x.reduce((sum, v) => sum + v * v, 0);
  const left = 10 * Math.log10(power(pieces!.map((v, i) => v - old![i]!)) / power(old!));
  expect(left).toBeLessThan(-40);
});

test('pieces take the pads of a kit, remember how they were cut, and cut each other off; backwards the last comes first', () => {
  const part = { from: 4800, to: 48000 };
  const pieces = piecesOf([9600, 24000], part);
  const kit = { ...STILL, pads: STILL.pads.map((pad, i) => (i === 1 ? { ...pad, alsoPlays: [{ pad: 4, share: 1 }] } : pad)), cutGroups: [[1, 9, 10]] }; // prettier-ignore
  const sliced = kitOfPieces(
    kit,
    { ...loopSound(48000), settings: { pitch: -3 }, cuts: [9600, 24000] },
    48000,
    pieces,
    0,
  );
  expect(
    sliced.pads
      .slice(0, 3)
      .map(({ sound }) => [sound.name, sound.settings.start, sound.settings.end, sound.settings.pitch, sound.cuts]),
  ).toEqual([
    ['Loop 1', 0.1, 0.2, -3, undefined],
    ['Loop 2', 0.2, 0.5, -3, undefined],
    ['Loop 3', 0.5, 1, -3, undefined],
  ]);
  expect(sliced.pads[1]!.sound).toEqual(asTaken(sliced.pads[1]!.sound));
  expect([sliced.pads[1]!.alsoPlays, sliced.pads.slice(3)]).toEqual([undefined, kit.pads.slice(3)]);
  expect(sliced.cutGroups).toEqual([
    [9, 10],
    [0, 1, 2],
  ]);
  let id = 1;
  const options = { part, tempo: 60, meter: FOUR_FOUR, rate: 48000, newId: () => (id += 2) };
  const ticksOf = (reverse: boolean) => patternOfPieces('Loop', pieces, { ...options, reverse }).hits.map(({ pad, tick }) => [pad, Math.round(tick)]); // prettier-ignore
  expect(ticksOf(false)).toEqual([[0, 0], [1, 96], [2, 384]]); // prettier-ignore
  expect(ticksOf(true)).toEqual([[2, 0], [1, 480], [0, 768]]); // prettier-ignore
});

/** An empty set whose first track has this sound on its third pad. */
function setWith(sound: Sound): BeatSet {
  const pads = STILL.pads.map((pad, i) => (i === 2 ? { ...pad, sound } : pad));
  return newSet('Set', 120, [
    { ...newTrack('Drums', 0, [emptyPattern('Pattern 1', FOUR_FOUR)]), kit: { ...STILL, pads } },
  ]);
}

test('sixteen pieces lie on the pads of one track, more on new ones; what does not fit is said; it can be stored and opened', () => {
  const frames = 20 * 4800;
  const set = setWith({ ...loopSound(frames), cuts: equalCuts({ from: 0, to: frames }, 20) });
  let id = -1;
  const lay = (of: BeatSet, onto: LaidOnto, tempo: number | null = 120) => layPieces(of, { track: 0, pad: 2 }, { onto, tempo, newId: () => (id += 2) }); // prettier-ignore
  const here = lay(set, 'here') as PiecesLaid;
  expect([here.here!.slot, here.here!.pattern!.hits.length, here.added.map(({ name, patterns }) => [name, patterns[0]!.hits.length])]).toEqual([0, 16, [['Loop 2', 4]]]); // prettier-ignore
  // Two seconds at 120 BPM are a bar of four; the second page begins where its first piece lies.
  expect(here.here!.pattern!.length).toBe(4 * 960);
  expect(here.added[0]!.patterns[0]!.hits[0]).toMatchObject({ pad: 0, tick: 16 * 192, velocity: 1, snap: null });
  const fresh = lay(set, 'new', null) as PiecesLaid;
  expect([fresh.here, fresh.added.map((track) => [track.id, track.patterns.some((pattern) => pattern !== null)])]).toEqual([null, [[1, false], [2, false]]]); // prettier-ignore

  const tracks = Object.fromEntries([set.tracks[0]!, ...here.added].map((track) => [track.id, track]));
  const laid: BeatSet = { ...set, order: [0, 1], tracks: { ...tracks, 0: { ...set.tracks[0]!, kit: here.here!.kit, patterns: [here.here!.pattern!, ...set.tracks[0]!.patterns.slice(1)] } } }; // prettier-ignore
  const stage = demoSet().stage;
  expect(readSet(writeSet({ set: laid, stage }))).toMatchObject({ set: laid });

  const full: BeatSet = { ...set, order: Array.from({ length: 16 }, (_, i) => i), tracks: Object.fromEntries(Array.from({ length: 16 }, (_, i) => [i, { ...set.tracks[0]!, id: i }])) }; // prettier-ignore
  expect(lay(full, 'here')).toEqual({ problem: expect.stringMatching(/1 new track, and the set has room for 0/) });
  expect(lay(setWith(STILL.pads[0]!.sound), 'new')).toEqual({ problem: expect.stringMatching(/is no recording/) });
});
