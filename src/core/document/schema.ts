import 'reflect-metadata';
import { plainToInstance, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  Equals,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
  validateSync,
  type ValidationError,
} from 'class-validator';
import { GRID_NAMES, GRIDS, type GridName } from '../quantize/grid';
import { MOST_SWING, STRAIGHT } from '../quantize/swing';
import { MAX_TEMPO, MIN_TEMPO, PPQ } from '../time/ticks';
import { CONTROLS, MAX_POINTS, MOVE_TABLES, type Control } from './moves';
import { FIRST_LAUNCHING } from './create';
import { KIT_IDS, type KitId } from './kits';
import { MOST_OCTAVES, SCALES, TONE_VOICES, type ScaleName, type ToneVoice } from './tones';
import {
  CLICK_SOUNDS,
  CLICK_TIMES,
  DROPS,
  MAX_HITS,
  MAX_LINKS,
  MAX_NAME,
  MAX_SECTIONS,
  MAX_SLOTS,
  MAX_TIMES,
  MAX_TRACKS,
  MOST_PITCH,
  PADS,
  SCHEMA_VERSION,
  type BeatSet,
  type ClickSound,
  type ClickTime,
  type CountIn,
  type Drop,
} from './set';
import { MOST_GLIDE, ROLL_STROKES } from './roll';

/** The longest pattern: 64 bars of twelve quarters. */
const MAX_TICKS = 64 * 12 * PPQ;
/** Where a hit may wait on the tape: doubling a loop moves what lies beyond it further out. */
const FAR_TICKS = 1e9;
/** Longer texts are no set that hands could have made; reading them would freeze the page. */
const MAX_TEXT = 60_000_000;

const finite = { allowNaN: false, allowInfinity: false };

class SnapSchema {
  @IsNumber(finite) @Min(1) @Max(MAX_TICKS) grid!: number;
  @IsNumber(finite) @Min(0) @Max(1) strength!: number;
}

class SwingSchema {
  @IsIn([PPQ / 2, PPQ / 4]) unit!: number;
  @IsNumber(finite) @Min(STRAIGHT) @Max(MOST_SWING) ratio!: number;
}

class FeelSchema {
  @IsIn([0, ...GRIDS.map((grid) => grid.ticks)]) grid!: number;
  @IsNumber(finite) @Min(0) @Max(1) strength!: number;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => SwingSchema) swing?: SwingSchema;
  @IsOptional() @IsNumber(finite) @Min(0) @Max(PPQ) spare?: number;
}

class AccentsSchema {
  @IsNumber(finite) @Min(1) @Max(MAX_TICKS) bar!: number;
  @IsArray() @ArrayMaxSize(64) @IsNumber(finite, { each: true }) at!: number[];
  @IsNumber(finite) @Min(0) @Max(1) amount!: number;
}

class LoudnessSchema {
  @IsNumber(finite) @Min(0) @Max(1) level!: number;
  @IsNumber(finite) @Min(0) @Max(1) even!: number;
  @IsNumber(finite) @Min(0) @Max(2) scale!: number;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => AccentsSchema) accents?: AccentsSchema;
}

/** What a pattern, a lane and a hit can each have. */
class TreatedSchema {
  @IsOptional() @IsObject() @ValidateNested() @Type(() => FeelSchema) feel?: FeelSchema;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => LoudnessSchema) loudness?: LoudnessSchema;
}

class LaneSchema extends TreatedSchema {
  @IsInt() @Min(0) @Max(PADS - 1) pad!: number;
}

class RollSchema {
  @IsIn(ROLL_STROKES) strokes!: number;
  @IsNumber(finite) @Min(1) @Max(MAX_TICKS) over!: number;
  @IsNumber(finite) @Min(-1) @Max(1) swell!: number;
  @IsNumber(finite) @Min(-MOST_GLIDE) @Max(MOST_GLIDE) glide!: number;
}

class HitSchema extends TreatedSchema {
  @IsInt() @Min(1) @Max(Number.MAX_SAFE_INTEGER) id!: number;
  @IsInt() @Min(0) @Max(PADS - 1) pad!: number;
  @IsNumber(finite) @Min(-FAR_TICKS) @Max(FAR_TICKS) tick!: number;
  @IsNumber(finite) @Min(0) @Max(MAX_TICKS) length!: number;
  @IsNumber(finite) @Min(0) @Max(1) velocity!: number;
  @ValidateIf((_, value) => value !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => SnapSchema)
  snap!: SnapSchema | null;
  @IsOptional() @IsInt() @Min(1) @Max(Number.MAX_SAFE_INTEGER) take?: number;
  @IsOptional() @IsNumber(finite) @Min(-PPQ) @Max(PPQ) nudge?: number;
  @IsOptional() @IsNumber(finite) @Min(-MOST_PITCH) @Max(MOST_PITCH) pitch?: number;
  @IsOptional() @IsNumber(finite) @Min(0) @Max(1) odds?: number;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => RollSchema) roll?: RollSchema;
}

