import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

/** What is in a PDF, by pdf.js. */
export function readPdf(bytes: Uint8Array) {
  const { stdout, stderr } = spawnSync(process.execPath, [join(__dirname, '../../server/test/readPdf.mjs')], {
    input: bytes,
    maxBuffer: 64 * 1024 * 1024,
  });
  if (stdout.length === 0) throw new Error(stderr.toString());
  return JSON.parse(stdout.toString()) as {
    pages: string[];
    outline: { title: string; items: string[] }[];
    structure: object;
    marked: boolean;
  };
}
