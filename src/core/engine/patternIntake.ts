import type { Handlers } from '../protocol/commands';
import type { Part } from './part';
import type { Recorder } from './recorder';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';

/** Takes in what the page tells of patterns: a whole one, what changed in one, its Moves. */
export class PatternIntake implements Part {
  constructor(
    private readonly rack: TrackRack,
    private readonly recorder: Recorder,
    private readonly transport: Transport,
  ) {}

  readonly commands: Handlers<'pattern' | 'patternEdit' | 'moves'> = {
    pattern: ({ track, slot, length, seen, hits, feels }) => {
      const player = this.rack.tracks[track]!.at(slot);
      const { start, span } = player;
      player.load(length, hits, feels);
      const moved = player.start !== start || player.span !== span;
      if (moved && slot === this.rack.tracks[track]!.slot) this.rack.reportLoop(track, this.transport.songTick);
      this.recorder.insertAgain(track, slot, seen);
    },
    patternEdit: ({ track, slot, removed, hits }) => this.rack.tracks[track]!.at(slot).edit(removed, hits),
    moves: ({ track, slot, points }) => this.rack.tracks[track]!.at(slot).loadMoves(points),
  };
}
