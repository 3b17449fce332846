// What makes the built app open fast and without a network.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { generateSW } from 'workbox-build';

/** Asks for the typefaces with the page, and not when the script has come that uses them. */
export function preloadFonts(directory) {
  const page = path.join(directory, 'index.html');
  const links = readdirSync(directory, { recursive: true })
    .filter((name) => name.endsWith('.woff2'))
    .map((name) => `<link rel="preload" as="font" type="font/woff2" crossorigin href="/${name}" />`);
  writeFileSync(page, readFileSync(page, 'utf8').replace('</head>', `${links.join('')}</head>`));
}

/** Makes the service worker that keeps every file of the app and answers without the network. */
export async function makeServiceWorker(directory) {
  const { warnings } = await generateSW({
    globDirectory: directory,
    globPatterns: ['**/*.{html,js,css,woff2,svg,png,webmanifest}'],
    swDest: path.join(directory, 'sw.js'),
    modifyURLPrefix: { '': '/' },
    // Names with a content hash never mean another file.
    dontCacheBustURLsMatching: /[.-][0-9a-f]{32}\./,
    maximumFileSizeToCacheInBytes: 8e6,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/health$/, /\.\w+$/],
    cleanupOutdatedCaches: true,
    // A new version waits until the player takes it, or until no page is open: never in the middle of a performance.
    skipWaiting: false,
    inlineWorkboxRuntime: true,
    sourcemap: false,
  });
  for (const warning of warnings) console.warn(warning);
}
