/** What V8's profiler hands over: the functions that called each other, and which one ran at each look. */
interface Profile {
  nodes: readonly { id: number; callFrame: { functionName: string }; children?: number[] }[];
  samples?: readonly number[];
  /** Microseconds before each look. */
  timeDeltas?: readonly number[];
}

/** Milliseconds of the page's scripts, by what they were called for. */
export interface ScriptTime {
  /** What is drawn on each frame of the screen, whatever happens. */
  frames: number;
  /** The set is written and handed to the browser's database. */
  saving: number;
  rest: number;
}

/** The same, with the longest that saving held up the page at once. */
export type Scripts = ScriptTime & { longestSave: number };

/** Runs in the page, before all else: callbacks of frames get a name by which a profile shows them. */
export function nameFrames(): void {
  const ask = window.requestAnimationFrame.bind(window);
  window.requestAnimationFrame = (draw) =>
    ask(function drawFrame(time) {
      draw(time);
    });
}

const NATIVE = new Set(['(root)', '(program)', '(idle)']);

function shareOf(functionName: string): keyof ScriptTime | null {
  if (functionName === 'drawFrame') return 'frames';
  return /\b(saveNow|setValues|removeValues)$/.test(functionName) ? 'saving' : null;
}

/** What scripts took in a profile, to one of so many events. */
export function scriptTime({ nodes, samples = [], timeDeltas = [] }: Profile, events: number): Scripts {
  const byId = new Map(nodes.map((node) => [node.id, node]));
  const shares = new Map<number, keyof ScriptTime>();
  const visit = (id: number, inherited: keyof ScriptTime): void => {
    const { callFrame, children = [] } = byId.get(id)!;
    const share = shareOf(callFrame.functionName) ?? inherited;
    if (!NATIVE.has(callFrame.functionName)) shares.set(id, share);
    for (const child of children) visit(child, share);
  };
  visit(nodes[0]!.id, 'rest');
  const time: Scripts = { frames: 0, saving: 0, rest: 0, longestSave: 0 };
  let save = 0;
  samples.forEach((id, i) => {
    const share = shares.get(id);
    const ms = timeDeltas[i]! / 1000;
    if (share) time[share] += ms / events;
    save = share === 'saving' ? save + ms : 0;
    time.longestSave = Math.max(time.longestSave, save);
  });
  return time;
}