class WindowSchema {
  @IsNumber(finite) @Min(0) @Max(MAX_TICKS) start!: number;
  @IsNumber(finite) @Min(1) @Max(MAX_TICKS) length!: number;
}

class MovePointSchema {
  @IsNumber(finite) @Min(0) @Max(FAR_TICKS) tick!: number;
  @IsNumber(finite) @Min(-100) @Max(100) value!: number;
}

class MoveSchema {
  @IsInt() @Min(0) @Max(PADS - 1) pad!: number;
  @IsIn(CONTROLS) control!: Control;
  @IsArray()
  @ArrayMaxSize(MAX_POINTS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => MovePointSchema)
  points!: MovePointSchema[];
}

class PatternSchema extends TreatedSchema {
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsOptional() @IsInt() @Min(0) @Max(7) colour?: number;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => WindowSchema) window?: WindowSchema;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOVE_TABLES)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => MoveSchema)
  moves?: MoveSchema[];
  @IsInt() @Min(PPQ / 4) @Max(MAX_TICKS) length!: number;
  @IsArray()
  @ArrayMaxSize(MAX_HITS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => HitSchema)
  hits!: HitSchema[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(PADS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => LaneSchema)
  lanes?: LaneSchema[];
}

/** A list of pads, none of them twice. */
function IsPads(): PropertyDecorator {
  return (target, key) => {
    const each = { each: true };
    for (const rule of [IsArray(), ArrayMaxSize(PADS), ArrayUnique(), IsInt(each), Min(0, each), Max(PADS - 1, each)]) {
      rule(target, key as string);
    }
  };
}

class TonesSchema {
  @IsIn(TONE_VOICES) voice!: ToneVoice;
  @IsInt() @Min(0) @Max(11) root!: number;
  @IsIn(SCALES) scale!: ScaleName;
  @IsBoolean() chromatic!: boolean;
  @IsInt() @Min(-MOST_OCTAVES) @Max(MOST_OCTAVES) octave!: number;
}

class LinkSchema {
  @IsInt() @Min(0) @Max(MAX_SLOTS - 1) slot!: number;
  @IsInt() @Min(1) @Max(MAX_TIMES) times!: number;
}

class ChainSchema {
  @IsArray()
  @ArrayMaxSize(MAX_LINKS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => LinkSchema)
  links!: LinkSchema[];
  @IsBoolean() again!: boolean;
}

class TrackSchema {
  @IsInt() @Min(0) @Max(MAX_TRACKS - 1) channel!: number;
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsInt() @Min(0) @Max(7) colour!: number;
  @IsIn(KIT_IDS) kit!: KitId;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => TonesSchema) tones?: TonesSchema;
  @IsOptional() @IsBoolean() solo?: boolean;
  @IsOptional() @IsBoolean() stopped?: boolean;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => ChainSchema) chain?: ChainSchema;
  @IsNumber(finite) @Min(0) @Max(1) level!: number;
  @IsBoolean() mute!: boolean;
  @IsOptional() @IsPads() mutedPads?: number[];
  @IsOptional() @IsPads() soloPads?: number[];
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MAX_SLOTS)
  @Type(() => PatternSchema)
  patterns!: (PatternSchema | null)[];
  @IsInt() @Min(0) current!: number;
}

class MeterSchema {
  @IsInt() @Min(1) @Max(16) beats!: number;
  @IsIn([2, 4, 8, 16]) unit!: number;
}

class MetronomeSchema {
  @IsBoolean() on!: boolean;
  @IsNumber(finite) @Min(0) @Max(1) level!: number;
  @IsIn(CLICK_SOUNDS) sound!: ClickSound;
  @IsIn(CLICK_TIMES) when!: ClickTime;
  @ValidateIf((_, value) => value !== null) @IsIn(GRID_NAMES) between!: GridName | null;
}

