import { builtInModels } from '@cordel/core/builtInModels';
import { sql } from 'drizzle-orm';
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { link, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { OperatorError } from '../operatorError';
import type { Queries } from './database';
import { migrate, rowsOf, stateOf, type Migration } from './migrate';

/**
 * A backup is a gzipped text: a line that says how far the schema is, a line for each row of each table, and a last line with how many there are of each and a
 * checksum of all lines before it. It reads the same on either kind of database.
 */
interface Head {
  readonly format: 'cordel-backup';
  readonly formatVersion: 1;
  /** `when` of the newest migration that the database had. */
  readonly schema: number;
  readonly made: string;
}
interface Foot {
  readonly rows: Readonly<Record<string, number>>;
  readonly sha256: string;
}

/** Rows that are read or stored at once; of a table that has pictures in it, few. */
const slice = 200;
const sliceOfBytes = 4;
/** Characters that are stored at once. */
const mostText = 4_000_000;

/** Writes everything that a database holds, as of one moment. Refuses to overwrite, and leaves no half file behind. Returns the rows by table. */
export async function writeBackup(
  db: Queries,
  migrations: readonly Migration[],
  file: string,
): Promise<Foot['rows']> {
  const draft = `${file}.part-${process.pid}`;
  let rows: Foot['rows'] = {};
  try {
    await db.transaction(
      async (transaction) => {
        const { last } = await stateOf(transaction, migrations);
        if (last === null)
          throw new OperatorError(
            'There are no tables of Cordel in this database, so there is nothing to back up.',
          );
        const lines = dump(transaction, last, (counted) => (rows = counted));
        await pipeline(
          Readable.from(lines),
          createGzip(),
          createWriteStream(draft, { flags: 'wx', mode: 0o600 }),
        );
      },
      { isolationLevel: 'repeatable read' },
    );
    // Fails where the name is taken, unlike a rename.
    await link(draft, file);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'EEXIST')
      throw new OperatorError(
        `${file} is there already, and a backup overwrites nothing. Give another name.`,
        error,
      );
    throw error;
  } finally {
    await rm(draft, { force: true });
  }
  await checkBackup(file);
  return rows;
}

async function* dump(
  db: Queries,
  schema: number,
  onCounted: (rows: Foot['rows']) => void,
): AsyncGenerator<string> {
  const hash = createHash('sha256');
  const line = (value: unknown) => {
    const text = `${JSON.stringify(value)}\n`;
    hash.update(text);
    return text;
  };
  yield line({
    format: 'cordel-backup',
    formatVersion: 1,
    schema,
    made: new Date().toISOString(),
  } satisfies Head);
  const rows: Record<string, number> = {};
  const withBytes = await tablesWithBytes(db);
  for (const table of await tablesInOrder(db)) {
    rows[table] = 0;
    const atOnce = withBytes.has(table) ? sliceOfBytes : slice;
    await db.execute(
      sql`declare backup_rows no scroll cursor for select to_jsonb(t) as row from ${sql.identifier(table)} t`,
    );
    for (;;) {
      const found = rowsOf(await db.execute(sql.raw(`fetch ${atOnce} from backup_rows`)));
      if (found.length === 0) break;
      for (const { row } of found) yield line({ table, row });
      rows[table] += found.length;
    }
    await db.execute(sql`close backup_rows`);
  }
  onCounted(rows);
  yield `${JSON.stringify({ rows, sha256: hash.digest('hex') } satisfies Foot)}\n`;
}

/** Reads a backup from end to end. Rejects with an `OperatorError` where it is not whole. */
export async function checkBackup(file: string, name = file): Promise<Foot['rows']> {
  let foot: Foot['rows'] = {};
  for await (const { part } of linesOf(file, name)) if ('rows' in part) foot = part.rows;
  return foot;
}

/**
 * Fills an empty database with a backup, in one transaction, and brings its schema up. Refuses a database that has tables of Cordel already.
 * @param name of the file, in what is said of it
 */
export async function readBackup(
  db: Queries,
  migrations: readonly Migration[],
  file: string,
  name = file,
): Promise<Foot['rows']> {
  const before = await stateOf(db, migrations);
  if (before.last !== null)
    throw new OperatorError(
      'This database has something in it already, and a restore overwrites nothing. Give an empty database or another folder.',
    );
  return db.transaction((transaction) => fill(transaction, migrations, file, name));
}

/**
 * The same for a database on which a server works and that has nothing of anybody's in it yet: its tables are made anew. Run it in a transaction.
 * @throws OperatorError where something is on the shelf, or the file is not whole
 */
