/**
 * npm run verify -- FILE [FINGERPRINT]: the fingerprint of a record that was handed over as JSON, and whether it is the one that was given (digits, or the words of page one). Ends with 1 where it
 * is not.
 */
import { bundleAndRun } from './bundleAndRun.mjs';

process.exit(await bundleAndRun('e2e/verifyRecord.ts', process.argv.slice(2)));
