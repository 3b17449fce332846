import { IsIn, IsOptional, ValidateIf } from 'class-validator';
import { PPQ } from '../time/ticks';
import { FAR_TICKS, MAX_TICKS, MOST_PITCH, PADS } from './limits';
import { MOST_GLIDE, ROLL_STROKES } from './roll';
import { SnapSchema, TreatedSchema } from './treatmentSchemas';
import { Between, Part, Whole } from './validation';

class RollSchema {
  @IsIn(ROLL_STROKES) strokes!: number;
  @Between(1, MAX_TICKS) over!: number;
  @Between(-1, 1) swell!: number;
  @Between(-MOST_GLIDE, MOST_GLIDE) glide!: number;
}

export class HitSchema extends TreatedSchema {
  @Whole(1, Number.MAX_SAFE_INTEGER) id!: number;
  @Whole(0, PADS - 1) pad!: number;
  @Between(-FAR_TICKS, FAR_TICKS) tick!: number;
  @Between(0, MAX_TICKS) length!: number;
  @Between(0, 1) velocity!: number;
  @ValidateIf((_, value) => value !== null) @Part(() => SnapSchema) snap!: SnapSchema | null;
  @IsOptional() @Whole(1, Number.MAX_SAFE_INTEGER) take?: number;
  @IsOptional() @Between(-PPQ, PPQ) nudge?: number;
  @IsOptional() @Between(-MOST_PITCH, MOST_PITCH) pitch?: number;
  @IsOptional() @Between(0, 1) odds?: number;
  @IsOptional() @Part(() => RollSchema) roll?: RollSchema;
}
