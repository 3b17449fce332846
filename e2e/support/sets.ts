import { emptySet as newSet } from '@/core/document/create';
import { demoSet as newDemo } from '@/core/document/demo';
import { unmixed } from '@/core/document/unmixed.testing';
import type { BeatSet, OpenSet } from '@/core/document/set';
import type { Stage } from '@/core/document/stage';

/** A set as it is stored: what was made and what is being performed in one. */
export type StoredSet = BeatSet & { stage: Stage };

const stored = ({ set, stage }: OpenSet): StoredSet => ({ ...set, stage });

export const demoSet = () => stored(newDemo());
/** The demo with nothing done in its mix. */
export const unmixedSet = () => stored(unmixed(newDemo()));
export const emptySet = () => stored(newSet());
