import { mod } from '../time/ticks';
import { soundingHits } from '../sequence/soundingHits';
import { demoSet, emptySet } from './create';
import { KITS } from './kits';
import { readSet } from './schema';
import { currentPattern, nextHitId } from './set';

describe('the demo', () => {
  const set = demoSet();
  const pattern = currentPattern(set.tracks[0]!)!;
  const steps = (sound: string) => {
    const pad = KITS['polished-floor'].pads.findIndex((p) => p.sound === sound);
    return soundingHits(pattern).filter((h) => h.pad === pad).map((h) => ({ step: h.tick / 240, velocity: h.velocity })); // prettier-ignore
  };

  test('is Rink Night at 112 BPM, two bars', () => {
    expect([set.name, set.tempo, set.tracks[0]!.name, pattern.length]).toEqual(['Rink Night', 112, 'Wheels', 7680]);
  });

  test('has a kick on every beat and the backbeat on two and four (common practice)', () => {
    const kicks = steps('kick').map((h) => h.step);
    expect([0, 4, 8, 12, 16, 20, 24].every((beat) => kicks.includes(beat))).toBe(true);
    const loud = steps('snare').filter((h) => h.velocity > 0.6).map((h) => mod(h.step, 16)); // prettier-ignore
    expect(loud).toEqual([4, 12, 4, 12]);
  });

  test('opens the hats between the beats', () => {
    expect(steps('openHat').every((h) => mod(h.step, 4) === 2)).toBe(true);
  });

  test('was played by hands: strokes lie off the grid, and all land on it', () => {
    expect(pattern.hits.filter((h) => h.tick % 240 !== 0).length).toBeGreaterThan(pattern.hits.length / 2);
    expect(soundingHits(pattern)).toHaveLength(pattern.hits.length);
    expect(soundingHits(pattern).every((h) => h.tick % 240 === 0)).toBe(true);
  });
});

