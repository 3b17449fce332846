import type { Browser } from 'playwright-core';

/** One quantum of the audio thread as Chromium traced it. */
export interface Quantum {
  /** What the thread worked for it, messages that it waited for among it: processor time, ms. */
  work: number;
  /** From when it was asked for, or the one before it was ready, to its end, ms: with what the machine did meanwhile. */
  wall: number;
}

/** Of Chromium's trace events: `ts` in µs, `dur` by the wall clock and `tdur` of the thread's processor time, µs. */
interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  ts: number;
  dur: number;
  tdur?: number;
  /** Of the two ends of a flow. */
  id?: string;
  args?: { src_func?: string };
}

/** The thread's processor time of an event, ms. The kernel counts it in steps: it may come out longer than the event was. */
const workOf = ({ dur, tdur = dur }: TraceEvent) => Math.min(dur, tdur) / 1000;

const PROCESS = 'AudioWorkletProcessor::Process';
const TASK = 'ThreadControllerImpl::RunTask';
/** A flow from where a task was posted to where it ran. */
const POSTED = 'SequenceManager PostTask';

/** Quanta that `act` lets the audio thread render, in their order, by Chromium's own trace. */
export async function traceQuanta(browser: Browser, act: () => Promise<void>): Promise<Quantum[]> {
  const session = await browser.newBrowserCDPSession();
  const events: TraceEvent[] = [];
  session.on('Tracing.dataCollected', ({ value }) => {
    for (const event of value as unknown as TraceEvent[]) events.push(event);
  });
  await session.send('Tracing.start', {
    traceConfig: { includedCategories: ['disabled-by-default-audio-worklet', 'toplevel', 'toplevel.flow'] },
  });
  await act();
  const complete = new Promise((done) => session.once('Tracing.tracingComplete', done));
  await session.send('Tracing.end');
  await complete;
  await session.detach();
  // A flow ends at the very time at which its task begins: the task first.
  return quantaOf(events.sort((a, b) => a.ts - b.ts || Number(a.ph === 'f') - Number(b.ph === 'f')));
}

/** @param events in order of their time */
function quantaOf(events: readonly TraceEvent[]): Quantum[] {
  const first = events.find(({ name, ph }) => name === PROCESS && ph === 'X');
  if (!first) throw new Error('Chromium traced no quantum of an audio worklet.');
  const posted = new Map<string, number>();
  const quanta: Quantum[] = [];
  /** Tasks since the last quanta that rendered none: messages, and the browser's own work. */
  let others: TraceEvent[] = [];
  /** The task that renders, until its first quantum has been met, and when it was posted. */
  let rendering: { posted: number | null } | null = null;
  /** Until when, µs, the thread rendered. */
  let ready = first.ts;
  for (const event of events) {
    if (event.pid !== first.pid) continue;
    if (event.name === POSTED && event.ph === 's') posted.set(event.id!, event.ts);
    if (event.tid !== first.tid || event.ts < first.ts) continue;
    if (event.name === TASK && event.ph === 'X') {
      if (event.args?.src_func === 'Render') rendering = { posted: null };
      else others.push(event);
    } else if (event.name === POSTED && event.ph === 'f') {
      if (rendering) rendering.posted = posted.get(event.id!) ?? null;
    } else if (event.name === PROCESS && event.ph === 'X') {
      // Where the trace does not say, all since the last quanta counts.
      const asked = rendering?.posted ?? ready;
      const delay = rendering ? others.reduce((sum, other) => sum + workAfter(other, asked), 0) : 0;
      if (rendering) others = [];
      rendering = null;
      const end = event.ts + event.dur;
      quanta.push({ work: delay + workOf(event), wall: (end - asked) / 1000 });
      ready = end;
    }
  }
  return quanta;
}

/** What a task worked after a quantum had been asked for, ms: before that it kept nothing waiting. */
function workAfter(task: TraceEvent, asked: number): number {
  return Math.max(0, Math.min(workOf(task), (task.ts + task.dur - asked) / 1000));
}
