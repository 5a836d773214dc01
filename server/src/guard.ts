import type { MiddlewareHandler } from 'hono';
import { isIP } from 'node:net';
import { problemResponse } from './problem';

/** Host names that mean this machine wherever they are said. */
export const loopbackNames = ['localhost', '127.0.0.1', '::1'];

/**
 * Answers only to the names it is meant to be called by, so that a foreign page that points its own name at this machine gets
 * nothing. A bare address is no name that anybody could point elsewhere, so any is fine where the server is open.
 */
export function onlyHosts(names: ReadonlySet<string>, anyAddress: boolean): MiddlewareHandler {
  return async (context, next) => {
    const name = new URL(context.req.url).hostname.replace(/^\[|\]$/g, '').toLowerCase();
    if (!names.has(name) && !(anyAddress && isIP(name) !== 0))
      return problemResponse({
        title: 'Wrong host',
        status: 421,
        detail: `This server does not answer to "${name}". Whoever runs it can add the name to CORDEL_HOSTS.`,
      });
    return next();
  };
}

const safe = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Lets only Cordel's own pages, and programs that are no browser, change anything. A browser says where a request comes from: a page of another
 * address, another port of this machine included, is refused, whatever content type it sends.
 */
export const onlyOwnPages: MiddlewareHandler = async (context, next) => {
  if (safe.has(context.req.method)) return next();
  const site = context.req.header('Sec-Fetch-Site');
  const origin = context.req.header('Origin');
  const foreign =
    (site !== undefined && site !== 'same-origin' && site !== 'none') ||
    (origin !== undefined && !isOwn(origin, context.req.header('Host')));
  if (foreign)
    return problemResponse({
      title: 'Not from here',
      status: 403,
      detail: 'Only Cordel’s own pages may change anything on this server. Nothing was changed.',
    });
  return next();
};

function isOwn(origin: string, host: string | undefined): boolean {
  try {
    return host !== undefined && new URL(origin).host === host.toLowerCase();
  } catch {
    return false;
  }
}

/** Whatever is sent is JSON and says so. */
export const onlyJson: MiddlewareHandler = async (context, next) => {
  const { method } = context.req;
  const type = context.req.header('Content-Type');
  const length = context.req.header('Content-Length');
  const sendsBody =
    (length !== undefined && length !== '0') || context.req.header('Transfer-Encoding') !== undefined;
  if (!safe.has(method) && sendsBody && !/^application\/json *(;|$)/i.test(type ?? ''))
    return problemResponse({
      title: 'Not JSON',
      status: 415,
      detail: 'Send it as application/json. Nothing was changed.',
    });
  return next();
};

/** What the API answers is of this moment and of this person, and kept nowhere. */
export const keptNowhere: MiddlewareHandler = async (context, next) => {
  await next();
  context.header('Cache-Control', 'no-store');
};
