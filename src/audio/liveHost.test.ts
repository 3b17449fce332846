import type { Instruction } from '@/core/protocol/commands';
import { EventQueue, type EngineEvent } from '@/core/protocol/events';
import { LiveHost, type HostState } from './liveHost';

/** What LiveHost uses of the Web Audio API, as the browser would hold it. */
class FakeContext {
  static made: FakeContext[] = [];
  static deviceRate = 48000;
  static missing = false;
  readonly sampleRate: number;
  state: AudioContextState = 'suspended';
  closed = false;
  currentTime = 0;
  outputLatency = 0;
  baseLatency = 0;
  stamp = { contextTime: 0, performanceTime: 0 };
  onstatechange: (() => void) | null = null;
  readonly destination = {};
  readonly audioWorklet = {
    addModule: async () => {
      if (FakeContext.missing) throw new Error('no such module');
    },
  };

  constructor({ sampleRate }: AudioContextOptions) {
    this.sampleRate = sampleRate ?? FakeContext.deviceRate;
    FakeContext.made.push(this);
  }

  getOutputTimestamp() {
    return this.stamp;
  }

  async close() {
    this.closed = true;
  }

  async resume() {
    this.change('running');
  }

  change(state: AudioContextState) {
    this.state = state;
    this.onstatechange?.();
  }
}

class FakeNode {
  static last: FakeNode;
  readonly port = {
    posted: [] as { message: unknown; transfer: ArrayBuffer[] }[],
    onmessage: null as ((event: { data: unknown }) => void) | null,
    postMessage(message: unknown, transfer: ArrayBuffer[]) {
      this.posted.push({ message, transfer });
    },
  };
  onprocessorerror: (() => void) | null = null;
  readonly connect = jest.fn();

  constructor() {
    FakeNode.last = this;
  }
}

beforeEach(() => {
  FakeContext.made = [];
  FakeContext.deviceRate = 48000;
  FakeContext.missing = false;
  Object.assign(globalThis, {
    AudioContext: FakeContext,
    AudioWorkletNode: FakeNode,
    window: { isSecureContext: true },
  });
});
afterEach(() => jest.restoreAllMocks());

/** A host that could not start, with all it told. */
async function startedWithout() {
  const states: [HostState, string | undefined][] = [];
  await new LiveHost((...state) => states.push(state as [HostState, string | undefined]), jest.fn()).start();
  return { states };
}

/** A host that has started, with all it told. */
async function started() {
  const states: [HostState, string | undefined][] = [];
  const events: EngineEvent[] = [];
  const host = new LiveHost((...state) => states.push(state as [HostState, string | undefined]), (more) => events.push(...more)); // prettier-ignore
  await host.start();
  const context = FakeContext.made[FakeContext.made.length - 1]!;
  return { host, context, states, events, node: FakeNode.last };
}

test('it is locked until the page is touched, then runs, and is locked again when the browser interrupts it', async () => {
  const { host, context, states, node } = await started();
  expect(host.state).toBe('locked');
  expect(node.connect).toHaveBeenCalledWith(context.destination);
  host.unlock();
  context.change('suspended');
  expect(states.map(([state]) => state)).toEqual(['locked', 'running', 'locked']);
});

test('what cannot start, or stops, says so', async () => {
  FakeContext.missing = true;
  const failed = await started();
  expect(failed.states).toEqual([['failed', 'This browser could not start the sound engine (no such module).']]);
  FakeContext.missing = false;
  const { states, node } = await started();
  node.onprocessorerror!();
  expect(states[1]).toEqual(['failed', 'The sound engine stopped.']);
});

test('begun anew, it has another context and node; the old ones say nothing any more', async () => {
  const { host, context, node, states } = await started();
  context.change('running');
  node.onprocessorerror!();
  context.change('suspended');
  expect(host.state).toBe('failed');
  await host.restart();
  expect(context.closed).toBe(true);
  const [, again] = FakeContext.made;
  expect(again).not.toBe(context);
  expect(FakeNode.last).not.toBe(node);
  expect(host.state).toBe('running');
  context.change('closed');
  expect(host.state).toBe('running');
  again!.change('closed');
  expect(states.at(-1)).toEqual(['failed', 'The browser has closed the sound.']);
});

