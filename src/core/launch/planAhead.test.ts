import { tracksOf, type BeatSet } from '../document/set';
import { SILENT } from './launchState';
import { Launcher } from './launcher';
import { planAhead } from './planAhead';
import { chainPlan, dropTicks, sectionPlans, tapesOf } from './plans';
import { demoSet } from '../document/demo';

const BAR = 3840;

function launcherOf(set: BeatSet): Launcher {
  const launcher = new Launcher(tapesOf(() => set));
  launcher.sections = sectionPlans(set.sections);
  for (const track of tracksOf(set)) launcher.chains[track.id] = chainPlan(track);
  return launcher;
}

test('the plan is what happens: every stretch of it is there when its time has come', () => {
  const set = demoSet().set;
  set.sections[0]!.then = 2;
  set.sections[1]!.then = 'stop';
  set.sections[1]!.rounds = 1;
  set.tracks[1]!.chain = { links: [{ slot: 0, times: 1 }, { slot: 2, times: 3 }], again: true }; // prettier-ignore
  const launcher = launcherOf(set);
  launcher.launchSection(1, 0, false, 0);
  launcher.launch({ track: 1, slot: -2, on: 0, inPlace: false }, 0);
  launcher.start(0);
  launcher.launch({ track: 0, slot: 1, on: 2 * BAR, inPlace: false }, 100);
  const lines = planAhead(launcher, 0, 20 * BAR);
  for (let tick = 50; tick < 20 * BAR; tick += 240) {
    launcher.runTo(tick);
    lines.forEach((line, t) => {
      const stretch = line.find(({ from, to }) => from <= tick && tick < to)!;
      expect([tick, t, stretch.slot]).toEqual([tick, t, launcher.live.slot[t]]);
    });
  }
  // Doors: eight bars (Warm Up), then First Laps for one round of eight (Four Wheels), then silence.
  expect(lines[0]!.map(({ from, slot }) => [from / BAR, slot])).toEqual([[0, 3], [2, 1], [16, SILENT]]); // prettier-ignore
  expect(lines[2]!.map(({ from, slot }) => [from / BAR, slot])).toEqual([[0, SILENT], [8, 0], [16, SILENT]]); // prettier-ignore
});

test('Drop on in ticks of each meter', () => {
  expect(dropTicks('beat', { beats: 6, unit: 8 })).toBe(480);
  expect(dropTicks('bars4', { beats: 3, unit: 4 })).toBe(4 * 2880);
  expect(dropTicks('now', { beats: 4, unit: 4 })).toBe(0);
});
