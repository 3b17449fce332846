/** From the page to a worker that is asked one thing after another, and back: answers have the number of what was asked. */
export interface Asked<Wanted> {
  id: number;
  wanted: Wanted;
}
export type Answer<Given> = { id: number; given: Given } | { id: number; error: string };

/** A worker that answers what it is asked. It is started when the first answer is wanted. */
export class AskedWorker<Wanted, Given> {
  private worker: Worker | null = null;
  private lastId = 0;
  private readonly waiting = new Map<number, { done: (given: Given) => void; failed: (error: Error) => void }>();

  constructor(private readonly url: string) {}

  /**
   * @param arrays are given away with it
   * @throws Error what went wrong in the worker
   */
  ask<G extends Given>(wanted: Wanted, arrays: readonly Float32Array[] = []): Promise<G> {
    const id = ++this.lastId;
    const worker = (this.worker ??= this.begin());
    return new Promise<Given>((done, failed) => {
      this.waiting.set(id, { done, failed });
      const request: Asked<Wanted> = { id, wanted };
      worker.postMessage(
        request,
        arrays.map(({ buffer }) => buffer as ArrayBuffer),
      );
    }) as Promise<G>;
  }

  private begin(): Worker {
    const worker = new Worker(this.url);
    worker.onmessage = ({ data }: MessageEvent<Answer<Given>>) => {
      const waiting = this.waiting.get(data.id);
      this.waiting.delete(data.id);
      if ('error' in data) waiting?.failed(new Error(data.error));
      else waiting?.done(data.given);
    };
    worker.onerror = ({ message }) => {
      for (const { failed } of this.waiting.values()) failed(new Error(message || 'The worker could not be loaded.'));
      this.waiting.clear();
      this.worker = null;
    };
    return worker;
  }
}
