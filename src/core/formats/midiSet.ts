import { counted } from '../counted';
import { newSet } from '../document/create';
import type { Hit } from '../document/hit';
import { MAX_HITS, MAX_LINKS, MAX_NAME, MAX_SLOTS, MAX_TICKS, MAX_TIMES, MAX_TRACKS } from '../document/limits'; // prettier-ignore
import type { Pattern } from '../document/pattern';
import type { Section } from '../document/section';
import type { OpenSet } from '../document/set';
import { FIRST_STAGE } from '../document/stage';
import { padsOfNotes, scaleSteps, type Tones } from '../document/tones';
import { newTrack, type Chain, type Track } from '../document/track';
import { nearestPad } from './gmDrums';
import { pressMoves, type SongPressure } from './keyPressure';
import { mod, ticksPerBar } from '../time/ticks';
import type { MidiNote, MidiPart, MidiSong } from './readMidi';

/** What plays a part of a file. */
export type PartPlayer = 'drums' | 'bass' | 'keys';
export const PART_PLAYERS: readonly PartPlayer[] = ['drums', 'bass', 'keys'];

export interface PartChoice {
  /** It comes in. */
  taken: boolean;
  player: PartPlayer;
  /** As drums: the pad of each key, in the place of the nearest by the General MIDI map; null leaves the key out. */
  pads: Record<number, number | null>;
}

/** How a file becomes tracks. */
export interface MidiChoices {
  /** For each of its parts. */
  parts: readonly PartChoice[];
  /** Bars of one pattern; null: all of it is one pattern. */
  bars: number | null;
  /** Notes sound at the seconds at which they did, through all changes of tempo; else they keep their beats. */
  followsTempo: boolean;
}

/** Lengths of patterns, in bars, into which a song can be cut. */
export const CUTS: readonly (number | null)[] = [1, 2, 4, 8, 16, null];

/** Below this many bars a song is one pattern to begin with. */
const SHORT_BARS = 8;
const CUT_BARS = 4;
/** Parts whose middle note lies below this are played by the bass: C3. */
const BASS_BELOW = 48;
/** General MIDI's basses. */
const BASS_PROGRAMS = { first: 32, last: 39 };

/** What a player would choose for most files. */
export function firstChoices(song: MidiSong): MidiChoices {
  const parts = song.parts.map((part, i): PartChoice => ({ taken: i < MAX_TRACKS, player: playerOf(part), pads: {} }));
  const bars = Math.ceil(song.length / ticksPerBar(song.meter));
  return { parts, bars: bars <= SHORT_BARS ? null : CUT_BARS, followsTempo: false };
}

function playerOf({ channel, program, notes }: MidiPart): PartPlayer {
  if (channel === 9) return 'drums';
  if (program !== null && program >= BASS_PROGRAMS.first && program <= BASS_PROGRAMS.last) return 'bass';
  const keys = notes.map(({ key }) => key).sort((a, b) => a - b);
  return keys[Math.floor(keys.length / 2)]! < BASS_BELOW ? 'bass' : 'keys';
}

/** The keys that a part plays, from the lowest up. */
export function keysOf({ notes }: MidiPart): number[] {
  return [...new Set(notes.map(({ key }) => key))].sort((a, b) => a - b);
}

/** The pad that plays a key of a drum part; null if it is left out. */
export function padOf(key: number, { pads }: PartChoice): number | null {
  return pads[key] === undefined ? nearestPad(key) : pads[key];
}

/** A file as a set of its own, and what of it is left out, each in a sentence. */
export interface BroughtIn extends OpenSet {
  /** Ticks of all of it, in whole bars. */
  length: number;
  leftOut: string[];
}

/**
 * A song as a set: a track for each part that is taken, cut into patterns that a chain plays in the order of the song. Stretches that are
 * alike share a pattern. A section plays all of it.
 */
