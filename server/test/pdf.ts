import { spawn } from 'node:child_process';
import { join } from 'node:path';

/** Runs a program to its end without standing still: connections that are kept meanwhile would be closed and not noticed. */
export function runNode(
  args: readonly string[],
  input?: Uint8Array,
): Promise<{ status: number | null; stdout: string; stderr: string }> {
  const child = spawn(process.execPath, [...args], { stdio: ['pipe', 'pipe', 'pipe'] });
  let stdout = '';
  let stderr = '';
  child.stdout.on('data', (text: Buffer) => (stdout += text.toString()));
  child.stderr.on('data', (text: Buffer) => (stderr += text.toString()));
  child.stdin.end(input);
  return new Promise((done) => child.on('close', (status) => done({ status, stdout, stderr })));
}

/** What is in a PDF, by pdf.js. */
export async function readPdf(bytes: Uint8Array) {
  const { stdout, stderr } = await runNode([join(__dirname, '../../server/test/readPdf.mjs')], bytes);
  if (stdout.length === 0) throw new Error(stderr);
  return JSON.parse(stdout) as {
    pages: string[];
    outline: { title: string; items: string[] }[];
    structure: object;
    marked: boolean;
    images: { page: number; width: number; height: number }[];
  };
}
