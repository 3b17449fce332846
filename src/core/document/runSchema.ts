import { IsBoolean, IsObject, IsOptional, IsString, MaxLength } from 'class-validator';
import { MAX_NAME } from './limits';
import { Between, Part, Parts, Whole } from './validation';

const FAR = Number.MAX_SAFE_INTEGER;
const MOST_NOTE = 10_000;

class TempoSchema {
  @Between(1, 1000) least!: number;
  @Between(1, 1000) most!: number;
}
class StretchSchema {
  @Between(0, 1e9) from!: number;
  @Between(0, 1e9) length!: number;
}
class RowSchema {
  @Whole(0, 7) colour!: number;
  @Parts(() => StretchSchema, 10_000) stretches!: StretchSchema[];
}
class PictureSchema {
  @Between(1, 1e9) length!: number;
  @Parts(() => RowSchema, 16) rows!: RowSchema[];
}

/** The record of a run. */
export class RunSchema {
  @Whole(1, 1) schema!: 1;
  @IsString() id!: string;
  @IsString() @MaxLength(MAX_NAME * 2) name!: string;
  @IsOptional() @IsString() @MaxLength(MOST_NOTE) note?: string;
  @IsOptional() @Part(() => PictureSchema) picture?: PictureSchema;
  @IsBoolean() marked!: boolean;
  @IsString() @MaxLength(40) at!: string;
  @IsString() log!: string;
  @Between(0, FAR) from!: number;
  @Between(0, FAR) to!: number;
  @Between(8000, 768_000) sampleRate!: number;
  @Whole(0, FAR) sound!: number;
  @IsString() set!: string;
  // How it was performed is read with the set.
  @IsObject() stage!: object;
  @Whole(0, FAR) letters!: number;
  @Whole(0, FAR) hits!: number;
  @Whole(0, FAR) launches!: number;
  @Part(() => TempoSchema) tempo!: TempoSchema;
}
