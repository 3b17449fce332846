import { patternAt, tracksOf } from '../document/set';
import { padNote } from '../document/tones';
import type { Performed } from '../engine/replay';
import { SILENT } from '../launch/launchState';
import type { Command } from '../protocol/commands';
import { isTurned, TurnedNotes } from './turnedSteps';
import type { EngineEvent } from '../protocol/events';
import { framesPerTick, SAME_TICKS, ticksPerBar, type Meter } from '../time/ticks';
import { PADS } from '../document/limits';
import { stepAt, type Block, type Mark, type Score, type ScoreTrack, type Step, type Stroke } from './score';

type Event<K extends EngineEvent['kind']> = Extract<EngineEvent, { kind: K }>;
type Writable<T> = { -readonly [K in keyof T]: T[K] };

/** A piece of the run's time. */
interface Piece {
  frame: number;
  /** Of the run, counted from where it begins. */
  tick: number;
  framesPerTick: number;
}

/** What is known of one track while the score is written. Ticks are the run's. */
class TrackNotes {
  readonly blocks: Block[] = [];
  readonly hits: Stroke[] = [];
  readonly levels: Step[] = [];
  /** What goes round: the slot, where tick 0 of its pattern lies (of the song), and how much goes round. */
  loop = { slot: SILENT, launchTick: 0, span: 0 };
  /** The block that is being written, and its strokes. */
  open: { block: Writable<Block>; strokes: Stroke[]; launchTick: number; slot: number } | null = null;
  muted = 0;
  soloed = 0;
  level = 1;
  /** Semitones by which the notes of its pads lie above those that the run began with. */
  readonly raised = new Float64Array(PADS);
  /** Strokes of keys that are down, by the ids of their hits. */
  readonly down = new Map<number, Stroke>();
  /** The notes that the pattern or note repeat holds. */
  timed: Stroke[] = [];
}

/** Frames within which a tick surely falls to a frame: what lies half way between two would fall to the one or the other. */
const NOT_HALF = 0.49;

/** How finely a fade is written down, in ticks. */
const FADE_STEP = 30;

/** Writes down what an engine tells that plays a run again. */
export class ScoreWriter {
  private readonly tracks = new Map<number, TrackNotes>();
  private readonly tempo: Step[] = [];
  private readonly marks: Mark[] = [];
  private readonly turned: TurnedNotes;
  private readonly meter: Meter;
  private piece: Piece;
  private isPlaying = false;
  /** What must be added to a song tick to get the run's; and that of the first time that the song played. */
  private shift = 0;
  private firstShift: number | null = null;
  private fade: { from: number; to: number } | null = null;
  private section: number;
  private lastId = 0;
  /** The tick at which the run begins; null before it has. */
  private startTick: number | null = null;

  /** @param from engine frame at which the run begins */
  constructor(
    private readonly performed: Performed,
    private readonly from: number,
  ) {
    const { set, log } = performed;
    const { frame, state } = log[0] as Command<'snapshot'>;
    const { transport, launcher } = state!;
    this.meter = set.meter;
    this.section = launcher.live.section as number;
    this.piece = { frame, tick: 0, framesPerTick: transport.framesPerTick };
    for (const { id, level } of tracksOf(set)) {
      const muted = (launcher.live.muted as readonly number[])[id]!;
      const soloed = (launcher.live.soloed as readonly number[])[id]!;
      Object.assign(this.track(id), { level, muted, soloed });
    }
    this.noteLevels(frame);
    this.turned = new TurnedNotes(set, this.tickAt(frame));
  }

  /** A command that the engine was told; the player's levels and notes are nowhere else. */
  command(command: Command): void {
    const { frame, ...told } = command;
    if (isTurned(told)) this.noteLevel(frame, this.turned.command(told, this.tickAt(frame)));
    else if (command.type === 'notes' && command.layout) {
      const { tones } = this.performed.set.tracks[command.track] ?? {};
      const { raised } = this.track(command.track);
      if (tones) command.layout.notes.forEach((note, pad) => (raised[pad] = note - padNote(tones, pad)));
    }
  }

