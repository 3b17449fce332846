import type { Page } from '@playwright/test';
import type { Command } from '@/core/protocol/commands';
import { type EngineEvent, decodeEvents } from '@/core/protocol/events';

/**
 * Hears what the page sends to the loudspeaker, from outside the app: whatever is connected to an audio context's
 * destination is recorded on its way, sample by sample, by a worklet of the tests' own. It also reads along what the audio
 * thread tells the page.
 * @param warmUp has the engine warm up as it opens. That is a quarter of what loading the app costs: only tests that measure when
 * something sounds need it.
 */
export async function giveEar(page: Page, { warmUp }: { warmUp: boolean }): Promise<void> {
  await page.addInitScript((cold) => {
    const ear = {
      frames: 0,
      firstFrame: -1,
      chunks: [] as Float32Array[],
      messages: [] as unknown[],
      /** Contents of patterns by revision: the log names them, and does not carry them. */
      contents: {} as Record<number, Record<string, unknown>>,
      ready: false,
      context: null as BaseAudioContext | null,
    };
    (window as unknown as { ear: typeof ear }).ear = ear;
    const processor = `
      registerProcessor('ear', class extends AudioWorkletProcessor {
        constructor() { super(); this.size = 0; this.buffer = new Float32Array(8192); this.first = -1; }
        process([input], [output]) {
          if (this.size === 0) this.first = currentFrame;
          const left = input[0], right = input[1] ?? input[0];
          for (let i = 0; i < 128; i++) {
            this.buffer[this.size++] = left ? left[i] : 0;
            this.buffer[this.size++] = right ? right[i] : 0;
          }
          if (this.size === this.buffer.length) {
            this.port.postMessage({ first: this.first, samples: this.buffer });
            this.size = 0; this.buffer = new Float32Array(8192);
          }
          return true;
        }
      });`;
    const url = URL.createObjectURL(new Blob([processor], { type: 'text/javascript' }));
    const ended = new WeakSet<BaseAudioContext>();
    const close = AudioContext.prototype.close;
    AudioContext.prototype.close = function (this: AudioContext) {
      ended.add(this);
      return close.call(this);
    };
    const connect = AudioNode.prototype.connect as (this: AudioNode, to: AudioNode) => AudioNode;
    AudioNode.prototype.connect = function (this: AudioNode, to: AudioNode) {
      if (to instanceof AudioDestinationNode) {
        ear.context = this.context;
        const listen = () => {
          const node = new AudioWorkletNode(this.context, 'ear', { outputChannelCount: [2] });
          node.port.onmessage = ({ data }: MessageEvent<{ first: number; samples: Float32Array }>) => {
            // By the newest chunk: a starved machine's frame counter stands still for a while and then leaps.
            ear.firstFrame = data.first - ear.frames;
            ear.chunks.push(data.samples);
            ear.frames += data.samples.length / 2;
            ear.ready = true;
          };
          connect.call(this, node);
          connect.call(node, to);
        };
        const { context } = this;
        (context as AudioContext).audioWorklet.addModule(url).then(listen, (error: unknown) => {
          // A piece that is heard apart from the song may be over before there is an ear for it.
          if (!ended.has(context)) throw error;
        });
      }
      return connect.call(this, to);
    } as typeof AudioNode.prototype.connect;

    const Original = window.AudioWorkletNode;
    window.AudioWorkletNode = class extends Original {
      constructor(context: BaseAudioContext, name: string, options?: AudioWorkletNodeOptions) {
        const isEngine = name === 'chaffinch-engine';
        super(context, name, isEngine ? { ...options, processorOptions: { cold } } : options);
        if (!isEngine) return;
        this.port.addEventListener('message', ({ data }: MessageEvent<unknown>) => ear.messages.push(data));
        const post = this.port.postMessage.bind(this.port) as (message: unknown, transfer?: Transferable[]) => void;
        post({ keepLog: true });
        this.port.postMessage = ((message: { instructions?: Record<string, unknown>[] }, transfer?: Transferable[]) => {
          for (const instruction of message.instructions ?? []) {
            if (typeof instruction.revision === 'number')
              ear.contents[instruction.revision] = structuredClone(instruction);
          }
          post(message, transfer);
        }) as typeof this.port.postMessage;
      }
    };
  }, !warmUp);
}

export interface Heard {
  left: Float32Array;
  right: Float32Array;
  /** Engine frame of the first sample. */
  from: number;
  sampleRate: number;
  /** Commands as the engine applied them, stamped with its frames. An engine adopts their arrays: play them once. */
  applied: Command[];
  events: EngineEvent[];
}

/** The events of one kind. */
export function of<K extends EngineEvent['kind']>(
  events: readonly EngineEvent[],
  kind: K,
): Extract<EngineEvent, { kind: K }>[] {
  return events.filter((e): e is Extract<EngineEvent, { kind: K }> => e.kind === kind);
}

