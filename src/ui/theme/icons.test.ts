import * as mdi from '@mdi/js';
import paths from './iconPaths.json';

test('each icon is the outline of that name in the Material Design Icons', () => {
  const ofName = (name: string) =>
    `mdi${name.replace(/(^|-)([a-z])/g, (_, __, letter: string) => letter.toUpperCase())}`;
  expect(Object.keys(paths).length).toBeGreaterThan(30);
  for (const [name, path] of Object.entries(paths)) expect([name, path]).toEqual([name, (mdi as Record<string, string>)[ofName(name)]]); // prettier-ignore
});
