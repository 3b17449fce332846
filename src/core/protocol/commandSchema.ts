import { IsString } from 'class-validator';
import { Such, Whole } from '../document/validation';

/** Beyond every frame and id that an engine counts to. */
export const FAR = Number.MAX_SAFE_INTEGER;

export const isNumber = (value: unknown) => typeof value === 'number';
/** A number, or none where nothing is known or held. */
export const NumberOrNone = () => Such(isNumber, 'must be a number');

/** What every command has. */
export class AnySchema {
  @IsString() type!: string;
  @Whole(0, FAR) frame!: number;
}
