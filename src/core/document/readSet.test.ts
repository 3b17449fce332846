import { roundTicks } from '../launch/plans';
import { mod, msToTicks } from '../time/ticks';
import { soundingHits } from '../sequence/soundingHits';
import { emptySet } from './create';
import { POLISHED_FLOOR } from './kits';
import { nextHitId, SCHEMA_VERSION, tracksOf, type OpenSet } from './set';
import { CONTROL_RANGES, CONTROLS } from './moves';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { demoSet } from './demo';
import { readSet, writeSet } from './readSet';
import { noteName, padNote } from './tones';

describe('the demo', () => {
  const { set } = demoSet();
  const pattern = set.tracks[0]!.patterns[0]!;
  const steps = (sound: string) => {
    const pad = POLISHED_FLOOR.pads.findIndex((p) => p.sound.kind === sound);
    return soundingHits(pattern).filter((h) => h.pad === pad).map((h) => ({ step: mod(Math.round(h.tick / 240), 32), velocity: h.velocity })); // prettier-ignore
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

  test('was played by hands, tidied a little: all strokes lie within 20 ms of their sixteenth, hardly one on it, and the second ones late', () => {
    const sounding = soundingHits(pattern);
    expect(sounding).toHaveLength(pattern.hits.length);
    const late = sounding.map(({ tick }) => mod(tick + 120, 240) - 120);
    expect(late.every((ticks) => Math.abs(ticks) < msToTicks(20, 112))).toBe(true);
    expect(late.filter((ticks) => Math.abs(ticks) < 1e-6).length).toBeLessThan(late.length / 5);
    const mean = (second: boolean) => {
      const own = late.filter((_, i) => (mod(Math.round(sounding[i]!.tick / 240), 2) === 1) === second);
      return own.reduce((sum, ticks) => sum + ticks, 0) / own.length;
    };
    // Swung by 54 %: 0.04 of an eighth of 480 ticks.
    expect(mean(true) - mean(false)).toBeGreaterThan(0.02 * 480);
  });

  test('its sections have drums of their own, each eight bars and more', () => {
    const slots = set.sections.map(({ parts }) => parts.find(({ track }) => track === 0)!.plays);
    expect(new Set(slots).size).toBe(5);
    for (const section of set.sections)
      expect(roundTicks(set, section) * section.rounds).toBeGreaterThanOrEqual(8 * 3840);
  });

  test('its bass goes A, F, D, E, and its chords with it: no two notes of a chord rub at a semitone', () => {
    const kerb = set.tracks[2]!;
    const first = [0, 1, 2, 3].map((bar) =>
      soundingHits(kerb.patterns[0]!).find(({ tick }) => tick > bar * 3840 - 60)!,
    );
    expect(first.map(({ pad }) => noteName(padNote(kerb.tones!, pad)).slice(0, -1))).toEqual(['A', 'F', 'D', 'E']);
    const lamps = set.tracks[3]!;
    for (const { hits } of [lamps.patterns[0]!, lamps.patterns[2]!]) {
      for (const a of hits) {
        for (const b of hits) {
          const together = a.tick < b.tick + b.length && b.tick < a.tick + a.length;
          if (together) expect(Math.abs(padNote(lamps.tones!, a.pad) - padNote(lamps.tones!, b.pad))).not.toBe(1);
        }
      }
    }
  });
});

/** A stored set, changed. */
const text = (change: (set: any) => void): string => {
  const set = JSON.parse(writeSet(demoSet()));
  change(set);
  return JSON.stringify(set);
};
/** The document of an older version that is kept as a file. */
const old = (name: string) => readFileSync(path.join(__dirname, 'migrations/documents', `${name}.json`), 'utf8');

describe('reading a stored set', () => {
  test('gives back what was stored', () => {
    for (const open of [demoSet(), emptySet()]) expect(readSet(writeSet(open))).toEqual(open);
  });

  test('opens the documents of every version, as the demo of their time was', () => {
    for (const name of ['version1', 'version2', 'version3']) {
      const read = readSet(old(name)) as OpenSet;
      expect(read.set.metronome).toEqual({ on: false, level: 0.7, sound: 'wood', when: 'always', between: null });
      expect([read.set.order, read.set.tracks[0]!.patterns[0]!.hits.length]).toEqual([[0], 86]);
      expect([read.set.launching.dropOn, read.set.sections]).toEqual(['bar', []]);
      expect(read.stage).toEqual({ shown: 0, tracks: { 0: { slot: 0, stopped: false, mute: false, solo: false } } });
    }
    const read = readSet(old('version6')) as OpenSet;
    const stored = JSON.parse(old('version6'));
    for (const part of ['name', 'tempo', 'sections'] as const) expect(read.set[part]).toEqual(stored[part]);
    for (const { id, patterns } of tracksOf(read.set)) expect([id, patterns]).toEqual([id, stored.tracks[id].patterns]);
    expect(read.stage).toEqual(stored.stage);
    expect(read.set.sections.map(({ name }) => name)).toEqual(demoSet().set.sections.map(({ name }) => name));
    for (const name of ['version4', 'version5']) expect(readSet(old(name))).toEqual(read);
  });

  test('a document of version 3 keeps what its pattern was traced with; the first ones of version 4 too', () => {
    const trace = { track: 0, slot: 2 };
    for (const [name, named] of [['version3', trace], ['version4', trace], ['version4', { channel: 0, slot: 2 }]] as const) {
      const read = readSet(JSON.stringify({ ...JSON.parse(old(name)), trace: named })) as OpenSet;
      expect(read.set.trace).toEqual(trace);
    }
  }); // prettier-ignore

  test('a document of version 4 parts with what is performed: it lies apart from what was made', () => {
    const plain = JSON.parse(old('version4'));
    Object.assign(plain.tracks[1], { current: 2, stopped: true, mute: true, solo: true });
    const { set, stage } = readSet(JSON.stringify({ ...plain, shown: 1 })) as OpenSet;
    expect(stage.shown).toBe(1);
    expect(stage.tracks[1]).toEqual({ slot: 2, stopped: true, mute: true, solo: true });
    expect(Object.keys(set.tracks[1]!)).not.toEqual(expect.arrayContaining(['current', 'mute', 'solo', 'channel']));
    expect(set.sections[0]!.parts[1]).toEqual({ track: 1, plays: null });
  });

  test('refuses tracks and sections that cannot be told apart', () => {
    expect(readSet(text((s) => (s.order = [0, 0, 2, 3])))).toEqual({ error: expect.stringMatching(/order/) });
    expect(readSet(text((s) => (s.tracks[1].id = 0)))).toEqual({
      error: expect.stringMatching(/tracks 2.*number is 0/),
    });
    expect(readSet(text((s) => (s.sections[1].id = 1)))).toEqual({ error: expect.stringMatching(/sections have the same number/) }); // prettier-ignore
    expect(readSet(text((s) => (s.stage.shown = 9)))).toEqual({ error: expect.stringMatching(/shown.*number 9/) });
  });

  test('keeps treatments and takes, and refuses what they cannot be', () => {
    const open = demoSet();
    const pattern = open.set.tracks[0]!.patterns[0]!;
    const feel = { grid: 240, strength: 0.5, swing: { unit: 240, ratio: 0.6 }, spare: 12.5 };
    pattern.feel = feel;
    pattern.lanes = [
      { pad: 4, feel, loudness: { level: 0.2, even: 1, scale: 1, accents: { bar: 3840, at: [0], amount: 1 } } },
    ];
    Object.assign(pattern.hits[0]!, { take: 3, feel: { grid: 0, strength: 1 } });
    expect(readSet(writeSet(open))).toEqual(open);
    feel.swing.ratio = 0.9;
    expect(readSet(writeSet(open))).toEqual({ error: expect.stringMatching(/feel, swing, ratio/) });
  });

  test('keeps what Steps sets, and refuses what it cannot be', () => {
    const open = demoSet();
    const { set } = open;
    const pattern = set.tracks[0]!.patterns[0]!;
    pattern.window = { start: 960, length: 240 };
    pattern.colour = 3;
    pattern.moves = [{ pad: 4, control: 'filter', points: [{ tick: 0, value: -1.5 }] }];
    set.tracks[0]!.mutedPads = [1, 2];
    set.trace = { track: 0, slot: 3 };
    const hit = pattern.hits[0]!;
    Object.assign(hit, { nudge: 12.5, pitch: -0.25, odds: 0.5, roll: { strokes: 3, over: 240, swell: -1, glide: 12 } });
    expect(readSet(writeSet(open))).toEqual(open);
    hit.roll!.strokes = 5;
    expect(readSet(writeSet(open))).toEqual({ error: expect.stringMatching(/hits 1, roll, strokes/) });
    hit.roll!.strokes = 3;
    set.tracks[0]!.mutedPads = [1, 1];
    expect(readSet(writeSet(open))).toEqual({ error: expect.stringMatching(/mutedPads/) });
  });

  test('a Move is refused beyond the range of its own control, where a rate that there is none of would play for ever', () => {
    const move = (control: string, value: number) =>
      readSet(text((s) => (s.tracks[0].patterns[0].moves = [{ pad: 0, control, points: [{ tick: 0, value }] }])));
    for (const control of CONTROLS) {
      const { min, max } = CONTROL_RANGES[control];
      for (const value of [min, max]) expect(move(control, value)).not.toHaveProperty('error');
      for (const value of [min - 1, max + 1]) {
        expect(move(control, value)).toEqual({ error: expect.stringMatching(/patterns 1, moves 1, points: .*values from/) }); // prettier-ignore
      }
    }
    const mixMove = (more: object) =>
      readSet(text((s) => (s.tracks[0].patterns[0].moves = [{ points: [{ tick: 0, value: 0.5 }], ...more }])));
    expect(mixMove({ on: 'group', control: 'echo' })).not.toHaveProperty('error');
    expect(mixMove({ on: 'whole', control: 'bellHz', points: [{ tick: 0, value: 16000 }] })).not.toHaveProperty(
      'error',
    );
    expect(mixMove({ on: 'room', control: 'preDelay', points: [{ tick: 0, value: 150 }] })).not.toHaveProperty('error');
    expect(mixMove({ on: 'echo', control: 'time' })).toEqual({ error: expect.stringMatching(/whole ones/) });
    expect(mixMove({ on: 'room', control: 'size', points: [{ tick: 0, value: 4.1 }] })).toEqual({ error: expect.stringMatching(/from 0.2 to 4/) }); // prettier-ignore
    for (const wrong of [
      { on: 'whole', control: 'rate' },
      { on: 'whole', control: 'feedback' },
      { on: 'room', control: 'feedback' },
      { on: 'echo', control: 'level' },
      { on: 'echo', control: 'constructor' },
      { on: 'constructor', control: 'name' },
      { pad: 1, control: 'echo' },
      { on: 'all', control: 'echo' },
      { on: 'track', pad: 1, control: 'level' },
      { control: 'level' },
    ]) {
      // prettier-ignore
      expect(mixMove(wrong)).toEqual({ error: expect.stringMatching(/patterns 1, moves 1, (control|on)/) });
    }
    expect(mixMove({ on: 'track', control: 'echo', points: [{ tick: 0, value: 2 }] })).toEqual({ error: expect.stringMatching(/points/) }); // prettier-ignore
    expect(move('rate', 1.5)).toEqual({ error: expect.stringMatching(/whole ones/) });
  });

  test('drops what no set has', () => {
    expect(readSet(text((s) => Object.assign(s, { extra: 1 })))).toEqual(demoSet());
    expect(readSet(text((s) => Object.assign(s.tracks[0].patterns[0].hits[3], { extra: 1 })))).toEqual(demoSet());
  });

  test.each<[string, (set: any) => void, RegExp]>([
    ['a velocity', (s) => (s.tracks[0].patterns[0].hits[2].velocity = 1.5), /tracks 1, patterns 1, hits 3, velocity/],
    ['a pad', (s) => (s.tracks[0].patterns[0].hits[0].pad = 16), /hits 1, pad/],
    ['a tick', (s) => (s.tracks[0].patterns[0].hits[0].tick = null), /hits 1, tick/],
    ['a snap', (s) => (s.tracks[0].patterns[0].hits[0].snap = { grid: 0, strength: 1 }), /snap, grid/],
    ['a pattern', (s) => (s.tracks[0].patterns[3] = 7), /tracks 1, patterns 4: it is not/],
    ['a track', (s) => (s.tracks[2] = []), /tracks 3: it is not/],
    ['a tempo', (s) => (s.tempo = '112'), /tempo/],
    ['a meter', (s) => delete s.meter, /meter/],
    ['a list for a meter', (s) => (s.meter = []), /meter/],
    ['no snap at all', (s) => delete s.tracks[0].patterns[0].hits[0].snap, /snap/],
    ['a list for a hit', (s) => (s.tracks[0].patterns[0].hits[0] = []), /hits/],
    ['a kit', (s) => (s.tracks[0].kit = 'unheard-of'), /kit/],
    ['a source', (s) => (s.tracks[0].kit.pads[2].sound.source.made = 'thunder'), /kit, pads 3, sound, source, made/],
    ['a setting', (s) => (s.tracks[0].kit.pads[0].sound.settings.pitch = 99), /pads 1, sound, settings, pitch/],
    ['a wave', (s) => (s.tracks[0].kit.pads[0].sound.settings.lfos = [{ moves: 'time' }]), /settings, lfos 1/],
    ['a circle', (s) => (s.tracks[0].kit.pads[0].alsoPlays = [{ pad: 0, share: 1 }]), /kit, pads 1: it plays itself in a circle/],
    ['groups that overlap', (s) => (s.tracks[0].kit.cutGroups = [[1, 2], [2, 3]]), /cutGroups: they must be lists of pads, none of them in two/],
    ['a current slot', (s) => (s.stage.tracks[0].slot = 99), /slot 100/],
    ['two hits of one number', (s) => (s.tracks[0].patterns[0].hits[1].id = 1), /number 1/],
    ['no tracks', (s) => (s.order = []), /order/],
    ['a track that is not there', (s) => delete s.tracks[1], /tracks 2/],
    ['too many hits', (s) => (s.tracks[0].patterns[0].hits = new Array(20001).fill({})), /patterns 1: it has 20001 hits/],
    ['a newer version', (s) => (s.schema = SCHEMA_VERSION + 1), /newer Chaffinch/],
    ['no version', (s) => delete s.schema, /schema/],
  ])('says what is wrong and where: %s', (_, damage, message) => {
    expect(readSet(text(damage))).toEqual({ error: expect.stringMatching(message) });
  }); // prettier-ignore

  test.each<[(set: any) => void, RegExp]>([
    [(s) => (s.tracks[0].kit.pads[2].sound.source.made = 'thunder'), /^At tracks 1, kit, pads 3, sound, source, made: must be one of kick(, \w+){7} and \d+ more, and is “thunder”\.$/],
    [(s) => (s.tracks[0].kit.pads[0].note = 36.5), /^At tracks 1, kit, pads 1, note: must be a whole number, and is 36\.5\.$/],
    [(s) => (s.tempo = '112'), /^At tempo: must be a number, and is “112”\.$/],
    [(s) => (s.tempo = null), /^At tempo: must be a number\.$/],
    [(s) => (s.tracks[0].patterns[0].name = 'x'.repeat(500)), /^At tracks 1, patterns 1, name: must be shorter than or equal to \d+ characters\.$/],
  ])('says it in words that can be read: %#', (damage, words) => expect(readSet(text(damage))).toEqual({ error: expect.stringMatching(words) })); // prettier-ignore

  test.each(['', 'null', '[]', '7', '"set"', '{', '{"schema":1}', '[[[['])('refuses %j with a sentence', (raw) => {
    expect(readSet(raw)).toEqual({ error: expect.stringMatching(/\.$/) });
  });

  test('reads hits by the rules of their schema, one by one, as fast as it can', () => {
    // Each of these makes one hit not fit: the fast way must see it as the slow one does.
    const wrong: Partial<Record<string, unknown>>[] = [
      { id: 0 }, { id: 1.5 }, { pad: -1 }, { tick: 1e10 }, { tick: NaN }, { length: -1 }, { velocity: 2 }, { velocity: '1' },
      { snap: {} }, { snap: undefined }, { take: 0 }, { nudge: 5000 }, { pitch: 129 }, { odds: -0.1 }, { feel: 3 },
      { roll: { strokes: 2, over: 0, swell: 0, glide: 0 } }, { loudness: { level: 1 } },
    ]; // prettier-ignore
    for (const part of wrong) {
      const read = readSet(text((s) => Object.assign(s.tracks[0].patterns[0].hits[7], part)));
      expect(read).toEqual({ error: expect.stringMatching(/^At tracks 1, patterns 1, hits 8/) });
    }
  });
});

test('a new hit gets a number that no hit has', () => {
  expect(nextHitId(emptySet().set)).toBe(1);
  const { set } = demoSet();
  const ids = tracksOf(set).flatMap((t) => t.patterns.flatMap((p) => p?.hits.map((h) => h.id) ?? []));
  expect(nextHitId(set)).toBe(Math.max(...ids) + 1);
});
