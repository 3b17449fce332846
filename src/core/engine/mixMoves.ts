import { MAX_TRACKS } from '../document/limits';
import { CHANNELS, FIRST_GROUP_CHANNEL, MIX_CONTROLS, MIX_RANGES, TO_WHOLE, WHOLE_CHANNEL } from '../document/mix';
import { channelOfTable, controlOfTable, MOVED_CHANNELS, returnOfTable } from '../document/moves';
import { RETURN_CONTROLS, returnPlace, returnRange } from '../document/returns';
import type { Handlers } from '../protocol/commands';
import type { EventQueue } from '../protocol/events';
import { moveValue } from '../sequence/moveValue';
import { Looks } from './looks';
import { MOVED_PLACES, MOVED_RETURNS_FROM, type Mixer } from './mixer';
import type { Striker } from './striker';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';

const CONTROLS = MIX_CONTROLS.length;
const CHANNEL_RANGES = MIX_CONTROLS.map((control) => MIX_RANGES[control]);
const RETURN_RANGES = RETURN_CONTROLS.map((control) => returnRange(control)!);
const RANGES = [...Array.from({ length: CHANNELS }, () => CHANNEL_RANGES).flat(), ...RETURN_RANGES];
const [TRACK, GROUP] = [MOVED_CHANNELS.indexOf('track'), MOVED_CHANNELS.indexOf('group')];

/**
 * What hands and Moves do to the channels of the mix, to its echo and its room, in the place of their settings. A hand comes before a Move; of two patterns that move
 * the same, that of the later track has it.
 */
export class MixMoves extends Looks {
  /** Where hands hold controls, by their places in the mixer; NaN where they do not. */
  private readonly held = new Float64Array(MOVED_PLACES).fill(NaN);
  /** Where they are to be, likewise. */
  private readonly wanted = new Float64Array(MOVED_PLACES).fill(NaN);

  constructor(
    transport: Transport,
    private readonly rack: TrackRack,
    private readonly mixer: Mixer,
    private readonly striker: Striker,
    private readonly events: EventQueue,
  ) {
    super(transport);
  }

  readonly commands: Handlers<'ride' | 'rideReturn'> = {
    ride: ({ channel, control, value }) => this.hold(channel * CONTROLS + MIX_CONTROLS.indexOf(control), value),
    rideReturn: ({ on, control, value }) => this.hold(MOVED_RETURNS_FROM + returnPlace({ on, control }), value),
  };

  private hold(at: number, value: number): void {
    this.held[at] = withinRange(at, value);
  }

  /** Whether a hand is on any control. */
  get isHeld(): boolean {
    return this.held.some((value) => !Number.isNaN(value));
  }

  trackRemoved(track: number): void {
    this.held.fill(NaN, track * CONTROLS, (track + 1) * CONTROLS);
  }

  protected look(): boolean {
    const { wanted, held, mixer } = this;
    wanted.set(held);
    if (this.transport.playing) this.lookAtMoves();
    let isMoving = false;
    for (let i = 0; i < wanted.length; i++) {
      const value = wanted[i]!;
      const before = mixer.moved[i]!;
      if (!Number.isNaN(value)) isMoving = true;
      if (value === before || (Number.isNaN(value) && Number.isNaN(before))) continue;
      mixer.move(i, value);
      isMoving = true;
      this.tell(i, value);
    }
    return isMoving;
  }

  private lookAtMoves(): void {
    const { rack, wanted, held } = this;
    const tick = this.transport.songTick;
    for (let track = 0; track < MAX_TRACKS; track++) {
      const { player } = rack.tracks[track]!;
      if (player.mixTables.length === 0) continue;
      const position = player.positionAt(tick);
      if (Number.isNaN(position)) continue;
      for (const table of player.mixTables) {
        const at = this.placeOf(track, table);
        if (at < 0 || !Number.isNaN(held[at]!)) continue;
        wanted[at] = withinRange(at, moveValue(player.moves[table]!, position, RANGES[at]!.stepped));
      }
    }
  }

  /** The place that a Move of a track's pattern means; -1: there is none. */
  private placeOf(track: number, table: number): number {
    const ofReturn = returnOfTable(table);
    if (ofReturn >= 0) return MOVED_RETURNS_FROM + ofReturn;
    const channel = this.channelOf(track, channelOfTable(table));
    return channel < 0 ? -1 : channel * CONTROLS + controlOfTable(table);
  }

  /** The channel that a track's pattern means; -1: its track goes to no group. */
  private channelOf(track: number, on: number): number {
    if (on === TRACK) return track;
    if (on !== GROUP) return WHOLE_CHANNEL;
    const group = this.mixer.groupOf(track);
    return group === TO_WHOLE ? -1 : FIRST_GROUP_CHANNEL + group;
  }

  /** Who skims hears nothing of it. */
  private tell(at: number, value: number): void {
    if (!this.striker.isSilent) return;
    const { frame } = this.transport;
    if (at >= MOVED_RETURNS_FROM) {
      const event = this.events.add('returnMoved', frame);
      event.place = at - MOVED_RETURNS_FROM;
      event.value = value;
      return;
    }
    const event = this.events.add('moved', frame);
    event.channel = Math.floor(at / CONTROLS);
    event.control = at % CONTROLS;
    event.value = value;
  }
}

/** @param value NaN stays what it is */
function withinRange(at: number, value: number): number {
  const { min, max, stepped } = RANGES[at]!;
  const within = Math.min(max, Math.max(min, value));
  return stepped ? Math.round(within) : within;
}