describe('reading a stored set', () => {
  const text = (change: (set: Record<string, never>) => void) => {
    const set = JSON.parse(JSON.stringify(demoSet())) as Record<string, never>;
    change(set);
    return JSON.stringify(set);
  };

  test('gives back what was stored', () => {
    for (const set of [demoSet(), emptySet()]) expect(readSet(JSON.stringify(set))).toEqual({ set });
  });

  test('brings a set of version 1 up to date, with what its time had not', () => {
    const { metronome, ...rest } = demoSet();
    const old = { ...rest, schema: 1, metronome: { on: true, level: 0.4 } };
    expect(metronome.sound).toBe('wood');
    expect(readSet(JSON.stringify(old))).toEqual({
      set: { ...demoSet(), metronome: { on: true, level: 0.4, sound: 'wood', when: 'always', between: null } },
    });
  });

  test('brings a set of version 3 up to date: its tracks get channels, by which its trace names them', () => {
    const { shown, launching, sections, ...rest } = demoSet();
    expect([shown, launching.dropOn, sections.length]).toEqual([0, 'bar', 5]);
    const tracks = rest.tracks.map(({ channel: _, ...track }) => track);
    expect(readSet(JSON.stringify({ ...rest, tracks, schema: 3, trace: { track: 1, slot: 2 } }))).toEqual({
      set: { ...demoSet(), sections: [], trace: { channel: 1, slot: 2 } },
    });
  });

  test('refuses channels and sections that cannot be told apart', () => {
    const set = demoSet();
    set.tracks[1]!.channel = 0;
    expect(readSet(JSON.stringify(set))).toEqual({ error: expect.stringMatching(/same channel/) });
    const other = demoSet();
    other.sections[1]!.id = 1;
    expect(readSet(JSON.stringify(other))).toEqual({ error: expect.stringMatching(/sections have the same number/) });
    expect(readSet(JSON.stringify({ ...demoSet(), shown: 9 }))).toEqual({ error: expect.stringMatching(/channel 9/) });
  });

  test('keeps treatments and takes, and refuses what they cannot be', () => {
    const set = demoSet();
    const pattern = set.tracks[0]!.patterns[0]!;
    const feel = { grid: 240, strength: 0.5, swing: { unit: 240, ratio: 0.6 }, spare: 12.5 };
    pattern.feel = feel;
    pattern.lanes = [
      { pad: 4, feel, loudness: { level: 0.2, even: 1, scale: 1, accents: { bar: 3840, at: [0], amount: 1 } } },
    ];
    Object.assign(pattern.hits[0]!, { take: 3, feel: { grid: 0, strength: 1 } });
    expect(readSet(JSON.stringify(set))).toEqual({ set });
    feel.swing.ratio = 0.9;
    expect(readSet(JSON.stringify(set))).toEqual({ error: expect.stringMatching(/feel, swing, ratio/) });
  });

  test('keeps what Steps sets, and refuses what it cannot be', () => {
    const set = demoSet();
    const pattern = set.tracks[0]!.patterns[0]!;
    pattern.window = { start: 960, length: 240 };
    pattern.colour = 3;
    pattern.moves = [{ pad: 4, control: 'filter', points: [{ tick: 0, value: -1.5 }] }];
    set.tracks[0]!.mutedPads = [1, 2];
    set.trace = { channel: 0, slot: 3 };
    const hit = pattern.hits[0]!;
    Object.assign(hit, { nudge: 12.5, pitch: -0.25, odds: 0.5, roll: { strokes: 3, over: 240, swell: -1, glide: 12 } });
    expect(readSet(JSON.stringify(set))).toEqual({ set });
    hit.roll!.strokes = 5;
    expect(readSet(JSON.stringify(set))).toEqual({ error: expect.stringMatching(/hits 1, roll, strokes/) });
    hit.roll!.strokes = 3;
    set.tracks[0]!.mutedPads = [1, 1];
    expect(readSet(JSON.stringify(set))).toEqual({ error: expect.stringMatching(/mutedPads/) });
  });

  test('drops what no set has', () => {
    const read = readSet(text((set) => Object.assign(set, { extra: 1, tracks: Object.assign(set.tracks, {}) })));
    expect(read).toEqual({ set: demoSet() });
  });

  test.each<[string, (set: any) => void, RegExp]>([
    ['a velocity', (s) => (s.tracks[0].patterns[0].hits[2].velocity = 1.5), /tracks 1, patterns 1, hits 3, velocity/],
    ['a pad', (s) => (s.tracks[0].patterns[0].hits[0].pad = 16), /hits 1, pad/],
    ['a tick', (s) => (s.tracks[0].patterns[0].hits[0].tick = null), /hits 1, tick/],
    ['a snap', (s) => (s.tracks[0].patterns[0].hits[0].snap = { grid: 0, strength: 1 }), /snap, grid/],
    ['a pattern', (s) => (s.tracks[0].patterns[3] = 7), /patterns 4/],
    ['a tempo', (s) => (s.tempo = '112'), /tempo/],
    ['a meter', (s) => delete s.meter, /meter/],
    ['a list for a meter', (s) => (s.meter = []), /meter/],
    ['no snap at all', (s) => delete s.tracks[0].patterns[0].hits[0].snap, /snap/],
    ['a list for a hit', (s) => (s.tracks[0].patterns[0].hits[0] = []), /hits/],
    ['a kit', (s) => (s.tracks[0].kit = 'unheard-of'), /kit/],
    ['a current slot', (s) => (s.tracks[0].current = 99), /slot 100/],
    ['two hits of one number', (s) => (s.tracks[0].patterns[0].hits[1].id = 1), /number 1/],
    ['no tracks', (s) => (s.tracks = []), /tracks/],
    ['too many hits', (s) => (s.tracks[0].patterns[0].hits = new Array(20001).fill({})), /20001 hits/],
    ['a newer version', (s) => (s.schema = 5), /newer Chaffinch/],
    ['no version', (s) => delete s.schema, /schema/],
  ])('says what is wrong and where: %s', (_, damage, message) => {
    expect(readSet(text(damage))).toEqual({ error: expect.stringMatching(message) });
  });

  test.each(['', 'null', '[]', '7', '"set"', '{', '{"schema":1}', '[[[['])('refuses %j with a sentence', (raw) => {
    expect(readSet(raw)).toEqual({ error: expect.stringMatching(/\.$/) });
  });
});

test('a new hit gets a number that no hit has', () => {
  expect(nextHitId(emptySet())).toBe(1);
  const set = demoSet();
  expect(nextHitId(set)).toBe(
    Math.max(...set.tracks.flatMap((t) => t.patterns.flatMap((p) => p?.hits.map((h) => h.id) ?? []))) + 1,
  );
});
