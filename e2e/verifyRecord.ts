import { fingerprintWords, matchesFingerprint } from '@cordel/core/asBuilt';
import { readFileSync } from 'node:fs';
import { fingerprint } from '../server/src/report/canonical';

/** Checks a record that was handed over against its fingerprint. */
const [path, ...given] = process.argv.slice(2);
if (!path) {
  console.error('Give the file: npm run verify -- FILE [FINGERPRINT].');
  process.exit(2);
}
let record: unknown;
try {
  record = JSON.parse(readFileSync(path, 'utf8'));
} catch (error) {
  console.error(`${path} cannot be read as JSON: ${(error as Error).message}`);
  process.exit(2);
}
if ((record as { format?: unknown } | null)?.format !== 'cordel-as-built')
  console.log('This is no record of Cordel; its fingerprint all the same:');
const print = fingerprint(record);
console.log(`SHA-256  ${print}\nwords    ${fingerprintWords(print)}`);
if (given.length > 0) {
  const same = matchesFingerprint(print, given.join(' '));
  console.log(
    same ? 'It is the record of this fingerprint.' : 'It is ANOTHER record than the one of this fingerprint.',
  );
  process.exit(same ? 0 : 1);
}
