/** How the value of a field is packed: as it is, or as 1 and 0. */
type Packing = 'number' | 'flag';

/**
 * What the engine reports, by name: the one place that knows what an event holds, from which its types, its writer and its
 * reader are made. Frames are the engine's own, before the limiter's delay; ticks are song ticks.
 */
export const EVENT_FIELDS = {
  /** A new piece of the song's time holds from here (see `Anchor`). `fromTick` is where the count-in ends. */
  anchor: { tick: 'number', framesPerTick: 'number', playing: 'flag', recording: 'flag', fromTick: 'number' },
  /**
   * A pad sounded, struck by hand or its note repeat (`live`), or played from its pattern. `placed` is NaN when the stroke was
   * not recorded. `heard` is the frame that the player heard when they struck; `pitch` in semitones; `length` in ticks, Infinity
   * for as long as a key is down. How it sounded: `bend` and what follows are those of its `Shape`.
   */
  sounded: { track: 'number', pad: 'number', velocity: 'number', pitch: 'number', id: 'number', live: 'flag', placed: 'number', struck: 'number', heard: 'number', length: 'number', bend: 'number', filter: 'number', decay: 'number', level: 'number', pan: 'number', drive: 'number', room: 'number', resonance: 'number', start: 'number', pressure: 'number', bright: 'number' }, // prettier-ignore
  /** While the engine skims: a control (by its place in CONTROLS) of what a pad holds is moved there. */
  held: { track: 'number', pad: 'number', control: 'number', value: 'number' },
  /** And a control of the mix (by its place in MIX_CONTROLS) is moved in the place of its setting; NaN: no more. */
  moved: { channel: 'number', control: 'number', value: 'number' },
  /** And one of the echo or the room (by its place in RETURN_CONTROLS). */
  returnMoved: { place: 'number', value: 'number' },
  /**
   * A stroke was recorded into a slot. `struck` and `placed` are in the pattern; `pass` is the same for all strokes of one time
   * round; `serial` counts the engine's recorded hits from 1; `length` in ticks is known at once for note repeat. `snapGrid` is
   * the step of the snap that it keeps, 0 for none. `asPlayed`: it is not to be placed by the Feel in force for its pad.
   */
  recorded: { track: 'number', slot: 'number', pad: 'number', velocity: 'number', pitch: 'number', id: 'number', struck: 'number', placed: 'number', snapGrid: 'number', session: 'number', pass: 'number', serial: 'number', length: 'number', asPlayed: 'flag' }, // prettier-ignore
  /** A stroke's pad was let go after `length` ticks of the song, `frames` of time. */
  released: { track: 'number', slot: 'number', id: 'number', length: 'number', frames: 'number' },
  /** From `tick` on a track plays `slot` (or is SILENT): tick 0 of its pattern lies at `launchTick`, and `span` ticks of it from `start` go round. */
  loop: { track: 'number', slot: 'number', launchTick: 'number', start: 'number', span: 'number', tick: 'number' },
  /** The loop window that waits for song tick `tick` on a track; Infinity: none does any more. */
  window: { track: 'number', start: 'number', length: 'number', tick: 'number' },
  /**
   * What plays and waits on a track, and its mute and solo; the fields are those of `LaunchState`. `beneath`: not of what is
   * heard, but of what goes on beneath a Lift.
   */
  waiting: { track: 'number', beneath: 'flag', slot: 'number', launchTick: 'number', next: 'number', nextInPlace: 'number', nextTick: 'number', link: 'number', linkTick: 'number', muted: 'number', soloed: 'number', nextMute: 'number', nextSolo: 'number', muteSoloTick: 'number' }, // prettier-ignore
  /** The section that plays and the one that waits, Lift and fade; the fields are those of `LaunchState` and `Launcher`. */
  launcher: { beneath: 'flag', section: 'number', nextSection: 'number', sectionTick: 'number', sectionFollows: 'flag', sectionInPlace: 'flag', lift: 'number', liftTick: 'number', fadeFrom: 'number', fadeTo: 'number' }, // prettier-ignore
  /** A click of the latency check, counted from 0, sounded. */
  checked: { click: 'number' },
  /**
   * Sent at a steady pace: where the engine is, how many voices ring, the loudest output sample since the last one, and whether it
   * rests: nothing is played, held or left to ring.
   */
  state: { tick: 'number', voices: 'number', peak: 'number', resting: 'flag' },
  /**
   * Sent while somebody looks at the meters: of a channel of the mix the highest sample since the last one, the mean square of both sides together, and
   * the dB that its compressor takes away. Of the whole mix it is what leaves the app, its mean square weighted as ITU-R BS.1770 has it.
   */
  meter: { channel: 'number', peak: 'number', power: 'number', reduction: 'number' },
} as const satisfies Record<string, Record<string, Packing>>;

