/** The service worker of an exported web app; `node scripts/serviceWorker.mjs FOLDER` makes that of the app in a folder. */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { generateSW } from 'workbox-build';

/**
 * Keeps everything that was exported on the device, each file by its hash, and answers every page address with the app's one page. A newer one is
 * fetched beside it, and takes over when the app says so: see `app/src/shell/version`.
 * @param dist the folder with the exported app, into which it is put
 */
export async function buildServiceWorker(dist) {
  const { warnings } = await generateSW({
    globDirectory: dist,
    globPatterns: ['**/*.{html,js,css,ttf,woff2,png,ico,webmanifest}'],
    swDest: join(dist, 'sw.js'),
    dontCacheBustURLsMatching: /[.-][0-9a-f]{20,}\./,
    maximumFileSizeToCacheInBytes: 8_000_000,
    // What another application shares to this one.
    importScripts: ['/share.js'],
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    // The first page of all, too, finds its other screens here.
    clientsClaim: true,
    skipWaiting: false,
    inlineWorkboxRuntime: true,
    sourcemap: false,
    mode: 'production',
  });
  if (warnings.length > 0) throw new Error(`The service worker lacks files:\n${warnings.join('\n')}`);
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href)
  void buildServiceWorker(process.argv[2]);
