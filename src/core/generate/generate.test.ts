import { POLISHED_FLOOR } from '../document/kits';
import { soundingHits } from '../sequence/soundingHits';
import { euclid } from './euclid';
import { propose, withProposal, type Ground, type Idea } from './propose';
import { STYLES, stylesAt } from './styles';
import type { Pattern } from '../document/pattern';

const BAR = 3840;
const sounds = POLISHED_FLOOR.pads.map((pad) => pad.sound.kind);
const kick = { pad: 0, tick: 0, length: 1, velocity: 1, snap: null };
const pattern: Pattern = { name: 'p', length: 2 * BAR, hits: [{ ...kick, id: 1 }, { ...kick, id: 2, pad: 12, tick: 1000 }, { ...kick, id: 3, tick: 9 * BAR }] }; // prettier-ignore
const ground: Ground = { pattern, meter: { beats: 4, unit: 4 }, sounds, locked: [] };
const offer = (idea: Idea, seed = 1, more: Partial<Ground> = {}) => propose(idea, { ...ground, ...more }, seed);
let id = 99;
const taken = (idea: Idea, seed = 1, more: Partial<Ground> = {}) => withProposal(pattern, offer(idea, seed, more), () => (id += 2)); // prettier-ignore

describe('Euclidean rhythms', () => {
  const text = (rhythm: boolean[]) => rhythm.map((on) => (on ? 'x' : '.')).join('');
  /** The same necklace: equal when turned. */
  const isTurned = (a: string, b: string) => a.length === b.length && (a + a).includes(b);

  // Toussaint 2005, "The Euclidean Algorithm Generates Traditional Musical Rhythms" (from memory; compared as necklaces).
  test.each([
    [2, 5, 'x.x..'],
    [3, 7, 'x.x.x..'],
    [3, 8, 'x..x..x.'],
    [4, 7, 'x.x.x.x'],
    [4, 9, 'x.x.x.x..'],
    [4, 11, 'x..x..x..x.'],
    [5, 7, 'x.xx.xx'],
    [5, 8, 'x.xx.xx.'],
    [5, 9, 'x.x.x.x.x'],
    [5, 12, 'x..x.x..x.x.'],
    [5, 16, 'x..x..x..x..x...'],
    [7, 12, 'x.xx.x.xx.x.'],
    [7, 16, 'x..x.x.x..x.x.x.'],
    [9, 16, 'x.xx.x.x.xx.x.x.'],
  ])('(%d, %d) is the necklace %s, and turns by its rotation', (pulses, steps, published) => {
    const plain = text(euclid(pulses, steps));
    expect(isTurned(plain, published)).toBe(true);
    expect(plain[0]).toBe('x');
    for (const rotation of [1, 3, -2, steps]) {
      const by = ((rotation % steps) + steps) % steps;
      expect(text(euclid(pulses, steps, rotation))).toBe(plain.slice(steps - by) + plain.slice(0, steps - by));
    }
  });

  test('every count of pulses is spread so that no two gaps differ by more than a step', () => {
    for (let steps = 1; steps <= 32; steps++) {
      for (let pulses = 0; pulses <= steps; pulses++) {
        const rhythm = euclid(pulses, steps);
        const at = rhythm.flatMap((on, i) => (on ? [i] : []));
        expect([rhythm.length, at.length]).toEqual([steps, pulses]);
        const gaps = at.map((place, i) => (at[i + 1] ?? at[0]! + steps) - place);
        if (pulses > 0) expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThanOrEqual(1);
      }
    }
  });

  test('as a lane it goes round for as long as the pattern is', () => {
    const p = taken({ kind: 'euclid', pad: 4, pulses: 3, steps: 8, rotation: 0, step: 240 });
    const ticks = soundingHits(p).filter((h) => h.pad === 4).map((h) => h.tick / 240); // prettier-ignore
    expect(ticks).toEqual([0, 3, 6, 8, 11, 14, 16, 19, 22, 24, 27, 30]);
  });
});

