import { IsBoolean, IsIn, IsInt, IsOptional, Max, Min, ValidateIf } from 'class-validator';
import type { Kit as KitDocument } from '../document/kit';
import { kitProblem, KitSchema } from '../document/kitSchema';
import { isSampleId } from '../document/sample';
import { SoundSchema, SoundSettingsSchema } from '../document/soundSchema';
import { FAR_TICKS, MAX_LINKS, MAX_SECTIONS, MAX_SLOTS, MAX_TIMES, MAX_TRACKS, PADS } from '../document/limits';
import { CLICK_SOUNDS, CLICK_TIMES } from '../document/metronome';
import { CONTROLS, MOVE_TABLES, type Control } from '../document/moves';
import { TONE_VOICES, type TonePreset, type ToneVoice } from '../document/toneVoices';
import { ArpeggioSchema, IsPreset } from '../document/trackSchema';
import { Between, check, Part, Parts, Such, Whole, type Schema } from '../document/validation';
import { isPlain } from '../plain';
import { LaunchState } from '../launch/launchState';
import { HIT, HIT_WIDTH } from '../sequence/hitRows';
import type { Command, CommandType } from './commands';
import { AnySchema, FAR, isNumber, NumberOrNone } from './commandSchema';
import { MIX_SCHEMAS } from './mixCommandSchemas';

const Numbers = () => Such((value) => ArrayBuffer.isView(value) && Array.from(value as Float64Array).every(Number.isFinite), 'must be a list of numbers'); // prettier-ignore
/** Nothing, or long enough that it does not come round more often than it can be played. */
const Length = () => Such((value) => value === 0 || (isNumber(value) && (value as number) >= 1 && (value as number) <= FAR_TICKS), 'must be 0, or ticks'); // prettier-ignore

/** Rows of hits (see `HIT`): what would make the engine play without end is none. */
const Hits = () => Such(areHits, 'must be rows of hits');

function areHits(value: unknown): boolean {
  if (!ArrayBuffer.isView(value)) return false;
  const rows = value as Float64Array;
  const within = (at: number, least: number, most: number) => rows[at]! >= least && rows[at]! <= most;
  for (let row = 0; row < rows.length; row += HIT_WIDTH) {
    const right =
      within(row + HIT.TICK, -FAR_TICKS, FAR_TICKS) &&
      within(row + HIT.STRUCK, -FAR_TICKS, FAR_TICKS) &&
      within(row + HIT.PAD, 0, PADS - 1) &&
      Number.isInteger(rows[row + HIT.PAD]) &&
      within(row + HIT.VELOCITY, 0, 1) &&
      within(row + HIT.PITCH, -256, 256) &&
      within(row + HIT.STROKES, 0, 64) &&
      within(row + HIT.OVER, 0, FAR_TICKS) &&
      within(row + HIT.LENGTH, 0, FAR_TICKS);
    if (!right) return false;
  }
  return rows.length % HIT_WIDTH === 0;
}

const Track = () => Whole(0, MAX_TRACKS - 1);
const Pad = () => Whole(0, PADS - 1);
const Slot = () => Whole(0, MAX_SLOTS - 1);
const When = () => Between(-1, FAR_TICKS);
const Tick = () => Between(-FAR_TICKS, FAR_TICKS);

