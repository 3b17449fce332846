import type { Stereo } from '@/core/engine/offline';
import { TrackTape } from '@/core/engine/trackTape';
import type { ScoreRender } from '@/core/score/scoreRender';
import type { Part, ScoreRenders } from '@/core/score/scoreRenders';

/** To the worker that renders tracks: what of the score comes next, or a tape for the next piece of it. */
type ToTracks = { begin: Part } | { tape: Float64Array<ArrayBuffer> };
/** From it: the tape, written, in the order in which they came. */
type FromTracks = { tape: Float64Array<ArrayBuffer> } | { error: string };

/** Tapes on their way: while one is mixed, the next ones are written. */
const TAPES = 3;

/**
 * Renders the tracks of a score, for a worker that mixes them (see `renderMixed`).
 * @param port on which that worker asks for them
 */
export function renderTracks(port: MessagePort, renders: ScoreRenders): void {
  let render: ScoreRender | null = null;
  const write = (numbers: Float64Array<ArrayBuffer>) => {
    // More tapes are asked for than there are pieces.
    if (!render || render.isDone) return;
    const tape = new TrackTape(numbers);
    render.engine.writeTracks(tape);
    render.next();
    reply({ tape: tape.whole }, [tape.whole.buffer]);
  };
  const reply = (message: FromTracks, transfer: Transferable[] = []) => port.postMessage(message, transfer);
  port.onmessage = ({ data }: MessageEvent<ToTracks>) => {
    try {
      if ('begin' in data) render = renders.begin(data.begin);
      else write(data.tape);
    } catch (error) {
      reply({ error: error instanceof Error ? error.message : String(error) });
    }
  };
}

/**
 * Renders a part of a score, piece by piece.
 * @param port on which another worker renders its tracks; null: this one renders all of it
 */
export async function* renderMixed(
  port: MessagePort | null,
  renders: ScoreRenders,
  part: Part,
): AsyncGenerator<Stereo> {
  const render = renders.begin(part);
  const tapes = port && new Tapes(port, part);
  while (!render.isDone) {
    const tape = await tapes?.next();
    if (tape) render.engine.readTracks(new TrackTape(tape));
    const audio = render.next();
    if (tape) tapes!.lend(tape);
    if (audio) yield audio;
  }
}

/** The tapes of one part, as they come from the worker that writes them. */
class Tapes {
  private readonly written: Float64Array<ArrayBuffer>[] = [];
  private error: Error | null = null;
  private wake = () => undefined as void;

  constructor(
    private readonly port: MessagePort,
    part: Part,
  ) {
    port.onmessage = ({ data }: MessageEvent<FromTracks>) => {
      if ('error' in data) this.error = new Error(data.error);
      else this.written.push(data.tape);
      this.wake();
    };
    port.postMessage({ begin: part } satisfies ToTracks);
    for (let i = 0; i < TAPES; i++) this.lend(new TrackTape().whole);
  }

  /** @throws Error that the other worker met */
  async next(): Promise<Float64Array<ArrayBuffer>> {
    while (this.written.length === 0 && !this.error) await new Promise<void>((resolve) => (this.wake = resolve));
    if (this.error) throw this.error;
    return this.written.shift()!;
  }

  /** A tape is to be written. */
  lend(tape: Float64Array<ArrayBuffer>): void {
    this.port.postMessage({ tape } satisfies ToTracks, [tape.buffer]);
  }
}
