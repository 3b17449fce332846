import { moveStep, pressStep, releaseStep, STEP_INPUT_START } from './stepInput';

const GRID = 240;
const LOOP = 960;
const release = (s: typeof STEP_INPUT_START, pad: number) => releaseStep(s, pad, GRID, LOOP);

test('a press enters at the cursor and letting go advances; pads held together share a step', () => {
  let state = release(pressStep(STEP_INPUT_START, 3), 3);
  expect(state).toEqual({ cursor: 240, held: [] });
  state = pressStep(pressStep(state, 1), 2);
  expect(state.cursor).toBe(240);
  state = release(state, 1);
  expect(state.cursor).toBe(240);
  expect(release(state, 2)).toEqual({ cursor: 480, held: [] });
  expect(release(state, 9)).toBe(state);
});

test('the cursor goes round the loop, forth and back, and onto the lines of another grid', () => {
  expect(moveStep({ cursor: 720, held: [] }, 1, GRID, LOOP).cursor).toBe(0);
  expect(moveStep(STEP_INPUT_START, -1, GRID, LOOP).cursor).toBe(720);
  expect(moveStep({ cursor: 240, held: [] }, 1, 320, LOOP).cursor).toBe(320);
  expect(moveStep({ cursor: 240, held: [] }, -1, 320, LOOP).cursor).toBe(0);
});
