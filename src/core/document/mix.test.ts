import { demoSet } from './demo';
import {
  ANY_PAD,
  FIRST_ECHO,
  FIRST_ROOM,
  MIX_CONTROLS,
  MIX_RANGES,
  groupedIn,
  mixProblem,
  type Group,
  type Mix,
} from './mix';
import { readSet, writeSet } from './readSet';
import type { Track } from './track';
import { unmixed } from './unmixed.testing';

const group = (id: number, more: Partial<Group> = {}): Group => ({ id, name: `G${id}`, colour: 1, level: 1, ...more });

/** The demo with a mix, and what its first track has of it, as it is read again. */
function reread(mix: unknown, ofTrack: object = {}) {
  const { set, stage } = unmixed(demoSet());
  const tracks = { ...set.tracks, 0: { ...set.tracks[0]!, ...ofTrack } as Track };
  return readSet(writeSet({ set: { ...set, tracks, mix: mix as Mix }, stage }));
}

test('every range holds its neutral value', () => {
  for (const control of MIX_CONTROLS) {
    const { min, max, neutral } = MIX_RANGES[control];
    expect([control, min <= neutral && neutral <= max]).toEqual([control, true]);
  }
});

test('a mix is stored and read again as it is', () => {
  const channel = Object.fromEntries(
    MIX_CONTROLS.filter((control) => control !== 'level').map((control) => [control, MIX_RANGES[control].max]),
  );
  const mix: Mix = {
    echo: { ...FIRST_ECHO, time: 250, tape: true },
    room: { size: 2.5, damping: 0.2, width: 0.7, preDelay: 30 },
    groups: [group(0, { to: 3, settings: channel }), group(3)],
    whole: channel,
    level: 0.5,
  };
  const ducked = { ...channel, duckedBy: { track: 1, pad: ANY_PAD } };
  const ofTrack = { channel: ducked, goesTo: 0, padsTo: [{ pad: 0, group: 0 }, { pad: 15, group: 3 }] }; // prettier-ignore
  expect(reread(mix, ofTrack)).toMatchObject({ set: { mix, tracks: { 0: ofTrack } } });
});

test.each([
  [{ whole: { low: 19 } }, {}, 'At mix, whole, low: '],
  [{ level: 2 }, {}, 'At mix, level: '],
  [{ echo: { ...FIRST_ECHO, time: '1/7' } }, {}, 'At mix, echo, time: must be a note value, or 1 to 2000 ms'],
  [{ echo: { ...FIRST_ECHO, tape: 1 } }, {}, 'At mix, echo, tape: '],
  [{ echo: { ...FIRST_ECHO, time: 3000 } }, {}, 'At mix, echo, time: '],
  [{ room: { ...FIRST_ROOM, size: 9 } }, {}, 'At mix, room, size: must not be greater than 4'],
  [{ groups: [group(4)] }, {}, 'At mix, groups 1, id: '],
  [{ groups: [0, 1, 2, 3, 4].map((id) => group(id)) }, {}, 'At mix, groups: '],
  [{ groups: [group(1), group(1)] }, {}, 'Two of its groups have the same number.'],
  [{ groups: [group(0, { to: 2 })] }, {}, 'The group G0 goes where no group is'],
  [{ groups: [group(0, { to: 1 }), group(1, { to: 2 }), group(2)] }, {}, 'The group G0 goes where no group is, or one that goes on'],
  [{ groups: [group(0, { to: 0 })] }, {}, 'The group G0 goes'],
  [{}, { goesTo: 2 }, 'The track Wheels goes to a group that is not there.'],
  [{ groups: [group(1)] }, { padsTo: [{ pad: 3, group: 2 }] }, 'A pad of the track Wheels goes to a group that is not there.'],
  [{ groups: [group(1), group(2)] }, { padsTo: [{ pad: 3, group: 2 }, { pad: 3, group: 1 }] }, 'A pad of the track Wheels goes two ways.'],
  [{ groups: [group(1)] }, { padsTo: [{ pad: 16, group: 1 }] }, 'At tracks 1, padsTo 1, pad: '],
  [undefined, { channel: { ratio: 0.5 } }, 'At tracks 1, channel, ratio: '],
  [undefined, { channel: { duckedBy: { track: 16, pad: 0 } } }, 'At tracks 1, channel, duckedBy, track: '],
  [undefined, { channel: { duckedBy: { track: 0 } } }, 'At tracks 1, channel, duckedBy, pad: '],
])('a mix that is none is refused with what is wrong and where: %j %j', (mix, ofTrack, words) => {
  const read = reread(mix, ofTrack);
  expect('error' in read && read.error).toContain(words);
}); // prettier-ignore

test('without a mix nothing is wrong', () => {
  expect(mixProblem()).toBeNull();
  expect(mixProblem({ groups: [group(0, { to: 1 }), group(1)] }, [{ name: 'A', goesTo: 0 }])).toBeNull();
});

test('a track that comes in keeps the ways that lead somewhere', () => {
  const mix = { groups: [group(1), group(3)] };
  const fine = { goesTo: 1, padsTo: [{ pad: 2, group: 3 }] };
  expect(groupedIn(mix, fine)).toBe(fine);
  expect(groupedIn(mix, { goesTo: 0, padsTo: [{ pad: 2, group: 3 }, { pad: 4, group: 2 }] })).toEqual({ padsTo: [{ pad: 2, group: 3 }] }); // prettier-ignore
  expect(groupedIn(undefined, fine)).toEqual({});
});
