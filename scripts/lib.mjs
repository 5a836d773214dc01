/** What every script needs. Plain Node: it runs before anything is installed. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '');

export const say = (text) => console.log(text);

/** Ends the script with a message instead of a stack. */
export function stop(message) {
  console.error(message);
  process.exit(1);
}

const stamp = join(root, 'node_modules/.cordel-installed');

/** Installs the packages unless those that are there are the ones the lock file names. */
export function ensureInstalled() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19) || major > 22)
    stop(`Cordel needs Node.js 20.19 to 22; this is ${process.versions.node}.`);
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Installing packages; this takes a few minutes the first time …');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    shell: process.platform === 'win32',
  });
  if (done.status !== 0) stop('The packages could not be installed. See the message above.');
  writeFileSync(stamp, wanted);
}
