import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { demoSet } from '@/core/document/demo';
import { renderLoop } from '@/core/engine/offline';
import { allocation, mixShare, quantumCost, shapedShare, type Half, type RenderRun } from '../engineLoad';
import { five, median, row, steal } from '../table';

/** What offline rendering must reach, as a multiple of the calibration loop: 0.95 of the least of five processes on a quiet machine. */
const RENDER_BARS: Record<number, number> = { 16: 270, 64: 100 };

/** What half of the voices are. */
const HALVES: Half[] = [
  { sampled: true, waves: 1 },
  { sampled: true, waves: 2 },
  { sampled: false, waves: 1 },
];

/**
 * Renders with so many voices in a process of its own, after a warm-up: V8 may leave the checks of typed arrays in a loop of one
 * process and not of the next, a difference of two.
 */
function freshProcess(voices: number, ...options: readonly string[]): RenderRun {
  const self = fileURLToPath(import.meta.url);
  return JSON.parse(
    execFileSync(process.execPath, [...process.execArgv, ...options, self, `--render=${voices}`]).toString(),
  ) as RenderRun;
}

/** For Node: as in a browser that forbids WebAssembly. */
const FORBIDDEN = '--import=data:text/javascript,delete globalThis.WebAssembly';

export function engineRows() {
  steal();
  for (const voices of [16, 64]) {
    const runs = Array.from({ length: 5 }, () => freshProcess(voices));
    const ratios = runs.map(({ speed, calibration }) => speed / calibration).sort((a, b) => a - b);
    const bar = RENDER_BARS[voices]!;
    row(
      `offline render, 16 pads x 4 tracks, ${runs[0]!.rang.toFixed(0)} voices: times real time to a million steps of plain arithmetic a ms, five fresh processes`,
      `median ${ratios[2]!.toFixed(1)}, ${ratios[0]!.toFixed(1)} to ${ratios[4]!.toFixed(1)}; ${median(runs.map((r) => r.speed)).toFixed(1)} x real time (${steal()})`,
      `>= ${bar}`,
      ratios[2]! >= bar,
    );
  }
  const gains = Array.from({ length: 5 }, () => freshProcess(64).speed / freshProcess(64, FORBIDDEN).speed);
  const gain = median(gains);
  row(
    'offline render, 64 voices: times the speed without WebAssembly, median of five pairs of fresh processes',
    `${gain.toFixed(2)} (${steal()})`,
    '>= 1.2',
    gain >= 1.2,
  );
  for (const half of HALVES) {
    const share = shapedShare(64, half);
    const what = `${half.sampled ? 'samples' : 'made sounds'} at an odd pitch with a filter and ${half.waves === 1 ? 'a wave' : 'two waves'}`;
    row(
      `offline render, 64 voices, half of them ${what}: share of the speed of made sounds without, median of nine pairs`,
      `${share.toFixed(2)} (${steal()})`,
      '>= 0.7',
      share >= 0.7,
    );
  }
  const mixed = mixShare();
  row(
    'offline render, 16 tracks, 64 voices, 4 groups, every effect of every channel on: share of the speed of the dry mix, median of nine pairs',
    `${mixed.toFixed(2)} (${steal()})`,
    '>= 0.6',
    mixed >= 0.6,
  );
  const set = demoSet().set;
  const seconds = (8 * 60) / 112;
  const wav = five(() => {
    const start = performance.now();
    renderLoop({ track: set.tracks[0]!, pattern: set.tracks[0]!.patterns[0]!, tempo: 112, sampleRate: 48000 });
    return seconds / ((performance.now() - start) / 1000);
  });
  row('export of the demo loop, lead-in rendered too', `${wav.toFixed(1)} x real time (${steal()})`);
  const { p50, p99 } = quantumCost();
  row(
    'cost of a dense song, share of the quantum',
    `p50 ${p50.toFixed(1)} %, p99 ${p99.toFixed(1)} % (${steal()})`,
    'p50 <= 20 %, p99 <= 40 %',
    p50 <= 20 && p99 <= 40,
  );
  const full = quantumCost(true);
  row(
    'cost of 64 voices on 16 tracks with everything of the mix on, share of the quantum',
    `p50 ${full.p50.toFixed(1)} %, p99 ${full.p99.toFixed(1)} % (${steal()})`,
    'p99 <= 50 %',
    full.p99 <= 50,
  );
  const bytes = allocation();
  row('garbage made in process() with everything on', `${bytes.toFixed(0)} bytes a quantum`, '< 100', bytes < 100);
}
