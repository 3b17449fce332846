import type { ChainPlan, SectionPlan } from './launchRules';

/**
 * For tests: what launching means, in the slowest and plainest way. It keeps the list of everything that was done and
 * finds what plays by going through all of it again from the beginning. Lift needs no rule of its own: what hands did
 * between pressing and letting go is left out of the list from the line on which everything returns.
 */
export type Done =
  | { do: 'launch'; track: number; slot: number; on: number; inPlace: boolean }
  | { do: 'cancel'; track: number }
  | { do: 'gate'; track: number; mute: number; solo: number; on: number }
  | { do: 'section'; index: number; on: number; inPlace: boolean }
  | { do: 'cancelSection' }
  | { do: 'stopAll'; on: number };

export interface Deed {
  /** Song tick at which it was done. */
  at: number;
  what: Done;
}

export interface World {
  bar: number;
  tracks: number;
  /** Loop length of each slot of each track. */
  spans: number[][];
  sections: SectionPlan[];
  chains: ChainPlan[];
}

/** One track's present and future, written out. */
interface Line {
  slot: number;
  launchTick: number;
  mute: boolean;
  solo: boolean;
  wait: { slot: number; inPlace: boolean; tick: number; withSection: boolean } | null;
  chain: { link: number; tick: number } | null;
  gate: { mute: number; solo: number; tick: number } | null;
}

export interface Picture {
  lines: Line[];
  section: number;
  next: { section: number; tick: number; follows: boolean; inPlace: boolean } | null;
}

const STOP = -1;
const CHAIN = -2;
const LEAVE = -3;

/** What plays at a song tick after these deeds, in the order in which they were done. */
export function pictureAt(world: World, deeds: readonly Deed[], tick: number): Picture {
  const picture: Picture = {
    lines: Array.from({ length: world.tracks }, () => ({ slot: STOP, launchTick: 0, mute: false, solo: false, wait: null, chain: null, gate: null })), // prettier-ignore
    section: -1,
    next: null,
  };
  for (const { at, what } of deeds) {
    passTo(world, picture, at);
    act(world, picture, at, what);
  }
  passTo(world, picture, tick);
  return picture;
}

/** Lets time go by: the earliest thing that is due happens, then the next, until none is due by `tick`. */
function passTo(world: World, picture: Picture, tick: number): void {
  for (;;) {
    const dues = [picture.next?.tick, ...picture.lines.flatMap((l) => [l.wait?.tick, l.chain?.tick, l.gate?.tick])];
    const due = Math.min(...dues.map((d) => d ?? Infinity));
    if (due > tick + 1e-6) return;
    // At one line: the section, then each track's chain, then what hands have queued, then mutes.
    if (picture.next && picture.next.tick <= due + 1e-6) beginSection(world, picture);
    picture.lines.forEach((line, t) => {
      if (line.chain && line.chain.tick <= due + 1e-6) nextLink(world, line, t);
      if (line.wait && line.wait.tick <= due + 1e-6) {
        const { slot, inPlace, tick: at } = line.wait;
        line.wait = null;
        play(world, line, t, slot, at, inPlace);
      }
      if (line.gate && line.gate.tick <= due + 1e-6) turn(line);
    });
  }
}

function act(world: World, picture: Picture, now: number, what: Done): void {
  switch (what.do) {
    case 'launch': {
      const line = picture.lines[what.track]!;
      queue(
        world,
        line,
        what.track,
        what.slot,
        what.inPlace,
        lineAfter(world, [line], [what.track], what.on, now),
        now,
      );
      return;
    }
    case 'cancel':
      picture.lines[what.track]!.wait = null;
      return;
    case 'gate': {
      const line = picture.lines[what.track]!;
      const { mute = -1, solo = -1 } = line.gate ?? {};
      line.gate = {
        mute: what.mute >= 0 ? what.mute : mute,
        solo: what.solo >= 0 ? what.solo : solo,
        tick: lineAfter(world, [line], [what.track], what.on, now),
      };
      if (line.gate.tick <= now) turn(line);
      return;
    }
    case 'section': {
      const section = world.sections[what.index]!;
      const tick = lineAfter(world, picture.lines, null, what.on, now);
      forgetNext(picture);
      picture.lines.forEach((line, t) => {
        if (section.parts[t] === LEAVE) return;
        queue(world, line, t, section.parts[t]!, what.inPlace, tick, now);
        if (line.wait) line.wait.withSection = true;
      });
      picture.next = { section: what.index, tick, follows: false, inPlace: what.inPlace };
      if (tick <= now) beginSection(world, picture);
      return;
    }
    case 'cancelSection':
      return forgetNext(picture);
    case 'stopAll': {
      const tick = lineAfter(world, picture.lines, null, what.on, now);
      forgetNext(picture);
      picture.lines.forEach((line, t) => {
        line.wait = null;
        if (line.slot !== STOP) queue(world, line, t, STOP, false, tick, now);
        if (line.wait) (line.wait as { withSection: boolean }).withSection = true;
      });
      picture.next = { section: -2, tick, follows: false, inPlace: false };
      if (tick <= now) beginSection(world, picture);
    }
  }
}

