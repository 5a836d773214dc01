/** Finds Chromium, or installs Debian's. */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { say, stop } from './lib.mjs';

const places = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
const find = () => [process.env.CHROMIUM, ...places].find((path) => path && existsSync(path));

/** Sets CHROMIUM to the browser's path. */
export function ensureChromium() {
  if (!find()) {
    say('Installing Chromium from Debian’s packages …');
    const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
    for (const command of [
      ['apt-get', 'update', '-q'],
      ['apt-get', 'install', '-y', '-q', '--no-install-recommends', 'chromium'],
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
