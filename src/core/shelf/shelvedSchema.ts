import { ArrayMaxSize, IsArray, IsOptional, IsString, MaxLength } from 'class-validator';
import type { Kit } from '../document/kit';
import { kitProblem, KitSchema } from '../document/kitSchema';
import { MAX_NAME } from '../document/limits';
import { SoundSchema } from '../document/soundSchema';
import { Between, check, Part, type Checked } from '../document/validation';
import { MAX_TEMPO, MIN_TEMPO } from '../time/ticks';
import { MOST_TAG_LETTERS, MOST_TAGS, type Shelved } from './shelved';

class ShelvedSchema {
  @IsString() @MaxLength(MAX_NAME) id!: string;
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsArray()
  @ArrayMaxSize(MOST_TAGS)
  @IsString({ each: true })
  @MaxLength(MOST_TAG_LETTERS, { each: true })
  tags!: string[];
  @IsOptional() @Between(MIN_TEMPO, MAX_TEMPO) tempo?: number;
  @IsOptional() @Part(() => KitSchema) kit?: KitSchema;
  @IsOptional() @Part(() => SoundSchema) sound?: SoundSchema;
}

/** Reads an entry of the shelf, or says what is wrong with it and where. */
export function checkShelved(plain: unknown): Checked<Shelved> {
  const checked = check(ShelvedSchema, plain, 'the kit');
  if ('problem' in checked) return checked;
  const { kit, sound } = checked.value;
  if (!kit === !sound) return { problem: 'It holds neither a kit nor a sound, or both.' };
  const problem = kit ? kitProblem(kit as Kit, 'the kit') : null;
  return problem ? { problem } : { value: checked.value as Shelved };
}

/** Reads a stored entry; null if it is none. */
export function readShelved(plain: unknown): Shelved | null {
  const checked = checkShelved(plain);
  return 'value' in checked ? checked.value : null;
}
