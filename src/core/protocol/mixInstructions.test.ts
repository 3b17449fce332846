import fc from 'fast-check';
import { demoSet } from '../document/demo';
import { ANY_PAD, MIX_CONTROLS, MIX_RANGES, NO_KEY, type ChannelSettings, type Group, type Mix } from '../document/mix';
import { tracksOf } from '../document/set';
import type { Instruction } from './commands';
import { channelChanges, goesToChange, mixChanges, wayChanges } from './mixInstructions';

const controls = MIX_CONTROLS.filter((control) => control !== 'level');
const keys = fc.option(fc.record({ track: fc.nat(3), pad: fc.integer({ min: ANY_PAD, max: 3 }) }));
const turned: fc.Arbitrary<ChannelSettings> = fc
  .dictionary(fc.constantFrom(...controls), fc.constantFrom('min', 'max', 'neutral'))
  .map((places) => Object.fromEntries(controls.flatMap((control) => {
    const place = (places as Record<string, 'min' | 'max' | 'neutral'>)[control];
    return place ? [[control, MIX_RANGES[control][place]]] : [];
  }))); // prettier-ignore
const settings = fc
  .tuple(turned, keys)
  .map(([own, key]): ChannelSettings => ({ ...own, ...(key && { duckedBy: key }) }));
const absent = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined });
const group = (id: number): fc.Arbitrary<Group> =>
  fc.record({ id: fc.constant(id), name: fc.constant('G'), colour: fc.nat(7), level: fc.constantFrom(0, 0.5, 1), settings: absent(settings), to: absent(fc.constantFrom(2, 3)) }) as fc.Arbitrary<Group>; // prettier-ignore
const mixes = absent(
  fc.record({
    echo: absent(fc.record({ time: fc.constantFrom('1/8' as const, 300), feedback: fc.constant(0.5), tone: fc.constant(0.2), width: fc.constant(0) }).chain((echo) => fc.constantFrom(echo, { ...echo, tape: true as const }))),
    room: absent(fc.record({ size: fc.constantFrom(0.42, 3), damping: fc.constant(0.5), width: fc.constant(1), preDelay: fc.constant(0) })),
    groups: fc.subarray([0, 1, 2, 3]).chain((ids) => fc.tuple(...ids.map(group))),
    whole: absent(settings),
    level: absent(fc.constantFrom(0.2, 1)),
  }) as fc.Arbitrary<Mix>,
); // prettier-ignore

/** What an engine has been told, by what it is of: the last word holds. What is neutral is as good as never told. */
function known(told: readonly Instruction[]): Record<string, unknown> {
  const words: Record<string, unknown> = {};
  for (const one of told) {
    if (one.type === 'channel') {
      const neutral = one.control === 'level' ? 1 : MIX_RANGES[one.control].neutral;
      const key = `${one.channel} ${one.control}`;
      if (one.value === neutral) delete words[key];
      else words[key] = one.value;
    } else if (one.type === 'goesTo') {
      if (one.group < 0) delete words[`${one.channel} to`];
      else words[`${one.channel} to`] = one.group;
    } else if (one.type === 'duckedBy') {
      if (one.track === NO_KEY) delete words[`${one.channel} ducks`];
      else words[`${one.channel} ducks`] = `${one.track} ${one.pad}`;
    } else if (one.type === 'echo') {
      const { ticks, ms, feedback, tone, width, tape = false } = one;
      words.echo = [ticks, ms, feedback, tone, width, tape].join();
      if (words.echo === '720,0,0.35,0.5,1,false') delete words.echo;
    } else if (one.type === 'room') {
      const { size, damping, width, preDelay } = one;
      words.room = [size, damping, width, preDelay].join();
      if (words.room === '0.42,0.5,1,0') delete words.room;
    }
  }
  return words;
}

test('from any mix to any other: what changed, told on top, is what the other would be told anew', () => {
  fc.assert(
    fc.property(mixes, mixes, (before, after) => {
      const first = mixChanges(undefined, before);
      const changes = mixChanges(before, after);
      expect(known([...first, ...changes])).toEqual(known(mixChanges(undefined, after)));
      expect(mixChanges(after, after)).toEqual([]);
    }),
    { numRuns: 500 },
  );
});

test('a track’s channel, and where it goes: only what differs is told; what was taken away is neutral again', () => {
  expect(channelChanges(3, { low: 2, pan: 0.5 }, { low: 2, high: 1 })).toEqual([
    { type: 'channel', channel: 3, control: 'pan', value: 0 },
    { type: 'channel', channel: 3, control: 'high', value: 1 },
  ]);
  expect(channelChanges(3, { ratio: 4 }, undefined)).toEqual([{ type: 'channel', channel: 3, control: 'ratio', value: 1 }]); // prettier-ignore
  expect([goesToChange(3, 1, 1), goesToChange(3, 1, undefined), goesToChange(3, undefined, 2)]).toEqual([
    [],
    [{ type: 'goesTo', channel: 3, group: -1 }],
    [{ type: 'goesTo', channel: 3, group: 2 }],
  ]);
});

test('pads go ways of their own as long as their track plays a kit', () => {
  const kit = { id: 5, padsTo: [{ pad: 0, group: 2 }, { pad: 6, group: 1 }] }; // prettier-ignore
  const told = (pad: number, group: number) => ({ type: 'padGoesTo', track: 5, pad, group });
  expect(wayChanges(undefined, kit)).toEqual([told(0, 2), told(6, 1)]);
  expect(wayChanges(kit, { id: 5, padsTo: [{ pad: 6, group: 3 }, { pad: 7, group: 0 }] })).toEqual([told(0, -1), told(6, 3), told(7, 0)]); // prettier-ignore
  const { tones } = tracksOf(demoSet().set).find((track) => track.tones)!;
  expect(wayChanges(kit, { ...kit, tones })).toEqual([told(0, -1), told(6, -1)]);
  expect(wayChanges({ ...kit, tones }, kit)).toEqual([told(0, 2), told(6, 1)]);
});
