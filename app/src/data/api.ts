import type { Api } from '@cordel/server';
import { hc } from 'hono/client';
import { hearServerTime } from './clock';
import { device } from './device';

/** The server's API, typed by the server's own routes. */
export const api = hc<Api>('/api', { headers: { 'Cordel-Device': device } });

/** The server refused, and said why in words for the person. */
export class ProblemError extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly problem: {
      readonly title?: string;
      readonly current?: unknown;
      readonly errors?: { path: string; message: string }[];
    },
  ) {
    super(message);
  }
}

const unreachable = 'The server does not answer. What you enter is kept on this device.';

interface Answer<T> {
  readonly ok: boolean;
  readonly status: number;
  readonly headers: Pick<Headers, 'get'>;
  json(): Promise<T>;
}

/** The body of an answer. Throws `ProblemError` with the server's words, or an Error when the server cannot be reached. */
export async function answerOf<T>(request: Promise<Answer<T>>): Promise<T> {
  let response: Answer<T>;
  try {
    response = await request;
  } catch {
    throw new Error(unreachable);
  }
  hearServerTime(response.headers.get('Date'));
  if (response.status === 204) return undefined as T;
  if (response.ok) return response.json();
  const problem = (await response.json().catch(() => ({}))) as {
    title?: string;
    detail?: string;
    current?: unknown;
    errors?: { path: string; message: string }[];
  };
  throw new ProblemError(
    problem.detail ?? `The server answered ${response.status}.`,
    response.status,
    problem,
  );
}

/** For what cannot be done on this device alone: says so where the server does not answer. */
export async function needsServer<T>(answer: Promise<T>): Promise<T> {
  try {
    return await answer;
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    throw new Error(
      'This needs the server, and it does not answer. Nothing was changed; try again with a network.',
      {
        cause: error,
      },
    );
  }
}
