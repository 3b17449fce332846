import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { bindingKey, withBinding, type Binding } from '@/core/midi/binding';
import { MOST_BINDINGS, MOST_DEVICES, newDevice, readDevice, type Device } from '@/core/midi/device';

/** The controllers of this device and its player: they belong to no set, and nothing of them is undone. */
export interface Devices {
  /** The player has let the browser be asked for controllers. */
  wanted: boolean;
  /** All that were ever met, by name; the one met last at the end. */
  known: Device[];
}

interface OfDevice {
  name: string;
}

/** Reads stored devices; what is not right in them is left out. */
export function readDevices(text: string | null): Devices {
  try {
    const stored = JSON.parse(text ?? 'null') as Partial<Devices> | null;
    const known = (Array.isArray(stored?.known) ? stored.known : []).flatMap(
      (plain) => readDevice(plain)?.device ?? [],
    );
    return { wanted: stored?.wanted === true, known: known.slice(-MOST_DEVICES) };
  } catch {
    return { wanted: false, known: [] };
  }
}

const slice = createSlice({
  name: 'devices',
  initialState: { wanted: false, known: [] } as Devices,
  reducers: {
    devicesLoaded: (_, { payload }: PayloadAction<Devices>) => payload,
    devicesWanted(devices, { payload }: PayloadAction<boolean>) {
      devices.wanted = payload;
    },
    /** A device is there for the first time. */
    deviceMet({ known }, { payload: name }: PayloadAction<string>) {
      if (known.some((device) => device.name === name)) return;
      known.push(newDevice(name));
      if (known.length > MOST_DEVICES) known.shift();
    },
    deviceSet({ known }, { payload }: PayloadAction<OfDevice & { change: Partial<Omit<Device, 'name'>> }>) {
      const device = known.find(({ name }) => name === payload.name);
      if (device) Object.assign(device, payload.change);
    },
    /** The song follows the clock of one device, or of none. */
    clockFollowed({ known }, { payload: name }: PayloadAction<string | null>) {
      for (const device of known) device.followed = device.name === name;
    },
    /** A device is as if it had never been met. */
    deviceForgotten(devices, { payload: name }: PayloadAction<string>) {
      devices.known = devices.known.filter((device) => device.name !== name);
    },
    /** A control works a function, in the way of the binding; the same one is changed. */
    bound({ known }, { payload }: PayloadAction<OfDevice & { binding: Binding }>) {
      const device = known.find(({ name }) => name === payload.name);
      if (!device) return;
      const bindings = withBinding(device.bindings, payload.binding);
      if (bindings.length <= MOST_BINDINGS) device.bindings = bindings;
    },
    unbound({ known }, { payload }: PayloadAction<OfDevice & { key: string }>) {
      const device = known.find(({ name }) => name === payload.name);
      if (device) device.bindings = device.bindings.filter((binding) => bindingKey(binding) !== payload.key);
    },
  },
});

export const { devicesLoaded, devicesWanted, deviceMet, deviceSet, clockFollowed, deviceForgotten, bound, unbound } =
  slice.actions;
export const devicesReducer = slice.reducer;