/** The line on which everything would change at once. */
export function groupLine(world: World, picture: Picture, on: number, now: number): number {
  return lineAfter(world, picture.lines, null, on, now);
}

/** The line that *Drop on* gives: found by walking from line to line. */
function lineAfter(world: World, lines: Line[], tracks: number[] | null, on: number, now: number): number {
  if (on === 0) return now;
  const spanOf = (line: Line, i: number) => (line.slot < 0 ? 0 : world.spans[tracks?.[i] ?? i]![line.slot]!);
  const longest = Math.max(...lines.map(spanOf));
  const line = lines.find((l, i) => spanOf(l, i) === longest)!;
  const [first, step] = on < 0 && longest > 0 ? [line.launchTick, longest] : [0, on < 0 ? world.bar : on];
  let tick = first;
  while (tick <= now + 2e-6) tick += step;
  while (tick - step > now + 2e-6) tick -= step;
  return tick;
}

function queue(world: World, line: Line, track: number, slot: number, inPlace: boolean, tick: number, now: number) {
  line.wait = null;
  if (tick <= now) play(world, line, track, slot, tick, inPlace);
  else line.wait = { slot, inPlace, tick, withSection: false };
}

function play(world: World, line: Line, track: number, slot: number, tick: number, inPlace: boolean): void {
  line.chain = null;
  if (slot === CHAIN) return playLink(world, line, track, 0, tick);
  begin(line, slot, tick, inPlace);
}

function begin(line: Line, slot: number, tick: number, inPlace: boolean): void {
  if (slot !== STOP) line.launchTick = inPlace ? (line.slot === STOP ? 0 : line.launchTick) : tick;
  line.slot = slot;
}

function playLink(world: World, line: Line, track: number, link: number, tick: number): void {
  const { slot, times } = world.chains[track]!.links[link]!;
  begin(line, slot, tick, false);
  line.chain = { link, tick: tick + times * world.spans[track]![slot]! };
}

function nextLink(world: World, line: Line, track: number): void {
  const { links, again } = world.chains[track]!;
  const { link, tick } = line.chain!;
  line.chain = null;
  if (link + 1 < links.length) playLink(world, line, track, link + 1, tick);
  else if (again) playLink(world, line, track, 0, tick);
}

function turn(line: Line): void {
  const { mute, solo } = line.gate!;
  line.gate = null;
  if (mute >= 0) line.mute = mute === 1;
  if (solo >= 0) line.solo = solo === 1;
}

function forgetNext(picture: Picture): void {
  if (picture.next && !picture.next.follows) {
    for (const line of picture.lines) if (line.wait?.withSection) line.wait = null;
  }
  picture.next = null;
}

function beginSection(world: World, picture: Picture): void {
  const { section: index, tick, follows, inPlace } = picture.next!;
  const section = world.sections[index];
  picture.next = null;
  picture.section = section ? index : -1;
  picture.lines.forEach((line, t) => {
    const part = section ? section.parts[t]! : STOP;
    const handsSaySomethingElse = line.wait && line.wait.tick <= tick + 1e-6;
    if (follows && part !== LEAVE && !handsSaySomethingElse) play(world, line, t, part, tick, inPlace);
  });
  if (!section || section.then === -1) return;
  const loops = picture.lines.map((_, t) => {
    const part = section.parts[t]!;
    if (part === CHAIN) return world.chains[t]!.links.reduce((sum, l) => sum + l.times * world.spans[t]![l.slot]!, 0);
    return part >= 0 ? world.spans[t]![part]! : 0;
  });
  const bars = Math.max(1, Math.ceil(Math.max(...loops) / world.bar - 1e-6));
  picture.next = { section: section.then, tick: tick + section.rounds * bars * world.bar, follows: true, inPlace };
}