  event(event: EngineEvent): void {
    this.reach(event.frame);
    if (event.kind === 'anchor') this.anchor(event);
    else if (event.kind === 'loop') this.loop(event);
    else if (event.kind === 'sounded') this.sounded(event);
    else if (event.kind === 'released') this.released(event);
    else if (event.kind === 'held') this.turned.held(event, this.tickAt(event.frame));
    else if (event.kind === 'returnMoved') this.turned.returnMoved(event, this.tickAt(event.frame));
    else if (event.kind === 'moved') this.noteLevel(event.frame, this.turned.moved(event, this.tickAt(event.frame)));
    else if (event.kind === 'waiting' && !event.beneath) {
      const { muted, soloed } = event;
      Object.assign(this.track(event.track), { muted, soloed });
      this.noteLevels(event.frame);
    } else if (event.kind === 'launcher' && !event.beneath) this.launcher(event);
  }

  /** @param to engine frame at which the run ends */
  score(to: number): Score {
    const { performed, meter } = this;
    this.reach(this.from);
    const end = this.tickAt(to);
    for (const track of this.tracks.values()) {
      for (const stroke of track.down.values()) stroke.length = Math.max(0, end - stroke.tick);
      this.closeBlock(track, end);
    }
    this.endFade(end);
    // Bar lines are those of the song, and tick 0 is the last of them before the run begins.
    const bar = ticksPerBar(meter);
    const start = this.startTick!;
    const shift = this.firstShift ?? start;
    // Half a frame later than the first sound: a bar line that it falls to is not missed by the last digit of the arithmetic.
    const first = start + 1.5 / framesPerTick(this.tempoAt(start), performed.sampleRate);
    const origin = shift + Math.floor((first - shift) / bar) * bar;
    const moved = <T extends { tick: number }>(list: readonly T[]) =>
      list.map((item) => ({ ...item, tick: item.tick - origin }));
    const tracks = tracksOf(performed.set).map(({ id, name, colour, kit, tones }): ScoreTrack => {
      const { blocks, hits, levels } = this.track(id);
      return {
        id,
        name,
        colour,
        kit,
        ...(tones && { tones }),
        blocks: blocks.map((block) => blockFrom(block, origin)),
        hits: moved(hits),
        levels: fromZero(moved(levels), start - origin),
      };
    });
    const tempo = fromZero(moved(this.tempo), start - origin);
    const frame = this.startFrame - (start - origin) * framesPerTick(this.tempoAt(start), performed.sampleRate);
    const length = Math.max(1, Math.ceil(Math.max(...tracks.map(endOf)) / bar - SAME_TICKS)) * bar;
    return {
      meter,
      length,
      tempo,
      tracks,
      turned: moved(this.turned.steps),
      marks: moved(this.marks).map((mark) => ({ ...mark, tick: Math.max(0, Math.round(mark.tick)) })),
      frame,
      songTick: origin - shift,
    };
  }

  // --- time ----------------------------------------------------------------------------------------------------

  private tickAt(frame: number): number {
    const { piece } = this;
    return piece.tick + (frame - piece.frame) / piece.framesPerTick;
  }

  /** Quarter notes per minute. */
  private tempoAt(tick: number): number {
    return stepAt(this.tempo, tick);
  }

  private frameAt(tick: number): number {
    const { piece } = this;
    return piece.frame + (tick - piece.tick) * piece.framesPerTick;
  }

  /** A frame early: a tick that falls to the first frame may lie a little before it. */
  private get startFrame(): number {
    return this.from - 1;
  }

  /** The run begins once what is told lies in it. */
  private reach(frame: number): void {
    if (this.startTick !== null || frame < this.from) return;
    this.startTick = this.tickAt(this.startFrame);
    if (!this.isPlaying) return;
    this.firstShift = this.shift;
    this.markSection(this.startTick);
  }

