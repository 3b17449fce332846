import fc from 'fast-check';
import { FUNCTION_NAMES, readTarget, targetKey, type Target } from '@/core/midi/target';
import { bind, codeOf, DEFAULT_KEYS, isCharacterKey, padTarget, readKeys, targetOf, unbind, whyNotKey } from './keyBindings'; // prettier-ignore

const codes = ['KeyA', 'KeyZ', 'KeyT', 'KeyP', 'Digit0', 'Digit7', 'Semicolon', 'Comma'];
const target: fc.Arbitrary<Target> = fc.oneof(
  fc.nat({ max: 15 }).map(padTarget),
  fc.constantFrom(...FUNCTION_NAMES.flatMap((name) => readTarget({ do: name }) ?? [])),
  fc.record({ row: fc.nat({ max: 15 }), slot: fc.nat({ max: 255 }) }).map((of): Target => ({ do: 'card', ...of })),
);

test('however keys are given and taken, no two functions share one, and they are read again as they were stored', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(target, fc.option(fc.constantFrom(...codes)))), (changes) => {
      const keys = changes.reduce((now, [to, code]) => (code ? bind(now, to, code) : unbind(now, to)), DEFAULT_KEYS);
      const all = Object.values(keys.codes);
      expect(new Set(all).size).toBe(all.length);
      expect(readKeys(JSON.parse(JSON.stringify(keys)) as never)).toEqual(keys);
      const last = changes.at(-1);
      if (last?.[1]) expect(targetKey(targetOf(keys, last[1])!)).toEqual(targetKey(last[0]));
    }),
  );
});

test('two functions change keys; one that had none takes the key', () => {
  const keys = bind(DEFAULT_KEYS, { do: 'tap' }, 'KeyM');
  expect([codeOf(keys, { do: 'tap' }), codeOf(keys, { do: 'metronome' })]).toEqual(['KeyM', 'KeyT']);
  const taken = bind(DEFAULT_KEYS, { do: 'undo' }, 'KeyM');
  expect([codeOf(taken, { do: 'undo' }), codeOf(taken, { do: 'metronome' })]).toEqual(['KeyM', undefined]);
});

test('keys of the browser, the focus and the transport are not to be had, and it is said why', () => {
  for (const code of ['Space', 'Enter', 'Escape', 'Tab', 'F5', 'ArrowUp', 'Home', 'ShiftLeft', 'Backspace', 'Delete']) {
    expect(isCharacterKey(code)).toBe(false);
    expect(whyNotKey(code)).toMatch(/browser|transport/);
  }
  expect(whyNotKey('F5')).toMatch(/loads the page anew/);
});

test('stored keys of which two are alike, or one is none, are left', () => {
  const codesWith = (more: Record<string, string>) => ({ ...DEFAULT_KEYS, codes: { ...DEFAULT_KEYS.codes, ...more } });
  expect(readKeys({ ...codesWith({ tap: 'KeyM' }), on: false })).toEqual({ ...DEFAULT_KEYS, on: false });
  expect(readKeys(codesWith({ tap: 'Space' }))).toEqual(DEFAULT_KEYS);
  expect(readKeys(codesWith({ 'launch the moon': 'KeyP' }))).toEqual(DEFAULT_KEYS);
  expect(readKeys(null)).toEqual(DEFAULT_KEYS);
});

test('keys that were stored by pads and shortcuts are the same keys', () => {
  const pads = Array.from({ length: 16 }, (_, pad) => codeOf(DEFAULT_KEYS, padTarget(pad))!);
  const names = ['tap', 'metronome', 'quantize', 'halveLoop', 'doubleLoop', 'trackBefore', 'trackAfter', 'lift', 'override', 'stopAll']; // prettier-ignore
  const shortcuts = Object.fromEntries(names.map((name) => [name, DEFAULT_KEYS.codes[name]!]));
  // What came later has no key there.
  const { sustain: _, ...codes } = DEFAULT_KEYS.codes;
  expect(readKeys({ on: true, pads, shortcuts: { ...shortcuts, tap: 'KeyP' } } as never)).toEqual(
    bind({ on: true, codes }, { do: 'tap' }, 'KeyP'),
  );
});
