import { MAX_TRACKS } from '../document/limits';

/** In the place of a slot: nothing plays on the track. */
export const SILENT = -1;
/** In the place of a slot: the track's chain. */
export const CHAIN = -2;
/** In a section: the track goes on as it is. */
export const LEAVE = -3;

/** In the place of a section: none. */
export const NO_SECTION = -1;
/** What a section can go to when its rounds are over: everything stops. */
export const THEN_STOP = -2;

/** No change of a mute or solo that waits. */
export const AS_IT_IS = -1;

const numbers = (value: number) => new Float64Array(MAX_TRACKS).fill(value);
const slots = (value: number) => new Int16Array(MAX_TRACKS).fill(value);

/** A state of the launcher as plain data: its fields, lists of numbers as lists. */
export type LaunchStateData = Readonly<Record<string, number | boolean | readonly number[]>>;

/**
 * What plays on each track and what waits: everything that launching changes. Ticks are song ticks, Infinity for never;
 * a change that waits keeps its tick, whatever happens to tempo, meter or loops meanwhile: a countdown never jumps.
 */
export class LaunchState {
  /** The slot that plays, or SILENT. */
  readonly slot = slots(SILENT);
  /** Where tick 0 of its pattern lies. */
  readonly launchTick = numbers(0);
  /** When it took over. */
  readonly since = numbers(0);
  readonly muted = new Uint8Array(MAX_TRACKS);
  readonly soloed = new Uint8Array(MAX_TRACKS);

  /** What hands have queued: a slot, SILENT or CHAIN; whether in place; and when. */
  readonly next = slots(SILENT);
  readonly nextInPlace = new Uint8Array(MAX_TRACKS);
  readonly nextTick = numbers(Infinity);
  /** Whether it was queued as part of the section that waits. */
  readonly withSection = new Uint8Array(MAX_TRACKS);

  /** Link of the chain that plays, -1 for none; and when the one after it is due. */
  readonly link = slots(-1);
  readonly linkTick = numbers(Infinity);

  /** Mutes and solos that wait: 0, 1 or AS_IT_IS. */
  readonly nextMute = new Int8Array(MAX_TRACKS).fill(AS_IT_IS);
  readonly nextSolo = new Int8Array(MAX_TRACKS).fill(AS_IT_IS);
  readonly muteSoloTick = numbers(Infinity);

  /** The section that was launched last, or NO_SECTION. */
  section = NO_SECTION;
  /** The section that waits (or THEN_STOP), and when. */
  nextSection = NO_SECTION;
  sectionTick = Infinity;
  /** Whether it waits by itself, because the one before goes on to it. */
  sectionFollows = false;
  sectionInPlace = false;

  /** Whether each track is heard: not muted, and soloed if any is. Found by `settle`, since every stretch of sound asks. */
  readonly heard = new Uint8Array(MAX_TRACKS).fill(1);
  /** The earliest tick at which anything changes. Found by `settle`. */
  due = Infinity;

  copyFrom(other: LaunchState): void {
    this.slot.set(other.slot);
    this.launchTick.set(other.launchTick);
    this.since.set(other.since);
    this.muted.set(other.muted);
    this.soloed.set(other.soloed);
    this.next.set(other.next);
    this.nextInPlace.set(other.nextInPlace);
    this.nextTick.set(other.nextTick);
    this.withSection.set(other.withSection);
    this.link.set(other.link);
    this.linkTick.set(other.linkTick);
    this.nextMute.set(other.nextMute);
    this.nextSolo.set(other.nextSolo);
    this.muteSoloTick.set(other.muteSoloTick);
    this.section = other.section;
    this.nextSection = other.nextSection;
    this.sectionTick = other.sectionTick;
    this.sectionFollows = other.sectionFollows;
    this.sectionInPlace = other.sectionInPlace;
    this.heard.set(other.heard);
    this.due = other.due;
  }

  /** As plain data. */
  toData(): LaunchStateData {
    const entries = Object.entries(this).map(([key, value]: [string, number | boolean | Float64Array]) => [
      key,
      typeof value === 'object' ? Array.from(value) : value,
    ]);
    return Object.fromEntries(entries) as LaunchStateData;
  }

  /** Takes over what `toData` gave. */
  takeData(data: LaunchStateData): void {
    const fields = this as unknown as Record<string, number | boolean | Float64Array>;
    for (const key of Object.keys(this)) {
      const field = fields[key]!;
      if (typeof field === 'object') field.set(data[key] as readonly number[]);
      else fields[key] = data[key] as number | boolean;
    }
  }

  /** Finds `heard` and `due` again after a change. */
  settle(): void {
    const anySolo = this.soloed.includes(1);
    for (let t = 0; t < MAX_TRACKS; t++) {
      this.heard[t] = this.muted[t] === 0 && (!anySolo || this.soloed[t] === 1) ? 1 : 0;
    }
    let due = this.sectionTick;
    for (let t = 0; t < MAX_TRACKS; t++) {
      due = Math.min(due, this.nextTick[t]!, this.linkTick[t]!, this.muteSoloTick[t]!);
    }
    this.due = due;
  }

  /** Whether all that waits on a track, its mute and its solo are as in another state. */
  isSameTrack(other: LaunchState, t: number): boolean {
    return (
      this.nextTick[t] === other.nextTick[t] &&
      this.next[t] === other.next[t] &&
      this.nextInPlace[t] === other.nextInPlace[t] &&
      this.link[t] === other.link[t] &&
      this.linkTick[t] === other.linkTick[t] &&
      this.muted[t] === other.muted[t] &&
      this.soloed[t] === other.soloed[t] &&
      this.nextMute[t] === other.nextMute[t] &&
      this.nextSolo[t] === other.nextSolo[t] &&
      this.muteSoloTick[t] === other.muteSoloTick[t]
    );
  }

  /** Whether the same slot plays on a track, from the same tick on. */
  isSamePlaying(other: LaunchState, t: number): boolean {
    return this.slot[t] === other.slot[t] && this.launchTick[t] === other.launchTick[t];
  }

  /** Whether the section that plays and the one that waits are as in another state. */
  isSameSection(other: LaunchState): boolean {
    return (
      this.section === other.section &&
      this.nextSection === other.nextSection &&
      this.sectionTick === other.sectionTick &&
      this.sectionFollows === other.sectionFollows &&
      this.sectionInPlace === other.sectionInPlace
    );
  }
}