export async function readBackupIntoEmptyShelf(
  transaction: Queries,
  migrations: readonly Migration[],
  file: string,
  name: string,
): Promise<Foot['rows']> {
  await transaction.execute(sql`lock table line_project, gear_item, plan_model in access exclusive mode`);
  const there = await ownThings(transaction);
  if (there.length > 0)
    throw new OperatorError(
      `There is something here already (${there.join(', ')}), and a backup is read over nothing. Start an empty Cordel in another folder (CORDEL_DATA) and read it there.`,
    );
  await dropAll(transaction);
  return fill(transaction, migrations, file, name);
}

async function fill(
  transaction: Queries,
  migrations: readonly Migration[],
  file: string,
  name: string,
): Promise<Foot['rows']> {
  const stored: Record<string, number> = {};
  let expected: Foot['rows'] | null = null;
  let waiting: { table: string; rows: unknown[]; text: number } | null = null;
  const store = async () => {
    if (!waiting) return;
    const { table, rows } = waiting;
    const into = sql.identifier(table);
    await transaction.execute(
      sql`insert into ${into} select * from jsonb_populate_recordset(null::${into}, ${JSON.stringify(rows)}::jsonb)`,
    );
    stored[table] = (stored[table] ?? 0) + rows.length;
    waiting = null;
  };
  for await (const { part, length } of linesOf(file, name)) {
    if ('schema' in part) {
      if (part.schema > (migrations.at(-1)?.when ?? 0))
        throw new OperatorError(`${name} was written by a newer Cordel. Restore it with that one.`);
      await migrate(
        transaction,
        migrations.filter(({ when }) => when <= part.schema),
      );
      await emptyAll(transaction);
    } else if ('table' in part) {
      if (
        waiting &&
        (waiting.table !== part.table || waiting.rows.length >= slice || waiting.text + length > mostText)
      )
        await store();
      waiting ??= { table: part.table, rows: [], text: 0 };
      waiting.rows.push(part.row);
      waiting.text += length;
    } else {
      await store();
      expected = part.rows;
    }
  }
  for (const [table, count] of Object.entries(expected ?? {})) {
    const [row] = rowsOf(
      await transaction.execute(sql`select count(*)::int as count from ${sql.identifier(table)}`),
    );
    if (row?.count !== count)
      throw new OperatorError(
        `${table} should have ${count} rows and has ${String(row?.count)}. Nothing was restored.`,
      );
  }
  await setCounters(transaction);
  await migrate(transaction, (await stateOf(transaction, migrations)).pending);
  // Who goes on reading from where they were in the old database begins anew.
  await transaction.execute(sql`update fact set tx = 0`);
  await transaction.execute(sql`update database_identity set epoch = gen_random_uuid()`);
  return stored;
}

/** What a person put here, in words; the closure models that every Cordel begins with are nobody's. */
async function ownThings(db: Queries): Promise<string[]> {
  const builtIn = sql.join(
    builtInModels.map(({ id }) => sql`${id}::uuid`),
    sql`, `,
  );
  const [row] = rowsOf(
    await db.execute(sql`select
      (select count(*)::int from line_project) as projects,
      (select count(*)::int from gear_item) as gear,
      (select count(*)::int from plan_model where version > 1 or id not in (${builtIn})) as models,
      (select count(*)::int from tombstone) as deleted`),
  );
  const words: readonly (readonly [keyof NonNullable<typeof row>, string, string])[] = [
    ['projects', 'project', 'projects'],
    ['gear', 'piece of gear', 'pieces of gear'],
    ['models', 'closure model', 'closure models'],
    ['deleted', 'deleted thing', 'deleted things'],
  ];
  return words.flatMap(([name, one, several]) => {
    const count = Number(row![name]);
    return count === 0 ? [] : [`${count} ${count === 1 ? one : several}`];
  });
}

