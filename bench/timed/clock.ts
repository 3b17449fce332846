// A clock for the audio thread, which has none of its own: a worker that writes the time into shared memory about ten times a
// millisecond. It sleeps in between: one that spins takes a core from the thread that it is to measure.
self.onmessage = ({ data }: MessageEvent<SharedArrayBuffer>) => {
  const clock = new Float64Array(data, 0, 1);
  const sleeper = new Int32Array(data, 8, 1);
  for (;;) {
    clock[0] = performance.now();
    Atomics.wait(sleeper, 0, 0, 0.02);
  }
};
