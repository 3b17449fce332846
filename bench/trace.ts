import type { Browser } from 'playwright-core';

/** One quantum of the audio thread as Chromium traced it. */
export interface Quantum {
  /** What the thread worked for it, messages that came before it among it: processor time, ms. */
  work: number;
  /** From its beginning to its end by the wall clock, ms: with what the machine did meanwhile. */
  wall: number;
}

/** Of Chromium's trace events: `dur` by the wall clock and `tdur` of the thread's processor time, µs. */
interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  ts: number;
  dur: number;
  tdur?: number;
}

/** The thread's processor time of an event, ms. The kernel counts it in steps: it may come out longer than the event was. */
const workOf = ({ dur, tdur = dur }: TraceEvent) => Math.min(dur, tdur) / 1000;

const PROCESS = 'AudioWorkletProcessor::Process';
const TASK = 'ThreadControllerImpl::RunTask';

/** Quanta that `act` lets the audio thread render, in their order, by Chromium's own trace. */
export async function traceQuanta(browser: Browser, act: () => Promise<void>): Promise<Quantum[]> {
  const session = await browser.newBrowserCDPSession();
  const events: TraceEvent[] = [];
  session.on('Tracing.dataCollected', ({ value }) => events.push(...(value as unknown as TraceEvent[])));
  await session.send('Tracing.start', {
    traceConfig: { includedCategories: ['disabled-by-default-audio-worklet', 'toplevel'] },
  });
  await act();
  const complete = new Promise((done) => session.once('Tracing.tracingComplete', done));
  await session.send('Tracing.end');
  await complete;
  await session.detach();
  return quantaOf(events);
}

function quantaOf(events: readonly TraceEvent[]): Quantum[] {
  const whole = events.filter(({ ph }) => ph === 'X').sort((a, b) => a.ts - b.ts);
  const first = whole.find(({ name }) => name === PROCESS);
  if (!first) throw new Error('Chromium traced no quantum of an audio worklet.');
  const quanta: Quantum[] = [];
  let messages = { work: 0, wall: 0 };
  let task: TraceEvent | null = null;
  let renders = false;
  // A task that renders no quantum is a message: it delays the quantum that follows it.
  const endTask = () => {
    if (task && !renders) {
      messages.work += workOf(task);
      messages.wall += task.dur / 1000;
    }
    task = null;
  };
  for (const event of whole) {
    if (event.tid !== first.tid || event.pid !== first.pid || event.ts < first.ts) continue;
    if (event.name === TASK) {
      endTask();
      task = event;
      renders = false;
    } else if (event.name === PROCESS) {
      if (task && event.ts < task.ts + task.dur) renders = true;
      else endTask();
      quanta.push({ work: messages.work + workOf(event), wall: messages.wall + event.dur / 1000 });
      messages = { work: 0, wall: 0 };
    }
  }
  return quanta;
}