  private anchor({ frame, tick, framesPerTick: perTick, playing, fromTick }: Event<'anchor'>): void {
    const now = this.tickAt(frame);
    this.piece = { frame, tick: now, framesPerTick: perTick };
    const bpm = framesPerTick(1, this.performed.sampleRate) / perTick;
    if (this.tempo.at(-1)?.value !== bpm) this.tempo.push({ tick: now, value: bpm });
    if (playing) this.shift = now - tick;
    if (playing && !this.isPlaying) {
      this.isPlaying = true;
      if (this.startTick !== null) {
        this.firstShift ??= this.shift;
        this.markSection(fromTick + this.shift);
      }
      for (const track of this.tracks.values()) this.openBlock(track, fromTick + this.shift);
    } else if (!playing && this.isPlaying) {
      this.isPlaying = false;
      for (const track of this.tracks.values()) {
        this.endNotes(track, now);
        this.closeBlock(track, now);
      }
      this.endFade(now);
    }
  }

  // --- what plays ----------------------------------------------------------------------------------------------

  private loop({ frame, track: id, slot, launchTick, span, tick }: Event<'loop'>): void {
    const track = this.track(id);
    const { open } = track;
    track.loop = { slot, launchTick, span };
    if (!this.isPlaying) return;
    if (open?.slot === slot && open.launchTick === launchTick) {
      // The same pattern, in another window.
      open.block.content = { ...open.block.content, loop: span };
      return;
    }
    const at = tick + this.shift;
    this.endNotes(track, this.tickAt(frame));
    this.closeBlock(track, at);
    this.openBlock(track, at);
  }

  private openBlock(track: TrackNotes, from: number): void {
    const { slot, launchTick, span } = track.loop;
    if (slot === SILENT) return;
    const { set } = this.performed;
    const id = [...this.tracks.keys()].find((key) => this.tracks.get(key) === track)!;
    const pattern = set.tracks[id] && patternAt(set, { track: id, slot });
    const name = pattern?.name ?? `Pattern ${slot + 1}`;
    const colour = pattern?.colour ?? set.tracks[id]?.colour ?? 0;
    const strokes: Stroke[] = [];
    const content = { length: 0, loop: span, strokes };
    const block = { id: this.nextId(), name, colour, from, length: 0, into: 0, content };
    track.open = { block, strokes, slot, launchTick };
  }

  private closeBlock(track: TrackNotes, end: number): void {
    const { open } = track;
    track.open = null;
    if (!open || open.strokes.length === 0) return;
    const { block, strokes } = open;
    // What was played before the run began is not a part of it.
    const skipped = Math.max(0, (this.startTick ?? end) - block.from);
    const length = end - block.from - skipped;
    if (length <= 0) return;
    const moved = strokes.map((stroke) => ({ ...stroke, tick: stroke.tick - block.from - skipped }));
    const content = { length, loop: block.content.loop, strokes: moved };
    track.blocks.push({ ...block, from: block.from + skipped, length, content });
  }

  private sounded(event: Event<'sounded'>): void {
    if (this.startTick === null) return;
    const track = this.track(event.track);
    const now = this.tickAt(event.frame);
    const { id, pad, velocity, live, filter, decay, level, pan, drive, room, resonance, start, pressure, bright } =
      event;
    // What the pattern plays lies on its very tick, unless it was too late for it; what hands strike, where its sound begins.
    const placed = live || !this.isPlaying ? NaN : event.placed + this.shift;
    const tick = Math.abs(this.frameAt(placed) - event.frame) < NOT_HALF ? placed : now;
    const late = live && this.isPlaying && Number.isFinite(event.struck) ? now - event.struck - this.shift : 0;
    const pitch = event.bend + track.raised[pad]!;
    // One that was too late ends where it would have ended.
    const length = tick === now && Number.isFinite(placed) ? Math.max(0, event.length + placed - now) : event.length;
    const stroke = { id: this.nextId(), tick, late, pad, velocity, length, pitch, filter, decay, level, pan, drive, room, resonance, start, pressure, bright }; // prettier-ignore
    if (length === Infinity) track.down.set(id, stroke);
    else track.timed.push(stroke);
    if (live || !track.open) track.hits.push(stroke);
    else {
      track.open.strokes.push(stroke);
      // What is launched at once begins between two frames, and is heard from the first of them on.
      track.open.block.from = Math.min(track.open.block.from, tick);
    }
  }

  private released({ track: id, id: hit, frame }: Event<'released'>): void {
    const { down } = this.track(id);
    const stroke = down.get(hit);
    if (stroke) stroke.length = this.tickAt(frame) - stroke.tick;
    down.delete(hit);
  }

