import { kindName } from '@/core/document/soundKinds';
import type { KitReport, PadReport } from './measure';

/** LU by which a pad may differ from its kind's median, and what lies between the ends of its bar. */
const BAR = { fine: 3, most: 9 };

const STYLE = `
  body { background: #14171c; color: #e8e4da; font: 14px/1.35 system-ui, sans-serif; margin: 16px; }
  h2 { margin: 24px 0 2px; font-size: 20px; }
  p { margin: 0 0 8px; color: #b9b4a6; }
  .pads { display: grid; grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); gap: 8px; }
  figure { margin: 0; background: #1c2128; border-radius: 6px; padding: 6px; }
  canvas { width: 100%; height: 90px; image-rendering: pixelated; display: block; border-radius: 3px; }
  figcaption b { font-weight: 600; }
  .bar { position: relative; height: 8px; background: #2a3038; border-radius: 4px; margin: 4px 0; }
  .bar::before { content: ''; position: absolute; left: ${50 - (50 * BAR.fine) / BAR.most}%; width: ${(100 * BAR.fine) / BAR.most}%; top: 0; bottom: 0; background: #3a4a44; border-radius: 4px; }
  .bar i { position: absolute; top: -2px; width: 4px; height: 12px; background: #f2c14e; border-radius: 2px; }
  .bar i.off { background: #ff6b57; }
`;

/** Draws every canvas from the values that it carries: soft is dark, loud is bright. */
const DRAW = `
  for (const canvas of document.querySelectorAll('canvas')) {
    const values = Uint8Array.from(atob(canvas.dataset.values), (letter) => letter.charCodeAt(0));
    const pen = canvas.getContext('2d');
    const image = pen.createImageData(canvas.width, canvas.height);
    for (let x = 0; x < canvas.width; x++) for (let y = 0; y < canvas.height; y++) {
      const value = values[x * canvas.height + y];
      image.data.set([value, value * value / 255, 90 + value * 0.2 - value * value / 400, 255], 4 * ((canvas.height - 1 - y) * canvas.width + x));
    }
    pen.putImageData(image, 0, 0);
  }
`;

/**
 * All kits on a page: of each pad what it looks like, and how loud it is against its kind.
 * @param medians LUFS of each place
 */
export function pageOf(kits: readonly KitReport[], medians: readonly number[]): string {
  return `<!doctype html>
<html lang="en"><meta charset="utf-8"><title>Sounds of Chaffinch</title><style>${STYLE}</style>
<h1>Sounds</h1>
<p>Each picture is a stroke at full velocity: ${kits[0]!.pads[0]!.picture.seconds} s from left to right, 25 Hz to 20 kHz from bottom to top.
The bar shows its loudness against the median of its kind in all kits: green is within ${BAR.fine} LU.</p>
${kits.map((kit) => kitHtml(kit, medians)).join('\n')}
<script>${DRAW}</script></html>`;
}

function kitHtml({ name, tags, tempo, integrated, truePeak, pads }: KitReport, medians: readonly number[]): string {
  return `<section><h2>${name}</h2>
<p>${tags.join(', ')} · ${tempo} BPM · its beat ${integrated.toFixed(1)} LUFS, ${truePeak.toFixed(2)} dBTP</p>
<div class="pads">${pads.map((pad, i) => padHtml(pad, medians[i]!)).join('\n')}</div></section>`;
}

function padHtml(
  { kind, name, picture, loudness, peak, soft, hard, sides, underKick }: PadReport,
  median: number,
): string {
  const differs = loudness - median;
  const at = 50 + (50 * Math.max(-BAR.most, Math.min(BAR.most, differs))) / BAR.most;
  const beat = underKick === undefined ? '' : `<br>${underKick.toFixed(1)} LU under the kick`;
  return `<figure><canvas width="${picture.columns}" height="${picture.rows}" data-values="${picture.values}"></canvas>
<div class="bar"><i class="${Math.abs(differs) > BAR.fine ? 'off' : ''}" style="left:calc(${at.toFixed(1)}% - 2px)"></i></div>
<figcaption><b>${name}</b> (${kindName(kind)})<br>${loudness.toFixed(1)} LUFS, peak ${peak.toFixed(1)} dB, sides ${sides.toFixed(0)} dB<br>centre ${(soft / 1000).toFixed(1)} to ${(hard / 1000).toFixed(1)} kHz${beat}</figcaption></figure>`;
}
