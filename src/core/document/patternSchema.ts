import { IsIn, IsOptional, IsString, MaxLength, ValidateBy, type ValidationArguments } from 'class-validator';
import { MIX_CONTROLS } from './mix';
import { RETURN_CONTROLS, RETURN_NAMES } from './returns';
import { HitSchema } from './hitSchema';
import { FAR_TICKS, MAX_HITS, MAX_NAME, MAX_TICKS, PADS, SHORTEST_LOOP } from './limits';
import { CONTROLS, MAX_POINTS, MOVE_TABLES, MOVED_CHANNELS, movedRange, type ControlRange, type Moved } from './moves';
import { TreatedSchema } from './treatmentSchemas';
import { Between, Part, Parts, Whole } from './validation';

class WindowSchema {
  @Between(0, MAX_TICKS) start!: number;
  @Between(1, MAX_TICKS) length!: number;
}

/** Beyond every range. */
const FAR_VALUE = 1e5;

class MovePointSchema {
  @Between(0, FAR_TICKS) tick!: number;
  @Between(-FAR_VALUE, FAR_VALUE) value!: number;
}

/** Undefined: the pad, or the channel, has no such control. */
function rangeOf({ object }: ValidationArguments): ControlRange | undefined {
  const { pad, on, control } = object as MoveSchema;
  return movedRange((pad === undefined ? { on, control } : { pad, control }) as Moved);
}

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

/** A Move names a pad or a channel, and a control that it has. */
function IsOfOne(): PropertyDecorator {
  return ValidateBy({
    name: 'isOfOne',
    validator: {
      validate: (_: unknown, args?: ValidationArguments) => {
        const { pad, on } = args!.object as MoveSchema;
        return (pad === undefined) !== (on === undefined) && rangeOf(args!) !== undefined;
      },
      defaultMessage: () => 'control must be one of the pad, or of the channel, that the Move names',
    },
  });
}

/** Of a pad, of a channel of the mix, or of its echo or room. */
class MoveSchema {
  @IsOptional() @Whole(0, PADS - 1) pad?: number;
  @IsOptional() @IsIn([...MOVED_CHANNELS, ...Object.keys(RETURN_NAMES)]) on?: string;
  @IsIn([...new Set<string>([...CONTROLS, ...MIX_CONTROLS, ...RETURN_CONTROLS.map(({ control }) => control)])])
  @IsOfOne()
  control!: string;
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
