import { sql } from 'drizzle-orm';
import { Hono, type MiddlewareHandler } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { compress } from 'hono/compress';
import { requestId } from 'hono/request-id';
import { secureHeaders } from 'hono/secure-headers';
import { readActor, type RequestVariables } from './actor';
import type { Clock } from './clock';
import type { Database } from './database/database';
import type { Migration } from './database/migrate';
import { FactWriter } from './factWriter';
import { keptNowhere, onlyHosts, onlyJson, onlyOwnPages } from './guard';
import { logRequests, type Log } from './log';
import { Presence } from './presence';
import { errorHandler, problemResponse } from './problem';
import { ProgressBook } from './progressBook';
import { gearRoutes } from './routes/gear';
import { handoverRoutes } from './routes/handover';
import { isPicture, photoRoutes } from './routes/photos';
import { recordRoutes } from './routes/record';
import { signOffRoutes } from './routes/signOff';
import { lineRoutes } from './routes/line';
import { machineRoutes } from './routes/machines';
import { planRoutes } from './routes/plan';
import { spliceRoutes } from './routes/splice';
import { isBackup, wholeShelfRoutes } from './routes/wholeShelf';

const requestLimit = 4 * 1024 * 1024;

/** Everything that routes stand on. */
export interface Server {
  readonly database: Database;
  readonly clock: Clock;
  readonly log: Log;
  /** Of Cordel itself. */
  readonly version: string;
  /** Where its data is, for the operator. */
  readonly folder: string;
  readonly migrations: readonly Migration[];
  /** Aborted when the server ends: streams end then. */
  readonly ending: AbortSignal;
}

/** Everything below /api, one file of routes per stage of the job. */
function api(server: Server) {
  const { database, clock, version, folder, migrations, ending } = server;
  const writer = new FactWriter(database, clock);
  const progress = new ProgressBook(database);
  const tooLarge = () =>
    problemResponse({
      title: 'Too large',
      status: 413,
      detail: 'One request may carry at most 4 MB. Nothing was stored.',
    });
  const limitUnsaid = bodyLimit({ maxSize: requestLimit, onError: tooLarge });
  // A length that is said is held to by Node. Hono's own check would make a web stream of every body, which takes longer than reading it.
  const limit: MiddlewareHandler = async (context, next) => {
    const said = context.req.header('content-length');
    if (said === undefined || context.req.header('transfer-encoding') !== undefined)
      return limitUnsaid(context, next);
    return Number(said) > requestLimit ? tooLarge() : next();
  };
  // Pictures and backups are bytes, and have limits of their own.
  const json: MiddlewareHandler = (context, next) =>
    isPicture(context.req.path) || isBackup(context.req.path) ? next() : onlyJson(context, next);
  const ofProjects: MiddlewareHandler = (context, next) =>
    isPicture(context.req.path) ? next() : limit(context, next);
  return new Hono<RequestVariables>()
    .use(keptNowhere)
    .use(onlyOwnPages)
    .use(json)
    .use('/projects/*', ofProjects)
    .use('/projects', limit)
    .use('/models/*', limit)
    .use('/gear/*', limit)
    .use('/machines/*', limit)
    .get('/health', async (context) => {
      await database.read.execute(sql`select 1`);
      return context.json({ ok: true, clock: clock.trusted() === null ? 'not set' : 'set' });
    })
    .get('/version', (context) => context.json({ version, database: database.kind }))
    .route('/', lineRoutes(database, clock, progress))
    .route('/', planRoutes(database))
    .route('/', spliceRoutes(database, writer, new Presence(() => clock.now(), database)))
    .route('/', gearRoutes(database))
    .route('/', handoverRoutes(database, clock))
    .route('/', recordRoutes(database, clock))
    .route('/', signOffRoutes(database, clock))
    .route('/', photoRoutes(database, clock))
    .route('/', wholeShelfRoutes(database, clock, migrations, folder))
    .route('/', machineRoutes(ending));
}

export type Api = ReturnType<typeof api>;

/** The whole server: the API, and the web app for every other address. */
export function cordelServer(
  server: Server,
  web: MiddlewareHandler | null,
  hosts: { readonly names: ReadonlySet<string>; readonly anyAddress: boolean },
) {
  const whole = new Hono<RequestVariables>();
  whole.use(requestId({ headerName: 'Request-Id' }));
  whole.use(readActor);
  whole.use(logRequests(server.log));
  whole.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        // React Native Web writes its style sheet into the page.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'none'"],
      },
    }),
  );
  whole.use(onlyHosts(hosts.names, hosts.anyAddress));
  // What is asked for may be long; what a change is answered with is not, and squeezing it costs more than sending it.
  const squeezed = compress();
  whole.use('/api/*', (context, next) => (context.req.method === 'GET' ? squeezed(context, next) : next()));
  whole.route('/api', api(server));
  whole.all('/api/*', () =>
    problemResponse({ title: 'Not found', status: 404, detail: 'There is no such address below /api.' }),
  );
  if (web) whole.use(web);
  whole.notFound(() =>
    problemResponse({ title: 'Not found', status: 404, detail: 'There is nothing at this address.' }),
  );
  whole.onError(errorHandler(server.log, server.folder));
  return whole;
}