class OfTrack extends AnySchema {
  @Track() track!: number;
}
class OfPad extends OfTrack {
  @Pad() pad!: number;
}
class OfSlot extends OfTrack {
  @Slot() slot!: number;
}
class Play extends AnySchema {
  @Tick() startTick!: number;
  @Tick() countInTicks!: number;
}
class Locate extends AnySchema {
  @Tick() tick!: number;
}
class Tempo extends AnySchema {
  @Between(1, 1000) bpm!: number;
}
class TempoBend extends AnySchema {
  @Between(0.1, 10) ratio!: number;
}
class Meter extends AnySchema {
  @Whole(1, 64) beats!: number;
  @Whole(1, 64) unit!: number;
}
class Record_ extends AnySchema {
  @IsBoolean() on!: boolean;
  @Whole(0, FAR) session!: number;
}
class InputQuantize extends AnySchema {
  @Between(0, FAR_TICKS) grid!: number;
  @IsBoolean() on!: boolean;
}
class Metronome extends AnySchema {
  @IsBoolean() on!: boolean;
  @Between(0, 1) level!: number;
  @IsIn(CLICK_SOUNDS) sound!: string;
  @IsIn(CLICK_TIMES) when!: string;
  @Between(0, FAR_TICKS) between!: number;
}
const isKit = (kit: unknown) => kitProblem(kit as KitDocument, '') === null;
class Kit extends OfTrack {
  @Part(() => KitSchema) @Such(isKit, 'must be a kit whose pads do not play each other in a circle') kit!: KitSchema;
}
class PadSound extends OfPad {
  @Part(() => SoundSchema) sound!: SoundSchema;
}
/** In a log a sample stands by its name alone. */
class Prepared {
  @Such(isSampleId, 'must name a sample') id!: string;
  @Whole(1, FAR) frames!: number;
  @Such((levels) => Array.isArray(levels) && levels.length === 0, 'must be an empty list') levels!: never[];
}
class Sample extends AnySchema {
  @Part(() => Prepared) sample!: Prepared;
}
class DropSample extends AnySchema {
  @Such(isSampleId, 'must name a sample') id!: string;
}
class Layout {
  @IsIn(TONE_VOICES) voice!: ToneVoice;
  @IsOptional() @IsPreset() preset?: TonePreset;
  @Numbers() notes!: Float64Array;
  @Whole(-8, 8) octave!: number;
  @IsOptional() @Part(() => ArpeggioSchema) arpeggio?: ArpeggioSchema;
  @IsOptional() @Part(() => SoundSettingsSchema) settings?: SoundSettingsSchema;
}
class Notes extends OfTrack {
  @ValidateIf(({ layout }: Notes) => layout !== null) @Part(() => Layout) layout!: Layout | null;
}
class TrackLevel extends OfTrack {
  @Between(0, 1) level!: number;
}
class PatternContents extends OfSlot {
  @Whole(0, FAR) revision!: number;
  @Length() length!: number;
  @Whole(0, FAR) seen!: number;
  @Hits() hits!: Float64Array;
  @ValidateIf(({ feels }: PatternContents) => feels !== null) @Numbers() feels!: Float64Array | null;
}
class PatternEdit extends OfSlot {
  @Whole(0, FAR) revision!: number;
  @Numbers() removed!: Float64Array;
  @Hits() hits!: Float64Array;
}
class LoopWindow extends OfSlot {
  @Tick() start!: number;
  @Length() length!: number;
  @When() on!: number;
}
class Moves extends OfSlot {
  @Whole(0, FAR) revision!: number;
  @Numbers() points!: Float64Array;
}
class Turn extends OfPad {
  @IsIn(CONTROLS) control!: Control;
  @NumberOrNone() value!: number;
}
class HeardPads extends OfTrack {
  @Whole(0, 0xffff) pads!: number;
}
class Phase extends OfTrack {
  @Tick() tick!: number;
}
class Launch extends OfTrack {
  @Whole(-2, MAX_SLOTS - 1) slot!: number;
  @When() on!: number;
  @IsBoolean() inPlace!: boolean;
}
class MuteSolo extends OfTrack {
  @Whole(-1, 1) mute!: number;
  @Whole(-1, 1) solo!: number;
  @When() on!: number;
}
class SectionPlan {
  @Whole(0, FAR) id!: number;
  @IsInt({ each: true }) @Min(-3, { each: true }) @Max(MAX_SLOTS - 1, { each: true }) parts!: number[];
  @Whole(1, MAX_TIMES) rounds!: number;
  @IsInt() then!: number;
}
class Sections extends AnySchema {
  @Parts(() => SectionPlan, MAX_SECTIONS) sections!: SectionPlan[];
}
class Link {
  @Slot() slot!: number;
  @Whole(1, MAX_TIMES) times!: number;
}
class ChainPlan {
  @Parts(() => Link, MAX_LINKS) links!: Link[];
  @IsBoolean() again!: boolean;
}
class Chain extends OfTrack {
  @Part(() => ChainPlan) chain!: ChainPlan;
}
class LaunchSection extends AnySchema {
  @IsInt() section!: number;
  @When() on!: number;
  @IsBoolean() inPlace!: boolean;
}
class StopAll extends AnySchema {
  @When() on!: number;
}
class Fade extends StopAll {
  @Between(0, FAR_TICKS) ticks!: number;
}
class Lift extends StopAll {
  @IsBoolean() held!: boolean;
}
class PadUp extends OfPad {
  @NumberOrNone() heard!: number;
}
class PadDown extends PadUp {
  @Between(0, 1) velocity!: number;
  @Whole(0, FAR) id!: number;
  @IsOptional() @Between(-127, 127) pitch?: number;
  @IsOptional() @IsBoolean() through?: boolean;
}
class PadPress extends OfPad {
  @Between(0, 1) velocity!: number;
}
class Strike extends PadPress {
  @NumberOrNone() frames!: number;
  @Between(-256, 256) pitch!: number;
  @Between(-16, 16) filter!: number;
  @Between(-16, 16) decay!: number;
  @Between(0, 1) level!: number;
  @Between(-1, 1) pan!: number;
  @Between(-24, 24) drive!: number;
  @Between(-1, 1) room!: number;
  @Between(-2, 3) resonance!: number;
  @Between(-1, 1) start!: number;
  @Between(0, 1) pressure!: number;
  @Between(-1, 1) bright!: number;
}
class NoteRepeat extends AnySchema {
  @IsBoolean() on!: boolean;
  @IsBoolean() latch!: boolean;
}
class RepeatRate extends OfPad {
  @Between(1, FAR_TICKS) ticks!: number;
}
class ReserveIds extends AnySchema {
  @Whole(0, FAR) above!: number;
}
class TransportState {
  @Tick() tick!: number;
  @Between(0.01, 1e5) framesPerTick!: number;
  @IsBoolean() recording!: boolean;
  @Between(1, 1000) bpm!: number;
  @Between(0.1, 10) bend!: number;
  @Tick() fromTick!: number;
  @Tick() playedThrough!: number;
  @Whole(0, FAR) session!: number;
}
const LAUNCH_STATE = new LaunchState().toData();
/** Whether it has every field of a launcher's state, lists of the same length. */
function isLaunchState(value: unknown): boolean {
  if (!isPlain(value)) return false;
  return Object.entries(LAUNCH_STATE).every(([key, like]) => {
    const own = value[key];
    if (!Array.isArray(like)) return typeof own === typeof like;
    return Array.isArray(own) && own.length === like.length && own.every(isNumber);
  });
}
class LauncherState {
  @Such(isLaunchState, 'must be what a launcher knows') live!: object;
  @Such(isLaunchState, 'must be what a launcher knows') beneath!: object;
  @IsIn([0, 1, 2]) lift!: number;
  @NumberOrNone() liftTick!: number;
}
class TurnState {
  @Track() track!: number;
  @Whole(0, MOVE_TABLES - 1) table!: number;
  @NumberOrNone() value!: number;
}
const areRates = (value: unknown) => Array.isArray(value) && value.flat().every((ticks) => isNumber(ticks) && (ticks as number) >= 1); // prettier-ignore
class RepeaterState {
  @IsBoolean() on!: boolean;
  @IsBoolean() latch!: boolean;
  @Whole(0, FAR) lastOwnId!: number;
  @Such(areRates, 'must be rates') rates!: number[][];
}
class EngineStateSchema {
  @Part(() => TransportState) transport!: TransportState;
  @Part(() => LauncherState) launcher!: LauncherState;
  @Whole(0, FAR) serial!: number;
  @Part(() => RepeaterState) repeater!: RepeaterState;
  @Parts(() => TurnState, MAX_TRACKS * MOVE_TABLES) turns!: TurnState[];
}
class Snapshot extends AnySchema {
  @Whole(0, FAR) id!: number;
  @Part(() => EngineStateSchema) state!: EngineStateSchema;
}
class LatencyCheck extends AnySchema {
  @Whole(0, 1000) clicks!: number;
}

