import { demoSet } from '@/core/document/demo';
import type { OpenSet } from '@/core/document/set';
import { Bench } from '@/midi/bench/bench';
import { setLoaded } from '@/store/openSlice';
import { createStore } from '@/store/store';
import { HostInNode } from '../engineHost.testing';
import { Instrument } from '../instrument';
import { Controllers } from './controllers';

/**
 * For tests: the instrument with the stand-ins plugged in, and the engine run by hand. There is one clock: `performance.now()` is the
 * engine's frame, so a "ms" is a frame, unless more frames than one are asked for in it.
 */
export async function controllerRig(open: OpenSet = demoSet(), framesPerUnit = 1) {
  const store = createStore();
  store.dispatch(setLoaded(open));
  const host = new HostInNode();
  host.framesPerUnit = framesPerUnit;
  const now = jest.spyOn(performance, 'now').mockImplementation(() => host.engine.frame / framesPerUnit);
  const instrument = new Instrument(store, host.make);
  const controllers = new Controllers(store, instrument, () => true);
  const bench = new Bench();
  controllers.add(bench);
  await instrument.start();
  bench.plugAll();
  await controllers.follow();
  host.run(256);
  /** Runs on until everything that was told has come round. */
  const settle = () => host.run(1024);
  /** Nothing goes on by itself. */
  const end = () => {
    if (instrument.performance.anchor.playing) instrument.stop();
    settle();
    now.mockRestore();
  };
  return { store, host, instrument, controllers, bench, settle, end };
}

export type ControllerRig = Awaited<ReturnType<typeof controllerRig>>;
