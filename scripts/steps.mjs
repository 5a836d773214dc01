/** npm run steps: prints the texts of the guided steps, to be read aloud. `npm run steps -- loose in moist` prints some. */
import { bundleAndRun } from './bundleAndRun.mjs';

process.exit(await bundleAndRun('e2e/printSteps.ts', process.argv.slice(2)));