class InputQuantizeSchema {
  @IsBoolean() on!: boolean;
  @IsIn(GRID_NAMES) grid!: GridName;
}

class SectionPartSchema {
  @IsInt() @Min(0) @Max(MAX_TRACKS - 1) channel!: number;
  @ValidateIf((_, value) => value !== null && value !== 'chain')
  @IsInt()
  @Min(0)
  @Max(MAX_SLOTS - 1)
  plays!: number | 'chain' | null;
}

class SectionSchema {
  @IsInt() @Min(1) @Max(Number.MAX_SAFE_INTEGER) id!: number;
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsInt() @Min(0) @Max(7) colour!: number;
  @IsArray()
  @ArrayMaxSize(MAX_TRACKS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => SectionPartSchema)
  parts!: SectionPartSchema[];
  @IsInt() @Min(1) @Max(MAX_TIMES) rounds!: number;
  @ValidateIf((_, value) => value !== undefined && value !== 'stop')
  @IsInt()
  @Min(1)
  @Max(Number.MAX_SAFE_INTEGER)
  then?: number | 'stop';
}

class LaunchingSchema {
  @IsIn(DROPS) dropOn!: Drop;
  @IsIn(DROPS) override!: Drop;
  @IsBoolean() inPlace!: boolean;
}

class PatternPlaceSchema {
  @IsInt() @Min(0) @Max(MAX_TRACKS - 1) channel!: number;
  @IsInt() @Min(0) @Max(MAX_SLOTS - 1) slot!: number;
}

class SetSchema {
  @Equals(SCHEMA_VERSION) schema!: typeof SCHEMA_VERSION;
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @IsNumber(finite) @Min(MIN_TEMPO) @Max(MAX_TEMPO) tempo!: number;
  @IsObject() @ValidateNested() @Type(() => MeterSchema) meter!: MeterSchema;
  @IsObject() @ValidateNested() @Type(() => MetronomeSchema) metronome!: MetronomeSchema;
  @IsIn([0, 1, 2]) countIn!: CountIn;
  @IsObject() @ValidateNested() @Type(() => InputQuantizeSchema) inputQuantize!: InputQuantizeSchema;
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MAX_TRACKS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => TrackSchema)
  tracks!: TrackSchema[];
  @IsInt() @Min(0) @Max(MAX_TRACKS - 1) shown!: number;
  @IsObject() @ValidateNested() @Type(() => LaunchingSchema) launching!: LaunchingSchema;
  @IsArray()
  @ArrayMaxSize(MAX_SECTIONS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => SectionSchema)
  sections!: SectionSchema[];
  @IsOptional() @IsObject() @ValidateNested() @Type(() => PatternPlaceSchema) trace?: PatternPlaceSchema;
}

export type ReadSet = { set: BeatSet } | { error: string };

/**
 * Reads a stored set.
 * @returns the set, or one sentence that says what is wrong and where; never throws
 */
export function readSet(text: string): ReadSet {
  if (text.length > MAX_TEXT)
    return { error: `It is ${Math.round(text.length / 1e6)} MB long, more than a set can be.` };
  let plain: unknown;
  try {
    plain = JSON.parse(text);
  } catch {
    return { error: 'It is cut off or not a set at all (the text cannot be read as JSON).' };
  }
  try {
    return checkSet(plain);
  } catch {
    return { error: 'Its parts are nested in a way that no set is.' };
  }
}

function checkSet(plain: unknown): ReadSet {
  if (typeof plain !== 'object' || plain === null || Array.isArray(plain)) return { error: 'It holds no set.' };
  const version = (plain as { schema?: unknown }).schema;
  if (typeof version === 'number' && version > SCHEMA_VERSION) {
    return { error: `It was made by a newer Chaffinch (version ${version}; this one reads up to ${SCHEMA_VERSION}).` };
  }
  const tooBig = oversize(plain);
  if (tooBig) return { error: tooBig };
  const set = plainToInstance(SetSchema, migrate(plain));
  const problem = firstProblem(validateSync(set, STRICT)) ?? slotProblem(set) ?? linkProblem(set);
  if (problem) return { error: problem };
  return { set: JSON.parse(JSON.stringify(set)) as BeatSet };
}

const STRICT = {
  whitelist: true,
  forbidUnknownValues: true,
  stopAtFirstError: true,
  validationError: { target: false },
};

