import type { Kit } from './kit';
import { POLISHED_FLOOR } from './kits';
import type { ChannelSettings } from './mix';
import type { Tones } from './tones';
import { PATTERN_SLOTS } from './limits';
import type { Pattern } from './pattern';

/** Patterns of a track in a row. */
export interface Chain {
  /** Slots, and how often each goes round. */
  links: { slot: number; times: number }[];
  /** After the last link the first comes again; else the last one goes on. */
  again: boolean;
}

export interface Track {
  /** Names the track wherever it stands in the list: 0..15, of no other track of the set. */
  id: number;
  name: string;
  /** Index of a feather tone of the theme, 0..7. */
  colour: number;
  kit: Kit;
  /** It plays notes in the place of its kit. */
  tones?: Tones;
  /** 0..1 */
  level: number;
  /** What its channel of the mix does, beside its level. */
  channel?: ChannelSettings;
  /** The group that it goes to, by its id. Absent: to the whole mix. */
  goesTo?: number;
  /**
   * Pads of its kit that go to a group of their own, none of them twice: they pass by what its channel does, and how loud it is holds
   * for them, too.
   */
  padsTo?: PadWay[];
  /** Pads whose pattern hits are silent, and those that alone are heard when there are any. Hands are always heard. */
  mutedPads?: number[];
  soloPads?: number[];
  /** Pattern slots; an unused slot is null. */
  patterns: (Pattern | null)[];
  chain?: Chain;
}

/** A pad that goes to a group of its own. */
export interface PadWay {
  pad: number;
  /** Id of the group. */
  group: number;
}

/** A drum track of id 0 with these patterns. */
export function newTrack(name: string, colour: number, first: readonly Pattern[]): Track {
  const patterns: (Pattern | null)[] = new Array<Pattern | null>(PATTERN_SLOTS).fill(null);
  first.forEach((pattern, slot) => (patterns[slot] = pattern));
  return { id: 0, name, colour, kit: POLISHED_FLOOR, level: 0.8, patterns };
}

/** Whether a pad's pattern hits are heard. */
export function isPadHeard(
  { mutedPads = [], soloPads = [] }: Pick<Track, 'mutedPads' | 'soloPads'>,
  pad: number,
): boolean {
  return !mutedPads.includes(pad) && (soloPads.length === 0 || soloPads.includes(pad));
}
