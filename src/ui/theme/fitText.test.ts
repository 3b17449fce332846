import { fitted, fittedToContainer } from './fitText';
import { grown } from './type';

test('a name is as large as it fits, within its bounds', () => {
  const limits = { least: 11, most: 17 };
  expect(fitted('Kick', 64, limits)).toEqual({ fontSize: grown(17), lineHeight: grown(20) });
  expect(fitted('Tambourine', 64, limits)).toEqual({ fontSize: grown(64 / (0.46 * 10)), lineHeight: grown(17) });
  expect(fitted('Saturday at the Rink', 64, limits).fontSize).toBe(grown(11));
  expect(fitted('', 64, limits).fontSize).toBe(grown(17));
});

test('in a container it is left to CSS', () => {
  expect(fittedToContainer('Tambourine', { padding: 20, least: 11, most: '17px' })).toBe(
    'clamp(11px, calc((100cqi - 20px) / 4.60), 17px)',
  );
});
