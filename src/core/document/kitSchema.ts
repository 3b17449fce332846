import { ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
import { GRID_NAMES, type GridName } from '../quantize/grid';
import { MOST_ALSO, MOST_DELAY_MS, overreaching, type Kit } from './kit';
import { MAX_NAME, PADS } from './limits';
import { SoundSchema } from './soundSchema';
import { Between, Part, Parts, Whole } from './validation';

class AlsoPlaysSchema {
  @Whole(0, PADS - 1) pad!: number;
  @Between(0, 1) share!: number;
  @IsOptional() @Between(0, MOST_DELAY_MS) ms?: number;
  @IsOptional() @IsIn(GRID_NAMES) note?: GridName;
}

class KitPadSchema {
  @Part(() => SoundSchema) sound!: SoundSchema;
  @Whole(0, 127) note!: number;
  @IsOptional() @Parts(() => AlsoPlaysSchema, MOST_ALSO) alsoPlays?: AlsoPlaysSchema[];
}

export class KitSchema {
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @ArrayMinSize(PADS) @Parts(() => KitPadSchema, PADS) pads!: KitPadSchema[];
  /** Lists of pads, which `kitProblem` looks at. */
  @IsArray() @ArrayMaxSize(PADS / 2) cutGroups!: number[][];
}

/**
 * What is wrong with how a kit's pads belong together, or null: no single field can tell.
 * @example kitProblem(kit, 'tracks 1, kit') // "At tracks 1, kit, pads 3: it plays itself in a circle, or more than 15 others."
 */
export function kitProblem({ pads, cutGroups }: Kit, path: string): string | null {
  const isPad = (pad: unknown) => Number.isInteger(pad) && (pad as number) >= 0 && (pad as number) < PADS;
  const arePads = cutGroups.every((group) => Array.isArray(group) && group.every(isPad));
  const grouped = arePads ? cutGroups.flat() : [];
  if (!arePads || new Set(grouped).size < grouped.length) {
    return `At ${path}, cutGroups: they must be lists of pads, none of them in two.`;
  }
  const pad = overreaching(pads);
  return pad < 0 ? null : `At ${path}, pads ${pad + 1}: it plays itself in a circle, or more than 15 others.`;
}
