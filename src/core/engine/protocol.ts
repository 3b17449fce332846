import type { ChainPlan, SectionPlan } from '../launch/launcher';
import type { KitId } from '../document/kits';

/** As the frame of a command: apply it before the next sample. */
export const NOW = -1;

/**
 * What the engine can be told. Each command is a small array that begins with the engine frame at which it applies
 * (or NOW) and its name; commands of one frame apply in the order in which they were given.
 *
 * Ticks are song ticks; levels and velocities 0..1; `heard` is the frame of the engine's *output* that the player was
 * hearing when they acted.
 */
export type Command = readonly [frame: number, ...Instruction];

export type Instruction =
  | readonly ['play', startTick: number, countInTicks: number]
  | readonly ['stop']
  /** Moves the stopped song. */
  | readonly ['locate', tick: number]
  | readonly ['tempo', bpm: number]
  | readonly ['meter', beats: number, unit: number]
  /** Recording on or off; `session` names the recording in the events of its hits. */
  | readonly ['record', on: boolean, session: number]
  /** How new hits are placed: the grid's step in ticks, and whether they are pulled to it. */
  | readonly ['quantize', gridTicks: number, on: boolean]
  /** `sound` and `when` are places in CLICK_SOUNDS and CLICK_TIMES; `between` ticks of softer clicks, 0 for none. */
  | readonly ['metronome', on: boolean, level: number, sound: number, when: number, between: number]
  | readonly ['kit', track: number, kit: KitId]
  /** A track plays notes by a voice of TONE_VOICES (-1: its kit): the MIDI note of each pad, and octaves for hands alone. */
  | readonly ['tones', track: number, voice: number, notes: Float64Array, octave: number]
  | readonly ['track', track: number, level: number]
  /** A track that is no more: its patterns go, and it stops. */
  | readonly ['drop', track: number]
  /**
   * What lies in a slot of a track: the pattern's length in ticks (0 empties the slot) and its hits (HIT_FIELDS numbers
   * each, in order of placed tick). `seen` is the number of the last recorded hit that whoever sends this knows of; later
   * ones are kept. `feels` (FEEL_FIELDS numbers a pad) are the Feels that place new strokes; left out when no pad has one.
   */
  | readonly ['pattern', track: number, slot: number, length: number, seen: number, hits: Float64Array, feels?: Float64Array] // prettier-ignore
  /**
   * The stretch of a pattern that goes round, in its ticks; a length of 0 is all of it. `on` is the step of song ticks at
   * whose next line it takes over, if it plays: a beat, a bar; 0 is at once.
   */
  | readonly ['window', track: number, slot: number, start: number, length: number, on: number]
  /** A pattern's Moves (see `TrackPlayer.loadMoves`). */
  | readonly ['moves', track: number, slot: number, numbers: Float64Array]
  /** A hand holds one pad's control (a place in CONTROLS) at a value, in the place of its Moves; NaN lets go. */
  | readonly ['turn', track: number, pad: number, control: number, value: number]
  /** The pads (one bit each) whose pattern hits are heard. */
  | readonly ['heardPads', track: number, bits: number]
  /** Song tick at which tick 0 of the pattern that plays on a track lies. Playing from the top begins anew at 0. */
  | readonly ['phase', track: number, tick: number]
  /**
   * A slot takes over on a track, or SILENT or CHAIN. `on`, here and below, is what it waits for: LOOP_END, or a step of
   * song ticks, 0 for at once. `inPlace`: in the phase of what it replaces, not from its top. (See `Launcher` for all rules.)
   */
  | readonly ['launch', track: number, slot: number, on: number, inPlace: boolean]
  /** What waits on a track is taken back, or waits for another song tick. */
  | readonly ['cancel', track: number]
  | readonly ['move', track: number, tick: number]
  /** A track is muted or soloed (1), or not (0); AS_IT_IS for what stays. */
  | readonly ['gate', track: number, mute: number, solo: number, on: number]
  | readonly ['cancelGate', track: number]
  /** The sections that can be launched, and a track's chain. */
  | readonly ['sections', sections: readonly SectionPlan[]]
  | readonly ['chain', track: number, chain: ChainPlan]
  | readonly ['section', id: number, on: number, inPlace: boolean]
  /** What was launched as a section is none any more. */
  | readonly ['leaveSection']
  | readonly ['cancelSection']
  | readonly ['moveSection', tick: number]
  | readonly ['stopAll', on: number]
  /** Everything fades out over so many ticks, then stops; 0 ticks take the fade back. */
  | readonly ['fade', ticks: number, on: number]
  | readonly ['lift', held: boolean, on: number]
  /** The song goes so many times faster than its tempo, for as long as it is told so. */
  | readonly ['nudge', ratio: number]
  /** A pad is struck: it sounds now, and is recorded where it was heard. `id` names the hit: an odd number. */
  | readonly ['padDown', track: number, pad: number, velocity: number, heard: number, id: number]
  | readonly ['padUp', track: number, pad: number, heard: number]
  /** The finger on a held pad presses harder or softer: the velocity of note repeat's next strokes. */
  | readonly ['padPress', track: number, pad: number, velocity: number]
  /** Note repeat for presses from now on. With `latch` pads go on when they are let go, until they are struck again. */
  | readonly ['repeat', on: boolean, latch: boolean]
  /** Ticks between the strokes of one pad's note repeat. */
  | readonly ['repeatRate', track: number, pad: number, ticks: number]
  /** Hits that the engine makes itself get even numbers above this. */
  | readonly ['ids', above: number]
  /** Clicks at a steady pace apart from the song, for the latency check: how many, 0 to stop. */
  | readonly ['check', clicks: number]
  /** Lets go of every held pad. */
  | readonly ['releaseAll'];

