import type { PreparedSample, Sample } from '@/core/sample/levels';
import { AskedWorker } from './askedWorker';

const worker = new AskedWorker<Sample, PreparedSample>('/workers/sample.worker.js');

/**
 * The levels of a sample, made in a worker, one sample after the other. Its arrays are given away.
 * @throws Error what went wrong in the worker
 */
export function prepareInWorker(sample: Sample): Promise<PreparedSample> {
  return worker.ask(sample, sample.channels);
}
