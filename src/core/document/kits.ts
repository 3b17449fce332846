import type { Kit, KitPad } from './kit';
import { asTaken, type MadeSound, type SoundSettings } from './sound';
import { kindName, kindNote, PAD_KINDS, type PadKind } from './soundKinds';

/** What lies on a pad of a kit that ships: what is made of a recipe, of which one, and what it is called. */
export interface PadDesign extends SoundSettings {
  /** Absent: the recipe that is named like the pad's kind. */
  made?: MadeSound;
  called?: string;
}

/** What differs from the plain sounds. */
export type KitDesign = Partial<Record<PadKind, PadDesign>>;

/** Runs of strokes differ a little, as those of hands do. */
const LIVELY = { variation: 0.5 };
const HATS: readonly PadKind[] = ['closedHat', 'pedalHat', 'openHat'];

/** Where a kind of sound lies in the kits that ship. */
export function padOfKind(kind: PadKind): number {
  return PAD_KINDS.indexOf(kind);
}

/** A kit of sounds that the engine makes, one for each pad. The hats cut each other off (common practice). */
export function madeKit(name: string, design: KitDesign = {}): Kit {
  return {
    name,
    pads: PAD_KINDS.map((kind): KitPad => {
      const { made = kind, called = kindName(kind), ...settings } = design[kind] ?? {};
      const sound = { name: called, kind, source: { made }, settings: { ...LIVELY, ...settings }, from: name };
      return { sound: asTaken(sound), note: kindNote(kind)! };
    }),
    cutGroups: [HATS.map(padOfKind)],
  };
}

/** The kit that tracks begin with: dry and round, for a big wooden room. */
export const POLISHED_FLOOR: Kit = madeKit('Polished Floor');