/** The lines of a backup, checked: first what it is, at last whether all before it was whole. */
async function* linesOf(
  file: string,
  name: string,
): AsyncGenerator<{ part: Head | { table: string; row: unknown } | Foot; length: number }> {
  const notWhole = (cause?: unknown) =>
    new OperatorError(`${name} is no whole backup of Cordel. Take another copy of it.`, cause);
  const hash = createHash('sha256');
  let first = true;
  let foot: Foot | null = null;
  const input = createReadStream(file);
  const unpacked = input.pipe(createGunzip());
  input.on('error', (error) => unpacked.destroy(error));
  // Also one that comes when nobody reads any more.
  unpacked.on('error', () => undefined);
  try {
    for await (const text of linesIn(unpacked)) {
      if (foot) throw notWhole();
      const part = JSON.parse(text) as Head | { table: string; row: unknown } | Foot;
      if (first) {
        if (!('format' in part) || part.format !== 'cordel-backup') throw notWhole();
        if (part.formatVersion !== 1)
          throw new OperatorError(`${name} was written by a newer Cordel. Restore it with that one.`);
        first = false;
      }
      if ('sha256' in part) foot = part;
      else hash.update(`${text}\n`);
      if (foot && foot.sha256 !== hash.digest('hex')) throw notWhole();
      yield { part, length: text.length };
    }
  } catch (error) {
    if (error instanceof OperatorError) throw error;
    if ((error as NodeJS.ErrnoException).code === 'ENOENT')
      throw new OperatorError(`There is no file ${file}.`, error);
    throw sqlOrFile(error) ? error : notWhole(error);
  } finally {
    input.destroy();
    unpacked.destroy();
  }
  if (!foot) throw notWhole();
}

/** A text by its lines. Not `node:readline`: where its reader stops at a bad line, an error of the stream that comes after has nobody to take it and ends the server. */
async function* linesIn(stream: Readable): AsyncGenerator<string> {
  let rest: string[] = [];
  for await (const piece of stream.setEncoding('utf8') as AsyncIterable<string>) {
    const lines = piece.split('\n');
    for (const line of lines.slice(0, -1)) {
      yield rest.join('') + line;
      rest = [];
    }
    rest.push(lines.at(-1)!);
  }
  const last = rest.join('');
  if (last !== '') yield last;
}

/** Errors of whoever reads the lines pass through a generator too; those are not the file's. */
function sqlOrFile(error: unknown): boolean {
  const ofTheFile =
    error instanceof SyntaxError || /^Z_/.test(String((error as NodeJS.ErrnoException | null)?.code));
  return error instanceof Error && !ofTheFile;
}

/** Every table of Cordel, those first that others refer to. */
async function tablesInOrder(db: Queries): Promise<string[]> {
  const names = rowsOf(
    await db.execute(
      sql`select relname as name from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace order by relname`,
    ),
  ).map((row) => String(row.name));
  const needs = rowsOf(
    await db.execute(
      sql`select a.relname as name, b.relname as needs from pg_constraint join pg_class a on a.oid = conrelid join pg_class b on b.oid = confrelid where contype = 'f'`,
    ),
  );
  const order: string[] = [];
  const visit = (name: string) => {
    if (order.includes(name)) return;
    for (const row of needs) if (row.name === name && row.needs !== name) visit(String(row.needs));
    order.push(name);
  };
  names.forEach(visit);
  return order;
}

/** Takes out what migrations put in. */
async function emptyAll(db: Queries): Promise<void> {
  for (const table of (await tablesInOrder(db)).reverse())
    await db.execute(sql`delete from ${sql.identifier(table)}`);
}

async function tablesWithBytes(db: Queries): Promise<ReadonlySet<string>> {
  const rows = rowsOf(
    await db.execute(
      sql`select distinct table_name as name from information_schema.columns where table_schema = 'public' and data_type = 'bytea'`,
    ),
  );
  return new Set(rows.map(({ name }) => String(name)));
}

/** Takes away all that migrations made. */
async function dropAll(db: Queries): Promise<void> {
  for (const table of (await tablesInOrder(db)).reverse())
    await db.execute(sql`drop table ${sql.identifier(table)} cascade`);
  const functions = rowsOf(
    await db.execute(
      sql`select oid::regprocedure::text as name from pg_proc where pronamespace = 'public'::regnamespace and not exists (select 1 from pg_depend where objid = pg_proc.oid and deptype = 'e')`,
    ),
  );
  for (const { name } of functions) await db.execute(sql.raw(`drop function ${String(name)}`));
  await db.execute(sql`drop table drizzle.__drizzle_migrations`);
}

/** Numbers that a database gives out go on after the highest that is there. */
async function setCounters(db: Queries): Promise<void> {
  const counters = rowsOf(
    await db.execute(
      sql`select table_name as "table", column_name as "column" from information_schema.columns where table_schema = 'public' and column_default like 'nextval(%'`,
    ),
  );
  for (const { table, column } of counters)
    await db.execute(
      sql`select setval(pg_get_serial_sequence(${String(table)}, ${String(column)}), coalesce((select max(${sql.identifier(String(column))}) from ${sql.identifier(String(table))}), 0) + 1, false)`,
    );
}
