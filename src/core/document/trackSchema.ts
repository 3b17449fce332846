import { ArrayMaxSize, ArrayMinSize, ArrayUnique, IsArray, IsBoolean, IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator'; // prettier-ignore
import { KitSchema } from './kitSchema';
import { MAX_LINKS, MAX_NAME, MAX_SLOTS, MAX_TIMES, MAX_TRACKS, PADS } from './limits';
import { MAX_GROUPS } from './mix';
import { ChannelSettingsSchema } from './mixSchema';
import { SoundSettingsSchema } from './soundSchema';
import { ARP_ORDERS, CHORD_KINDS, MOST_ARP_OCTAVES, MOST_OCTAVES, MOST_STRUM, SCALES, type ArpOrder, type ChordKind, type ScaleName } from './tones'; // prettier-ignore
import { presetsOf, TONE_VOICES, type TonePreset, type ToneSource, type ToneVoice } from './toneVoices';
import { Between, Part, Parts, Such, Whole } from './validation';

/** A list of pads, none of them twice. */
function IsPads(): PropertyDecorator {
  return (target, key) => {
    const each = { each: true };
    for (const rule of [IsArray(), ArrayMaxSize(PADS), ArrayUnique(), IsInt(each), Min(0, each), Max(PADS - 1, each)]) {
      rule(target, key as string);
    }
  };
}

/** A preset of the voice beside it. */
export function IsPreset(): PropertyDecorator {
  const ofVoice = (preset: unknown, { voice }: Partial<ToneSource>) =>
    !!voice && TONE_VOICES.includes(voice) && (presetsOf(voice) as readonly unknown[]).includes(preset);
  return Such(ofVoice, 'must be a preset of its voice');
}

export class ArpeggioSchema {
  @IsIn(ARP_ORDERS) order!: ArpOrder;
  @Whole(1, MOST_ARP_OCTAVES) octaves!: number;
}

class TonesSchema {
  @IsIn(TONE_VOICES) voice!: ToneVoice;
  @IsOptional() @IsPreset() preset?: TonePreset;
  @Whole(0, 11) root!: number;
  @IsIn(SCALES) scale!: ScaleName;
  @IsBoolean() chromatic!: boolean;
  @Whole(-MOST_OCTAVES, MOST_OCTAVES) octave!: number;
  @IsOptional() @IsIn(CHORD_KINDS) chord?: ChordKind;
  @IsOptional() @Between(0, MOST_STRUM) strum?: number;
  @IsOptional() @Part(() => ArpeggioSchema) arpeggio?: ArpeggioSchema;
  @IsOptional() @Part(() => SoundSettingsSchema) settings?: SoundSettingsSchema;
}

class LinkSchema {
  @Whole(0, MAX_SLOTS - 1) slot!: number;
  @Whole(1, MAX_TIMES) times!: number;
}

class ChainSchema {
  @Parts(() => LinkSchema, MAX_LINKS) links!: LinkSchema[];
  @IsBoolean() again!: boolean;
}

class PadWaySchema {
  @Whole(0, PADS - 1) pad!: number;
  @Whole(0, MAX_GROUPS - 1) group!: number;
}

export class TrackSchema {
  @Whole(0, MAX_TRACKS - 1) id!: number;
  @IsString() @MaxLength(MAX_NAME) name!: string;
  @Whole(0, 7) colour!: number;
  @Part(() => KitSchema) kit!: KitSchema;
  @IsOptional() @Part(() => TonesSchema) tones?: TonesSchema;
  @Between(0, 1) level!: number;
  @IsOptional() @Part(() => ChannelSettingsSchema) channel?: ChannelSettingsSchema;
  @IsOptional() @Whole(0, MAX_GROUPS - 1) goesTo?: number;
  @IsOptional() @Parts(() => PadWaySchema, PADS) padsTo?: PadWaySchema[];
  @IsOptional() @IsPads() mutedPads?: number[];
  @IsOptional() @IsPads() soloPads?: number[];
  /** Empty slots are null, which a list of parts cannot hold: they are checked one by one. */
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(MAX_SLOTS) patterns!: unknown[];
  @IsOptional() @Part(() => ChainSchema) chain?: ChainSchema;
}
