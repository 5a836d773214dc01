/**
 * Finds Chromium, or installs Debian's. For most journeys its shell without windows: it draws the same pages, and runs none of the pages that a
 * browser's own windows are made of, which took a third of a journey's time. The whole browser is for journeys that end it and start it anew: the shell keeps
 * nothing.
 */
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { say, stop } from './lib.mjs';

const shell = '/usr/bin/chromium-headless-shell';
const wholes = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
const firstOf = (paths) => paths.find((path) => path && existsSync(path));

/** Sets CHROMIUM and CHROMIUM_WHOLE to the paths of the two. One that was set stands for both. */
export function ensureChromium() {
  const given = firstOf([process.env.CHROMIUM]);
  if (!given && !(existsSync(shell) && firstOf(wholes))) install();
  const whole = firstOf([process.env.CHROMIUM_WHOLE, given, ...wholes]);
  if (!whole) stop('The journeys need Chromium. Install it, or set CHROMIUM to the path of one.');
  process.env.CHROMIUM_WHOLE = whole;
  process.env.CHROMIUM = given ?? firstOf([shell]) ?? whole;
}

function install() {
  say('Installing Chromium from Debian’s packages …');
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  for (const command of [
    ['apt-get', 'update', '-q'],
    ['apt-get', 'install', '-y', '-q', '--no-install-recommends', 'chromium', 'chromium-headless-shell'],
  ]) {
    const [name, ...args] = [...sudo, ...command];
    spawnSync(name, args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  }
}
