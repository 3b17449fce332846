import { tracksOf, type BeatSet } from '../document/set';
import type { Instruction } from '../protocol/commands';
import { channelChanges, goesToChange, mixChanges } from '../protocol/mixInstructions';
import type { MixStep } from './score';

/** Whether something that an engine is told is of the mix. */
export function isOfMix<T extends Instruction>(told: T): told is T & MixStep['told'] {
  return told.type === 'channel' || told.type === 'goesTo' || told.type === 'echo';
}

/** What an engine is told of a set's mix, beside levels. */
export function mixTold(set: BeatSet): Instruction[] {
  const ofTracks = tracksOf(set).flatMap(({ id, channel, goesTo }) => [
    ...channelChanges(id, undefined, channel),
    ...goesToChange(id, undefined, goesTo),
  ]);
  return [...mixChanges(undefined, set.mix), ...ofTracks];
}
