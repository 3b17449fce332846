import type { MidiInPort, MidiOutPort, MidiPorts } from '../ports';
import { BenchDevice } from './benchDevice';
import { ClockSource } from './clockSource';

/** The stand-ins that ship with the app: devices to play from the screen, and to test with. */
export class Bench implements MidiPorts {
  readonly pads = new BenchDevice('Simulated pads', { input: true, output: true });
  readonly grid = new BenchDevice('Simulated grid', { input: true, output: true });
  readonly knobs = new BenchDevice('Simulated knobs', { input: true, output: true });
  readonly keyboard = new BenchDevice('Simulated keyboard', { input: true, output: false });
  readonly clock = new BenchDevice('Simulated clock', { input: true, output: false });
  readonly module = new BenchDevice('Simulated module', { input: false, output: true });
  readonly clockSource = new ClockSource(this.clock);
  readonly all: readonly BenchDevice[] = [this.pads, this.grid, this.knobs, this.keyboard, this.clock, this.module];

  /** None of them was ever plugged in. */
  isNew = true;

  plugAll(): void {
    this.isNew = false;
    for (const device of this.all) device.plug();
  }

  get inputs(): readonly MidiInPort[] {
    return this.all.flatMap(({ input }) => input ?? []);
  }

  get outputs(): readonly MidiOutPort[] {
    return this.all.flatMap(({ output }) => output ?? []);
  }

  /** Calls back when a stand-in was plugged in or out. */
  onChange(listener: () => void): () => void {
    const ends = this.all.map((device) => {
      let was = device.isPlugged;
      return device.onChange(() => {
        if (device.isPlugged === was) return;
        was = device.isPlugged;
        listener();
      });
    });
    return () => ends.forEach((end) => end());
  }
}