/** All that was heard since the page was opened. */
export async function heard(page: Page): Promise<Heard> {
  // A page that was only just loaded may not have heard of its engine yet.
  await page.waitForFunction(() => (window as unknown as { ear: { messages: unknown[] } }).ear.messages.length > 0);
  const raw = await page.evaluate(async () => {
    type Logged = Record<string, unknown>;
    type Message = { origin: number; events: Float64Array; log: Logged[] };
    type Ear = { chunks: Float32Array[]; firstFrame: number; messages: Message[]; contents: Record<number, Logged> };
    const { ear } = window as unknown as { ear: Ear };
    const base64 = async (parts: ArrayBufferView[]) => {
      const blob = new Blob(parts as unknown as BlobPart[]);
      const url = await new Promise<string>((done) => {
        const reader = new FileReader();
        reader.onload = () => done(reader.result as string);
        reader.readAsDataURL(blob);
      });
      return url.slice(url.indexOf(',') + 1);
    };
    const plain = (value: unknown): unknown => {
      if (value instanceof Float64Array) return { f64: [...value] };
      if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
      return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, plain(inner)]));
    };
    return {
      audio: await base64(ear.chunks),
      events: await base64(ear.messages.map((m) => m.events)),
      firstFrame: ear.firstFrame,
      origin: ear.messages[ear.messages.length - 1]!.origin,
      applied: ear.messages
        .flatMap((m) => m.log)
        .map((command) => {
          const whole = { ...command, ...ear.contents[command.revision as number], frame: command.frame };
          return plain(whole);
        }),
    };
  });
  const samples = new Float32Array(bytes(raw.audio));
  const frames = samples.length / 2;
  const left = new Float32Array(frames);
  const right = new Float32Array(frames);
  for (let i = 0; i < frames; i++) {
    left[i] = samples[2 * i]!;
    right[i] = samples[2 * i + 1]!;
  }
  const sampleRate = await page.evaluate(
    () => (window as unknown as { ear: { context: AudioContext } }).ear.context.sampleRate,
  );
  const revive = (value: unknown): unknown => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
    if ('f64' in value) return new Float64Array((value as { f64: number[] }).f64);
    return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, revive(inner)]));
  };
  return {
    left,
    right,
    from: raw.firstFrame - raw.origin,
    sampleRate,
    applied: raw.applied.map(revive) as Command[],
    events: decodeEvents(new Float64Array(bytes(raw.events))),
  };
}

function bytes(base64: string): ArrayBuffer {
  const buffer = Buffer.from(base64, 'base64');
  return buffer.buffer.slice(buffer.byteOffset, buffer.byteOffset + buffer.byteLength) as ArrayBuffer;
}

/**
 * Frames (engine clock) at which sound begins after silence.
 * @param threshold what counts as sound, linear
 * @param quietFrames how long it must have been silent before
 */
export function onsets(sound: Heard, threshold: number, quietFrames: number): number[] {
  const found: number[] = [];
  let quiet = quietFrames;
  for (let i = 0; i < sound.left.length; i++) {
    const loud = Math.max(Math.abs(sound.left[i]!), Math.abs(sound.right[i]!)) > threshold;
    if (loud && quiet >= quietFrames) found.push(sound.from + i);
    quiet = loud ? 0 : quiet + 1;
  }
  return found;
}

/** How many samples of two sounds are not the same to the bit, over the length of the first. */
export function differing(a: Float32Array, b: Float32Array): number {
  let count = 0;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) count++;
  return count;
}

/** Waits until the engine has begun to make sound, were it silence. */
export async function hears(page: Page): Promise<void> {
  await page.waitForFunction(() => (window as unknown as { ear: { ready: boolean } }).ear.ready);
}

/** Waits until that much more sound has been heard, by the sound's own clock: wall time means nothing on a busy machine. */
export async function listen(page: Page, seconds: number): Promise<void> {
  await hears(page);
  const until = await page.evaluate(
    (s) => (window as unknown as { ear: { frames: number } }).ear.frames + s * 48000,
    seconds,
  );
  await page.waitForFunction(
    (frames) => (window as unknown as { ear: { frames: number } }).ear.frames >= frames,
    until,
    {
      timeout: 30_000 + seconds * 20_000,
    },
  );
}

/** Blocks the page's main thread, `times` times for `ms`, with a breath between. */
export async function stall(page: Page, ms: number, times: number): Promise<void> {
  await page.evaluate(
    async ([length, count]) => {
      for (let i = 0; i < count; i++) {
        const end = performance.now() + length;
        while (performance.now() < end);
        await new Promise((done) => setTimeout(done, 30));
      }
    },
    [ms, times] as const,
  );
}
