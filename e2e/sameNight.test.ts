import { build } from 'esbuild';
import { join } from 'node:path';
import { openBrowser } from './support/browser';
import { night } from './support/night';

/** The same seed gives the same night, in a browser and in Node.js, to the last digit: all of it is +, ×, square roots and a logarithm of our own. */

test.each(['cores', 'grooves'] as const)(
  'the same night in Chromium and in Node.js (%s)',
  async (aligns) => {
    const bundle = await build({
      stdin: {
        contents: `import { night } from './support/night'; globalThis.night = night;`,
        resolveDir: __dirname,
        sourcefile: join(__dirname, 'inPage.ts'),
        loader: 'ts',
      },
      bundle: true,
      write: false,
      format: 'iife',
      target: 'es2022',
    });
    const browser = await openBrowser();
    try {
      const page = await browser.newPage();
      await page.addScriptTag({ content: bundle.outputFiles[0]!.text });
      const inPage = await page.evaluate(
        (seed, how) => (globalThis as unknown as { night: typeof night }).night(seed, how, 120),
        14,
        aligns,
      );
      const here = night(14, aligns, 120);
      expect(JSON.parse(here).log).toHaveLength(120);
      // Not `toBe`, which would print both nights.
      expect(inPage === here).toBe(true);
      expect(night(15, aligns, 120) === here).toBe(false);
    } finally {
      await browser.close();
    }
  },
  60_000,
);
