import type { PreparedSample, Sample } from '@/core/sample/levels';
import type { SampleReply, SampleRequest } from './messages';

const WORKER_URL = '/workers/sample.worker.js';

/** Has samples prepared in a worker, one after the other. It is started when the first is wanted. */
export class SamplePreparer {
  private worker: Worker | null = null;
  private lastId = 0;
  private readonly waiting = new Map<number, { done: (reply: SampleReply) => void; failed: (error: Error) => void }>();

  /**
   * The levels of a sample. Its arrays are given away.
   * @throws Error what went wrong in the worker
   */
  async prepare(sample: Sample): Promise<PreparedSample> {
    const reply = await this.ask({ prepare: sample }, sample.channels);
    return reply.prepared!;
  }

  private ask(wanted: SampleRequest['wanted'], arrays: readonly Float32Array[]): Promise<SampleReply> {
    const id = ++this.lastId;
    const worker = (this.worker ??= this.begin());
    return new Promise((done, failed) => {
      this.waiting.set(id, { done, failed });
      const request: SampleRequest = { id, wanted };
      worker.postMessage(
        request,
        arrays.map(({ buffer }) => buffer as ArrayBuffer),
      );
    });
  }

  private begin(): Worker {
    const worker = new Worker(WORKER_URL);
    worker.onmessage = ({ data }: MessageEvent<SampleReply>) => {
      const waiting = this.waiting.get(data.id);
      this.waiting.delete(data.id);
      if (data.error === undefined) waiting?.done(data);
      else waiting?.failed(new Error(data.error));
    };
    worker.onerror = ({ message }) => {
      for (const { failed } of this.waiting.values()) failed(new Error(message || 'The worker could not be loaded.'));
      this.waiting.clear();
      this.worker = null;
    };
    return worker;
  }
}
