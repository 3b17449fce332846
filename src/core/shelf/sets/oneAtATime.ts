import { newSet } from '../../document/create';
import { idsFrom } from '../../document/hit';
import type { Section } from '../../document/section';
import type { OpenSet } from '../../document/set';
import { FIRST_STAGE } from '../../document/stage';
import { newTrack } from '../../document/track';
import { writtenPattern, writtenSections, type Playing, type WrittenLanes } from '../../document/written';

/**
 * *One at a Time*: a beat for lessons, 100 BPM. Each pattern of one bar has one sound more than the one before it, straight and on the grid,
 * so that a pupil hears what it adds; each section goes round four times and leads to the next.
 */
export function oneAtATime(): OpenSet {
  const ids = idsFrom(1);
  const patterns = LESSON.map(([name], i) => writtenPattern(name, lanesUpTo(i), STEADY, ids));
  const set = newSet('One at a Time', 100, [newTrack('Wheels', 1, patterns)]);
  return { set: { ...set, sections: sections() }, stage: { shown: 0, tracks: { 0: FIRST_STAGE } } };
}

const STEADY: Playing = { tempo: 100, strength: 1 };

/** What each step of the lesson adds. */
const LESSON: readonly (readonly [name: string, lane: WrittenLanes[number]])[] = [
  ['Kick', ['kick', '9-------9-------', 0]],
  ['Snare', ['snare', '----9-------9---', 0]],
  ['Hats', ['closedHat', '7-5-7-5-7-5-7-5-', 0]],
  ['Off the beat', ['kick', '9-----7-9-7-----', 0]],
  ['Open hat', ['openHat', '--------------7-', 0]],
  ['Ghost notes', ['snare', '----9--2-2--9---', 0]],
  ['Shaker', ['shaker', '4343434343434343', 0]],
];

/** All that has been added by then: a sound that comes again takes the place of what it was. */
function lanesUpTo(step: number): WrittenLanes {
  const lanes = new Map(LESSON.slice(0, step + 1).map(([, lane]) => [lane[0], lane]));
  return [...lanes.values()];
}

function sections(): Section[] {
  const written = writtenSections(LESSON.map(([name], i) => [name, i, [i], 4]));
  return written.map((section, i) => (i + 1 < LESSON.length ? { ...section, then: i + 2 } : section));
}
