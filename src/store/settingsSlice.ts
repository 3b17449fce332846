import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { PADS } from '@/core/model/set';

export type ThemeChoice = 'system' | 'dark' | 'light';

/** What belongs to this device and its player, not to a set. */
export interface Settings {
  theme: ThemeChoice;
  fixedVelocity: { on: boolean; value: number };
  /** `KeyboardEvent.code` of each pad: places on the keyboard, whatever is printed on them. */
  padKeys: string[];
}

/** Four rows of four keys that lie as the pads do. */
export const DEFAULT_PAD_KEYS = [
  ...['KeyZ', 'KeyX', 'KeyC', 'KeyV'],
  ...['KeyA', 'KeyS', 'KeyD', 'KeyF'],
  ...['KeyQ', 'KeyW', 'KeyE', 'KeyR'],
  ...['Digit1', 'Digit2', 'Digit3', 'Digit4'],
];

export const defaultSettings: Settings = {
  theme: 'dark',
  fixedVelocity: { on: false, value: 0.8 },
  padKeys: DEFAULT_PAD_KEYS,
};

/** Reads stored settings; whatever is not right in them falls back to its default. */
export function readSettings(text: string | null): Settings {
  let stored: Partial<Settings> | null = null;
  try {
    stored = JSON.parse(text ?? 'null') as Partial<Settings> | null;
  } catch {
    // The defaults serve.
  }
  const { theme, fixedVelocity, padKeys } = stored ?? {};
  const value = fixedVelocity?.value;
  return {
    theme: theme === 'system' || theme === 'light' ? theme : 'dark',
    fixedVelocity: {
      on: fixedVelocity?.on === true,
      value: typeof value === 'number' && value > 0 && value <= 1 ? value : defaultSettings.fixedVelocity.value,
    },
    padKeys:
      Array.isArray(padKeys) && padKeys.length === PADS && padKeys.every((k) => typeof k === 'string')
        ? padKeys
        : DEFAULT_PAD_KEYS,
  };
}

const slice = createSlice({
  name: 'settings',
  initialState: defaultSettings,
  reducers: {
    settingsLoaded: (_, { payload }: PayloadAction<Settings>) => payload,
    themeSet(settings, { payload }: PayloadAction<ThemeChoice>) {
      settings.theme = payload;
    },
    fixedVelocityToggled(settings) {
      settings.fixedVelocity.on = !settings.fixedVelocity.on;
    },
    fixedVelocitySet(settings, { payload }: PayloadAction<number>) {
      settings.fixedVelocity.value = payload;
    },
  },
});

export const { settingsLoaded, themeSet, fixedVelocityToggled, fixedVelocitySet } = slice.actions;
export const settingsReducer = slice.reducer;
