import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(__dirname, '..', '..');

/**
 * Where the PostgreSQL server of this run listens, in the runs of the server's tests that are made on one; null: the embedded database. Set by
 * scripts/preparePostgres.mjs and jest.config.mjs.
 */
export const postgres: string | null =
  (globalThis as { cordelOnPostgres?: boolean }).cordelOnPostgres === true
    ? process.env.CORDEL_TEST_POSTGRES!
    : null;

/** Tests of what only the embedded database has. */
export const onlyEmbedded = (name: string, tests: () => void) => void (postgres || describe(name, tests));

/**
 * For Node, where a program is to live for seconds only: the embedded database is 9 MB of WebAssembly, and compiling it once more, for speed,
 * takes half of such a life. Benchmarks, which also start servers here, run as everybody does.
 */
const brief = process.env.JEST_WORKER_ID === undefined ? [] : ['--liftoff-only'];

export interface ServerProcess {
  readonly url: string;
  readonly folder: string;
  readonly process: ChildProcess;
  /** Everything it printed. */
  output(): string;
  /** Ends it politely; its exit code. */
  stop(): Promise<number | null>;
  /** Ends it at once, as a power cut would. */
  kill(): Promise<void>;
}

const folders: string[] = [];
/** The database of each folder, on PostgreSQL. */
const databases = new Map<string, string>();

/** A data folder with an empty shelf or with the demo, ready to open. Removed by `removeFolders`. */
export function dataFolder(kind: 'empty' | 'demo'): string {
  const folder = temporaryFolder();
  if (postgres) databases.set(folder, makeDatabase(`cordel_${kind}`));
  else cpSync(join(process.env.CORDEL_TEST_TEMPLATES!, kind), folder, { recursive: true });
  return folder;
}

/** A folder in which no server has ever run. */
export function bareFolder(): string {
  const folder = temporaryFolder();
  if (postgres) databases.set(folder, makeDatabase('template1'));
  return folder;
}

export function temporaryFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'cordel-test-'));
  folders.push(folder);
  return folder;
}

/** DATABASE_URL of a folder's database; "" where it is the embedded one. */
export function databaseUrlOf(folder: string): string {
  const name = databases.get(folder);
  return name ? `${postgres}/${name}` : '';
}

function makeDatabase(template: string): string {
  const name = `t_${randomBytes(8).toString('hex')}`;
  psql('postgres', `create database ${name} template ${template}`);
  return name;
}

/**
 * Runs statements on the PostgreSQL server of this run.
 * @param database its name, or its address
 */
export function psql(database: string, statements: string): string {
  const url = database.includes(':') ? database : `${postgres}/${database}`;
  return execFileSync('psql', [url, '-X', '-q', '-A', '-t', '-v', 'ON_ERROR_STOP=1', '-c', statements], {
    encoding: 'utf8',
  });
}

/** Runs statements on a folder's database while no server works on it. */
export function execute(folder: string, statements: string): void {
  const script = join(temporaryFolder(), 'statements.sql');
  writeFileSync(script, statements);
  if (postgres) {
    execFileSync('psql', [databaseUrlOf(folder), '-X', '-q', '-v', 'ON_ERROR_STOP=1', '-f', script]);
    return;
  }
  execFileSync(
    process.execPath,
    [
      ...brief,
      '--input-type=module',
      '-e',
      `import { PGlite } from '@electric-sql/pglite'; import { readFileSync } from 'node:fs';
       const db = await PGlite.create(${JSON.stringify(join(folder, 'database'))});
       await db.exec(readFileSync(${JSON.stringify(script)}, 'utf8')); await db.close();`,
    ],
    { cwd: join(__dirname, '..'), env: { ...process.env, NODE_OPTIONS: '' } },
  );
}

/**
 * Keeps what stands in a folder's database beside it, in a schema of its own, for `putBack`; on PostgreSQL only, before
 * a server works on it.
 */
export function keepRows(folder: string): void {
  psql(
    databaseUrlOf(folder),
    `create schema kept;
     do $$ declare name text; begin
       for name in select tablename from pg_tables where schemaname = 'public' loop
         execute format('create table kept.%1$I as table public.%1$I', name);
       end loop;
     end $$;`,
  );
}

/**
 * Puts those rows back while a server works on the database. What it holds in its memory follows: its sums are of an
 * older revision, and what readers know is of another database.
 * @param devices stood at a splice, which nobody does any more
 */
