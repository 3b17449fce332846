import { IsBoolean, IsOptional, IsString, MaxLength, ValidateIf } from 'class-validator';
import { MAX_NAME, MAX_NOTE } from '../document/limits';
import { check, Between, Part, Parts, Whole } from '../document/validation';
import type { LibrarySet } from './librarySet';

const FAR = Number.MAX_SAFE_INTEGER;
const MAX_KEY = 120;
const MAX_DATE = 40;
const MOST_VERSIONS = 10_000;

class FromSchema {
  @IsString() @MaxLength(MAX_KEY) id!: string;
  @IsString() @MaxLength(MAX_NAME) name!: string;
}
class VersionSchema {
  @IsString() @MaxLength(MAX_KEY) key!: string;
  @IsString() @MaxLength(MAX_DATE) at!: string;
  @IsOptional() @IsString() @MaxLength(MAX_NOTE) note?: string;
  @IsOptional() @IsBoolean() auto?: boolean;
}
class RowSchema {
  @Whole(0, 7) colour!: number;
  @IsString() @MaxLength(64) cells!: string;
}
class PictureSchema {
  @Parts(() => RowSchema, 16) rows!: RowSchema[];
}

/** The record of a set in the library. */
class LibrarySetSchema {
  @IsString() @MaxLength(MAX_KEY) id!: string;
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsOptional() @IsString() @MaxLength(MAX_NOTE) note?: string;
  @IsOptional() @Part(() => FromSchema) from?: FromSchema;
  @Between(1, 1000) tempo!: number;
  @Whole(0, FAR) tracks!: number;
  @Whole(0, FAR) patterns!: number;
  @Whole(0, FAR) hits!: number;
  @Whole(0, FAR) letters!: number;
  @Part(() => PictureSchema) picture!: PictureSchema;
  @IsString() @MaxLength(MAX_DATE) at!: string;
  @ValidateIf((_, value) => value !== null) @IsString() @MaxLength(MAX_KEY) latest!: string | null;
  @Parts(() => VersionSchema, MOST_VERSIONS) versions!: VersionSchema[];
  @IsOptional() @IsString() @MaxLength(MAX_DATE) binned?: string;
}

/** Reads the record of a set in the library; null if it is none. */
export function readLibrarySet(text: string | null): LibrarySet | null {
  try {
    const checked = check(LibrarySetSchema, JSON.parse(text ?? 'null'), 'the set');
    return 'value' in checked ? (checked.value as LibrarySet) : null;
  } catch {
    return null;
  }
}
