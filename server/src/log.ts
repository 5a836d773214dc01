import type { Context, MiddlewareHandler } from 'hono';
import { matchedRoutes } from 'hono/route';
import pino from 'pino';
import type { RequestVariables } from './actor';

export type Log = Pick<pino.Logger, 'info' | 'warn' | 'error'>;

/**
 * One line of JSON per event. In a terminal only what is wrong is shown; elsewhere (a service's journal, a file) every request. CORDEL_LOG sets the level.
 */
export function openLog(environment: Readonly<Record<string, string | undefined>>, terminal: boolean): Log {
  return pino({
    level: environment.CORDEL_LOG || (terminal ? 'warn' : 'info'),
    base: null,
    timestamp: pino.stdTimeFunctions.isoTime,
  });
}

/** A line for every request. Its id stands in the answer as well, so that what a person saw can be found. */
export function logRequests(log: Log): MiddlewareHandler<RequestVariables> {
  return async (context, next) => {
    const began = performance.now();
    await next();
    // An answer that an error made does not have what was set on the one before it.
    context.header('Request-Id', context.get('requestId'));
    log.info(
      {
        request: context.get('requestId'),
        method: context.req.method,
        route: routeOf(context),
        status: context.res.status,
        ms: Math.round((performance.now() - began) * 10) / 10,
        device: context.get('actor')?.device ?? undefined,
      },
      'request',
    );
  };
}

/** "/api/projects/:projectId/facts": without what is asked for, so that lines can be added up. */
function routeOf(context: Context): string {
  const route = matchedRoutes(context).findLast(({ method, path }) => method !== 'ALL' && path !== '*');
  return route?.path ?? context.req.path.slice(0, 200);
}
