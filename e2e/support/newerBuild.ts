import { execFileSync } from 'node:child_process';
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(__dirname, '..', '..');

/**
 * The build of a Cordel that is newer than this one, in a folder of its own: made from this build, with another word on a screen, and tries in a version that this one
 * does not know. All its script has other names, as after any change.
 */
export function newerBuild(): string {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-newer-'));
  for (const part of ['app', 'server']) mkdirSync(join(folder, part));
  cpSync(join(root, 'app/dist'), join(folder, 'app/dist'), { recursive: true });
  cpSync(join(root, 'server/dist'), join(folder, 'server/dist'), { recursive: true });
  for (const same of ['node_modules', 'package.json', 'server/migrations'])
    symlinkSync(join(root, same), join(folder, same));

  for (const file of ['main.js', 'importWorker.js']) {
    const path = join(folder, 'server/dist', file);
    writeFileSync(path, withNewerTries(readFileSync(path, 'utf8')));
  }
  const dist = join(folder, 'app/dist');
  const isKind = (text: string) => /kind: ?["']attempt["'], ?\s*version:/.test(text);
  // What the workers share.
  const shared = readdirSync(dist).filter(
    (name) => name.endsWith('.js') && isKind(readFileSync(join(dist, name), 'utf8')),
  );
  for (const name of shared)
    writeFileSync(join(dist, name), withNewerTries(readFileSync(join(dist, name), 'utf8')));
  const scripts = join(dist, '_expo/static/js/web');
  const names = readdirSync(scripts).filter((name) => name.endsWith('.js'));
  const newName = (name: string) => name.replace(/\.js$/, '0.js');
  const renamed = (text: string) =>
    names.reduce((before, name) => before.replaceAll(name, newName(name)), text);
  let changed = 0;
  let tries = 0;
  for (const name of names) {
    let text = renamed(readFileSync(join(scripts, name), 'utf8'));
    if (text.includes('Everything is on the server')) changed += 1;
    text = text.replaceAll('Everything is on the server', 'All of it is on the server');
    if (isKind(text)) {
      tries += 1;
      text = withNewerTries(text);
    }
    writeFileSync(join(scripts, name), text);
    renameSync(join(scripts, name), join(scripts, newName(name)));
  }
  if (changed !== 1 || tries !== 1 || shared.length !== 1)
    throw new Error('The build is not as it is expected: mend what is changed in it here.');
  const page = join(dist, 'index.html');
  writeFileSync(page, renamed(readFileSync(page, 'utf8')));
  execFileSync(process.execPath, [join(root, 'scripts/serviceWorker.mjs'), dist], {
    env: { ...process.env, NODE_OPTIONS: '' },
  });
  return folder;
}

/** Tries of a version later, which reads those of today as they are. */
function withNewerTries(script: string): string {
  const kind =
    /(kind: ?["']attempt["'], ?\s*version: ?)3(,[\s\S]*?upcast\((\w+), ?\w+\) ?\{[\s\S]*?)(?:\3 ?=== ?2|2 ?=== ?\3)/;
  const newer = script.replace(kind, '$14$2$3>=2');
  if (newer === script) throw new Error('There are no tries of version 3 in this script.');
  return newer;
}