export function setOfSong(song: MidiSong, choices: MidiChoices, name: string): BroughtIn {
  const leftOut: string[] = [];
  const { bpm } = song.tempo[0]!;
  const place = choices.followsTempo ? timed(song) : (tick: number) => tick;
  const bar = ticksPerBar(song.meter);
  const end = Math.max(bar, Math.ceil(place(song.length) / bar - 1e-6) * bar);
  const cut = Math.min(choices.bars === null ? end : choices.bars * bar, Math.floor(MAX_TICKS / bar) * bar);
  const taken = song.parts.flatMap((part, i) => (choices.parts[i]?.taken ? [{ part, choice: choices.parts[i] }] : []));
  if (taken.length > MAX_TRACKS)
    leftOut.push(`${counted(taken.length - MAX_TRACKS, 'track')}: a set has ${MAX_TRACKS} at most.`);
  let lastId = -1;
  const tracks = taken.slice(0, MAX_TRACKS).map(({ part, choice }, id): Track => {
    const tones = choice.player === 'drums' ? undefined : tonesFor(choice.player, part);
    const strokes = strokesOf(part, choice, tones, place, leftOut);
    const presses = pressesOf(part, tones, place, leftOut);
    const { patterns, chain } = patternsOf({ strokes, presses }, part.name, { cut, end }, () => (lastId += 2), leftOut);
    return { ...newTrack(part.name, id % 8, patterns), id, ...(tones && { tones }), ...(chain && { chain }) };
  });
  const whole = tracks.some(({ chain }) => chain) ? [wholeOf(tracks)] : [];
  const all = tracks.length > 0 ? tracks : [newTrack('Drums', 0, [])];
  const set = { ...newSet(name, bpm, all), meter: song.meter, sections: whole };
  const stage = { shown: all[0]!.id, tracks: Object.fromEntries(all.map(({ id }) => [id, FIRST_STAGE])) };
  if (!choices.followsTempo && song.tempo.length > 1) {
    leftOut.push(
      `${counted(song.tempo.length - 1, 'tempo change')}: a set has one tempo. Follow the tempo map to keep the notes where they sound.`,
    );
  }
  return { set, stage, length: end, leftOut };
}

/** Where ticks lie when the first tempo holds from beginning to end: at the seconds at which they did. */
function timed({ tempo }: MidiSong): (tick: number) => number {
  const [first] = tempo;
  const starts = [0];
  for (let i = 1; i < tempo.length; i++) {
    starts.push(starts[i - 1]! + ((tempo[i]!.tick - tempo[i - 1]!.tick) * first!.bpm) / tempo[i - 1]!.bpm);
  }
  return (tick) => {
    let i = tempo.length - 1;
    while (i > 0 && tempo[i]!.tick > tick) i--;
    return starts[i]! + ((tick - tempo[i]!.tick) * first!.bpm) / tempo[i]!.bpm;
  };
}

type Stroke = Omit<Hit, 'id'>;

function strokesOf(
  { name, notes }: MidiPart,
  choice: PartChoice,
  tones: Tones | undefined,
  place: (tick: number) => number,
  leftOut: string[],
): Stroke[] {
  const toned = tones && padsOfNotes(tones);
  const onPad = (key: number) => toned?.(key) ?? { pad: padOf(key, choice), pitch: 0 };
  const missed = new Set<number>();
  const strokes = notes.flatMap((note): Stroke[] => {
    const { pad, pitch } = onPad(note.key);
    if (pad === null) missed.add(note.key);
    return pad === null ? [] : [strokeOf(note, pad, pitch, place)];
  });
  if (missed.size > 0)
    leftOut.push(`“${name}”: ${counted(missed.size, 'key')} without a pad (${[...missed].join(', ')}).`);
  return strokes;
}

/** How the pads of notes are pressed. A drum has no key that could be: what is said of it is left out. */
function pressesOf(
  { name, pressures = [] }: MidiPart,
  tones: Tones | undefined,
  place: (tick: number) => number,
  leftOut: string[],
): SongPressure[] {
  if (pressures.length === 0) return [];
  if (!tones) {
    leftOut.push(`“${name}”: ${counted(pressures.length, 'pressure movement')}: drums know none.`);
    return [];
  }
  const padOfNote = padsOfNotes(tones);
  return pressures.map(({ tick, key, value }) => ({
    tick: place(tick),
    pad: key === null ? null : padOfNote(key).pad,
    value,
  }));
}