/** Stamps an instruction with the frame at which it is to be applied. */
export function at(frame: number, instruction: Instruction): Command {
  return [frame, ...instruction] as Command;
}

/** What the engine reports. Frames are the engine's own, before the limiter's delay. */
export type EngineEvent =
  /** A new piece of the song's time holds from here (see `Anchor`). `fromTick` is where the count-in ends. */
  | {
      kind: 'anchor';
      frame: number;
      tick: number;
      framesPerTick: number;
      playing: boolean;
      recording: boolean;
      fromTick: number;
    }
  /**
   * A pad sounded, struck by hand or its note repeat (`live`), or played from its pattern. `placed` and `struck` are song
   * ticks; `placed` is NaN when the stroke was not recorded. `heard` is the frame that the player heard when they struck.
   */
  | {
      kind: 'sounded';
      frame: number;
      track: number;
      pad: number;
      velocity: number;
      id: number;
      live: boolean;
      placed: number;
      struck: number;
      heard: number;
    }
  /**
   * A stroke was recorded into a slot. `struck` is in the loop; `pass` is the same for all strokes of one time round; `serial`
   * counts the engine's recorded hits from 1; `length` in ticks is known at once for note repeat. `asPlayed`: it is not to
   * be placed by the Feel in force for its pad.
   */
  | {
      kind: 'recorded';
      frame: number;
      track: number;
      slot: number;
      pad: number;
      velocity: number;
      id: number;
      struck: number;
      snapGrid: number;
      session: number;
      pass: number;
      serial: number;
      length: number;
      asPlayed: boolean;
    }
  /** A stroke's pad was let go after `length` ticks of the song, `frames` of time. */
  | { kind: 'released'; frame: number; track: number; slot: number; id: number; length: number; frames: number }
  /**
   * From song tick `tick` on a track plays `slot` (or is SILENT): tick 0 of its pattern lies at `launchTick`, and `span` ticks
   * of it from `start` go round.
   */
  | { kind: 'loop'; frame: number; track: number; slot: number; launchTick: number; start: number; span: number; tick: number } // prettier-ignore
  /** The loop window that waits for song tick `tick` on a track; Infinity: none does any more. */
  | { kind: 'window'; frame: number; track: number; start: number; length: number; tick: number }
  /** What waits on a track, and its mute and solo; the fields are those of `LaunchState`. */
  | {
      kind: 'waiting';
      frame: number;
      track: number;
      next: number;
      nextInPlace: number;
      nextTick: number;
      link: number;
      linkTick: number;
      muted: number;
      soloed: number;
      nextMute: number;
      nextSolo: number;
      gateTick: number;
    }
  /** The section that plays and the one that waits, Lift and fade; the fields are those of `LaunchState` and `Launcher`. */
  | {
      kind: 'launcher';
      frame: number;
      section: number;
      nextSection: number;
      sectionTick: number;
      sectionFollows: boolean;
      sectionInPlace: boolean;
      lift: number;
      liftTick: number;
      fadeFrom: number;
      fadeTo: number;
    }
  /** A click of the latency check, counted from 0, sounded. */
  | { kind: 'checked'; frame: number; click: number }
  /** Sent at a steady pace: where the engine is, how many voices ring, the loudest output sample since the last one. */
  | { kind: 'state'; frame: number; tick: number; voices: number; peak: number };

