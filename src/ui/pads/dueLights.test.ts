import type { Sounded } from '@/instrument/performance';
import { DueLights } from './dueLights';

const RATE = 48000;
const at = (heardFrame: number, pad = 0): Sounded => ({ heardFrame, track: 0, pad, velocity: 1, live: false, struck: 0, placed: 0 }); // prettier-ignore

test('a light waits for its sound', () => {
  const lights = new DueLights();
  lights.add(at(1000, 1), -4800);
  lights.add(at(2000, 2), -4800);
  expect(lights.take(999, 0)).toEqual([]);
  expect(lights.take(1500, 0).map((s) => s.pad)).toEqual([1]);
  expect(lights.take(2000, 0).map((s) => s.pad)).toEqual([2]);
});

test('while no frame is drawn for five minutes, what waits does not grow, and on coming back nothing of the past lights', () => {
  const lights = new DueLights();
  const step = RATE / 8; // sixteenths at 120 BPM
  let most = 0;
  for (let frame = 0; frame < 300 * RATE; frame += step) {
    lights.add(at(frame + 2000), frame - RATE / 10);
    most = Math.max(most, lights.count);
  }
  expect(most).toBeLessThan(4);
  expect(lights.take(301 * RATE, 301 * RATE - RATE / 10)).toEqual([]);
});