describe('starting points', () => {
  const at = (p: Pattern, sound: (typeof sounds)[number]) =>
    soundingHits(p)
      .filter((h) => sounds[h.pad] === sound)
      .map((h) => h.tick);

  test('the same seed gives the same, another gives another', () => {
    const idea: Idea = { kind: 'style', style: 'laidBack', pad: null };
    expect(offer(idea, 5)).toEqual(offer(idea, 5));
    const many = new Set(Array.from({ length: 20 }, (_, seed) => JSON.stringify(offer(idea, seed))));
    expect(many.size).toBe(20);
  });

  test('each style has what marks it (common practice), at any seed', () => {
    const beats = [0, 960, 1920, 2880];
    for (let seed = 0; seed < 30; seed++) {
      const of = (style: keyof typeof STYLES) => taken({ kind: 'style', style, pad: null }, seed);
      for (const style of ['fourFloor', 'driving'] as const) {
        expect(at(of(style), 'kick').filter((t) => t < BAR)).toEqual(beats);
        expect(at(of(style), 'clap').filter((t) => t < BAR)).toEqual([960, 2880]);
        expect(at(of(style), 'openHat').filter((t) => t < BAR)).toEqual([480, 1440, 2400, 3360]);
      }
      for (const style of ['laidBack', 'broken', 'backbeat'] as const) {
        expect(at(of(style), 'snare')).toEqual(expect.arrayContaining([960, 2880, BAR + 960, BAR + 2880]));
        expect(at(of(style), 'kick')).toContain(0);
      }
      expect(at(of('halfTime'), 'snare')).toEqual([1920, BAR + 1920]);
    }
    expect(stylesAt(90)[0]).toBe('laidBack'); // hip-hop about 80-100 BPM
    expect(['fourFloor', 'backbeat']).toContain(stylesAt(124)[0]); // house 120-140
    expect(stylesAt(135).slice(0, 3)).toContain('driving'); // trance about 135
    expect(stylesAt(170)[0]).toBe('broken');
  });

  test('a style swings its second sixteenths', () => {
    const odd = at(taken({ kind: 'style', style: 'laidBack', pad: null }, 3), 'closedHat').filter((t) => t % 480 !== 0);
    expect(odd.length).toBeGreaterThan(0);
    // Two sixteenths are 480 ticks: 58 % of them is 278.4.
    expect(odd.every((t) => t % 480 === 278)).toBe(true);
  });

  test('replaces what is not locked, and only that; what waits on the tape stays', () => {
    const all = offer({ kind: 'style', style: 'driving', pad: null });
    expect(all.instead.sort()).toEqual([1, 2]);
    const kept = offer({ kind: 'style', style: 'driving', pad: null }, 1, { locked: [0] });
    expect(kept.instead).toEqual([2]);
    expect(kept.hits.some((h) => h.pad === 0)).toBe(false);
    const lane = offer({ kind: 'style', style: 'driving', pad: 4 });
    expect(lane.instead).toEqual([]);
    expect(new Set(lane.hits.map((h) => h.pad))).toEqual(new Set([4]));
    // One lane alone is as it is among all.
    expect(lane.hits).toEqual(all.hits.filter((h) => h.pad === 4));
  });

  test('a fill stays in the last beat, half bar or bar, and grows towards its end', () => {
    for (let seed = 0; seed < 40; seed++) {
      for (const [span, ticks] of [
        ['beat', 960],
        ['half', 1920],
        ['bar', BAR],
      ] as const) {
        // prettier-ignore
        const { hits } = offer({ kind: 'fill', span }, seed);
        const from = 2 * BAR - ticks;
        expect(hits.length).toBeGreaterThan(1);
        expect(hits.every((h) => h.tick >= from && h.tick < 2 * BAR)).toBe(true);
        expect(hits[hits.length - 1]!.velocity).toBeGreaterThan(hits[0]!.velocity);
        expect(hits[hits.length - 1]!.tick).toBe(2 * BAR - 240);
      }
    }
  });

  test('hats vary, and touch nothing but hats; in another meter they keep to its bars', () => {
    const kinds = new Set<string>();
    for (let seed = 0; seed < 60; seed++) {
      const { hits, instead } = offer({ kind: 'hats' }, seed);
      expect(instead).toEqual([]);
      expect(hits.every((h) => ['closedHat', 'openHat'].includes(sounds[h.pad]!))).toBe(true);
      kinds.add(hits.map((h) => `${h.pad} ${h.tick}`).join());
    }
    expect(kinds.size).toBeGreaterThan(5);
    const waltz = offer({ kind: 'style', style: 'backbeat', pad: 2 }, 1, { meter: { beats: 3, unit: 4 }, pattern: { ...pattern, length: 2880 } }); // prettier-ignore
    expect(waltz.hits.every((h) => h.tick < 2880)).toBe(true);
  });
});
