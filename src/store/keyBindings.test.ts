import fc from 'fast-check';
import { bind, DEFAULT_KEYS, isCharacterKey, readKeys, SHORTCUT_NAMES, targetOf, type KeyTarget } from './keyBindings';

const codes = ['KeyA', 'KeyZ', 'KeyT', 'KeyP', 'Digit0', 'Digit7', 'Semicolon', 'Comma'];
const target: fc.Arbitrary<KeyTarget> = fc.oneof(
  fc.nat({ max: 15 }).map((pad) => ({ pad })),
  fc.constantFrom(...SHORTCUT_NAMES).map((shortcut) => ({ shortcut })),
);

test('however keys are given, each target has one of its own, and it is read again as it was stored', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(target, fc.constantFrom(...codes))), (changes) => {
      const keys = changes.reduce((now, [to, code]) => bind(now, to, code), DEFAULT_KEYS);
      const all = [...keys.pads, ...Object.values(keys.shortcuts)];
      expect(new Set(all).size).toBe(16 + SHORTCUT_NAMES.length);
      expect(readKeys(JSON.parse(JSON.stringify(keys)) as never)).toEqual(keys);
      const last = changes.at(-1);
      if (last) expect(targetOf(keys, last[1])).toEqual(last[0]);
    }),
  );
});

test('two targets change keys', () => {
  const keys = bind(DEFAULT_KEYS, { shortcut: 'tap' }, 'KeyM');
  expect([keys.shortcuts.tap, keys.shortcuts.metronome]).toEqual(['KeyM', 'KeyT']);
});

test('keys of the browser, the focus and the transport are not to be had', () => {
  for (const code of ['Space', 'Enter', 'Escape', 'Tab', 'F5', 'ArrowUp', 'Home', 'ShiftLeft', 'Backspace', 'Delete']) {
    expect(isCharacterKey(code)).toBe(false);
  }
});

test('stored keys of which two are alike, or one is none, are left', () => {
  const { pads } = DEFAULT_KEYS;
  expect(readKeys({ ...DEFAULT_KEYS, on: false, pads: pads.map(() => 'KeyA') })).toEqual({
    ...DEFAULT_KEYS,
    on: false,
  });
  expect(readKeys({ ...DEFAULT_KEYS, pads: ['Space', ...pads.slice(1)] })).toEqual(DEFAULT_KEYS);
  expect(readKeys(null)).toEqual(DEFAULT_KEYS);
});