test('an engine that was loaded and never answers is told of; one that answers late, since the page was blocked, is not', async () => {
  for (const answers of [true, false]) {
    const { host, states } = await started();
    FakeContext.made.at(-1)!.change('running');
    jest.useFakeTimers();
    host.send({ type: 'play', startTick: 0, countInTicks: 0 });
    jest.advanceTimersByTime(5000);
    if (answers) FakeNode.last.port.onmessage!({ data: { origin: 0, events: new Float64Array(0) } });
    jest.advanceTimersByTime(1000);
    jest.useRealTimers();
    expect(states.at(-1)![0]).toBe(answers ? 'running' : 'failed');
  }
});

test('a page that came over plain http says why there is no sound, and where there is', async () => {
  Object.assign(globalThis, { window: { isSecureContext: false } });
  const { states } = await startedWithout();
  expect(states).toEqual([['failed', expect.stringContaining('https')]]);
});

test.each([
  [44100, 44100],
  [48000, 48000],
  [96000, 48000],
  [192000, 48000],
])('on a device of %i Hz the engine runs at %i', async (device, rate) => {
  FakeContext.deviceRate = device;
  const { host, context } = await started();
  expect([host.sampleRate, context.closed]).toEqual([rate, false]);
  expect(FakeContext.made.filter((one) => !one.closed)).toEqual([context]);
});

test('arrays are given away, each once, and nothing is posted for nothing or before there is an engine', async () => {
  const hits = new Float64Array(12);
  const pattern = (slot: number): Instruction => ({ type: 'pattern', track: 0, slot, revision: 1, length: 3840, seen: 0, hits, feels: null }); // prettier-ignore
  new LiveHost(jest.fn(), jest.fn()).send({ type: 'stop' });
  const { host, node } = await started();
  host.sendAll([]);
  const instructions = () => node.port.posted.filter(({ message }) => 'instructions' in (message as object));
  expect(instructions()).toEqual([]);
  host.sendAll([pattern(0), pattern(1)]);
  expect(instructions()).toEqual([{ message: { instructions: [pattern(0), pattern(1)] }, transfer: [hits.buffer] }]);
});

test('events are told with the frames of the engine, whose first one the message names', async () => {
  const { host, events, node, context } = await started();
  const queue = new EventQueue();
  queue.add('state', 2048).voices = 3;
  node.port.onmessage!({ data: { events: queue.drain(), origin: 960, log: [] } });
  expect(events).toEqual([expect.objectContaining({ kind: 'state', frame: 2048, voices: 3 })]);
  context.currentTime = 1;
  expect(host.frameHeard(0)).toBe(48000);
  expect(host.engineFrameHeard(0)).toBe(48000 - 960);
});

describe('what was heard at a moment', () => {
  const now = (ms: number) => jest.spyOn(performance, 'now').mockReturnValue(ms);

  test('follows the browser’s pairs of its two clocks', async () => {
    const { host, context } = await started();
    context.change('running');
    now(5000);
    context.currentTime = 2.03;
    context.stamp = { contextTime: 2, performanceTime: 5000 };
    expect(host.frameHeard(5000)).toBeCloseTo(96000, 6);
    expect(host.frameHeard(4990)).toBeCloseTo(96000 - 480, 6);
  });

  test('a pair that cannot be is not believed: sound heard before it is rendered, or long after', async () => {
    const { host, context } = await started();
    context.change('running');
    now(5000);
    context.currentTime = 2.03;
    context.stamp = { contextTime: 2, performanceTime: 5000 };
    host.frameHeard(5000);
    context.stamp = { contextTime: 2.5, performanceTime: 5000 };
    expect(host.frameHeard(5000)).toBeCloseTo(96000, 6);
    context.stamp = { contextTime: 0.5, performanceTime: 5000 };
    expect(host.frameHeard(5000)).toBeCloseTo(96000, 6);
  });

  test('where the browser gives no pairs, its output latency is taken away', async () => {
    const { host, context } = await started();
    context.change('running');
    now(5000);
    context.currentTime = 2;
    context.outputLatency = 0.05;
    expect(host.frameHeard(5000)).toBeCloseTo(1.95 * 48000, 6);
    expect(host.frameHeard(5010)).toBeCloseTo(1.96 * 48000, 6);
  });
});
