import { randomBytes } from 'node:crypto';
import {
  dataFolder,
  psql,
  startServer,
  temporaryFolder,
  type ServerProcess,
} from '../../server/test/process';

/** Servers on an empty shelf of one kind of database. */
export interface Servers {
  readonly name: string;
  readonly all: readonly ServerProcess[];
  /** Starts one more on the same database. */
  readonly again: () => Promise<ServerProcess>;
}

/** One server on the embedded database. */
export async function embedded(): Promise<Servers> {
  const folder = dataFolder('empty');
  const again = () => startServer(folder);
  return { name: 'PGlite', all: [await again()], again };
}

/** Two servers on a PostgreSQL database. */
export async function onPostgres(): Promise<Servers> {
  const address = process.env.CORDEL_TEST_POSTGRES!;
  const name = `bench_${randomBytes(4).toString('hex')}`;
  psql(`${address}/postgres`, `create database ${name} template cordel_empty`);
  const again = () => startServer(temporaryFolder(), { DATABASE_URL: `${address}/${name}` });
  return { name: 'PostgreSQL, two servers', all: await Promise.all([again(), again()]), again };
}
