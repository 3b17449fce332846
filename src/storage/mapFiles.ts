import { saveAs } from 'file-saver';
import { readDeviceFile, writeDevice, type Device } from '@/core/midi/device';
import { deviceSet } from '@/store/devicesSlice';
import { noticed } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import { safeFileName } from './exportFiles';
import { pickFile } from './pickFile';

/** Saves a device's settings and map as a file that people can read. */
export function exportMap(store: Store, device: Device): void {
  const name = `${safeFileName(device.name)}.controller.json`;
  saveAs(new Blob([writeDevice(device)], { type: 'application/json' }), name);
  store.dispatch(noticed(`Saved ${name}.`));
}

/** Lets the player choose the file of a map, for a device that is known by a name. */
export function chooseMap(store: Store, name: string): void {
  pickFile('.json,application/json', (file) => {
    void file.text().then((text) => bringInMap(store, name, file.name, text));
  });
}

/** Takes a map over for a device, whatever device it was made with. What of it cannot be used is left out, and said. */
export function bringInMap(store: Store, name: string, fileName: string, text: string): void {
  try {
    const { device, problems } = readDeviceFile(text);
    const { name: _, ...change } = device;
    store.dispatch(deviceSet({ name, change }));
    const left = problems.length > 0 ? ` ${problems.length} lines were left out: ${problems[0]}.` : '';
    store.dispatch(noticed(`${name} has the map of “${fileName}”: ${device.bindings.length} controls.${left}`));
  } catch (error) {
    store.dispatch(noticed(`“${fileName}”: ${(error as Error).message}`));
  }
}