const SCHEMAS: Record<CommandType, Schema> = {
  play: Play,
  stop: AnySchema,
  locate: Locate,
  tempo: Tempo,
  tempoBend: TempoBend,
  meter: Meter,
  record: Record_,
  inputQuantize: InputQuantize,
  metronome: Metronome,
  kit: Kit,
  padSound: PadSound,
  sample: Sample,
  dropSample: DropSample,
  notes: Notes,
  trackLevel: TrackLevel,
  ...MIX_SCHEMAS,
  removeTrack: OfTrack,
  pattern: PatternContents,
  patternEdit: PatternEdit,
  loopWindow: LoopWindow,
  moves: Moves,
  turn: Turn,
  heardPads: HeardPads,
  phase: Phase,
  launch: Launch,
  cancelLaunch: OfTrack,
  moveLaunch: Phase,
  muteSolo: MuteSolo,
  cancelMuteSolo: OfTrack,
  sections: Sections,
  chain: Chain,
  launchSection: LaunchSection,
  leaveSection: AnySchema,
  cancelSection: AnySchema,
  moveSection: Locate,
  stopAll: StopAll,
  fade: Fade,
  lift: Lift,
  padDown: PadDown,
  padUp: PadUp,
  padPress: PadPress,
  strike: Strike,
  releaseAll: AnySchema,
  noteRepeat: NoteRepeat,
  repeatRate: RepeatRate,
  reserveIds: ReserveIds,
  snapshot: Snapshot,
  latencyCheck: LatencyCheck,
};

/**
 * What is wrong with a stored command, or null.
 * @param path where it lies, for the message
 */
export function commandProblem(command: Command, path: string): string | null {
  const schema = (SCHEMAS as Partial<Record<string, Schema>>)[command.type];
  if (!schema) return `At ${path}: “${command.type}” is no command that is known.`;
  const checked = check(schema, command, path);
  return 'problem' in checked ? checked.problem : null;
}
