import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { bytesOf, type MidiMessage } from './message';
import { MidiParser } from './parser';

const data = fc.nat({ max: 127 });
const channel = fc.integer({ min: 1, max: 16 });
const velocity = fc.integer({ min: 1, max: 127 });

/** Any message; notes are let go as most devices do it. */
const message: fc.Arbitrary<MidiMessage> = fc.oneof(
  fc.record({ type: fc.constant('noteOn' as const), channel, note: data, velocity }),
  fc.record({ type: fc.constant('noteOff' as const), channel, note: data, velocity: data }),
  fc.record({ type: fc.constant('polyPressure' as const), channel, note: data, pressure: data }),
  fc.record({ type: fc.constant('control' as const), channel, control: data, value: data }),
  fc.record({ type: fc.constant('program' as const), channel, program: data }),
  fc.record({ type: fc.constant('channelPressure' as const), channel, pressure: data }),
  fc.record({ type: fc.constant('pitchBend' as const), channel, value: fc.nat({ max: 16383 }) }),
  fc.record({ type: fc.constant('songPosition' as const), sixteenths: fc.nat({ max: 16383 }) }),
  fc.record({ type: fc.constant('sysex' as const), bytes: fc.array(data, { maxLength: 12 }) }),
);

const realTime = fc.constantFrom(0xf8, 0xfa, 0xfb, 0xfc, 0xfe, 0xff);
/** Bytes of nothing: an undefined or unfinished system common message, with data that belongs to nobody. */
const garbage = fc.tuple(fc.constantFrom(0xf4, 0xf5, 0xf6, 0xf1), fc.array(data, { maxLength: 5 })).map(([status, rest]) => [status, ...(status === 0xf1 ? rest.slice(0, 0) : rest)]); // prettier-ignore

const parsed = (bytes: readonly number[]) => new MidiParser().push(bytes);
const isRealTime = ({ type }: MidiMessage) => ['clock', 'start', 'continue', 'stop'].includes(type);

test('the worked stream: running status, a clock inside it, velocity 0, a note off', () => {
  // Bytes and meaning: MIDI 1.0 Detailed Specification, from memory.
  expect(parsed([0x90, 0x3c, 0x40, 0x3e, 0x40, 0xf8, 0x40, 0x00, 0x80, 0x3c, 0x40])).toEqual([
    { type: 'noteOn', channel: 1, note: 60, velocity: 64 },
    { type: 'noteOn', channel: 1, note: 62, velocity: 64 },
    { type: 'clock' },
    { type: 'noteOff', channel: 1, note: 64, velocity: 64 },
    { type: 'noteOff', channel: 1, note: 60, velocity: 64 },
  ]);
  // E0 00 40 is the middle of pitch bend; F2 counts sixteenths, low byte first.
  expect(parsed([0xe0, 0, 0x40, 0xf2, 0x08, 0x01, 0xfa])).toEqual([
    { type: 'pitchBend', channel: 1, value: 8192 },
    { type: 'songPosition', sixteenths: 136 },
    { type: 'start' },
  ]);
});

test('messages are found again however they were sent: running status, real-time bytes inside, in pieces, between garbage', () => {
  const sent = fc.record({ message, runs: fc.boolean(), inside: fc.array(realTime, { maxLength: 2 }), before: fc.option(garbage) }); // prettier-ignore
  fc.assert(
    fc.property(fc.array(sent, { maxLength: 20 }), fc.integer({ min: 1, max: 7 }), (all, piece) => {
      let running = 0;
      const bytes = all.flatMap(({ message: one, runs, inside, before }) => {
        const own = bytesOf(one);
        const status = own[0]!;
        const mayRun = runs && !before && status === running;
        running = status < 0xf0 ? status : 0;
        const body = mayRun ? own.slice(1) : own;
        return [...(before ?? []), ...body.slice(0, 1), ...inside, ...body.slice(1)];
      });
      const parser = new MidiParser();
      const got: MidiMessage[] = [];
      for (let i = 0; i < bytes.length; i += piece) got.push(...parser.push(bytes.slice(i, i + piece)));
      expect(got.filter((one) => !isRealTime(one))).toEqual(all.map((one) => one.message));
    }),
    { numRuns: 500 },
  );
});

test('no stream of bytes makes it throw, and what it finds is in range', () => {
  const streams = Number(process.env.STREAMS ?? 10_000);
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 64 }), (bytes) => {
      for (const one of parsed([...bytes])) {
        if ('channel' in one) expect(one.channel >= 1 && one.channel <= 16).toBe(true);
        expect(parsed(bytesOf(one))).toEqual([one]);
      }
    }),
    { numRuns: streams },
  );
});

/** What python3-mido reads in streams of bytes: an independent parser. It has no running status of its own. */
function mido(streams: readonly number[][]): unknown[][] {
  const script = `
import json, sys, mido
out = []
for stream in json.load(sys.stdin):
    parser = mido.Parser()
    parser.feed(stream)
    out.append([m.bytes() for m in parser])
print(json.dumps(out))`;
  return JSON.parse(execFileSync('/usr/bin/python3', ['-c', script], { input: JSON.stringify(streams) }).toString()) as unknown[][]; // prettier-ignore
}

test('python3-mido finds the same messages in the same bytes', () => {
  // Data after a whole message is running status here and nothing to mido: so every piece begins with a status byte.
  const piece = fc.oneof(
    message.map(bytesOf),
    message.map((one) => bytesOf(one).slice(0, -1)),
    realTime.map((byte) => [byte]),
    fc.constantFrom([0xf4], [0xf5], [0xf7], [0xf6]),
  );
  const streams = fc
    .sample(fc.array(piece, { maxLength: 30 }), { numRuns: 400, seed: 13 })
    .map((pieces) => pieces.flat());
  const known = (bytes: number[]) => bytes[0]! < 0xf1 || bytes[0] === 0xf2 || [0xf8, 0xfa, 0xfb, 0xfc].includes(bytes[0]!); // prettier-ignore
  // A note on with velocity 0 is a note off here.
  const asOff = (bytes: number[]) => ((bytes[0]! & 0xf0) === 0x90 && bytes[2] === 0 ? [0x80 | (bytes[0]! & 15), bytes[1]!, 64] : bytes); // prettier-ignore
  const theirs = mido(streams).map((messages) => (messages as number[][]).filter(known).map(asOff));
  const ours = streams.map((stream) => parsed(stream).map(bytesOf));
  expect(ours).toEqual(theirs);
});