/** Numbers of one event on its way out of the engine: kind, frame, and up to eleven more. */
export const EVENT_FIELDS = 13;

const ANCHOR = 0;
const SOUNDED = 1;
const RECORDED = 2;
const RELEASED = 3;
const STATE = 4;
const CHECKED = 5;
const WINDOW = 6;
const LOOP = 7;
const WAITING = 8;
const LAUNCHER = 9;

/** Turns the numbers that the engine wrote into events. The one place that knows their order, with the engine itself. */
export function decodeEvents(numbers: Float64Array): EngineEvent[] {
  const events: EngineEvent[] = [];
  for (let i = 0; i + EVENT_FIELDS <= numbers.length; i += EVENT_FIELDS) {
    events.push(decode([...numbers.subarray(i, i + EVENT_FIELDS)] as Numbers));
  }
  return events;
}

type N = number;
type Numbers = [kind: N, frame: N, a: N, b: N, c: N, d: N, e: N, f: N, g: N, h: N, i: N, j: N, k: N];

function decode([kind, frame, a, b, c, d, e, f, g, h, i, j, k]: Numbers): EngineEvent {
  switch (kind) {
    case ANCHOR:
      return { kind: 'anchor', frame, tick: a, framesPerTick: b, playing: c === 1, recording: d === 1, fromTick: e };
    case SOUNDED: {
      const stroke = { track: a, pad: b, velocity: c, id: d };
      return { kind: 'sounded', frame, ...stroke, live: e === 1, placed: f, struck: g, heard: h };
    }
    case RECORDED: {
      const stroke = { track: a, pad: b, velocity: c, id: d };
      const place = { struck: e, snapGrid: f, session: g, pass: h, serial: i };
      // The slot and a flag share the last number.
      return { kind: 'recorded', frame, ...stroke, ...place, length: j, slot: k >> 1, asPlayed: (k & 1) === 1 };
    }
    case RELEASED:
      return { kind: 'released', frame, track: a, slot: b, id: c, length: d, frames: e };
    case WINDOW:
      return { kind: 'window', frame, track: a, start: b, length: c, tick: d };
    case LOOP:
      return { kind: 'loop', frame, track: a, slot: b, launchTick: c, start: d, span: e, tick: f };
    case WAITING: {
      const queued = { next: b, nextInPlace: c, nextTick: d, link: e, linkTick: f };
      return {
        kind: 'waiting',
        frame,
        track: a,
        ...queued,
        muted: g,
        soloed: h,
        nextMute: i,
        nextSolo: j,
        gateTick: k,
      };
    }
    case LAUNCHER: {
      const section = { section: a, nextSection: b, sectionTick: c, sectionFollows: d === 1, sectionInPlace: e === 1 };
      return { kind: 'launcher', frame, ...section, lift: f, liftTick: g, fadeFrom: h, fadeTo: i };
    }
    case CHECKED:
      return { kind: 'checked', frame, click: a };
    default:
      return { kind: 'state', frame, tick: a, voices: b, peak: c };
  }
}

/** A preallocated queue of events. When it overflows the oldest are lost and counted: the sound never waits. */
export class EventQueue {
  lost = 0;
  private readonly numbers: Float64Array;
  private count = 0;

  constructor(private readonly capacity = 2048) {
    this.numbers = new Float64Array(capacity * EVENT_FIELDS);
  }

  get length(): number {
    return this.count;
  }

  push(kind: N, frame: N, a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0, j = 0, k = 0, l = 0): void {
    if (this.count === this.capacity) {
      this.numbers.copyWithin(0, EVENT_FIELDS);
      this.count--;
      this.lost++;
    }
    const n = this.numbers;
    let i = this.count++ * EVENT_FIELDS;
    n[i++] = kind;
    n[i++] = frame;
    n[i++] = a;
    n[i++] = b;
    n[i++] = c;
    n[i++] = d;
    n[i++] = e;
    n[i++] = f;
    n[i++] = g;
    n[i++] = h;
    n[i++] = j;
    n[i++] = k;
    n[i] = l;
  }

  /** Takes all events out, as one array to hand over. */
  drain(): Float64Array {
    const out = this.numbers.slice(0, this.count * EVENT_FIELDS);
    this.count = 0;
    return out;
  }
}

export const EVENT = { ANCHOR, SOUNDED, RECORDED, RELEASED, STATE, CHECKED, WINDOW, LOOP, WAITING, LAUNCHER } as const;
