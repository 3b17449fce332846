import { IsIn, IsOptional, IsString, MaxLength, ValidateBy, type ValidationArguments } from 'class-validator';
import { HitSchema } from './hitSchema';
import { FAR_TICKS, MAX_HITS, MAX_NAME, MAX_TICKS, PADS, SHORTEST_LOOP } from './limits';
import { CONTROL_RANGES, CONTROLS, MAX_POINTS, MOVE_TABLES, type Control } from './moves';
import { TreatedSchema } from './treatmentSchemas';
import { Between, Part, Parts, Whole } from './validation';

class WindowSchema {
  @Between(0, MAX_TICKS) start!: number;
  @Between(1, MAX_TICKS) length!: number;
}

class MovePointSchema {
  @Between(0, FAR_TICKS) tick!: number;
  @Between(-100, 100) value!: number;
}

const rangeOf = ({ object }: ValidationArguments) => CONTROL_RANGES[(object as MoveSchema).control];

/** Values of a Move lie in the range of its control, its points in order of time. */
function IsCourse(): PropertyDecorator {
  return ValidateBy({
    name: 'isCourse',
    validator: {
      validate: (points: unknown, args?: ValidationArguments) => {
        const range = rangeOf(args!);
        if (!range || !Array.isArray(points)) return false;
        return (points as MovePointSchema[]).every(
          ({ tick, value }, i) =>
            value >= range.min &&
            value <= range.max &&
            (!range.stepped || Number.isInteger(value)) &&
            (i === 0 || tick >= (points as MovePointSchema[])[i - 1]!.tick),
        );
      },
      defaultMessage: (args) => {
        const range = rangeOf(args!);
        const values = range ? `from ${range.min} to ${range.max}${range.stepped ? ', whole ones' : ''}` : '';
        return `points must be in order of time, with values ${values}`;
      },
    },
  });
}

class MoveSchema {
  @Whole(0, PADS - 1) pad!: number;
  @IsIn(CONTROLS) control!: Control;
  @IsCourse() @Parts(() => MovePointSchema, MAX_POINTS) points!: MovePointSchema[];
}

class LaneSchema extends TreatedSchema {
  @Whole(0, PADS - 1) pad!: number;
}

export class PatternSchema extends TreatedSchema {
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsOptional() @Whole(0, 7) colour?: number;
  @IsOptional() @Part(() => WindowSchema) window?: WindowSchema;
  @IsOptional() @Parts(() => MoveSchema, MOVE_TABLES) moves?: MoveSchema[];
  @Whole(SHORTEST_LOOP, MAX_TICKS) length!: number;
  @Parts(() => HitSchema, MAX_HITS) hits!: HitSchema[];
  @IsOptional() @Parts(() => LaneSchema, PADS) lanes?: LaneSchema[];
}
