import { isLucky } from '../sequence/odds';
import type { PatternPlayer } from '../sequence/patternPlayer';
import { rollVelocity } from '../sequence/rollStrokes';
import { SAME_TICKS } from '../time/ticks';
import type { Hands } from './hands';
import type { HeardPads } from './heardPads';
import type { NoteRepeater } from './noteRepeater';
import type { TickPart } from './part';
import type { Recorder } from './recorder';
import type { Rolls } from './rolls';
import type { SoundRack } from './soundRack';
import { newStroke, type Striker } from './striker';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';
import { HIT } from '../sequence/hitRows';

/** What decides whether a hit of a pattern gives way. */
interface Others {
  hands: Hands;
  recorder: Recorder;
  repeater: NoteRepeater;
  heardPads: HeardPads;
  sounds: SoundRack;
}

/** Plays the hits of the patterns. */
export class PatternPlayback implements TickPart {
  private readonly stroke = newStroke();

  constructor(
    private readonly transport: Transport,
    private readonly rack: TrackRack,
    private readonly striker: Striker,
    private readonly rolls: Rolls,
    private readonly others: Others,
  ) {}

  passBy(): void {
    this.transport.passBy();
  }

  nextTick(): number {
    if (!this.transport.playing) return Infinity;
    const { playedThrough } = this.transport;
    let next = Infinity;
    for (const { player } of this.rack.tracks) next = Math.min(next, player.nextTick(playedThrough));
    return next;
  }

  playTick(tick: number): void {
    const { transport } = this;
    const { tracks } = this.rack;
    for (let t = 0; t < tracks.length; t++) {
      const { player } = tracks[t]!;
      if (player.nextTick(transport.playedThrough) > tick + SAME_TICKS) continue;
      const { nextPassTick, nextIndex } = player;
      for (let i = nextIndex; i < player.windowEnd; i++) {
        const placed = nextPassTick + player.hits.get(i, HIT.TICK);
        if (placed > tick + SAME_TICKS) break;
        this.playHit(t, player, i, placed);
      }
    }
    transport.playedThrough = tick;
  }

  private playHit(track: number, player: PatternPlayer, hit: number, placed: number): void {
    const { hits } = player;
    const id = hits.get(hit, HIT.ID);
    const pad = hits.get(hit, HIT.PAD);
    if (this.givesWay(track, pad, id, placed)) return;
    if (!isLucky(hits.get(hit, HIT.ODDS), track, pad, placed - player.launchTick)) return;
    const { stroke } = this;
    const velocity = hits.get(hit, HIT.VELOCITY);
    const strokes = hits.get(hit, HIT.STROKES);
    const over = hits.get(hit, HIT.OVER);
    const swell = hits.get(hit, HIT.SWELL);
    const tick = hits.get(hit, HIT.TICK);
    stroke.track = track;
    stroke.pad = pad;
    stroke.id = id;
    stroke.velocity = strokes > 1 ? rollVelocity(velocity, 0, strokes, swell) : velocity;
    stroke.pitch = hits.get(hit, HIT.PITCH);
    stroke.position = tick;
    stroke.tick = stroke.placed = placed;
    stroke.length = strokes > 1 ? over / strokes : hits.get(hit, HIT.LENGTH);
    stroke.struck = placed + hits.get(hit, HIT.STRUCK) - tick;
    stroke.heard = this.transport.frame;
    this.striker.strike(stroke);
    if (strokes <= 1) return;
    const roll = this.rolls.begin(track);
    roll.pad = pad;
    roll.id = id;
    roll.velocity = velocity;
    roll.pitch = stroke.pitch;
    roll.start = placed;
    roll.strokes = strokes;
    roll.over = over;
    roll.swell = swell;
    roll.glide = hits.get(hit, HIT.GLIDE);
  }

  /** Whether a hit is silent: muted, or hands have struck it already or have struck its pad at this very moment. */
  private givesWay(track: number, pad: number, id: number, placed: number): boolean {
    const { hands, recorder, repeater, heardPads, sounds } = this.others;
    return (
      recorder.alreadyHeard(id, placed) ||
      !heardPads.isHeard(track, pad) ||
      repeater.struckNow(track, pad) ||
      (sounds.tracks[track]!.notes !== null && hands.holds(track, pad, id))
    );
  }
}
