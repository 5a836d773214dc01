import { randomUUID } from 'node:crypto';
import { readFileSync, readlinkSync } from 'node:fs';
import { link, mkdir, readdir, readFile, rm, stat, unlink, utimes, writeFile } from 'node:fs/promises';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { OperatorError } from '../operatorError';

/**
 * Two processes on one database folder would destroy it. A *claim* is a file in the folder itself, "lock.7", with who made it; the claim with the highest
 * number counts. Whoever finds it dead makes the next number, which only one can (`link` fails where the name is taken), so of any number of starts after a
 * kill -9 one goes on. Because the file lies in the folder it does not matter by which path, link or user it is reached.
 */
interface Claim {
  readonly token: string;
  readonly pid: number;
  /** When the process began, in the machine's own ticks: numbers of processes are given out again. */
  readonly began: string;
  /** The machine, its boot and its space of process numbers: elsewhere a process cannot be looked for. */
  readonly place: string;
}

const claimName = /^lock\.(\d{1,15})$/;
/** How often a holder touches its claim, and how long an untouched one from elsewhere is watched, ms. */
const touchedEvery = 4000;
const watched = 14_000;

/** Takes the folder, making it where it is not there. Rejects with an `OperatorError` while another process holds it. Returns what gives it back. */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const own: Claim = { token: randomUUID(), pid: process.pid, began: beganOf(process.pid), place: placeOf() };
  for (;;) {
    const claims = await claimsIn(folder);
    const highest = claims.at(-1) ?? 0;
    if (highest > 0 && (await isAlive(join(folder, `lock.${highest}`)))) throw taken(folder);
    if (!(await make(folder, highest + 1, own))) continue;
    // Somebody may have gone past this number while it was made.
    const after = await claimsIn(folder);
    if (after.at(-1) !== highest + 1) {
      await rm(join(folder, `lock.${highest + 1}`), { force: true });
      continue;
    }
    for (const older of after.slice(0, -1)) await rm(join(folder, `lock.${older}`), { force: true });
    return hold(join(folder, `lock.${highest + 1}`));
  }
}

function hold(path: string): () => Promise<void> {
  const touch = setInterval(
    () => void utimes(path, new Date(), new Date()).catch(() => undefined),
    touchedEvery,
  );
  touch.unref();
  return async () => {
    clearInterval(touch);
    await rm(path, { force: true });
  };
}

const taken = (folder: string) =>
  new OperatorError(
    `Another Cordel already works on ${folder}. Use that one, stop it first, or set CORDEL_DATA to another folder.`,
  );

async function claimsIn(folder: string): Promise<number[]> {
  return (await readdir(folder))
    .flatMap((name) => claimName.exec(name)?.[1] ?? [])
    .map(Number)
    .sort((a, b) => a - b);
}

/** false where the number is taken. The file has its content from the moment it is there. */
async function make(folder: string, number: number, claim: Claim): Promise<boolean> {
  const draft = join(folder, `lock-draft-${claim.token}`);
  await writeFile(draft, JSON.stringify(claim), { mode: 0o600 });
  try {
    await link(draft, join(folder, `lock.${number}`));
    return true;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'EEXIST') return false;
    throw error;
  } finally {
    await unlink(draft).catch(() => undefined);
  }
}

async function isAlive(path: string): Promise<boolean> {
  let claim: Claim;
  try {
    claim = JSON.parse(await readFile(path, 'utf8')) as Claim;
  } catch (error) {
    // Given back this moment; or unreadable, and then nobody can be behind it.
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return false;
    if (error instanceof SyntaxError) return false;
    throw error;
  }
  if (claim.place === placeOf()) return isRunning(claim.pid) && beganOf(claim.pid) === claim.began;
  // Another machine, or the machine was started anew. Only that it goes on touching its claim can be seen from here.
  const before = await touchedAt(path);
  for (let waited = 0; waited < watched; waited += 500) {
    await new Promise((done) => setTimeout(done, 500));
    if ((await touchedAt(path)) !== before) return true;
  }
  return false;
}

async function touchedAt(path: string): Promise<number | null> {
  return (await stat(path).catch(() => null))?.mtimeMs ?? null;
}

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/** "" where the machine does not tell. */
function beganOf(pid: number): string {
  try {
    // The 22nd field; the second one, in parentheses, may hold blanks.
    return (
      readFileSync(`/proc/${pid}/stat`, 'utf8')
        .replace(/^.*\) /s, '')
        .split(' ')[19] ?? ''
    );
  } catch {
    return '';
  }
}

function placeOf(): string {
  const read = (what: () => string) => {
    try {
      return what().trim();
    } catch {
      return '';
    }
  };
  return [
    hostname(),
    read(() => readFileSync('/proc/sys/kernel/random/boot_id', 'utf8')),
    read(() => readlinkSync('/proc/self/ns/pid')),
  ].join(' ');
}
