/** How one stroke differs from its sound. */
export interface Shape {
  /** Semitones. */
  pitch: number;
  /** Octaves by which the filters' cutoff is moved. */
  filter: number;
  /** Octaves by which the decays are made longer. */
  decay: number;
  /** Linear gain. */
  level: number;
  /** -1..1, added to the sound's own place. */
  pan: number;
  /** dB more into the saturation, share more to the room, octaves by which the filter's quality factor is higher. */
  drive: number;
  room: number;
  resonance: number;
  /** Share of a sample by which it begins later. */
  start: number;
  /** How hard the key is pressed when the note begins, 0..1. */
  pressure: number;
  /** -1..1, added to how bright the voice of a note is. */
  bright: number;
  /** MIDI note of what plays notes; `pitch` is added to it. NaN for drums. */
  note: number;
}

/** That of a stroke that is as its sound is. */
export const PLAIN: Shape = { pitch: 0, filter: 0, decay: 0, level: 1, pan: 0, drive: 0, room: 0, resonance: 0, start: 0, pressure: 0, bright: 0, note: NaN }; // prettier-ignore

/** Makes a shape plain: by name, since a stroke has no time to look names up. */
export function makePlain(shape: Shape): void {
  shape.pitch = 0;
  shape.filter = 0;
  shape.decay = 0;
  shape.level = 1;
  shape.pan = 0;
  shape.drive = 0;
  shape.room = 0;
  shape.resonance = 0;
  shape.start = 0;
  shape.pressure = 0;
  shape.bright = 0;
  shape.note = NaN;
}
