import { keyName } from './keyName';
import { heldAside, isMeasured, strikeVelocity } from './strike';

const glass = (x: number, y: number) => strikeVelocity({ x, y, pressure: 0 });

test('hard in the middle, soft at the edge, and never silent', () => {
  expect(glass(0.5, 0.5)).toBe(1);
  expect(glass(0.56, 0.45)).toBe(1);
  expect(glass(0, 0.5)).toBeLessThan(0.3);
  expect(glass(0, 0)).toBeGreaterThan(0.2);
  const across = Array.from({ length: 21 }, (_, i) => glass(0.5 + i / 40, 0.5));
  expect(across.every((v, i) => i === 0 || v <= across[i - 1]!)).toBe(true);
});

test('the same on all four sides', () => {
  expect(new Set([glass(0.2, 0.5), glass(0.8, 0.5), glass(0.5, 0.2), glass(0.5, 0.8)]).size).toBe(1);
});

test('a measured pressure decides; what a device reports that cannot measure does not', () => {
  // W3C Pointer Events: 0.5 for an active button of hardware without pressure; 0 and 1 are common constants.
  expect([0, 0.5, 1].map(isMeasured)).toEqual([false, false, false]);
  expect(strikeVelocity({ x: 0, y: 0, pressure: 0.9 })).toBeGreaterThan(0.9);
  expect(strikeVelocity({ x: 0.5, y: 0.5, pressure: 0.1 })).toBeLessThan(0.35);
});

test('a finger that slides sideways means it from a sixth of the pad on, and goes as far to either side', () => {
  expect([0, 0.1, -0.14].map(heldAside)).toEqual([0, 0, 0]);
  expect([0.45, -0.45, 0.75, 3, -3].map(heldAside)).toEqual([0.5, -0.5, 1, 1, -1]);
});

test('keys are named as they are printed', () => {
  expect(['KeyZ', 'Digit4', 'Comma'].map(keyName)).toEqual(['Z', '4', ',']);
});
