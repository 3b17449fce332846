import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { WAV_FORMATS, type WavFormat } from '@/core/formats/wav';
import { type GridName, REPEAT_RATES } from '@/core/quantize/grid';
import type { Target } from '@/core/midi/target';
import { bind, DEFAULT_KEYS, readKeys, unbind, type KeyBindings } from './keyBindings';
import { PADS } from '@/core/document/limits';

export const THEMES = ['dark', 'light', 'contrast', 'system'] as const;
export type ThemeChoice = (typeof THEMES)[number];

export const WINDOW_TIMES = ['now', 'beat', 'bar'] as const;
export type WindowTime = (typeof WINDOW_TIMES)[number];

/** What strikes are made with: each has a delay of its own. */
export const INPUT_DEVICES = ['touch', 'pen', 'mouse', 'keys'] as const;
export type InputDevice = (typeof INPUT_DEVICES)[number];
export const MOST_CORRECTION_MS = 300;

/** How what hands ride while recording is written into Moves (see `Rides`). */
export const RIDES_WRITE = ['touch', 'latch', 'over'] as const;
export type RidesWrite = (typeof RIDES_WRITE)[number];

/** Tempo and click in the head, the tools of Pads, the value lane of Steps where the screen is low, and there the notes between those of a scale. */
export type Fold = 'time' | 'tools' | 'values' | 'notes';

/** The places of the screen. */
export const PLACES = ['pads', 'steps', 'launch', 'sounds', 'runs', 'sets'] as const;
export type Place = (typeof PLACES)[number];
/** Two places stand beside each other on a wide screen, one below the other on a tablet held upright. */
export type PanesWay = 'beside' | 'stacked';
type SecondPanes = Record<Place, Place | null>;

/** What belongs to this device and its player, not to a set. */
export interface Settings {
  theme: ThemeChoice;
  fixedVelocity: { on: boolean; value: number };
  keys: KeyBindings;
  /** When a loop window that was moved takes over. */
  windowOn: WindowTime;
  /** Rate of note repeat. */
  repeatRate: GridName;
  ridesWrite: RidesWrite;
  /** How much later than it happened a touch is told of, ms: taken off every stroke of the device. */
  latencyMs: Partial<Record<InputDevice, number>>;
  /** What is shown beyond the few keys that every player needs. */
  unfolded: Record<Fold, boolean>;
  /** The place that stands together with each place, or null. */
  panes: Record<PanesWay, SecondPanes>;
  /** How files of sound are made. */
  carry: CarrySettings;
  /** The start page was left once: the app opens with the pads from then on. */
  started: boolean;
  /** The view with a few large pads and nothing else. */
  simple: SimpleView;
}

export interface CarrySettings {
  wav: WavFormat;
  /** What rings on after the stretch is a part of the file. */
  tail: boolean;
}

export interface SimpleView {
  on: boolean;
  /** Leaving it takes a hold of two seconds, so that nobody leaves it unawares. */
  pinned: boolean;
  /** Its pads, 0..15, in order of the board. */
  pads: readonly number[];
}

/** How many pads the simple view has. */
export const SIMPLE_PADS = { least: 4, most: 8 } as const;

export const defaultSettings: Settings = {
  theme: 'dark',
  fixedVelocity: { on: false, value: 0.8 },
  keys: DEFAULT_KEYS,
  windowOn: 'now',
  repeatRate: '1/16',
  ridesWrite: 'touch',
  latencyMs: {},
  unfolded: { time: false, tools: false, values: false, notes: false },
  panes: {
    beside: { pads: 'steps', steps: null, launch: null, sounds: null, runs: null, sets: null },
    stacked: { pads: null, steps: null, launch: null, sounds: null, runs: null, sets: null },
  },
  carry: { wav: 'pcm24', tail: true },
  started: false,
  // Kick, snare, closed and open hat of a kit.
  simple: { on: false, pinned: false, pads: [0, 2, 4, 6] },
};

