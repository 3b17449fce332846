import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { MAX_TRACKS, PADS } from '../document/limits';
import { Between, check, Part, Parts, Whole } from '../document/validation';
import { BENCH_SCHEME, readScheme, type LightScheme } from './lights';
import { readBinding, type Binding } from './binding';
import { STRAIGHT, type VelocityCurve } from './curve';
import { EIGHT_BY_EIGHT, FOUR_BY_FOUR, type GridLayout } from './gridLayout';

/** What the keys and pads of a device do. Controls that are mapped do what they are mapped to, whatever this is. */
export const DEVICE_PLAYS = ['pads', 'shown', 'track', 'launch', 'nothing'] as const;
export type DevicePlays = (typeof DEVICE_PLAYS)[number];

/** A track that plays a device. */
export interface OutTrack {
  /** From the top, 0..15. */
  row: number;
  channel: number;
  /** The note of each pad; left out, the pads' own. */
  notes?: number[];
  /** What strokes have of level, pan, filter and decay goes out as control changes. */
  moves: boolean;
}

/** A device as it is remembered, by its name: how it plays, and its map. */
export interface Device {
  name: string;
  plays: DevicePlays;
  /** The track that it plays, from the top, if it plays one. */
  row: number;
  /** 1..16; 0 hears all. */
  channel: number;
  /** What it plays is recorded; else it only sounds. */
  records: boolean;
  grid: GridLayout;
  velocity: VelocityCurve;
  /** How much later than it happened it tells of a stroke, ms. */
  latencyMs: number;
  /** How it is lit; null: not at all. */
  lights: LightScheme | null;
  /** The song follows its clock. */
  followed: boolean;
  /** It gets the song's clock. */
  clocked: boolean;
  outs: OutTrack[];
  bindings: Binding[];
}

export const MAX_DEVICE_NAME = 120;
export const MOST_DEVICES = 64;
export const MOST_BINDINGS = 1024;
export const MOST_LATENCY_MS = 300;

class GridSchema {
  @Whole(0, 127) first!: number;
  @Whole(-127, 127) right!: number;
  @Whole(-127, 127) up!: number;
  @Whole(1, 16) columns!: number;
  @Whole(1, 16) rows!: number;
}
class OutTrackSchema {
  @Whole(0, MAX_TRACKS - 1) row!: number;
  @Whole(1, 16) channel!: number;
  @IsOptional() @IsArray() @ArrayMinSize(PADS) @ArrayMaxSize(PADS) @IsInt({ each: true }) @Min(0, { each: true }) @Max(127, { each: true }) notes?: number[]; // prettier-ignore
  @IsBoolean() moves!: boolean;
}
class VelocitySchema {
  @Whole(1, 126) least!: number;
  @Whole(2, 127) most!: number;
  @Between(-1, 1) bend!: number;
}

/** A device but for its bindings, which are read one by one: a wrong one costs no other. */
class DeviceSchema {
  @IsString() @MaxLength(MAX_DEVICE_NAME) name!: string;
  @IsOptional() @IsIn(DEVICE_PLAYS) plays?: DevicePlays;
  @IsOptional() @Whole(0, MAX_TRACKS - 1) row?: number;
  @IsOptional() @Whole(0, 16) channel?: number;
  @IsOptional() @IsBoolean() records?: boolean;
  @IsOptional() @IsBoolean() followed?: boolean;
  @IsOptional() @IsBoolean() clocked?: boolean;
  @IsOptional() @Parts(() => OutTrackSchema, MAX_TRACKS) outs?: OutTrack[];
  @IsOptional() @Part(() => GridSchema) grid?: GridLayout;
  @IsOptional() @Part(() => VelocitySchema) velocity?: VelocityCurve;
  @IsOptional() @Between(-MOST_LATENCY_MS, MOST_LATENCY_MS) latencyMs?: number;
}

/**
 * A device that is met for the first time. What it is can only be guessed from its name; "8x8" and "grid" are said of launchers,
 * "keys", "keyboard" and "piano" of keyboards (common practice). Everything else plays the pads.
 */
export function newDevice(name: string): Device {
  const grid = /8\s*[x×]\s*8|\bgrid\b/i.test(name);
  const keys = /\bkeys?\b|keyboard|piano/i.test(name);
  return {
    name: name.slice(0, MAX_DEVICE_NAME),
    plays: grid ? 'launch' : keys ? 'shown' : 'pads',
    row: 0,
    channel: 0,
    records: true,
    grid: grid ? EIGHT_BY_EIGHT : FOUR_BY_FOUR,
    velocity: STRAIGHT,
    latencyMs: 0,
    // What a note on does to a device that nobody knows is unknown: only stand-ins are lit unasked.
    lights: /^Simulated (pads|grid|knobs)$/.test(name) ? BENCH_SCHEME : null,
    followed: false,
    clocked: false,
    outs: [],
    bindings: [],
  };
}

/**
 * Reads a device out of a file or a record.
 * @returns the device and what of it could not be read, in words; null if it is none
 */
export function readDevice(plain: unknown): { device: Device; problems: string[] } | null {
  const checked = check(DeviceSchema, plain, 'the device');
  if ('problem' in checked) return null;
  const { bindings, lights } = plain as { bindings?: unknown; lights?: unknown };
  const device: Device = {
    ...newDevice(checked.value.name),
    ...checked.value,
    ...(lights !== undefined && { lights: readScheme(lights) }),
    bindings: [],
  };
  if (device.velocity.most <= device.velocity.least) device.velocity = STRAIGHT;
  const problems: string[] = [];
  (Array.isArray(bindings) ? bindings.slice(0, MOST_BINDINGS) : []).forEach((one, i) => {
    const read = readBinding(one);
    if ('problem' in read) problems.push(`Line ${i + 1} of the map, ${read.problem}`);
    else device.bindings.push(read);
  });
  return { device, problems };
}

/** What a file of a device says of itself. */
const KIND = 'chaffinch controller map';

/** A device as a file, to be read by people too. */
export function writeDevice(device: Device): string {
  return `${JSON.stringify({ what: KIND, version: 1, ...device }, null, 2)}\n`;
}

/**
 * Reads the file of a device.
 * @throws Error in words, when it is none
 */
export function readDeviceFile(text: string): { device: Device; problems: string[] } {
  let plain: { what?: unknown; version?: unknown };
  try {
    plain = JSON.parse(text) as typeof plain;
  } catch (error) {
    throw new Error(`This is no controller map: ${(error as Error).message}.`);
  }
  if (plain?.what !== KIND) throw new Error(`This is no controller map: it does not begin with "what": "${KIND}".`);
  if (plain.version !== 1) throw new Error('This controller map was made by a newer Chaffinch.');
  const read = readDevice(plain);
  if (read) return read;
  const checked = check(DeviceSchema, plain, 'the device');
  throw new Error(`This controller map cannot be used. ${'problem' in checked ? checked.problem : ''}`);
}
