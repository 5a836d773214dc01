import { createHash } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { connect, createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

/**
 * Two processes on one database folder would destroy it. Holding a local socket named after the folder keeps the second one out,
 * and unlike a file with a process number it frees itself when the holder is killed.
 * Rejects when another process holds the folder.
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const name = createHash('sha256').update(resolve(folder)).digest('hex').slice(0, 24);
  const path =
    process.platform === 'win32' ? `\\\\.\\pipe\\cordel-${name}` : join(tmpdir(), `cordel-${name}.sock`);

  const server = (await listen(path)) ?? (await takeOver(path));
  if (!server)
    throw new Error(
      `Another Cordel already works on ${folder}. Use that one, stop it first, or set CORDEL_DATA to another folder.`,
    );
  return () => new Promise((done) => server.close(() => done()));
}

/** null when the name is taken. */
function listen(path: string): Promise<Server | null> {
  return new Promise((done, fail) => {
    const server = createServer((socket) => socket.destroy());
    server.unref();
    server.once('error', (error: NodeJS.ErrnoException) =>
      error.code === 'EADDRINUSE' ? done(null) : fail(error),
    );
    server.listen(path, () => done(server));
  });
}

/** A socket file that nobody answers was left by a killed process. */
async function takeOver(path: string): Promise<Server | null> {
  const answered = await new Promise<boolean>((done) => {
    const socket = connect(path);
    socket.once('connect', () => {
      socket.destroy();
      done(true);
    });
    socket.once('error', () => done(false));
  });
  if (answered) return null;
  await rm(path, { force: true });
  return listen(path);
}
