import { factVersion, type Fact } from '@cordel/core';
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { migrationsIn } from '../src/database/migrate';
import type { ProblemBody } from './journey';
import {
  bareFolder,
  dataFolder,
  everyFact,
  execute,
  postgres,
  removeFolders,
  request,
  startServer,
} from './process';

/** A database of Cordel 0.1, with what the demo and an evening at the bench wrote into it, and one of a Cordel that is to come. */

afterAll(removeFolders);

const migrations = migrationsIn(join(__dirname, '../migrations'));
const file: {
  project: Record<string, unknown> & { id: string };
  sites: Record<string, unknown>[];
  cables: Record<string, unknown>[];
  closures: Record<string, unknown>[];
  facts: { receivedAt: string; fact: { id: string; closureId: string; spliceId?: string; kind: string } }[];
} = JSON.parse(
  readFileSync(join(__dirname, '../../core/test/fixtures/project-format-1.json'), 'utf8'),
) as never;

/** As Cordel 0.1 made its tables and filled them. */
function oldStatements(): string {
  const quoted = (value: unknown) =>
    value === undefined || value === null
      ? 'null'
      : `'${(typeof value === 'object' ? JSON.stringify(value) : String(value)).replaceAll("'", "''")}'`;
  const insert = (table: string, row: Record<string, unknown>) =>
    `insert into ${table} (${Object.keys(row)
      .map((name) => `"${name}"`)
      .join()}) values (${Object.values(row).map(quoted).join()});`;
  const own = { project_id: file.project.id };
  const old = migrations.slice(0, 5);
  return [
    'create schema drizzle; create table drizzle.__drizzle_migrations (id serial primary key, hash text not null, created_at bigint);',
    ...old.flatMap(({ statements }) => statements.map((one) => `${one};`)),
    ...old.map(({ hash, when }) => insert('drizzle.__drizzle_migrations', { hash, created_at: when })),
    insert('line_project', file.project),
    ...file.sites.map(({ chainage, branchFrom, ...site }) =>
      insert('line_site', { ...site, ...own, chainage_m: chainage, branch_from: branchFrom }),
    ),
    ...file.cables.map(({ id, label, schemeId, construction, siteIds, modeField }) =>
      insert('line_cable', {
        id,
        ...own,
        label,
        scheme_id: schemeId,
        construction,
        site_ids: siteIds,
        mode_field_um: modeField,
      }),
    ),
    ...file.closures.map(
      ({ id, siteId, kind, entries, trays, order, version, lengths, ports, parts, sleeveLength }) =>
        insert('plan_closure', {
          id,
          ...own,
          site_id: siteId,
          kind,
          entries,
          trays,
          splice_order: order,
          version,
          lengths,
          ports,
          parts,
          sleeve_length_mm: sleeveLength,
        }),
    ),
    ...file.facts.map(({ receivedAt, fact }) =>
      insert('splice_fact', {
        id: fact.id,
        ...own,
        closure_id: fact.closureId,
        splice_id: fact.spliceId,
        kind: fact.kind,
        body: fact,
        received_at: receivedAt,
      }),
    ),
    // What only 0.1 let in: a second closure at a site, and a record that nobody can read.
    insert('plan_closure', {
      id: '01900000-0000-7000-8000-000000000001',
      ...own,
      site_id: file.closures[0]!.siteId,
      kind: 'dome',
      entries: [],
      trays: [{ singleSlots: 12 }],
      splice_order: [],
      version: 1,
    }),
    insert('splice_fact', {
      id: '01900000-0000-7000-8000-000000000002',
      ...own,
      closure_id: file.closures[0]!.id,
      kind: 'tick',
      body: {
        id: '01900000-0000-7000-8000-000000000002',
        closureId: file.closures[0]!.id,
        kind: 'tick',
        about: 'no such thing',
        state: 'done',
        answer: null,
        note: '',
        by: null,
        madeAt: '2026-04-15T01:00:00.000Z',
      },
      received_at: '2026-04-15T01:00:00.000Z',
    }),
  ].join('\n');
}

test('a database of Cordel 0.1 is copied, brought up, and has lost nothing', async () => {
  const folder = bareFolder();
  execute(folder, oldStatements());
  const server = await startServer(folder);
  const project = `${server.url}/api/projects/${file.project.id}`;
  const facts = await everyFact<Fact>(`${project}/facts`);
  expect(new Set(facts.map((fact) => fact.id))).toEqual(
    new Set([...file.facts.map(({ fact }) => fact.id), '01900000-0000-7000-8000-000000000002']),
  );
  // What cannot be read any more is kept as it was, beside the others.
  const current = (fact: Fact) => fact.v === factVersion(fact.kind);
  expect(facts.filter((fact) => !current(fact))).toMatchObject([{ about: 'no such thing' }]);
  // 96 of U1; of U2 the demo's 52, a single and a ribbon that were made at the bench.
  const { body } = await request<{
    shelf: { progress: { closureId: string; rollUp: { settled: number } }[] }[];
  }>(`${server.url}/api/projects`);
  expect(
    body.shelf[0]!.progress.map(({ rollUp }) => rollUp.settled)
      .sort((a, b) => b - a)
      .slice(0, 2),
  ).toEqual([96, 54]);
  const { body: definition } = await request<{
    sites: { id: string }[];
    closures: { id: string; siteId: string }[];
  }>(project);
  expect(definition.closures).toHaveLength(file.closures.length + 1);
  expect(new Set(definition.closures.map((closure) => closure.siteId)).size).toBe(definition.closures.length);
  expect(
    (await request<{ book: { uses: unknown[] } }>(`${server.url}/api/gear/book`)).body.book.uses.length,
  ).toBeGreaterThan(150);
  // A phone that still has facts of 0.1 sends one again: it is the same fact.
  const again = await request<{ accepted: unknown[] }>(`${project}/facts`, 'POST', {
    facts: file.facts.slice(0, 400).map(({ fact }) => fact),
  });
  expect(again.body.accepted).toHaveLength(400);
  await server.stop();
  const copies = readdirSync(folder).filter((name) => name.includes('before-'));
  expect(copies).toEqual([
    expect.stringMatching(
      postgres ? /^before-0005_facts-\d+\.cordel-backup$/ : /^database\.before-0005_facts$/,
    ),
  ]);
  // A second start finds nothing left to do.
  const second = await startServer(folder, { CORDEL_LOG: 'info' });
  expect(second.output()).not.toContain('brought up');
  await second.stop();
}, 120_000);

