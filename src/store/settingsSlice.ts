import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { type GridName, REPEAT_RATES } from '@/core/quantize/grid';
import { PADS } from '@/core/document/limits';

export type ThemeChoice = 'system' | 'dark' | 'light';

export const WINDOW_TIMES = ['now', 'beat', 'bar'] as const;
export type WindowTime = (typeof WINDOW_TIMES)[number];

/** What strikes are made with: each has a delay of its own. */
export const INPUT_DEVICES = ['touch', 'pen', 'mouse', 'keys'] as const;
export type InputDevice = (typeof INPUT_DEVICES)[number];
export const MOST_CORRECTION_MS = 300;

/** Tempo and click in the head, the tools of Pads, and the value lane of Steps where the screen is low. */
export type Fold = 'time' | 'tools' | 'values';

/** What belongs to this device and its player, not to a set. */
export interface Settings {
  theme: ThemeChoice;
  fixedVelocity: { on: boolean; value: number };
  /** `KeyboardEvent.code` of each pad: places on the keyboard, whatever is printed on them. */
  padKeys: string[];
  /** When a loop window that was moved takes over. */
  windowOn: WindowTime;
  /** Rate of note repeat. */
  repeatRate: GridName;
  /** How much later than it happened a touch is told of, ms: taken off every stroke of the device. */
  latencyMs: Partial<Record<InputDevice, number>>;
  /** What is shown beyond the few keys that every player needs. */
  unfolded: Record<Fold, boolean>;
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
  windowOn: 'now',
  repeatRate: '1/16',
  latencyMs: {},
  unfolded: { time: false, tools: false, values: false },
};

/** Reads stored settings; whatever is not right in them falls back to its default. */
export function readSettings(text: string | null): Settings {
  let stored: Partial<Settings> | null = null;
  try {
    stored = JSON.parse(text ?? 'null') as Partial<Settings> | null;
  } catch {
    // The defaults serve.
  }
  const { theme, fixedVelocity, padKeys, windowOn, repeatRate, latencyMs, unfolded } = stored ?? {};
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
    windowOn: windowOn && WINDOW_TIMES.includes(windowOn) ? windowOn : defaultSettings.windowOn,
    repeatRate: repeatRate && REPEAT_RATES.includes(repeatRate) ? repeatRate : defaultSettings.repeatRate,
    latencyMs: readLatencies(latencyMs),
    unfolded: {
      time: unfolded?.time === true,
      tools: unfolded?.tools === true,
      values: unfolded?.values === true,
    },
  };
}

function readLatencies(stored: unknown): Settings['latencyMs'] {
  const read: Settings['latencyMs'] = {};
  for (const device of INPUT_DEVICES) {
    const ms = (stored as Settings['latencyMs'] | null | undefined)?.[device];
    if (typeof ms === 'number' && Math.abs(ms) <= MOST_CORRECTION_MS) read[device] = ms;
  }
  return read;
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
    windowOnSet(settings, { payload }: PayloadAction<WindowTime>) {
      settings.windowOn = payload;
    },
    repeatRateSet(settings, { payload }: PayloadAction<GridName>) {
      settings.repeatRate = payload;
    },
    latencySet(settings, { payload }: PayloadAction<{ device: InputDevice; ms: number }>) {
      const ms = Math.min(MOST_CORRECTION_MS, Math.max(-MOST_CORRECTION_MS, payload.ms));
      settings.latencyMs[payload.device] = Math.round(ms * 10) / 10;
    },
    foldToggled({ unfolded: open }, { payload }: PayloadAction<Fold>) {
      open[payload] = !open[payload];
    },
    unfolded(settings, { payload }: PayloadAction<Fold>) {
      settings.unfolded[payload] = true;
    },
    fixedVelocitySet(settings, { payload }: PayloadAction<number>) {
      settings.fixedVelocity.value = payload;
    },
  },
});

export const {
  settingsLoaded,
  themeSet,
  fixedVelocityToggled,
  fixedVelocitySet,
  windowOnSet,
  repeatRateSet,
  latencySet,
  foldToggled,
  unfolded,
} = slice.actions;
export const settingsReducer = slice.reducer;
