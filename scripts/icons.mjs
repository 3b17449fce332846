// npm run icons: takes the outlines of the icons that the app uses from the Material Design Icons (Apache License 2.0), and makes
// the sign's pictures for home screens.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import * as mdi from '@mdi/js';
import { chromium } from 'playwright-core';
import { inRoot } from './shared.mjs';

/** Add a name here and run the command again. */
const NAMES = [
  'archive-outline',
  'arrow-down',
  'arrow-left',
  'arrow-right',
  'arrow-up',
  'bookshelf',
  'chart-timeline-variant',
  'check',
  'chevron-down',
  'chevron-up',
  'close',
  'content-save-alert-outline',
  'dots-horizontal',
  'dots-vertical',
  'door-open',
  'draw',
  'eraser',
  'export-variant',
  'file-music-outline',
  'file-outline',
  'heart',
  'heart-outline',
  'lock',
  'lock-open-variant-outline',
  'magnify-minus-outline',
  'magnify-plus-outline',
  'minus',
  'pencil-outline',
  'piano',
  'pin-outline',
  'play',
  'plus',
  'record',
  'redo',
  'roller-skate',
  'rotate-left',
  'rotate-right',
  'sine-wave',
  'shoe-print',
  'skip-backward',
  'stop',
  'tray-arrow-down',
  'tray-arrow-up',
  'tune-vertical',
  'undo',
  'vector-line',
  'volume-high',
  'waveform',
];

const exported = (name) => `mdi${name.replace(/(^|-)([a-z])/g, (_, __, letter) => letter.toUpperCase())}`;
const paths = Object.fromEntries(NAMES.map((name) => [name, mdi[exported(name)]]));
const missing = NAMES.filter((name) => !paths[name]);
if (missing.length > 0) throw new Error(`No such icon: ${missing.join(', ')}`);
writeFileSync(inRoot('src', 'ui', 'theme', 'iconPaths.json'), `${JSON.stringify(paths, null, 2)}\n`);

// The sign in the sizes that systems ask for; the maskable one has the room round it that they cut away (W3C: a circle of 80 %).
mkdirSync(inRoot('public', 'icons'), { recursive: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' });
const sign = readFileSync(inRoot('public', 'wingbars.svg'), 'utf8');
for (const [name, size, share] of [
  ['icon-192', 192, 1],
  ['icon-512', 512, 1],
  ['icon-maskable-512', 512, 0.7],
  ['apple-touch-icon', 180, 1],
]) {
  const page = await browser.newPage({ viewport: { width: size, height: size } });
  const ground = name === 'icon-192' || name === 'icon-512' ? 'transparent' : '#DE7B4F';
  await page.setContent(`<style>html,body{margin:0;height:100%;display:grid;place-items:center;background:${ground}}
    svg{width:${share * 100}%;height:${share * 100}%}</style>${sign}`);
  await page.screenshot({ path: inRoot('public', 'icons', `${name}.png`), omitBackground: true });
  await page.close();
}
await browser.close();