/** Brings the shape of an older version to the present one. Each step goes from one version to the next. */
function migrate(plain: object): object {
  let set = plain as Record<string, unknown>;
  if (set.schema === 1) {
    // 2: Feel, Loudness and takes, which version 1 has not; and more to set on the metronome.
    const metronome = { sound: 'wood', when: 'always', between: null, ...(set.metronome as object | null) };
    set = { ...set, schema: 2, metronome: set.metronome ? metronome : set.metronome };
  }
  // 3: a hit's pitch, odds, roll and nudge, loop windows, Moves, colours: none of which has to be there.
  if (set.schema === 2) set = { ...set, schema: 3 };
  if (set.schema === 3) {
    // 4: tracks have channels, of which one is shown and by which they are named; sections, and how they are launched.
    const tracks = Array.isArray(set.tracks)
      ? set.tracks.map((track: unknown, channel) => (isPlain(track) ? { channel, ...track } : track))
      : set.tracks;
    const trace = isPlain(set.trace) ? { ...set.trace, channel: (set.trace as { track?: unknown }).track } : set.trace;
    set = {
      shown: 0,
      launching: FIRST_LAUNCHING,
      sections: [],
      ...set,
      tracks,
      ...(trace !== undefined && { trace }),
      schema: 4,
    };
  }
  return set;
}

function isPlain(value: unknown): value is object {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Lists that are too long are refused before each of their parts is looked at. */
function oversize(plain: object): string | null {
  const { tracks } = plain as { tracks?: unknown };
  if (!Array.isArray(tracks)) return null;
  if (tracks.length > MAX_TRACKS) return `It has ${tracks.length} tracks; ${MAX_TRACKS} is the most.`;
  for (const [t, track] of tracks.entries()) {
    const patterns: unknown = (track as { patterns?: unknown } | null)?.patterns;
    if (!Array.isArray(patterns)) continue;
    if (patterns.length > MAX_SLOTS)
      return `Track ${t + 1} has ${patterns.length} pattern slots; ${MAX_SLOTS} is the most.`;
    for (const [p, pattern] of patterns.entries()) {
      const hits: unknown = (pattern as { hits?: unknown } | null)?.hits;
      if (Array.isArray(hits) && hits.length > MAX_HITS) {
        return `Pattern ${p + 1} of track ${t + 1} has ${hits.length} hits; ${MAX_HITS} is the most.`;
      }
    }
  }
  return null;
}

/** Empty slots are null, which nested validation does not allow in a list: the slots are checked one by one. */
function slotProblem(set: SetSchema): string | null {
  for (const [t, track] of set.tracks.entries()) {
    for (const [p, pattern] of track.patterns.entries()) {
      if (pattern === null) continue;
      const where = `tracks ${t + 1}, patterns ${p + 1}`;
      if (!(pattern instanceof PatternSchema)) return `At ${where}: it is not a pattern.`;
      const problem = firstProblem(validateSync(pattern, STRICT), where);
      if (problem) return problem;
    }
  }
  return null;
}

/** What no single field can tell. */
function linkProblem(set: SetSchema): string | null {
  const ids = new Set<number>();
  const channels = new Set(set.tracks.map((track) => track.channel));
  if (channels.size < set.tracks.length) return 'Two of its tracks have the same channel.';
  if (!channels.has(set.shown)) return `At shown: there is no track of channel ${set.shown}.`;
  const sections = new Set(set.sections.map((section) => section.id));
  if (sections.size < set.sections.length) return 'Two of its sections have the same number.';
  for (const [t, track] of set.tracks.entries()) {
    if (track.current >= track.patterns.length)
      return `At tracks ${t + 1}: the current slot ${track.current + 1} does not exist.`;
    for (const pattern of track.patterns) {
      for (const hit of pattern?.hits ?? []) {
        if (ids.has(hit.id)) return `Two hits of track ${t + 1} have the same number ${hit.id}.`;
        ids.add(hit.id);
      }
    }
  }
  return null;
}

/** The first thing that is wrong, as "At tracks 1, patterns 1, hits 3, velocity: must not be greater than 1." */
function firstProblem(errors: readonly ValidationError[], path = ''): string | null {
  const error = errors[0];
  if (!error) return null;
  const step = /^\d+$/.test(error.property) ? ` ${Number(error.property) + 1}` : `${path ? ', ' : ''}${error.property}`;
  const here = path + step;
  if (error.children?.length) return firstProblem(error.children, here);
  const [message = 'it is not valid'] = Object.values(error.constraints ?? {});
  return `At ${here}: ${message.replace(`${error.property} `, '')}.`;
}
