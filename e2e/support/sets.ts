import { emptySet as newSet } from '@/core/document/create';
import { demoSet as newDemo } from '@/core/document/demo';
import type { BeatSet, OpenSet } from '@/core/document/set';
import type { Stage } from '@/core/document/stage';

/** A set as it is stored: what was made and what is being performed in one. */
export type StoredSet = BeatSet & { stage: Stage };

const stored = ({ set, stage }: OpenSet): StoredSet => ({ ...set, stage });

export const demoSet = () => stored(newDemo());
export const emptySet = () => stored(newSet());
