import { serve } from '@hono/node-server';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { cordelServer } from './app';
import { openDatabase } from './database';
import { fillWithDemo } from './demo/fill';
import { lockFolder } from './folderLock';
import { clearDeleted } from './projectStore';
import { fillCatalogue } from './routes/plan';
import { webFiles } from './webFiles';

/** Starts the server. Reads CORDEL_DATA (folder), HOST, PORT; `--demo` puts the demo scenario on an empty shelf. */
const root = fileURLToPath(new URL('../..', import.meta.url));
const dataFolder = process.env.CORDEL_DATA || join(root, '.cordel', 'work');
const host = process.env.HOST || '127.0.0.1';
const wanted = process.env.PORT ? Number(process.env.PORT) : null;
const loopback = new Set(['localhost', '127.0.0.1', '[::1]']);

async function main(): Promise<void> {
  if (wanted !== null && !(Number.isInteger(wanted) && wanted >= 0 && wanted < 65536))
    throw new Error(`PORT is "${process.env.PORT}". Give a number from 0 to 65535.`);
  const unlock = await lockFolder(dataFolder);
  const web = webFiles(join(root, 'app', 'dist'));
  const database = await openDatabase(join(dataFolder, 'database'), join(root, 'server', 'migrations'));
  await clearDeleted(database, new Date());
  await fillCatalogue(database);
  if (process.argv.includes('--demo') && (await fillWithDemo(database)))
    console.log('The shelf was empty: the demo scenario is on it now.');

  const hosts = loopback.has(host) || host === '::1' ? loopback : new Set<string>();
  const app = cordelServer(database, await web, hosts);
  const { server, port } = await listen(app.fetch);
  const stop = () => {
    server.close();
    void database
      .close()
      .then(unlock)
      .finally(() => process.exit(0));
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);

  const shown = host === '0.0.0.0' || host === '::' ? 'localhost' : host.includes(':') ? `[${host}]` : host;
  console.log(`Cordel listens on http://${shown}:${port}`);
  console.log(
    `Data in ${dataFolder}, ${Math.round(process.memoryUsage().rss / 1e6)} MB of memory. Stop with Ctrl+C.`,
  );
}

/** The port asked for; or, when none was, 8080 or the next free one. */
async function listen(fetch: Parameters<typeof serve>[0]['fetch']) {
  const first = wanted ?? 8080;
  const last = wanted ?? first + 50;
  for (let port = first; ; port += 1) {
    try {
      return await listenOn(fetch, port);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
      if (port >= last)
        throw new Error(`Port ${wanted ?? `${first} to ${last}`} is in use. Set PORT to a free one.`, {
          cause: error,
        });
    }
  }
}

function listenOn(fetch: Parameters<typeof serve>[0]['fetch'], port: number) {
  return new Promise<{ server: ReturnType<typeof serve>; port: number }>((done, fail) => {
    const server = serve({ fetch, hostname: host, port }, (info) => done({ server, port: info.port }));
    server.once('error', fail);
  });
}

main().catch((error: Error) => {
  console.error(error.message);
  process.exit(1);
});
