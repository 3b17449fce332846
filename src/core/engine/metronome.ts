import type { Handlers } from '../protocol/commands';
import { clickStrength, nextClick } from '../sequence/clicks';
import { Click } from '../sound/click';
import { SAME_TICKS } from '../time/ticks';
import type { TickPart } from './part';
import type { Transport } from './transport';
import type { ClickSound, ClickTime } from '../document/metronome';

/** The metronome and the count-in. */
export class Metronome implements TickPart {
  readonly click: Click;
  sound: ClickSound = 'wood';
  private on = false;
  private level = 0.7;
  private when: ClickTime = 'always';
  private between = 0;
  /** Song tick up to which clicks have been played. */
  private clickedThrough = -1;

  constructor(
    sampleRate: number,
    private readonly transport: Transport,
  ) {
    this.click = new Click(sampleRate);
  }

  readonly commands: Handlers<'metronome'> = {
    metronome: ({ on, level, sound, when, between }) => {
      this.on = on;
      this.level = level;
      this.sound = sound;
      this.when = when;
      this.between = between;
    },
  };

  songStarts(startTick: number): void {
    this.clickedThrough = startTick - SAME_TICKS;
  }

  /** Beats that went by in silence are not made up for. */
  passBy(): void {
    const { playing, songTick } = this.transport;
    if (playing) this.clickedThrough = Math.max(this.clickedThrough, songTick - SAME_TICKS);
  }

  nextTick(): number {
    const { playing, now, meter, fromTick } = this.transport;
    if (!playing) return Infinity;
    const counting = this.clickedThrough < fromTick;
    const clicks = this.on && (this.when === 'always' || (this.when === 'recording' && now.recording));
    // The count-in clicks its beats in any case; what comes between them only when it is wanted.
    const wanted = clicks || (this.on && this.when === 'countIn' && counting);
    const next = nextClick(this.clickedThrough, meter, wanted ? this.between : 0);
    return clicks || next < fromTick ? next : Infinity;
  }

  playTick(tick: number): void {
    this.clickedThrough = tick;
    this.click.start(this.sound, clickStrength(tick, this.transport.meter), this.level);
  }
}
