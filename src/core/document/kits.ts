import type { Kit, KitPad } from './kit';
import { asTaken, MADE_SOUNDS, type MadeSound, type SoundSettings } from './sound';
import { kindName, kindNote } from './soundKinds';

/** Runs of strokes differ a little, as those of hands do. */
const LIVELY = { variation: 0.3 };
const HATS = ['closedHat', 'pedalHat', 'openHat'] as const;

const padOf = (made: MadeSound) => MADE_SOUNDS.indexOf(made);

/**
 * A kit of the sounds that the engine makes, each on its own pad. The hats cut each other off (common practice).
 * @param settings what is made of each sound
 */
export function madeKit(name: string, settings: Partial<Record<MadeSound, SoundSettings>> = {}): Kit {
  return {
    name,
    pads: MADE_SOUNDS.map((made): KitPad => ({
      sound: asTaken({ name: kindName(made), kind: made, source: { made }, settings: { ...LIVELY, ...settings[made] }, from: name }), // prettier-ignore
      note: kindNote(made)!,
    })),
    cutGroups: [HATS.map(padOf)],
  };
}

/** The kit that tracks begin with: dry and round, for a big wooden room. */
export const POLISHED_FLOOR: Kit = madeKit('Polished Floor');
