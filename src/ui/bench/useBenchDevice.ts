import { useSyncExternalStore } from 'react';
import type { BenchDevice } from '@/midi/bench/benchDevice';

/** Subscribes to a value of a stand-in. `select` must return a string, a number or a boolean. */
export function useBenchDevice<T extends string | number | boolean>(device: BenchDevice, select: () => T): T {
  return useSyncExternalStore((listener) => device.onChange(listener), select);
}