/** Reads stored settings; whatever is not right in them falls back to its default. */
export function readSettings(text: string | null): Settings {
  let stored: Partial<Settings> | null = null;
  try {
    stored = JSON.parse(text ?? 'null') as Partial<Settings> | null;
  } catch {
    // The defaults serve.
  }
  const {
    theme,
    fixedVelocity,
    keys,
    windowOn,
    repeatRate,
    ridesWrite,
    latencyMs,
    unfolded,
    panes,
    carry,
    started,
    simple,
  } = stored ?? {};
  const value = fixedVelocity?.value;
  return {
    theme: theme && THEMES.includes(theme) ? theme : defaultSettings.theme,
    fixedVelocity: {
      on: fixedVelocity?.on === true,
      value: typeof value === 'number' && value > 0 && value <= 1 ? value : defaultSettings.fixedVelocity.value,
    },
    keys: readKeys(keys),
    windowOn: windowOn && WINDOW_TIMES.includes(windowOn) ? windowOn : defaultSettings.windowOn,
    repeatRate: repeatRate && REPEAT_RATES.includes(repeatRate) ? repeatRate : defaultSettings.repeatRate,
    ridesWrite: ridesWrite && RIDES_WRITE.includes(ridesWrite) ? ridesWrite : defaultSettings.ridesWrite,
    latencyMs: readLatencies(latencyMs),
    unfolded: {
      time: unfolded?.time === true,
      tools: unfolded?.tools === true,
      values: unfolded?.values === true,
      notes: unfolded?.notes === true,
    },
    panes: { beside: readPanes('beside', panes?.beside), stacked: readPanes('stacked', panes?.stacked) },
    carry: {
      wav: carry?.wav && WAV_FORMATS.includes(carry.wav) ? carry.wav : defaultSettings.carry.wav,
      tail: carry?.tail !== false,
    },
    // Settings that are older than the start page belong to somebody who has begun.
    started: stored !== null && started !== false,
    simple: readSimple(simple),
  };
}

function readPanes(way: PanesWay, stored: Partial<SecondPanes> | undefined): SecondPanes {
  const read = { ...defaultSettings.panes[way] };
  for (const place of PLACES) {
    const second = stored?.[place];
    if (second === null || (second !== undefined && second !== place && PLACES.includes(second))) read[place] = second;
  }
  return read;
}

function readSimple(stored: Partial<SimpleView> | undefined): SimpleView {
  const { pads } = stored ?? {};
  const right =
    Array.isArray(pads) &&
    pads.length >= SIMPLE_PADS.least &&
    pads.length <= SIMPLE_PADS.most &&
    pads.every((pad, i) => Number.isInteger(pad) && pad >= 0 && pad < PADS && (i === 0 || pad > pads[i - 1]!));
  return {
    on: stored?.on === true,
    pinned: stored?.pinned === true,
    pads: right ? pads : defaultSettings.simple.pads,
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
    ridesWriteSet(settings, { payload }: PayloadAction<RidesWrite>) {
      settings.ridesWrite = payload;
    },
    latencySet(settings, { payload }: PayloadAction<{ device: InputDevice; ms: number }>) {
      const ms = Math.min(MOST_CORRECTION_MS, Math.max(-MOST_CORRECTION_MS, payload.ms));
      settings.latencyMs[payload.device] = Math.round(ms * 10) / 10;
    },
    foldToggled({ unfolded: open }, { payload }: PayloadAction<Fold>) {
      open[payload] = !open[payload];
    },
    foldSet(settings, { payload }: PayloadAction<{ fold: Fold; open: boolean }>) {
      settings.unfolded[payload.fold] = payload.open;
    },
    keysSwitched({ keys }, { payload }: PayloadAction<boolean>) {
      keys.on = payload;
    },
    keyBound(settings, { payload }: PayloadAction<{ target: Target; code: string }>) {
      settings.keys = bind(settings.keys, payload.target, payload.code);
    },
    keyUnbound(settings, { payload }: PayloadAction<Target>) {
      settings.keys = unbind(settings.keys, payload);
    },
    keysReset(settings) {
      settings.keys = DEFAULT_KEYS;
    },
    paneChosen({ panes }, { payload }: PayloadAction<{ panes: PanesWay; here: Place; second: Place | null }>) {
      panes[payload.panes][payload.here] = payload.second;
    },
    carrySet({ carry }, { payload }: PayloadAction<Partial<CarrySettings>>) {
      Object.assign(carry, payload);
    },
    started(settings) {
      settings.started = true;
    },
    simpleViewSet({ simple }, { payload }: PayloadAction<Partial<Omit<SimpleView, 'pads'>>>) {
      Object.assign(simple, payload);
    },
    /** Takes a pad into the simple view, or out of it, as long as it keeps four to eight. */
    simplePadToggled({ simple }, { payload }: PayloadAction<number>) {
      const without = simple.pads.filter((pad) => pad !== payload);
      const pads = without.length < simple.pads.length ? without : [...simple.pads, payload].sort((a, b) => a - b);
      if (pads.length >= SIMPLE_PADS.least && pads.length <= SIMPLE_PADS.most) simple.pads = pads;
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
  ridesWriteSet,
  latencySet,
  foldToggled,
  foldSet,
  keysSwitched,
  keyBound,
  keyUnbound,
  keysReset,
  paneChosen,
  carrySet,
  started,
  simpleViewSet,
  simplePadToggled,
} = slice.actions;
export const settingsReducer = slice.reducer;