test('a database that a newer Cordel has worked on is refused in words, and nothing of it is changed', async () => {
  const folder = dataFolder('demo');
  execute(
    folder,
    "insert into drizzle.__drizzle_migrations (hash, created_at) values ('later', 9999999999999);",
  );
  await expect(startServer(folder)).rejects.toThrow(/A newer Cordel has worked on this database/);
  execute(folder, 'delete from drizzle.__drizzle_migrations where created_at = 9999999999999;');
  const server = await startServer(folder);
  expect((await request<{ shelf: unknown[] }>(`${server.url}/api/projects`)).body.shelf).toHaveLength(1);
  await server.stop();
}, 120_000);

test('what was corrected before corrections counted for the gear counts after it, also for who has read on since', async () => {
  const folder = dataFolder('demo');
  const first = await startServer(folder);
  const { body } = await request<{ shelf: { project: { id: string } }[] }>(`${first.url}/api/projects`);
  const project = `${first.url}/api/projects/${body.shelf[0]!.project.id}`;
  const facts = await everyFact<Fact>(`${project}/facts`);
  const attempt = facts.find((fact): fact is Extract<Fact, { kind: 'attempt' }> => fact.kind === 'attempt')!;
  const { readings, proofTestFailed, note } = attempt.body;
  const { accepted } = (
    await request<{ accepted: unknown[] }>(`${project}/facts`, 'POST', {
      facts: [
        {
          ...attempt,
          id: randomUUID(),
          v: factVersion('correction'),
          kind: 'correction',
          body: { attemptId: attempt.id, result: { readings, proofTestFailed, note }, reason: 'typed' },
        },
      ],
    })
  ).body;
  expect(accepted).toHaveLength(1);
  const { last } = (await request<{ last: string }>(`${first.url}/api/gear/book`)).body;
  await first.stop();
  // As the Cordel before left it, without what came later.
  const migration = migrations.find(({ statements }) =>
    statements.some((one) => one.includes('"concerns_gear" = true')),
  )!;
  execute(
    folder,
    `update fact set concerns_gear = false where kind = 'correction';
     update fact set v = 2, body = jsonb_set(body, '{v}', '2') where kind = 'owner-answer';
     alter table plan_closure drop column sealing;
     alter table line_site drop column position;
     alter table line_project drop column nights;
     drop table handover_signed;
     drop table picture;
     delete from drizzle.__drizzle_migrations where created_at >= ${migration.when};`,
  );
  const second = await startServer(folder);
  const book = `${second.url}/api/gear/book?after=${encodeURIComponent(last)}`;
  const corrected = (await request<{ book: { corrected: { attemptId: string }[] } }>(book)).body.book
    .corrected;
  expect(corrected.map((one) => one.attemptId)).toContain(attempt.id);
  // And the owner’s answers are brought up to the version that may name who answered.
  const answers = (await everyFact<Fact>(`${project.replace(first.url, second.url)}/facts`)).filter(
    ({ kind }) => kind === 'owner-answer',
  );
  expect([...new Set(answers.map(({ v }) => v))]).toEqual([3]);
  await second.stop();
}, 120_000);

test('what was deleted is cleared after thirty days that were seen, not by one odd reading of the clock', async () => {
  const folder = dataFolder('demo');
  const first = await startServer(folder);
  const { body } = await request<{ shelf: { project: { id: string } }[] }>(`${first.url}/api/projects`);
  const { id } = body.shelf[0]!.project;
  await request(`${first.url}/api/projects/${id}`, 'DELETE');
  await first.stop();
  const deletedAfter = async (statements: string) => {
    execute(folder, statements);
    const server = await startServer(folder);
    const shelf = await request<{ deleted: { id: string }[] } & ProblemBody>(`${server.url}/api/projects`);
    await server.stop();
    return shelf.body.deleted.map((one) => one.id);
  };
  const days = (from: number, to: number) =>
    Array.from(
      { length: to - from },
      (_, index) => `('${new Date(Date.UTC(2030, 0, from + index)).toISOString().slice(0, 10)}')`,
    ).join();
  // The battery of the clock is empty, somebody sets it wrongly, and the server runs for some weeks.
  expect(
    await deletedAfter(`insert into server_day (day) values ('1970-01-01'), ('2028-12-31'), ${days(1, 27)};`),
  ).toEqual([id]);
  expect(await deletedAfter(`insert into server_day (day) values ${days(27, 34)};`)).toEqual([]);
}, 120_000);
