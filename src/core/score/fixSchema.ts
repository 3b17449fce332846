import { ArrayMaxSize, IsArray, IsIn, IsInt, IsOptional, IsString, MaxLength } from 'class-validator';
import { MAX_HITS, MAX_NAME, PADS } from '../document/limits';
import { SHAPING_CONTROLS } from '../document/moves';
import { Between, check, Part, Parts, Whole, type Checked, type Schema } from '../document/validation';
import { FeelSchema } from '../document/treatmentSchemas';
import { isPlain } from '../plain';
import type { Fix, StrokeLine } from './fix';

/** Far beyond any run: a bound so that a broken record cannot freeze the app. */
const FAR = 1e8;
const MOST_IDS = 100_000;
/** The most fixes of one run. */
const MOST_FIXES = 10_000;
const LINES: readonly StrokeLine[] = [...SHAPING_CONTROLS, 'velocity'];

class StrokeSchema {
  @IsOptional() @Whole(0, FAR) id?: number;
  @Between(-FAR, FAR) tick!: number;
  @Between(-FAR, FAR) late!: number;
  @Whole(0, PADS - 1) pad!: number;
  @Between(0, 1) velocity!: number;
  @Between(0, FAR) length!: number;
  @Between(-256, 256) pitch!: number;
  @Between(-16, 16) filter!: number;
  @Between(-16, 16) decay!: number;
  @Between(0, 1) level!: number;
  @Between(-1, 1) pan!: number;
  @IsOptional() @Between(-24, 24) drive?: number;
  @IsOptional() @Between(-1, 1) room?: number;
  @IsOptional() @Between(-2, 3) resonance?: number;
  @IsOptional() @Between(-1, 1) start?: number;
  @IsOptional() @Between(0, 1) pressure?: number;
  @IsOptional() @Between(-1, 1) bright?: number;
}

class ContentSchema {
  @Between(0, FAR) length!: number;
  @Between(0, FAR) loop!: number;
  @Parts(() => StrokeSchema, MAX_HITS * 8) strokes!: StrokeSchema[];
}

class BlockSchema {
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @Whole(0, 7) colour!: number;
  @Between(0, FAR) from!: number;
  @Between(1e-6, FAR) length!: number;
  @Between(-FAR, FAR) into!: number;
  @Part(() => ContentSchema) content!: ContentSchema;
}

class DroppedSchema {
  @Whole(0, 15) track!: number;
  @Part(() => BlockSchema) block!: BlockSchema;
}

class StepSchema {
  @Between(0, FAR) tick!: number;
  @Between(-1000, 1000) value!: number;
}

function Ids(): PropertyDecorator {
  return (target, key) => {
    for (const decorator of [IsArray(), ArrayMaxSize(MOST_IDS), IsInt({ each: true })]) decorator(target, key);
  };
}

class Typed {
  @IsString() type!: string;
}
class OfBlocks extends Typed {
  @Ids() blocks!: number[];
}
class OfHits extends Typed {
  @Ids() hits!: number[];
}
class Stretch extends Typed {
  @Between(0, FAR) from!: number;
  @Between(0, FAR) to!: number;
}
class Drawn extends Stretch {
  @Parts(() => StepSchema, MOST_IDS) steps!: StepSchema[];
}

class MoveBlocks extends OfBlocks {
  @Between(-FAR, FAR) by!: number;
  @Whole(-16, 16) rows!: number;
}
class BoundBlock extends Typed {
  @Whole(0, FAR) block!: number;
  @Between(-FAR, FAR) from!: number;
  @Between(0, FAR) length!: number;
}
class CopyBlocks extends OfBlocks {
  @Between(-FAR, FAR) by!: number;
}
class DropBlocks extends Typed {
  @Parts(() => DroppedSchema, MOST_IDS) dropped!: DroppedSchema[];
}
class OpenStretch extends Typed {
  @Between(0, FAR) at!: number;
  @Between(0, FAR) ticks!: number;
}
class MoveHits extends OfHits {
  @Between(-FAR, FAR) by!: number;
}
class PlaceHits extends OfHits {
  @Part(() => FeelSchema) feel!: FeelSchema;
}
class DropHit extends Typed {
  @Whole(0, 15) track!: number;
  @Part(() => StrokeSchema) hit!: StrokeSchema;
}
class DrawLevels extends Drawn {
  @Whole(0, 15) track!: number;
}
class DrawStrokes extends DrawLevels {
  @IsIn(LINES) line!: StrokeLine;
}
class RaiseStrokes extends Stretch {
  @Whole(0, 15) track!: number;
  @IsIn(LINES) line!: StrokeLine;
  @Between(-256, 256) by!: number;
}

const SCHEMAS: Record<Fix['type'], Schema> = {
  moveBlocks: MoveBlocks,
  boundBlock: BoundBlock,
  copyBlocks: CopyBlocks,
  removeBlocks: OfBlocks,
  dropBlocks: DropBlocks,
  closeStretch: Stretch,
  openStretch: OpenStretch,
  removeHits: OfHits,
  moveHits: MoveHits,
  placeHits: PlaceHits,
  dropHit: DropHit,
  drawLevels: DrawLevels,
  drawTempo: Drawn,
  drawStrokes: DrawStrokes,
  raiseStrokes: RaiseStrokes,
};

/** All that was put right in a run, in order. */
export interface Fixes {
  fixes: readonly Fix[];
  /** How many of them hold: those after them were undone. */
  done: number;
}

export const NO_FIXES: Fixes = { fixes: [], done: 0 };

/** What `readFixes` reads. */
export function fixesText({ fixes, done }: Fixes): string {
  return JSON.stringify({ schema: 1, fixes, done });
}

/** Reads what was put right in a run, or says what is wrong with it and where. */
export function readFixes(text: string): Checked<Fixes> {
  let plain: unknown;
  try {
    plain = JSON.parse(text);
  } catch {
    return { problem: 'It is cut off, or no JSON.' };
  }
  if (!isPlain(plain) || plain.schema !== 1)
    return { problem: 'It is of a newer version of Chaffinch, or none of its records.' };
  const { fixes, done } = plain;
  if (!Array.isArray(fixes) || fixes.length > MOST_FIXES) return { problem: 'At fixes: it is no list.' };
  const read: Fix[] = [];
  for (const [i, fix] of (fixes as unknown[]).entries()) {
    const checked = readFix(fix, `fixes ${i + 1}`);
    if ('problem' in checked) return checked;
    read.push(checked.value);
  }
  if (typeof done !== 'number' || !Number.isInteger(done) || done < 0 || done > read.length) {
    return { problem: 'At done: it is not a number of its fixes.' };
  }
  return { value: { fixes: read, done } };
}

function readFix(plain: unknown, path: string): Checked<Fix> {
  const type = isPlain(plain) ? plain.type : undefined;
  const schema = Object.entries(SCHEMAS).find(([name]) => name === type)?.[1];
  if (!schema) return { problem: `At ${path}: it is no kind of fix that is known.` };
  return check(schema, plain, path) as Checked<Fix>;
}
