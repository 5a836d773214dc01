import { serve } from '@hono/node-server';
import { readFileSync } from 'node:fs';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { createServer, type Socket } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { cordelServer } from './app';
import { clockOf } from './clock';
import { readConfig, type Config } from './config';
import { bringUpFacts } from './database/bringUp';
import type { Database } from './database/database';
import { migrationsIn } from './database/migrate';
import { fillWithDemo } from './demo/fill';
import { clearDeadImports } from './import/importProject';
import { openLog, type Log } from './log';
import { openDatabase } from './openDatabase';
import { diskTrouble, OperatorError } from './operatorError';
import { fillCatalogue } from './routes/plan';
import { clearDeleted, noteDay } from './serverDays';
import { webFiles } from './webFiles';

/** Starts the server; see `readConfig` for what it reads. `--demo` puts the demo scenario on an empty shelf. */
const root = fileURLToPath(new URL('../..', import.meta.url));
/** An open request has so long to end when the server is stopped, ms. */
const patience = 7000;
const hour = 3600_000;

let folder = '';

async function main(): Promise<void> {
  const config = readConfig(process.env, root);
  folder = config.folder;
  const log = openLog(process.env, process.stdout.isTTY === true);
  const clock = clockOf(() => new Date());
  const web = webFiles(join(root, 'app', 'dist'));
  web.catch(() => undefined);
  // Told before a database is made, brought up or copied for a server that nobody could reach.
  await onPort(config, tryPort);
  const migrations = migrationsIn(join(root, 'server', 'migrations'));
  const { database, close } = await openDatabase(config, migrations);
  try {
    const broughtUp = await bringUpFacts(database);
    if (broughtUp > 0) log.info({ facts: broughtUp }, 'records of an older version were brought up');
    await tidy(database, clock.now());
    await fillCatalogue(database);
    if (process.argv.includes('--demo') && (await fillWithDemo(database, demoNight(clock.now()))))
      console.log('The shelf was empty: the demo scenario is on it now.');
    const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as { version: string };
    const ending = new AbortController();
    const app = cordelServer(
      { database, clock, log, version, folder, migrations, ending: ending.signal },
      await web,
      config.hosts,
    );
    const { server, port } = await onPort(config, (host, wanted) => listenOn(app.fetch, host, wanted));
    endPolitely(server, log, ending, close);
    tell(config, port, clock.trusted() === null);
  } catch (error) {
    await close().catch(() => undefined);
    throw error;
  }
  setInterval(
    () => void tidy(database, clock.now()).catch((error) => log.error({ err: error }, 'tidying failed')),
    hour,
  ).unref();
}

/** The demo happens tonight; tests and pictures say when, so that they show the same every day. */
function demoNight(now: Date): Date {
  const at = process.env.CORDEL_DEMO_AT;
  if (!at) return now;
  if (Number.isNaN(Date.parse(at)))
    throw new OperatorError(`CORDEL_DEMO_AT is "${at}". Give a time like 2026-04-15T05:30:00Z.`);
  return new Date(at);
}

async function tidy(database: Database, now: Date): Promise<void> {
  await noteDay(database, now);
  await clearDeleted(database);
  await clearDeadImports(database);
}

function tell({ host, open, databaseUrl }: Config, port: number, clockNotSet: boolean): void {
  const shown = host === '0.0.0.0' || host === '::' ? 'localhost' : host.includes(':') ? `[${host}]` : host;
  if (open)
    console.log(
      'CORDEL_OPEN=yes: everybody who reaches this machine can read and change all projects. There is no sign-in.',
    );
  if (clockNotSet)
    console.log('The clock of this machine was never set. Set it: what is recorded carries its time.');
  console.log(`Cordel listens on http://${shown}:${port}`);
  console.log(
    `Data in ${databaseUrl ? 'the database of DATABASE_URL' : folder}, ${Math.round(process.memoryUsage().rss / 1e6)} MB of memory. Stop with Ctrl+C.`,
  );
}

/** Takes no new request, lets those that run end, closes the database, and ends. */
function endPolitely(
  server: ReturnType<typeof serve>,
  log: Log,
  ending: AbortController,
  close: () => Promise<void>,
): void {
  // A browser keeps connections open after the last answer, and opens some on which it never asks: Node closes neither by itself.
  const open = new Map<Socket, number>();
  const count = (socket: Socket, change: number) => {
    const running = (open.get(socket) ?? 0) + change;
    open.set(socket, running);
    if (ending.signal.aborted && running === 0) socket.end();
  };
  server.on('connection', (socket: Socket) => {
    count(socket, 0);
    socket.once('close', () => open.delete(socket));
  });
  server.on('request', (request: IncomingMessage, response: ServerResponse) => {
    count(request.socket, 1);
    response.once('close', () => open.has(request.socket) && count(request.socket, -1));
  });

  const end = async () => {
    if (ending.signal.aborted) return;
    ending.abort();
    const closed = new Promise<void>((done) => server.close(() => done()));
    for (const [socket, running] of open) if (running === 0) socket.destroy();
    const cut = setTimeout(() => open.forEach((_, socket) => socket.destroy()), patience);
    await closed;
    clearTimeout(cut);
    await close();
    log.info('ended');
    process.exit(0);
  };
  process.on('SIGINT', () => void end());
  process.on('SIGTERM', () => void end());
}

type Fetch = Parameters<typeof serve>[0]['fetch'];

/** The port asked for; or, when none was, 8080 or the next free one. */
async function onPort<T>(
  { host, port: wanted }: Config,
  open: (host: string, port: number) => Promise<T>,
): Promise<T> {
  const first = wanted ?? 8080;
  const last = wanted ?? first + 50;
  for (let port = first; ; port += 1) {
    try {
      return await open(host, port);
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      if (code === 'EADDRNOTAVAIL' || code === 'ENOTFOUND')
        throw new OperatorError(`HOST is "${host}", which is no address of this machine.`, error);
      if (code === 'EACCES')
        throw new OperatorError(`Port ${port} is reserved. Set PORT to one from 1024 on.`, error);
      if (code !== 'EADDRINUSE') throw error;
      if (port >= last)
        throw new OperatorError(
          `Port ${wanted ?? `${first} to ${last}`} is in use. Set PORT to a free one.`,
          error,
        );
    }
  }
}

function tryPort(host: string, port: number): Promise<void> {
  return new Promise((done, fail) => {
    const server = createServer().listen({ host, port }, () => server.close(() => done()));
    server.once('error', fail);
  });
}

function listenOn(fetch: Fetch, host: string, port: number) {
  return new Promise<{ server: ReturnType<typeof serve>; port: number }>((done, fail) => {
    const server = serve({ fetch, hostname: host, port }, (info) => done({ server, port: info.port }));
    server.once('error', fail);
  });
}

main().catch((error: unknown) => {
  const disk = diskTrouble(error, folder) ?? diskTrouble((error as { cause?: unknown })?.cause, folder);
  if (disk) console.error(disk);
  else if (error instanceof OperatorError) console.error(error.message);
  else {
    console.error(
      `Cordel could not start on ${folder}. This is a mistake in Cordel; please report what follows.`,
    );
    console.error(error);
  }
  process.exit(1);
});