  /** Another pattern takes over, or the song stops: notes that are held by themselves end. */
  private endNotes(track: TrackNotes, at: number): void {
    for (const stroke of track.timed) stroke.length = Math.min(stroke.length, Math.max(0, at - stroke.tick));
    track.timed = [];
  }

  private launcher({ frame, section, fadeFrom, fadeTo }: Event<'launcher'>): void {
    const now = this.tickAt(frame);
    if (section !== this.section) {
      this.section = section;
      if (this.isPlaying && this.startTick !== null) this.markSection(now);
    }
    const fade = fadeFrom === Infinity ? null : { from: fadeFrom + this.shift, to: fadeTo + this.shift };
    if (fade?.from !== this.fade?.from || fade?.to !== this.fade?.to) {
      this.endFade(now);
      this.fade = fade;
    }
  }

  /** The section that was launched last plays from here on. */
  private markSection(tick: number): void {
    const found = this.performed.set.sections.find(({ id }) => id === this.section);
    if (found) this.marks.push({ tick, section: found.id, name: found.name, colour: found.colour });
  }

  // --- how loud ------------------------------------------------------------------------------------------------

  private noteLevels(frame: number): void {
    const tick = this.tickAt(frame);
    const anySolo = [...this.tracks.values()].some(({ soloed }) => soloed === 1);
    for (const { muted, soloed, level, levels } of this.tracks.values()) {
      const value = muted === 1 || (anySolo && soloed !== 1) ? 0 : level;
      if (levels.at(-1)?.value !== value) levels.push({ tick, value });
    }
  }

  /** A track is set, or moved, to another level. */
  private noteLevel(frame: number, set: { track: number; level: number } | null): void {
    if (!set) return;
    this.track(set.track).level = set.level;
    this.noteLevels(frame);
  }

  /** Writes a fade into the levels of all tracks, as far as it came: evenly to the ear, as the mixer has it. */
  private endFade(at: number): void {
    const { fade } = this;
    this.fade = null;
    if (!fade || at <= fade.from) return;
    const end = Math.min(at, fade.to);
    for (const track of this.tracks.values()) {
      const before = [...track.levels];
      const after = before.filter(({ tick }) => tick >= end);
      track.levels.length = 0;
      track.levels.push(...before.filter(({ tick }) => tick < fade.from));
      for (let tick = fade.from; tick < end; tick += FADE_STEP) {
        const left = (fade.to - tick) / (fade.to - fade.from);
        track.levels.push({ tick, value: stepAt(before, tick) * left * left });
      }
      track.levels.push({ tick: end, value: stepAt(before, end) }, ...after);
    }
  }

  // --- the rest ------------------------------------------------------------------------------------------------

  private track(id: number): TrackNotes {
    const known = this.tracks.get(id);
    if (known) return known;
    const track = new TrackNotes();
    this.tracks.set(id, track);
    return track;
  }

  private nextId(): number {
    return ++this.lastId;
  }
}

/** A block as it lies from an origin on. It is heard exactly as long as its content is, so that nothing of it goes round. */
function blockFrom(block: Block, origin: number): Block {
  const from = whole(block.from - origin);
  const length = whole(block.from - origin + block.length) - from;
  return { ...block, from, length, content: { ...block.content, length } };
}

/** A tick without the last digits, which the way through frames has made: a bar line is one again. */
function whole(tick: number): number {
  return Math.round(tick * 1e7) / 1e7;
}

/** Where a track is over: the quiet bars after which a run ends are no part of what was played. */
function endOf({ blocks, hits }: ScoreTrack): number {
  return Math.max(0, ...blocks.slice(-1).map(({ from, length }) => from + length), ...hits.slice(-1).map(({ tick }) => tick + 1)); // prettier-ignore
}

/** Steps of which the first holds from tick 0 on: the one that holds at `start`. */
function fromZero(steps: readonly Step[], start: number): Step[] {
  const first = Math.max(1, steps.filter(({ tick }) => tick <= start).length) - 1;
  return steps.slice(first).map((step, i) => (i === 0 ? { ...step, tick: 0 } : step));
}
