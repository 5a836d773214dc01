import { isIP } from 'node:net';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { loopbackNames } from './guard';
import { OperatorError } from './operatorError';

/** What the environment says. */
export interface Config {
  readonly folder: string;
  /** Of a PostgreSQL server; null: the embedded one. */
  readonly databaseUrl: string | null;
  readonly host: string;
  /** null: 8080 or the next free one. */
  readonly port: number | null;
  readonly hosts: { readonly names: ReadonlySet<string>; readonly anyAddress: boolean };
  /** Whether others than this machine can reach it. */
  readonly open: boolean;
}

/** Reads CORDEL_DATA, DATABASE_URL, HOST, PORT, CORDEL_HOSTS, CORDEL_OPEN. Throws an `OperatorError`. */
export function readConfig(environment: Readonly<Record<string, string | undefined>>, root: string): Config {
  const host = environment.HOST || '127.0.0.1';
  const port = environment.PORT ? Number(environment.PORT) : null;
  if (port !== null && !(Number.isInteger(port) && port >= 0 && port < 65_536))
    throw new OperatorError(`PORT is "${environment.PORT}". Give a number from 0 to 65535.`);
  const own = (environment.CORDEL_HOSTS ?? '')
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter(Boolean);
  for (const name of own)
    if (!/^[a-z0-9.-]+$/.test(name) && isIP(name) === 0)
      throw new OperatorError(
        `CORDEL_HOSTS has "${name}". Give host names alone, with commas between, like splice.example.net.`,
      );
  const open = !loopbackNames.includes(host);
  if (open && environment.CORDEL_OPEN !== 'yes')
    throw new OperatorError(
      `HOST is ${host}, so everybody who reaches this machine could read and change all projects: Cordel has no sign-in yet. Put it behind a reverse proxy that asks who it is (docs/operating.md), or set CORDEL_OPEN=yes where the network itself keeps strangers off.`,
    );
  return {
    folder: environment.CORDEL_DATA || join(root, '.cordel', 'work'),
    databaseUrl: environment.DATABASE_URL || null,
    host,
    port,
    hosts: {
      names: new Set([...loopbackNames, ...own, ...(open ? [hostname().toLowerCase()] : [])]),
      anyAddress: open,
    },
    open,
  };
}
