// A clock for the audio thread, which has none of its own: a worker that writes the time into shared memory all the while.
self.onmessage = ({ data }: MessageEvent<SharedArrayBuffer>) => {
  const clock = new Float64Array(data);
  for (;;) clock[0] = performance.now();
};
