/** Code of an encoder as esbuild puts it into a worker. */
declare module 'wasm-media-encoders/wasm/mp3' {
  const code: Uint8Array;
  export default code;
}

declare module 'libflacjs/dist/libflac.js' {
  import type * as Flac from 'libflacjs/dist';
  const flac: typeof Flac;
  export default flac;
}

/** Registers itself where it is loaded: see `stretchScope.ts`. */
declare module 'signalsmith-stretch';
