/** A PostgreSQL server of the tests' own: a cluster in a temporary folder, of Debian's programs, never the system's. */
import { execFileSync, spawnSync } from 'node:child_process';
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { say, stop } from './lib.mjs';

const debian = '/usr/lib/postgresql';
const isRoot = process.getuid?.() === 0;

function programs() {
  if (process.env.POSTGRES_BIN) return process.env.POSTGRES_BIN;
  if (!existsSync(debian)) return null;
  const newest = readdirSync(debian).sort((a, b) => Number(b) - Number(a))[0];
  return newest && existsSync(join(debian, newest, 'bin/initdb')) ? join(debian, newest, 'bin') : null;
}

/** Installs Debian's package where it is missing. */
export function ensurePostgres() {
  if (programs()) return;
  say('Installing PostgreSQL from Debian’s packages, for the server’s tests …');
  const sudo = isRoot ? [] : ['sudo'];
  for (const command of [
    ['apt-get', 'update', '-q'],
    ['apt-get', 'install', '-y', '-q', '--no-install-recommends', 'postgresql'],
  ]) {
    const [name, ...args] = [...sudo, ...command];
    spawnSync(name, args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  }
  if (!programs())
    stop('The server’s tests need PostgreSQL. Install it, or set POSTGRES_BIN to the folder of initdb.');
}

/** Starts a new cluster. It takes no password and listens on loopback only. Returns its address and what stops and removes it. */
export async function startPostgres() {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-postgres-'));
  // It refuses to run as root.
  if (isRoot) {
    const id = (flag) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
    chownSync(folder, id('-u'), id('-g'));
  }
  const data = join(folder, 'data');
  const port = await freePort();
  run(folder, 'initdb', ['-D', data, '-A', 'trust', '-U', 'cordel', '-E', 'UTF8', '--locale=C']);
  // What the system was given survives a crash of the cluster, and nobody cuts the power in a test: the disk itself
  // need not be waited for.
  const settings = ['listen_addresses=127.0.0.1', 'max_connections=200', 'fsync=off', 'full_page_writes=off'];
  const options = `-k ${folder} -p ${port} ${settings.map((one) => `-c ${one}`).join(' ')}`;
  run(folder, 'pg_ctl', ['-D', data, '-l', join(folder, 'log'), '-w', '-o', options, 'start']);
  return {
    url: `postgres://cordel@127.0.0.1:${port}`,
    folder,
    stop() {
      run(folder, 'pg_ctl', ['-D', data, '-m', 'immediate', '-w', 'stop']);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Ends a cluster at once, as a power cut would, and starts it again. */
export function crashPostgres(folder) {
  const args = ['-D', join(folder, 'data'), '-l', join(folder, 'log'), '-m', 'immediate', '-w', 'restart'];
  run(folder, 'pg_ctl', args);
}

/** PostgreSQL refuses to run as root. */
function run(folder, name, args) {
  const program = join(programs(), name);
  const [first, ...rest] = isRoot
    ? ['runuser', '-u', 'postgres', '--', program, ...args]
    : [program, ...args];
  execFileSync(first, rest, { stdio: ['ignore', 'ignore', 'pipe'], cwd: folder });
}

function freePort() {
  return new Promise((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => done(port));
    });
  });
}
