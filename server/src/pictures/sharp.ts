import { createRequire } from 'node:module';
import type Sharp from 'sharp';

let loaded: typeof Sharp | null = null;

/** The program that reads and writes pictures, from the disk when the first one comes. It reads the kinds that are taken, and no other: an SVG may fetch and draw. */
export function sharp(): typeof Sharp {
  if (!loaded) {
    loaded = createRequire(import.meta.url)('sharp') as typeof Sharp;
    loaded.block({ operation: ['VipsForeignLoad'] });
    loaded.unblock({
      operation: ['VipsForeignLoadJpegBuffer', 'VipsForeignLoadPngBuffer', 'VipsForeignLoadWebpBuffer'],
    });
    loaded.cache(false);
  }
  return loaded;
}
