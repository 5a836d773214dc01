/** npm run rates: measures the judge with the simulated machine; writes docs/error-rates.md and the table that causes are named by. `npm run rates -- 200` works fewer nights. */
import { bundleAndRun } from './bundleAndRun.mjs';

process.exit(await bundleAndRun('e2e/printRates.ts', process.argv.slice(2)));