function strokeOf({ tick, length, velocity }: MidiNote, pad: number, pitch: number, place: (tick: number) => number) {
  const at = place(tick);
  const stroke: Stroke = {
    pad,
    tick: at,
    length: Math.min(MAX_TICKS, Math.max(1, place(tick + length) - at)),
    velocity,
    snap: null,
  };
  return pitch === 0 ? stroke : { ...stroke, pitch };
}

/** Cuts strokes into patterns; where there is more than one, a chain plays them. */
function patternsOf(
  { strokes, presses }: { strokes: readonly Stroke[]; presses: readonly SongPressure[] },
  name: string,
  { cut, end }: { cut: number; end: number },
  newId: () => number,
  leftOut: string[],
): { patterns: Pattern[]; chain?: Chain } {
  const stretches = Array.from({ length: Math.ceil(end / cut) }, (): Stroke[] => []);
  for (const stroke of strokes) {
    const i = Math.min(stretches.length - 1, Math.floor(stroke.tick / cut + 1e-9));
    stretches[i]!.push({ ...stroke, tick: Math.max(0, stroke.tick - i * cut) });
  }
  const slots = new Map<string, number>();
  const patterns: Pattern[] = [];
  const links: Chain['links'] = [];
  let played = 0;
  const pressed = pressMoves(stretches, presses, cut);
  for (const [i, stretch] of stretches.entries()) {
    const moves = pressed[i]!;
    const content = JSON.stringify([stretch, moves]);
    let slot = slots.get(content);
    const last = links.at(-1);
    const isRound = slot !== undefined && last?.slot === slot && last.times < MAX_TIMES;
    if ((!isRound && links.length >= MAX_LINKS) || (slot === undefined && patterns.length >= MAX_SLOTS)) break;
    played++;
    if (slot === undefined) {
      slots.set(content, (slot = patterns.length));
      const hits = stretch.slice(0, MAX_HITS).map((stroke) => ({ ...stroke, id: newId() }));
      if (hits.length < stretch.length)
        leftOut.push(`“${name}”: ${counted(stretch.length - hits.length, 'note')} of one pattern.`);
      patterns.push({
        name: stretches.length > 1 ? `${name.slice(0, MAX_NAME - 5)} ${slot + 1}` : name,
        length: cut,
        hits,
        ...(moves.length > 0 && { moves }),
      });
    }
    if (isRound) last!.times++;
    else links.push({ slot, times: 1 });
  }
  const dropped = stretches.length - played;
  if (dropped > 0)
    leftOut.push(
      `“${name}”: the last ${counted(dropped, 'stretch', 'stretches')}: a chain has no room. Longer patterns need fewer.`,
    );
  return stretches.length > 1 ? { patterns, chain: { links, again: true } } : { patterns };
}

/** A section in which every track plays its chain. */
function wholeOf(tracks: readonly Track[]): Section {
  const parts = tracks.map(({ id, chain }) => ({ track: id, plays: chain ? ('chain' as const) : 0 }));
  return { id: 1, name: 'All of it', colour: 0, parts, rounds: 1 };
}

/** A layout for the notes of a part: in the major or minor key that has most of them, so that few need a step beside a pad. */
function tonesFor(voice: 'bass' | 'keys', part: MidiPart): Tones {
  const weights = new Array<number>(12).fill(0);
  for (const { key } of part.notes) weights[mod(key, 12)]!++;
  let best: Tones = { voice, root: 0, scale: 'major', chromatic: false, octave: 0 };
  let most = -1;
  for (const scale of ['major', 'minor'] as const) {
    for (let root = 0; root < 12; root++) {
      // Of keys with the same notes, the one whose root and fifth are played most.
      const inside = scaleSteps(scale).reduce((sum, step) => sum + weights[(root + step) % 12]!, 0);
      const weight = inside + (weights[root]! + weights[(root + 7) % 12]! / 2) / 100;
      if (weight > most) [best, most] = [{ ...best, root, scale }, weight];
    }
  }
  return best;
}
