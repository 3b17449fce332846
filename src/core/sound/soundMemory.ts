/** The part of WebAssembly that is used: every thread and Node have it, but only the types of browsers say so. */
declare const WebAssembly: {
  Memory: new (pages: { initial: number }) => { buffer: ArrayBuffer };
  Module: new (bytes: Uint8Array) => object;
  Instance: new (module: object, imports: object) => { exports: unknown };
};

/** The sample reader has the first part for itself: sampleReader.wat says what lies where. */
export const READER_BYTES = 65536;
/** Room for the tables of several sample rates; what nobody writes to costs nothing. */
const PAGES = 64;
const PAGE = 65536;

const memory = shared();
/** The memory in which voices work, of TypeScript and WebAssembly alike. All of a thread's engines share it: one renders at a time. */
export const soundMemory = memory?.buffer ?? new ArrayBuffer(PAGES * PAGE);

function shared() {
  try {
    return new WebAssembly.Memory({ initial: PAGES });
  } catch {
    return null;
  }
}

/** What a module exports; null where a browser forbids it, or knows no instructions that do several things at once. */
export function instantiate<Exports>(hex: string): Exports | null {
  if (!memory) return null;
  try {
    return new WebAssembly.Instance(new WebAssembly.Module(bytesOf(hex)), { sound: { memory } }).exports as Exports;
  } catch {
    return null;
  }
}

/** @example bytesOf('00ff') // [0, 255] */
export function bytesOf(hex: string): Uint8Array<ArrayBuffer> {
  return Uint8Array.from({ length: hex.length / 2 }, (_, i) => parseInt(hex.slice(2 * i, 2 * i + 2), 16));
}

let free = READER_BYTES;

/** The first byte of so many that are taken for good; null when nothing is left. */
function take(bytes: number): number | null {
  if (free + bytes > soundMemory.byteLength) return null;
  const at = free;
  // All that is read several at a time lies at whole sixteen bytes.
  free += Math.ceil(bytes / 16) * 16;
  return at;
}

/**
 * Room for so many bytes, taken for good: for what a thread needs once, not for what each engine has.
 * @returns where it begins
 * @throws RangeError when nothing is left
 */
export function takeBytes(bytes: number): number {
  const at = take(bytes);
  if (at === null) throw new RangeError('There is no room left in the memory of the sound.');
  return at;
}

/** Room for a table: in the memory, or where that is full, elsewhere. */
export function tableRoom(frames: number): Float32Array {
  const at = take(4 * frames);
  return at === null ? new Float32Array(frames) : new Float32Array(soundMemory, at, frames);
}

/** Room for so many numbers: in the memory, or where that is full, elsewhere. */
export function numbersRoom(count: number): Float64Array {
  const at = take(8 * count);
  return at === null ? new Float64Array(count) : new Float64Array(soundMemory, at, count);
}
