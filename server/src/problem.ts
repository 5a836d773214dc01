import { zValidator } from '@hono/zod-validator';
import type { Context, ValidationTargets } from 'hono';
import { HTTPException } from 'hono/http-exception';
import type { ContentfulStatusCode } from 'hono/utils/http-status';
import type { ZodType } from 'zod';
import type { RequestVariables } from './actor';
import type { Log } from './log';
import { diskTrouble } from './operatorError';

/** Problem details, RFC 9457. `detail` is for the technician: what is wrong, where, what to do. */
export interface Problem {
  readonly title: string;
  readonly status: ContentfulStatusCode;
  readonly detail: string;
  /** Field by field, where the input is at fault. */
  readonly errors?: readonly { readonly path: string; readonly message: string }[];
  /** By which the server's log can be searched. */
  readonly request?: string;
  /** The newer copy, where an edit came too late. */
  readonly current?: unknown;
}

export function problemResponse(problem: Problem): Response {
  return new Response(JSON.stringify({ type: 'about:blank', ...problem }), {
    status: problem.status,
    headers: { 'Content-Type': 'application/problem+json' },
  });
}

/** Ends the request with a problem. */
export function refuse(problem: Problem): never {
  throw new HTTPException(problem.status, { res: problemResponse(problem) });
}

export const notFound = (what: string): never =>
  refuse({ title: 'Not found', status: 404, detail: `This server has no ${what} of that identifier.` });

/** Validates a part of the request with one of the core's schemas. */
export function validated<S extends ZodType, T extends keyof ValidationTargets>(target: T, schema: S) {
  return zValidator(target, schema, (result) => {
    if (result.success) return;
    const errors = result.error.issues.map((issue) => ({
      path: issue.path.map(String).join('.'),
      message: issue.message,
    }));
    const first = errors[0]!;
    return problemResponse({
      title: 'The input is not valid',
      status: 400,
      detail: first.path ? `${first.path}: ${first.message}` : first.message,
      errors,
    });
  });
}

/** Answers an error. What is nobody's input is logged under the request's id, which the answer carries too. */
export function errorHandler(log: Log, folder: string) {
  return (error: Error, context: Context<RequestVariables>): Response => {
    if (error instanceof HTTPException) {
      if (error.res) return error.res;
      return problemResponse({
        title: 'Refused',
        status: error.status as ContentfulStatusCode,
        detail: error.message,
      });
    }
    const request = context.get('requestId');
    log.error({ request, method: context.req.method, path: context.req.path, err: error }, 'request failed');
    const disk = diskTrouble(error, folder) ?? diskTrouble(error.cause, folder);
    return problemResponse({
      title: disk ? 'The server cannot store' : 'Server error',
      status: disk ? 507 : 500,
      detail: disk
        ? `${disk} Nothing of this was stored.`
        : `The server failed on this request. Nothing of it was stored. Its log has more under ${request}.`,
      request,
    });
  };
}
