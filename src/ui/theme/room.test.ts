import { noticesIn, roomOf } from './room';

test('the layout follows the room: phones, tablets and desks, upright, lying and zoomed', () => {
  // Sizes in CSS px of common devices (common practice).
  const layouts = (sizes: [number, number][]) => sizes.map(([width, height]) => roomOf(width, height).layout);
  expect(layouts([[320, 568], [375, 667], [390, 844], [768, 1024]])).toEqual(Array(4).fill('upright')); // prettier-ignore
  expect(layouts([[667, 375], [844, 390], [932, 430], [640, 400]])).toEqual(Array(4).fill('lying')); // prettier-ignore
  expect(layouts([[1000, 700], [1180, 820], [1280, 800], [2560, 1440]])).toEqual(Array(4).fill('wide')); // prettier-ignore
});

test('type grows on a desk, and not on a tablet', () => {
  const types = (sizes: [number, number][]) => sizes.map(([width, height]) => roomOf(width, height).type);
  expect(types([[390, 844], [1180, 820], [1280, 800], [1920, 800]])).toEqual([1, 1, 1, 1]); // prettier-ignore
  expect(types([[1600, 900], [1920, 1080], [2560, 1440]])).toEqual([1.18, 1.18, 1.4]); // prettier-ignore
});

test('what is said stands on the Flyway, but for a phone that lies and is too narrow for one', () => {
  const where = (width: number, height: number) => noticesIn(roomOf(width, height));
  expect([where(390, 844), where(1280, 800), where(844, 390), where(740, 360)]).toEqual(Array(4).fill('flyway'));
  expect([where(667, 375), where(640, 400)]).toEqual(['place', 'place']);
});
