import { padNote, padsOfNotes, type Tones } from '@/core/document/tones';
import { PADS } from '@/core/document/limits';
import { chordOn } from '@/core/harmony/chords';
import { nearestVoicing, ontoPads } from '@/core/harmony/voicing';

/** A note that sounds under a finger. */
export interface HeldNote {
  pad: number;
  /** Semitones away from the pad's own note. */
  pitch: number;
  /** ms after the finger comes down that it sounds. */
  late: number;
  /** ms after the finger goes up that it ends: never before another chord, which has the note too, has strummed it. */
  ends: number;
}

/**
 * What each finger on a track's pads plays: one note, or a chord that lies close to the one before it. A note that two chords have is held by
 * the later one, and only that one lets go of it.
 */
export class ChordHands {
  /** By track and pad: what the finger there plays, and which finger holds the note. */
  private readonly fingers = new Map<number, readonly HeldNote[]>();
  private readonly holders = new Map<number, number>();
  /** By track: the MIDI notes of its last chord. */
  private readonly last = new Map<number, readonly number[]>();

  /** A finger comes down. @returns what it plays, from the lowest note up */
  down(track: number, pad: number, pitch: number, tones: Tones | undefined): readonly HeldNote[] {
    const notes = tones?.chord ? this.chord(track, padNote(tones, pad) + pitch, tones) : [{ pad, pitch, late: 0 }];
    const finger = keyOf(track, pad);
    const held = notes.map((note) => ({
      ...note,
      ends: Math.max(note.late, this.holding(track, note.pad)?.ends ?? 0),
    }));
    this.fingers.set(finger, held);
    for (const note of held) this.holders.set(keyOf(track, note.pad), finger);
    return held;
  }

  /** Whether there is a finger on a pad. */
  has(track: number, pad: number): boolean {
    return this.fingers.has(keyOf(track, pad));
  }

  /** What the finger on a pad holds. */
  of(track: number, pad: number): readonly HeldNote[] {
    const finger = keyOf(track, pad);
    const notes = this.fingers.get(finger) ?? [{ pad, pitch: 0, late: 0, ends: 0 }];
    return notes.filter((note) => (this.holders.get(keyOf(track, note.pad)) ?? finger) === finger);
  }

  /** A finger goes up. @returns what ends with it */
  up(track: number, pad: number): readonly HeldNote[] {
    const notes = this.of(track, pad);
    for (const note of notes) this.holders.delete(keyOf(track, note.pad));
    this.fingers.delete(keyOf(track, pad));
    return notes;
  }

  /** Nothing is held any more. @returns ms after which nothing that was struck is still to come */
  release(): number {
    const late = Math.max(0, ...[...this.fingers.values()].flatMap((notes) => notes.map(({ ends }) => ends)));
    this.fingers.clear();
    this.holders.clear();
    return late;
  }

  /** The note that some finger holds on a pad. */
  private holding(track: number, pad: number): HeldNote | undefined {
    const finger = this.holders.get(keyOf(track, pad));
    return finger === undefined ? undefined : this.fingers.get(finger)?.find((note) => note.pad === pad);
  }

  private chord(track: number, root: number, tones: Tones): readonly Omit<HeldNote, 'ends'>[] {
    const notes = nearestVoicing(chordOn(tones, root, tones.chord!), this.last.get(track) ?? null);
    this.last.set(track, notes);
    const find = padsOfNotes(tones);
    return ontoPads(tones, notes).map((note, i) => ({ ...find(note), late: i * (tones.strum ?? 0) }));
  }
}

const keyOf = (track: number, pad: number) => track * PADS + pad;
