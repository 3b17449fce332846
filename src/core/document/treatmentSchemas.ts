import { ArrayMaxSize, IsArray, IsIn, IsNumber, IsOptional } from 'class-validator';
import { GRIDS } from '../quantize/grid';
import { MOST_SWING, STRAIGHT } from '../quantize/swing';
import { PPQ } from '../time/ticks';
import { MAX_TICKS } from './limits';
import { Between, Part } from './validation';

export class SnapSchema {
  @Between(1, MAX_TICKS) grid!: number;
  @Between(0, 1) strength!: number;
}

class SwingSchema {
  @IsIn([PPQ / 2, PPQ / 4]) unit!: number;
  @Between(STRAIGHT, MOST_SWING) ratio!: number;
}

export class FeelSchema {
  @IsIn([0, ...GRIDS.map((grid) => grid.ticks)]) grid!: number;
  @Between(0, 1) strength!: number;
  @IsOptional() @Part(() => SwingSchema) swing?: SwingSchema;
  @IsOptional() @Between(0, PPQ) spare?: number;
}

class AccentsSchema {
  @Between(1, MAX_TICKS) bar!: number;
  @IsArray() @ArrayMaxSize(64) @IsNumber({ allowNaN: false, allowInfinity: false }, { each: true }) at!: number[];
  @Between(0, 1) amount!: number;
}

class LoudnessSchema {
  @Between(0, 1) level!: number;
  @Between(0, 1) even!: number;
  @Between(0, 2) scale!: number;
  @IsOptional() @Part(() => AccentsSchema) accents?: AccentsSchema;
}

/** What a pattern, a lane and a hit can each have. */
export class TreatedSchema {
  @IsOptional() @Part(() => FeelSchema) feel?: FeelSchema;
  @IsOptional() @Part(() => LoudnessSchema) loudness?: LoudnessSchema;
}
