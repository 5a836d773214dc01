import { Hono, type MiddlewareHandler } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { compress } from 'hono/compress';
import { secureHeaders } from 'hono/secure-headers';
import type { Database } from './database';
import { FactWriter } from './factWriter';
import { Presence } from './presence';
import { handleError, problemResponse } from './problem';
import { gearRoutes } from './routes/gear';
import { handoverRoutes } from './routes/handover';
import { lineRoutes } from './routes/line';
import { planRoutes } from './routes/plan';
import { spliceRoutes } from './routes/splice';

const requestLimit = 4 * 1024 * 1024;

/** Everything below /api, one file of routes per stage of the job. */
function api(database: Database) {
  const now = () => new Date();
  const writer = new FactWriter(database, now);
  const limit = bodyLimit({
    maxSize: requestLimit,
    onError: () =>
      problemResponse({
        title: 'Too large',
        status: 413,
        detail: 'One request may carry at most 4 MB. Nothing was stored.',
      }),
  });
  return new Hono()
    .use('/projects/*', limit)
    .use('/projects', limit)
    .get('/health', (context) => context.json({ ok: true }))
    .use('/models/*', limit)
    .use('/gear/*', limit)
    .route('/', lineRoutes(database, now))
    .route('/', planRoutes(database))
    .route('/', spliceRoutes(database, writer, new Presence(now)))
    .route('/', gearRoutes(database))
    .route('/', handoverRoutes(database));
}

export type Api = ReturnType<typeof api>;

/** The whole server: the API, and the web app for every other address. */
export function cordelServer(database: Database, web: MiddlewareHandler | null, hosts: ReadonlySet<string>) {
  const server = new Hono();
  server.use(onlyHosts(hosts));
  server.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        // React Native Web writes its style sheet into the page.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'", 'blob:'],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
      },
    }),
  );
  server.use('/api/*', compress());
  server.route('/api', api(database));
  server.all('/api/*', () =>
    problemResponse({ title: 'Not found', status: 404, detail: 'There is no such address below /api.' }),
  );
  if (web) server.use(web);
  server.notFound(() =>
    problemResponse({ title: 'Not found', status: 404, detail: 'There is nothing at this address.' }),
  );
  server.onError(handleError);
  return server;
}

/**
 * Answers only to the names it is meant to be called by, so that a foreign page that points its own name at this machine gets
 * nothing. An empty set answers to all.
 */
function onlyHosts(hosts: ReadonlySet<string>): MiddlewareHandler {
  return async (context, next) => {
    const name = new URL(context.req.url).hostname;
    if (hosts.size > 0 && !hosts.has(name))
      return problemResponse({
        title: 'Wrong host',
        status: 421,
        detail: `This server does not answer to "${name}". Set HOST to serve other names.`,
      });
    return next();
  };
}
