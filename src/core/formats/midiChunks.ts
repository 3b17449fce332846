/** The largest chunk of a file that hands could have made. */
const LONGEST_VARIABLE = 4;

/** A chunk of a standard MIDI file: its four letters, and its bytes as far as they are there. */
export interface MidiChunk {
  type: string;
  bytes: Uint8Array;
  /** The file ends within it. */
  isCut: boolean;
}

/**
 * Cuts a file into its chunks (Standard MIDI Files 1.0: four letters, a length of four bytes, then as many bytes). Chunks of other
 * types than MThd and MTrk are to be ignored, says the standard; they are among those that are returned.
 */
export function midiChunks(file: Uint8Array): MidiChunk[] {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  const chunks: MidiChunk[] = [];
  for (let at = 0; at + 8 <= file.length;) {
    const type = String.fromCharCode(...file.subarray(at, at + 4));
    const length = view.getUint32(at + 4);
    chunks.push({ type, bytes: file.subarray(at + 8, at + 8 + length), isCut: at + 8 + length > file.length });
    at += 8 + length;
  }
  return chunks;
}

/**
 * How many bytes at the beginning of a track are whole events. The package that reads them trusts every length: one that leads
 * backwards would hold it forever.
 * @returns the length of the track, if nothing of it is damaged
 */
export function soundBytes(track: Uint8Array): number {
  let at = 0;
  let status = 0;
  /** A number of seven bits a byte, at most four bytes; NaN if it is none. */
  const variable = () => {
    let value = 0;
    for (let i = 0; i < LONGEST_VARIABLE; i++) {
      const byte = track[at++];
      if (byte === undefined) return NaN;
      value = value * 128 + (byte & 0x7f);
      if (byte < 0x80) return value;
    }
    return NaN;
  };
  while (at < track.length) {
    const begin = at;
    const delta = variable();
    const first = track[at];
    if (Number.isNaN(delta) || first === undefined) return begin;
    if (first >= 0xf0) {
      at += first === 0xff ? 2 : 1;
      const length = variable();
      if (![0xf0, 0xf7, 0xff].includes(first) || Number.isNaN(length)) return begin;
      at += length;
    } else {
      if (first >= 0x80) {
        status = first;
        at++;
      }
      // A running status needs one to run on.
      if (status === 0) return begin;
      const data = status >= 0xc0 && status < 0xe0 ? 1 : 2;
      if (track.subarray(at, at + data).some((byte) => byte >= 0x80)) return begin;
      at += data;
    }
    if (at > track.length) return begin;
  }
  return at;
}