export function putBack(folder: string, devices: readonly string[]): void {
  psql(
    databaseUrlOf(folder),
    `set client_min_messages = error;
     begin;
     set local session_replication_role = replica;
     do $$ declare name text; begin
       for name in select tablename from pg_tables where schemaname = 'kept' loop
         execute format('truncate public.%1$I cascade', name);
       end loop;
       for name in select tablename from pg_tables where schemaname = 'kept' loop
         execute format('insert into public.%1$I select * from kept.%1$I', name);
       end loop;
     end $$;
     update line_project set revision = (extract(epoch from clock_timestamp()) * 1000)::bigint;
     update database_identity set epoch = gen_random_uuid();
     select pg_notify('cordel', json_build_object('about', 'presence', 'closureId', closure.id, 'device', device,
       'by', null, 'spliceId', null)::text)
     from plan_closure as closure, unnest(array[${devices.map((one) => `'${one}'`).join()}]::text[]) as device;
     commit;`,
  );
}

export function removeFolders(): void {
  for (const folder of folders.splice(0)) rmSync(folder, { recursive: true, force: true });
  for (const name of databases.values()) psql('postgres', `drop database if exists ${name} with (force)`);
  databases.clear();
}

/**
 * Starts a built server and does not wait for it.
 * @param installation the folder of another build; that of this project if none is given
 * @param args `--demo`
 */
export function spawnServer(
  folder: string,
  environment: Record<string, string> = {},
  installation: string = root,
  args: readonly string[] = [],
) {
  const main = join(installation, 'server/dist/main.js');
  return spawn(process.execPath, [...brief, '--enable-source-maps', main, ...args], {
    env: {
      ...process.env,
      HOST: '',
      PORT: '0',
      NODE_OPTIONS: '',
      CORDEL_LOG: 'warn',
      DATABASE_URL: databaseUrlOf(folder),
      CORDEL_DATA: folder,
      ...environment,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
}

/** Starts the built server as a process of its own and waits until it listens. Rejects with its output when it ends before that. */
export function startServer(
  folder: string,
  environment: Record<string, string> = {},
  installation: string = root,
  args: readonly string[] = [],
): Promise<ServerProcess> {
  const child = spawnServer(folder, environment, installation, args);
  let output = '';
  const ended = new Promise<number | null>((done) => child.once('close', (code) => done(code)));
  return new Promise((done, fail) => {
    const hear = (text: Buffer) => {
      output += text.toString();
      const url = /listens on (http:\S+)/.exec(output)?.[1];
      if (url)
        done({
          url,
          folder,
          process: child,
          output: () => output,
          stop: () => {
            child.kill('SIGTERM');
            return ended;
          },
          kill: async () => {
            child.kill('SIGKILL');
            await ended;
          },
        });
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    void ended.then((code) => fail(new Error(`The server ended with ${code}: ${output}`)));
  });
}

export interface Answer<T = unknown> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}

/** One request; JSON in and out. */
export async function request<T = unknown>(
  url: string,
  method = 'GET',
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer<T>> {
  const response = await fetch(url, {
    method,
    ...(body === undefined
      ? { headers }
      : {
          headers: { 'Content-Type': 'application/json', ...headers },
          body: typeof body === 'string' || body instanceof Blob ? body : JSON.stringify(body),
        }),
  });
  const text = await response.text();
  const json = /json/.test(response.headers.get('Content-Type') ?? '') && text !== '';
  return { status: response.status, body: (json ? JSON.parse(text) : text) as T, headers: response.headers };
}

/** All facts behind an address that gives them in pages. */
export async function everyFact<F = { id: string }>(url: string): Promise<F[]> {
  const all: F[] = [];
  for (let after = 0, more = true; more;) {
    const { body } = await request<{ facts: F[]; last: number; more: boolean }>(`${url}?after=${after}`);
    all.push(...body.facts);
    ({ last: after, more } = body);
  }
  return all;
}

/** Runs the backup program on a folder's database. */
export function runBackup(
  what: 'backup' | 'restore',
  file: string,
  folder: string,
  environment: Record<string, string> = {},
): Promise<{ code: number | null; output: string }> {
  const child = spawn(process.execPath, [...brief, join(root, 'server/dist/backup.js'), what, file], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      DATABASE_URL: databaseUrlOf(folder),
      CORDEL_DATA: folder,
      INIT_CWD: '',
      ...environment,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let output = '';
  child.stdout.on('data', (text: Buffer) => (output += text.toString()));
  child.stderr.on('data', (text: Buffer) => (output += text.toString()));
  return new Promise((done) => child.once('close', (code) => done({ code, output })));
}