type Fields = typeof EVENT_FIELDS;
export type EventKind = keyof Fields;
type Unpacked<P> = P extends 'flag' ? boolean : number;
/** The fields of one kind of event, to be written. */
export type EventRow<K extends EventKind> = { -readonly [F in keyof Fields[K]]: Unpacked<Fields[K][F]> };
/** An event as the page reads it. */
export type EngineEvent = { [K in EventKind]: { kind: K; frame: number } & EventRow<K> }[EventKind];

const KINDS = Object.keys(EVENT_FIELDS) as EventKind[];
/** The number that stands for each kind where events are packed. */
export const PACKED_KIND = Object.fromEntries(KINDS.map((kind, i) => [kind, i])) as Record<EventKind, number>;
const NAMES = KINDS.map((kind) => Object.keys(EVENT_FIELDS[kind]));
const FLAGS = KINDS.map((kind) => Object.values(EVENT_FIELDS[kind]).map((packing) => packing === 'flag'));
/** Numbers of one packed event: its kind, its frame, its fields. */
export const EVENT_WIDTH = 2 + Math.max(...NAMES.map((names) => names.length));

/** Turns packed events into objects. */
export function decodeEvents(numbers: Float64Array): EngineEvent[] {
  const events: EngineEvent[] = [];
  for (let at = 0; at + EVENT_WIDTH <= numbers.length; at += EVENT_WIDTH) {
    const kind = numbers[at]!;
    const event: Record<string, unknown> = { kind: KINDS[kind], frame: numbers[at + 1] };
    NAMES[kind]!.forEach((name, i) => {
      const value = numbers[at + 2 + i]!;
      event[name] = FLAGS[kind]![i] ? value === 1 : value;
    });
    events.push(event as EngineEvent);
  }
  return events;
}

/** Where the setters of a row write. */
class RowWriter {
  at = 0;
  constructor(readonly numbers: Float64Array) {}
}

/** A class whose fields, when they are set, are written straight into the queue: an event costs no garbage. */
function writerOf(kind: EventKind): new (numbers: Float64Array) => RowWriter {
  class Writer extends RowWriter {}
  NAMES[PACKED_KIND[kind]]!.forEach((name, i) => {
    Object.defineProperty(Writer.prototype, name, {
      set(this: RowWriter, value: number | boolean) {
        this.numbers[this.at + 2 + i] = value as number; // a typed array stores true as 1
      },
    });
  });
  return Writer;
}

/** Made once: a class for each queue would be another shape to the engine's compiler each time. */
const WRITERS = KINDS.map(writerOf);

/** A preallocated queue of events. When it overflows the oldest are lost and counted: the sound never waits. */
export class EventQueue {
  lost = 0;
  private readonly numbers: Float64Array;
  private readonly writers: readonly RowWriter[];
  private count = 0;

  constructor(private readonly capacity = 2048) {
    this.numbers = new Float64Array(capacity * EVENT_WIDTH);
    this.writers = WRITERS.map((Writer) => new Writer(this.numbers));
  }

  get length(): number {
    return this.count;
  }

  /**
   * Adds an event. Set every field of what is returned, and keep no hold of it.
   * @example const event = events.add('checked', 480); event.click = 0;
   */
  add<K extends EventKind>(kind: K, frame: number): EventRow<K> {
    if (this.count === this.capacity) {
      this.numbers.copyWithin(0, EVENT_WIDTH);
      this.count--;
      this.lost++;
    }
    const at = this.count++ * EVENT_WIDTH;
    const index = PACKED_KIND[kind];
    this.numbers[at] = index;
    this.numbers[at + 1] = frame;
    const writer = this.writers[index]!;
    writer.at = at;
    return writer as unknown as EventRow<K>;
  }

  /** Forgets all events. */
  clear(): void {
    this.count = 0;
  }

  /** Takes all events out, as one array to hand over. */
  drain(): Float64Array {
    const out = this.numbers.slice(0, this.count * EVENT_WIDTH);
    this.count = 0;
    return out;
  }
}
