import { tracksOf } from '@/core/document/set';
import { SILENT, THEN_STOP } from '@/core/launch/launchState';
import { chainPlan, sectionPlans } from '@/core/launch/plans';
import { Performance } from '@/instrument/performance';
import { coming } from './coming';
import type { EngineEvent } from '@/core/protocol/events';
import { demoSet } from '@/core/document/demo';

const BAR = 3840;

function told(...events: EngineEvent[]): ReturnType<typeof coming> {
  const set = demoSet().set;
  const performance = new Performance(
    () => 0,
    () => set,
  );
  performance.launcher.sections = sectionPlans(set.sections);
  for (const track of tracksOf(set)) performance.launcher.chains[track.id] = chainPlan(track);
  performance.takeAll(events);
  return coming(performance, set);
}

const waiting = (track: number, next: number, nextTick: number): EngineEvent => ({ kind: 'waiting', frame: 0, track, beneath: false, slot: SILENT, launchTick: 0, next, nextInPlace: 0, nextTick, link: -1, linkTick: Infinity, muted: 0, soloed: 0, nextMute: -1, nextSolo: -1, muteSoloTick: Infinity }); // prettier-ignore
const launcher = (nextSection: number, sectionTick: number, fadeTo = Infinity): EngineEvent => ({ kind: 'launcher', frame: 0, beneath: false, section: -1, nextSection, sectionTick, sectionFollows: false, sectionInPlace: false, lift: 0, liftTick: Infinity, fadeFrom: 0, fadeTo }); // prettier-ignore

test('what is to change, in order of time, in the words of the player', () => {
  expect(told(waiting(0, 2, 2 * BAR), waiting(2, SILENT, BAR))).toEqual([
    { tick: BAR, words: 'Kerb: stop' },
    { tick: 2 * BAR, words: 'Wheels: Brake' },
  ]);
});

test('many changes of one line are one flag, and a section is told by its name alone', () => {
  expect(told(waiting(0, 2, BAR), waiting(1, 0, BAR), waiting(2, 0, BAR))).toEqual([{ tick: BAR, words: '3 changes' }]);
  expect(told(waiting(0, 0, BAR), waiting(1, 0, BAR), waiting(3, 1, 2 * BAR), launcher(3, BAR))).toEqual([
    { tick: BAR, words: 'Fast Laps' },
    { tick: 2 * BAR, words: 'Lamps: Blink' },
  ]);
});

test('stopping everything and fading out are told too', () => {
  expect(told(launcher(THEN_STOP, BAR, 3 * BAR))).toEqual([
    { tick: BAR, words: 'All stops' },
    { tick: 3 * BAR, words: 'Faded out' },
  ]);
});
