/**
 * Finds Chromium, or installs Debian's. Its shell without windows comes first: it draws the same pages, and runs none of the pages that a
 * browser's own windows are made of, which took a third of a journey's time.
 */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { say, stop } from './lib.mjs';

const places = [
  '/usr/bin/chromium-headless-shell',
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
];
const find = () => [process.env.CHROMIUM, ...places].find((path) => path && existsSync(path));

/** Sets CHROMIUM to the browser's path. */
export function ensureChromium() {
  if (!find()) {
    say('Installing Chromium from Debian’s packages …');
    const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
    for (const command of [
      ['apt-get', 'update', '-q'],
      ['apt-get', 'install', '-y', '-q', '--no-install-recommends', 'chromium-headless-shell'],
    ]) {
      const [name, ...args] = [...sudo, ...command];
      spawnSync(name, args, {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      });
    }
  }
  const path = find();
  if (!path) stop('The journeys need Chromium. Install it, or set CHROMIUM to the path of one.');
  process.env.CHROMIUM = path;
}
