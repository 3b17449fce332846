import type { Browser, Page } from 'playwright-core';
import { row, steal } from '../table';

const DEVICE = 'Pads of the bench';
/** Messages a second of a flood, and for how long it goes on, s. */
const FLOOD = { perSecond: 5000, seconds: 30 };
const STROKES = 200;

/** In the page: the fake Web MIDI, what the engine was told, and how late the page's timers were. */
interface Probe {
  send(bytes: number[], at?: number): void;
  told: { type: string; pad: number; heard: number }[];
  late: number[];
  context: AudioContext | null;
}
declare global {
  var probe: Probe;
}

/** Opens the app with a device plugged in, and notes what goes over to the audio thread. */
async function openWithDevice(browser: Browser, base: string): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await page.addInitScript((name) => {
    type Handler = ((event: object) => void) | null;
    const port = { id: 'bench in', name, manufacturer: '', type: 'input', state: 'connected', connection: 'closed', onstatechange: null as Handler, onmidimessage: null as Handler, open: async () => undefined, close: async () => undefined }; // prettier-ignore
    port.open = async () => void (port.connection = 'open');
    const access = { inputs: new Map([[port.id, port]]), outputs: new Map(), sysexEnabled: true, onstatechange: null };
    Object.defineProperty(Navigator.prototype, 'requestMIDIAccess', { value: async () => access });
    globalThis.probe = {
      send: (bytes, at = performance.now()) =>
        port.onmidimessage?.({ data: Uint8Array.from(bytes), timeStamp: at, target: port, type: 'midimessage' }),
      told: [],
      late: [],
      context: null,
    };
    const Original = window.AudioWorkletNode;
    window.AudioWorkletNode = class extends Original {
      constructor(context: BaseAudioContext, which: string, options?: AudioWorkletNodeOptions) {
        super(context, which, options);
        globalThis.probe.context = context as AudioContext;
        const post = this.port.postMessage.bind(this.port) as (message: unknown, transfer?: Transferable[]) => void;
        this.port.postMessage = ((message: { instructions?: Probe['told'] }, transfer?: Transferable[]) => {
          for (const one of message.instructions ?? []) {
            if (one.type === 'padDown' || one.type === 'padUp') globalThis.probe.told.push(one);
          }
          post(message, transfer);
        }) as typeof this.port.postMessage;
      }
    };
  }, DEVICE);
  await page.goto(`${base}/pads`);
  await page.getByRole('button', { name: 'Play', exact: true }).waitFor();
  await page.getByRole('button', { name: 'Set menu', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Devices' }).click();
  await page.getByRole('button', { name: 'Connect controllers' }).click();
  await page.getByRole('region', { name: DEVICE, exact: true }).waitFor();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(1500);
  return page;
}

/** Strokes at time stamps, while the page stands still for 400 ms again and again: how far off the frames are that the engine is told. */
async function strokesRow(browser: Browser, base: string): Promise<void> {
  const page = await openWithDevice(browser, base);
  const off = await page.evaluate(async (strokes) => {
    const { probe } = globalThis;
    const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));
    const sent: { at: number; frame: number }[] = [];
    for (let i = 0; i < strokes; i++) {
      if (i % 20 === 10) for (const from = performance.now(); performance.now() - from < 400;);
      const before = probe.told.length;
      const at = performance.now() - (i % 7);
      probe.send([0x90, 36 + (i % 16), 100], at);
      probe.send([0x80, 36 + (i % 16), 0], at + 1);
      sent.push({ at, frame: probe.told[before]!.heard });
      await pause(20 + ((i * 13) % 30));
    }
    // The two clocks as the browser tells them, afterwards: a straight line through what they were told to be.
    const rate = probe.context!.sampleRate / 1000;
    const offsets = sent.map(({ at, frame }) => frame / rate - at).sort((a, b) => a - b);
    const middle = offsets[offsets.length >> 1]!;
    return offsets.map((offset) => Math.abs(offset - middle)).sort((a, b) => a - b);
  }, STROKES);
  const p95 = off[Math.floor(off.length * 0.95)]!;
  row(
    `${STROKES} strokes of a device at their time stamps, the page standing still for 400 ms ten times: off by`,
    `p95 ${p95.toFixed(3)} ms, worst ${off.at(-1)!.toFixed(3)} ms (${steal()})`,
    'p95 <= 0.5 ms',
    p95 <= 0.5,
  );
  await page.close();
}

/** A flood of control changes beside playing: every note comes through, and the page answers. */
async function floodRow(browser: Browser, base: string): Promise<void> {
  const page = await openWithDevice(browser, base);
  const { ons, offs, worst, gaps } = await page.evaluate(async ({ perSecond, seconds }) => {
    const { probe } = globalThis;
    probe.told.length = 0;
    const every = 4;
    const each = (perSecond * every) / 1000;
    const [late, gone]: [number[], number[]] = [[], []];
    const start = performance.now();
    let [sent, notes, audio] = [0, 0, { at: probe.context!.currentTime, now: start }];
    await new Promise<void>((done) => {
      const timer = setInterval(() => {
        const now = performance.now();
        late.push(now - start - (late.length + 1) * every);
        // Audio without a gap: its clock goes on as the page's does.
        const at = probe.context!.currentTime;
        if (now - audio.now > 500) {
          gone.push(now - audio.now - (at - audio.at) * 1000);
          audio = { at, now };
        }
        for (; sent < ((now - start) / every) * each; sent++) probe.send([0xb0, 16 + (sent % 16), (sent * 7) % 128]);
        if (late.length % 25 === 0) {
          probe.send([0x90, 36 + (notes % 16), 90]);
          probe.send([0x80, 36 + (notes % 16), 0]);
          notes++;
        }
        if (now - start < seconds * 1000) return;
        clearInterval(timer);
        done();
      }, every);
    });
    const steps = late.slice(1).map((ms, i) => ms - late[i]! + every);
    const of = (type: string) => probe.told.filter((one) => one.type === type).length - notes;
    return { ons: of('padDown'), offs: of('padUp'), worst: Math.max(...steps), gaps: Math.max(...gone.map(Math.abs)) };
  }, FLOOD);
  row(
    `${FLOOD.perSecond} control changes a second for ${FLOOD.seconds} s beside playing: notes on and off that were lost, longest wait of the page`,
    `${-ons} and ${-offs}; ${worst.toFixed(0)} ms; the audio clock off by ${gaps.toFixed(0)} ms in half a second at most (${steal()})`,
    '0 lost, <= 100 ms',
    ons === 0 && offs === 0 && worst <= 100,
  );
  await page.close();
}

export async function controllerRows(browser: Browser, base: string): Promise<void> {
  await strokesRow(browser, base);
  await floodRow(browser, base);
}
