import type { DrumVoice } from '../sound/drumVoice';

/** A note whose key is down while a newer one sounds in its place. */
export interface NoteBeneath {
  isUsed: boolean;
  track: number;
  pad: number;
  /** MIDI note, with its stroke's own pitch. */
  note: number;
  /** Until which song tick or frame it is held: Infinity for as long as its key is down. */
  offTick: number;
  offFrame: number;
  /** The order in which they were put beneath. */
  order: number;
}

const MOST = 64;

/**
 * On tracks that play one note at a time, what comes back when the newer note ends: whoever holds a key and strikes others beside it
 * hears the held one again.
 */
export class NotesBeneath {
  readonly notes: readonly NoteBeneath[] = Array.from({ length: MOST }, () => ({ isUsed: false, track: 0, pad: 0, note: 0.5, offTick: 0.5, offFrame: 0.5, order: 0 })); // prettier-ignore
  private order = 0;

  /** The note that a voice plays gives way to a newer one. When there are too many, it is forgotten. */
  add({ track, key, note, offTick, offFrame }: DrumVoice): void {
    const free = this.notes.find(({ isUsed }) => !isUsed);
    if (!free) return;
    free.isUsed = true;
    free.track = track;
    free.pad = key;
    free.note = note;
    free.offTick = offTick;
    free.offFrame = offFrame;
    free.order = ++this.order;
  }

  /**
   * Takes out the newest of a track that is still held; null: there is none.
   * @param isOver whether a note has ended meanwhile
   */
  take(track: number, isOver: (note: NoteBeneath) => boolean): NoteBeneath | null {
    let newest: NoteBeneath | null = null;
    for (const note of this.notes) {
      if (!note.isUsed || note.track !== track) continue;
      if (isOver(note)) note.isUsed = false;
      else if (!newest || note.order > newest.order) newest = note;
    }
    if (newest) newest.isUsed = false;
    return newest;
  }

  /** What a pattern or note repeat holds ends; keys that are down stay. */
  letGoTimed(track: number): void {
    for (const note of this.notes) {
      if (note.track === track && (note.offTick < Infinity || note.offFrame < Infinity)) note.isUsed = false;
    }
  }

  /** A key goes up, or with -1 all of a track. */
  letGo(track: number, pad: number): void {
    for (const note of this.notes) {
      const ofKey = note.pad === pad && note.offTick === Infinity && note.offFrame === Infinity;
      if (note.track === track && (pad < 0 || ofKey)) note.isUsed = false;
    }
  }
}
