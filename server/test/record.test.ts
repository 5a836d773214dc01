import {
  lossSheet,
  lossText,
  type Fact,
  type ProjectDefinition,
  type SignOff,
  type StoredFact,
} from '@cordel/core';
import { asBuiltJsonSchema, fingerprintWords, type AsBuilt, type AsBuiltEnd } from '@cordel/core/asBuilt';
import Ajv from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import canonicalize from 'canonicalize';
import { parse } from 'csv-parse/sync';
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import readXlsx, { readSheetNames } from 'read-excel-file/node';
import { canonical } from '../src/report/canonical';
import { newProjectOn, type ProblemBody, type Receipt } from './journey';
import { makeAttempt } from './makeProject';
import { readPdf, runNode } from './pdf';
import {
  dataFolder,
  everyFact,
  removeFolders,
  request,
  startServer,
  temporaryFolder,
  type ServerProcess,
} from './process';

/** What is handed over, parsed back with other programs than wrote it, and its numbers compared with the core's. */

let server: ServerProcess;
let project: string;
let definition: ProjectDefinition;
let built: AsBuilt;
let builtText: string;
beforeAll(async () => {
  server = await startServer(dataFolder('demo'));
  const { body } = await request<{ shelf: { project: { id: string } }[] }>(`${server.url}/api/projects`);
  project = `${server.url}/api/projects/${body.shelf[0]!.project.id}`;
  definition = (await request<ProjectDefinition>(project)).body;
  builtText = new TextDecoder().decode(await bytesOf('json'));
  built = JSON.parse(builtText) as AsBuilt;
}, 60_000);
afterAll(async () => {
  await server.stop();
  removeFolders();
});

const closureAt = (site: string) => built.closures.find((one) => one.site.startsWith(site))!;
const schemaFile = join(process.cwd(), 'docs/as-built.schema.json');
const made = new Map<string, Promise<{ headers: Headers; bytes: Uint8Array }>>();
/** A document of the demo, as it is before the last test of this file, made once for all that look at it. */
function documentOf(form: string, query = '') {
  const path = form + query;
  const known = made.get(path) ?? makeDocument(path);
  made.set(path, known);
  return known;
}
async function makeDocument(path: string) {
  const answer = await fetch(`${project}/record/${path}`);
  return { headers: answer.headers, bytes: new Uint8Array(await answer.arrayBuffer()) };
}
const bytesOf = async (form: string, query = '') => (await documentOf(form, query)).bytes;
const read = new Map<string, ReturnType<typeof readPdf>>();
/** A PDF of the demo, read once too. */
async function pdfOf(form: 'pdf' | 'short' | 'labels', query = ''): ReturnType<typeof readPdf> {
  const known = read.get(form + query) ?? readPdf(await bytesOf(form, query));
  read.set(form + query, known);
  return known;
}

describe('the canonical form', () => {
  test('is that of RFC 8785, by the example of its sections 3.2.2 to 3.2.4', () => {
    const example = String.raw`{
      "numbers": [333333333.33333329, 1E30, 4.50, 2e-3, 0.000000000000000000000000001],
      "string": "\u20ac$\u000F\u000aA'\u0042\u0022\u005c\\\"\/",
      "literals": [null, true, false]
    }`;
    expect(canonical(JSON.parse(example))).toBe(
      String.raw`{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\u000f\nA'B\"\\\\\"/"}`,
    );
  });

  test('sorts names by their UTF-16 code units (RFC 8785, section 3.2.3)', () => {
    const names = ['\u20ac', '\r', '\ufb33', '1', '\ud83d\ude00', '\u0080', '\u00f6'];
    const sorted = ['\r', '1', '\u0080', '\u00f6', '\u20ac', '\ud83d\ude00', '\ufb33'];
    const written = canonical(Object.fromEntries(names.map((name) => [name, 0])));
    const places = sorted.map((name) => written.indexOf(JSON.stringify(name)));
    expect(places).toEqual([...places].sort((a, b) => a - b));
  });
});

describe('the record as JSON', () => {
  test('its schema in docs/ is made from the schemas of the core (npm run schemas)', () => {
    expect(JSON.parse(readFileSync(schemaFile, 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(asBuiltJsonSchema())),
    );
  });

  test('the demo and a project that was made here hold to the schema, by ajv; a spoiled one does not', async () => {
    const ajv = new Ajv({ strict: false });
    addFormats(ajv);
    const check = ajv.compile(JSON.parse(readFileSync(schemaFile, 'utf8')) as object);
    check(built);
    expect(check.errors ?? []).toEqual([]);
    const own = await newProjectOn(`${server.url}/api`, 6);
    await own.post(
      own.splices.slice(0, 30).map((splice, index) => makeAttempt(own.closureId, splice, index / 200)),
    );
    check((await request(`${own.project}/record/json`)).body);
    expect(check.errors ?? []).toEqual([]);
    expect(check({ ...built, losses: 'measured' })).toBe(false);
  });

  test('it is in canonical form, and sha256sum says the fingerprint that the server says', async () => {
    expect(canonicalize(JSON.parse(builtText))).toBe(builtText);
    const { bytes, headers } = await documentOf('json');
    const file = join(temporaryFolder(), 'record.json');
    writeFileSync(file, bytes);
    const { stdout } = spawnSync('sha256sum', [file], { encoding: 'utf8' });
    expect(stdout.split(' ')[0]).toBe(headers.get('X-Fingerprint'));
  });

  test('its losses and verdicts are those of the loss sheet, fiber by fiber', async () => {
    const { body } = await request<{ facts: StoredFact[] }>(`${project}/project.json`);
    const facts = body.facts.map(({ fact }) => fact as Fact);
    const sheet = lossSheet(
      definition,
      facts,
      definition.closures.map(({ id }) => id),
    );
    const at = (name: string) => sheet.header.indexOf(name);
    const ofSheet = sheet.rows.map((row) => [
      row[at('Tray')],
      row[at('Slot')],
      row[at('Left fiber')],
      row[at('Estimated loss (dB)')] === '' ? null : Number(row[at('Estimated loss (dB)')]),
      row[at('Verdict')],
    ]);
    const words = { open: 'Open', holds: 'Holds', redo: 'Redo', owner: 'Owner’s call', allowed: 'Allowed' };
    const ofRecord = built.closures.flatMap(({ splices }) =>
      splices.flatMap((splice) =>
        splice.left.map((left, index) => [
          String(splice.tray),
          String(splice.slot),
          String(left.fiber),
          splice.readings[index]?.loss ?? null,
          words[splice.mark],
        ]),
      ),
    );
    expect(ofRecord).toEqual(ofSheet);
  });

  test('U1 is ready and sealed after a bubble, U2 is not, and each says why', () => {
    const u1 = closureAt('U1');
    expect(u1.ready.filter(({ stands }) => stands === 'against')).toEqual([]);
    expect(u1.seal).toMatchObject({ sealed: true, testPressure: 34.5, underPressure: null });
    expect(u1.seal.rounds.map(({ bubbles }) => bubbles.length)).toEqual([1, 0]);
    expect(
      u1.splices.filter(({ earlier }) => earlier.length > 0).map(({ tray, slot }) => `${tray}.${slot}`),
    ).toEqual(['1.20', '3.4', '4.17']);
    expect(closureAt('U2').ready.map(({ code }) => code)).toEqual(
      expect.arrayContaining(['redo', 'open', 'owner', 'seal', 'estimates']),
    );
  });
});

test('the workbook, read by another library: a sheet a closure, typed numbers, the same losses', async () => {
  const book = Buffer.from(await bytesOf('xlsx'));
  expect(await readSheetNames(book)).toEqual(['Summary', ...built.closures.map(({ site }) => site)]);
  for (const closure of built.closures) {
    const [header, ...rows] = await readXlsx(book, { sheet: closure.site });
    const at = (name: string) => header!.indexOf(name);
    const losses = rows.map((row) => row[at('Estimated loss (dB)')]);
    expect(losses).toEqual(
      closure.splices.flatMap(({ left, readings }) => left.map((_, index) => readings[index]?.loss ?? null)),
    );
    const times = rows.map((row) => row[at('Made at (UTC)')]).filter(Boolean);
    expect(times.every((time) => time instanceof Date)).toBe(true);
  }
  const [header, ...rows] = await readXlsx(book, { sheet: 'Summary' });
  const mean = header!.indexOf('Mean, estimated (dB)');
  expect(rows.map((row) => row[mean])).toEqual(built.closures.map(({ sums }) => sums.mean));
});

test('what a person typed is no formula in workbook or CSV', async () => {
  const own = await newProjectOn(`${server.url}/api`);
  await own.post([makeAttempt(own.closureId, own.splices[0]!, 0.03, { note: '=1+1' })]);
  const answer = await fetch(`${own.project}/record/xlsx`);
  const [header, first] = await readXlsx(Buffer.from(await answer.arrayBuffer()), { sheet: 'Joint' });
  expect(first![header!.indexOf('Note')]).toBe('=1+1');
  expect(await (await fetch(`${own.project}/record/csv`)).text()).toContain("'=1+1");
});

test('the CSV, read by another library, has a row for each fiber and connector', async () => {
  const text = new TextDecoder().decode(await bytesOf('csv'));
  const rows = parse(text, { bom: true, columns: true }) as Record<string, string>[];
  const fibers = built.closures.flatMap(({ site, splices }) =>
    splices.flatMap(({ left, readings }) =>
      left.map((end, index) => [site, String(end.fiber), String(readings[index]?.loss ?? '')]),
    ),
  );
  expect(rows.map((row) => [row.Closure, row['Left fiber'], row['Estimated loss (dB)']])).toEqual(fibers);
});

test('what was measured stands beside the estimates in JSON, CSV and report, each direction and the mean of both', async () => {
  const u1 = closureAt('U1');
  const measured = u1.splices.flatMap((splice) =>
    splice.readings.flatMap((reading) => (reading.measured ? [{ splice, reading }] : [])),
  );
  expect(measured).toHaveLength(12);
  expect(built.losses).toBe('estimated-and-measured');
  for (const { reading } of measured) {
    const { loss, fromLeft, fromRight } = reading.measured!;
    expect(loss).toBeCloseTo((fromLeft! + fromRight!) / 2, 12);
  }
  const mean = measured.reduce((sum, { reading }) => sum + reading.measured!.loss!, 0) / 12;
  expect(u1.sums.measured!.mean).toBeCloseTo(mean, 12);
  // The mean of the estimates is that of estimates alone.
  const estimates = u1.splices.flatMap(({ readings }) => readings.flatMap(({ loss }) => loss ?? []));
  expect(u1.sums.mean).toBeCloseTo(estimates.reduce((sum, one) => sum + one, 0) / estimates.length, 12);
  const rows = parse(new TextDecoder().decode(await bytesOf('csv')), { bom: true, columns: true }) as Record<
    string,
    string
  >[];
  // A direction below 0 stays a number.
  expect(
    rows
      .filter((row) => row['Measured with'] !== '')
      .map((row) => [row['Measured loss (dB)'], row['From left (dB)'], row['From right (dB)']].map(Number)),
  ).toEqual(measured.map(({ reading: { measured: one } }) => [one!.loss, one!.fromLeft, one!.fromRight]));
  expect(rows.some((row) => Number(row['From left (dB)']) < 0 || Number(row['From right (dB)']) < 0)).toBe(
    true,
  );
  const { pages } = await pdfOf('pdf', `?closure=${u1.id}`);
  const all = pages.join(' ');
  expect(all).toContain('12 fibers. The two are in no mean together.');
  const [{ splice, reading }] = measured as [(typeof measured)[0]];
  const text = (value: number) => lossText(value);
  const { loss, fromLeft, fromRight } = reading.measured!;
  expect(all).toContain(
    `${[reading.loss!, fromLeft!, fromRight!, loss!].map(text).join(' ')} OTDR, 1550 nm, Iara`,
  );
  expect(splice.mark).toBe('holds');
});

describe('the map', () => {
  test('is empty where no position is known, and else GeoJSON by RFC 7946: longitude first, a point a site, a line a cable', async () => {
    expect((await request(`${project}/record/geojson`)).body).toEqual({
      type: 'FeatureCollection',
      features: [],
    });
    const own = await newProjectOn(`${server.url}/api`);
    const { project: settings, sites, cables } = await own.read();
    const places = [
      { latitude: -22.9, longitude: -43.2 },
      { latitude: -22.91, longitude: -43.19 },
    ];
    const put = await request(`${own.project}/line`, 'PUT', {
      version: settings.lineVersion,
      sites: sites.map((site, index) => (places[index] ? { ...site, position: places[index] } : site)),
      cables,
    });
    expect(put.status).toBe(200);
    const { body, headers } = await request<{
      features: {
        id: string;
        geometry: { type: string; coordinates: unknown };
        properties: { name: string };
      }[];
    }>(`${own.project}/record/geojson`);
    expect(headers.get('Content-Type')).toMatch(/^application\/geo\+json/);
    const points = body.features.filter(({ geometry }) => geometry.type === 'Point');
    expect(points.map(({ geometry }) => geometry.coordinates)).toEqual(
      expect.arrayContaining([
        [-43.2, -22.9],
        [-43.19, -22.91],
      ]),
    );
    expect(points).toHaveLength(2);
    const lines = body.features.filter((one) => one.geometry.type === 'LineString');
    for (const { geometry } of lines)
      expect((geometry.coordinates as unknown[]).length).toBeGreaterThanOrEqual(2);
    // The route from where it begins, whatever order the sites are stored in.
    const route = [...sites.keys()]
      .filter((index) => places[index])
      .sort((a, b) => sites[a]!.chainage - sites[b]!.chainage)
      .map((index) => [places[index]!.longitude, places[index]!.latitude]);
    expect(lines.find(({ properties }) => properties.name === 'Route')!.geometry.coordinates).toEqual(route);
    expect(new Set(body.features.map(({ id }) => id)).size).toBe(body.features.length);
    expect((await own.read()).sites.filter(({ position }) => position)).toHaveLength(2);
  });
});

describe('the report', () => {
  test('of a closure: page one says that it is good, and its numbers are the core’s', async () => {
    const u1 = closureAt('U1');
    const { headers } = await documentOf('pdf', `?closure=${u1.id}`);
    expect(headers.get('Content-Type')).toBe('application/pdf');
    const print = headers.get('X-Fingerprint')!;
    const { pages, outline, structure, marked } = await pdfOf('pdf', `?closure=${u1.id}`);
    expect(pages[0]).toContain('Good: nothing stands against its acceptance.');
    expect(pages[0]).toContain(`${u1.sums.holds + u1.sums.allowed} of ${u1.sums.splices}`);
    expect(pages[0]).toContain(`${u1.sums.mean!.toFixed(3)} dB`);
    expect(pages[0]).toContain(fingerprintWords(print));
    const all = pages.join(' ');
    // Every splice stands in it with its loss, in the order of its trays.
    for (const splice of u1.splices) {
      const [left, right] = [splice.left[0]!, splice.right[0]!];
      const row = `${splice.slot} ${left.cable} ${left.fiber} ${left.colors} ${right.cable} ${right.fiber} ${right.colors} ${splice.readings[0]!.loss!.toFixed(2)}`;
      expect(all).toContain(row);
    }
    expect(all).toContain('bubbles: Opening 6, Round: B 96 Ponte');
    expect(all).toContain('Spare fiber, budget has room');
    expect(outline.map(({ title }) => title)).toEqual([
      'U1 Ponte Velha',
      'U1 Ponte Velha',
      'What stands behind it',
    ]);
    expect(outline[1]!.items).toEqual([
      ...[1, 2, 3, 4].map((tray) => `Tray ${tray}`),
      'Redone, corrected, allowed',
      'Seal',
    ]);
    // A screen reader follows it: headings, and pictures with what they say.
    expect(marked).toBe(true);
    const told = JSON.stringify(structure);
    expect(told).toContain('"role":"H1"');
    expect(told).toMatch(/"role":"Figure".*"alt":"Losses of 96 fibers/);
  }, 30_000);

  test('of a project: what stands against it, a bookmark a closure, pages numbered', async () => {
    const { pages, outline } = await pdfOf('pdf');
    const against = built.closures.flatMap(({ ready }) => ready.filter(({ stands }) => stands === 'against'));
    expect(pages[0]).toContain(`Not ready: ${against.length} things stand against its acceptance.`);
    const titles = outline.map(({ title }) => title);
    for (const { site } of built.closures) expect(titles).toContain(site);
    pages.forEach((page, index) => expect(page).toContain(`page ${index + 1} of ${pages.length}`));
  }, 30_000);

  test('the short form is one page', async () => {
    const { pages } = await pdfOf('short', `?closure=${closureAt('U2').id}`);
    expect(pages).toHaveLength(1);
    expect(pages[0]).toContain('U2 Curva do Rio');
  });

  test('tells how far it is, comes in pieces, and is ended by whoever does not want it any more', async () => {
    const lines = (
      await (await fetch(`${project}/record/pdf`, { headers: { Accept: 'application/x-ndjson' } })).text()
    )
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { piece?: string; made?: { name: string; type: string } });
    const whole = Buffer.from(lines.flatMap(({ piece }) => piece ?? []).join(''), 'base64');
    expect(whole.subarray(0, 5).toString()).toBe('%PDF-');
    expect(lines.at(-1)!.made).toMatchObject({ type: 'application/pdf' });
    const ended = new AbortController();
    const asked = fetch(`${project}/record/pdf`, { signal: ended.signal });
    ended.abort();
    await expect(asked).rejects.toThrow();
    // The server goes on.
    expect((await request(project)).status).toBe(200);
  }, 30_000);

  test('of a closure or a project that is not there is refused', async () => {
    expect((await request(`${project}/record/pdf?closure=${definition.project.id}`)).status).toBe(404);
    expect((await request(`${project}/record/docx`)).status).toBe(400);
  });
});

test('names that no font has, a sheet’s own word, and what a spreadsheet takes for its own are handed over all the same', async () => {
  const own = await newProjectOn(`${server.url}/api`);
  const { project: settings, sites, cables } = await own.read();
  const names = ['Hub 🧵 العربية', 'History', "'Cabinet/[1]*'"];
  const put = await request(`${own.project}/line`, 'PUT', {
    version: settings.lineVersion,
    sites: sites.map((site, index) => ({
      ...site,
      name: site.name === 'Joint' ? names[1]! : names[index === 0 ? 0 : 2]!,
    })),
    cables: cables.map((cable, index) => ({ ...cable, label: `${cable.label} 🧵${index}` })),
  });
  expect(put.status).toBe(200);
  await own.post([makeAttempt(own.closureId, own.splices[0]!, 0.03, { note: '🧵\u0007 e\u0301 \u202e' })]);
  for (const form of ['pdf', 'short', 'xlsx', 'csv', 'json', 'labels', 'labels-csv'])
    expect((await fetch(`${own.project}/record/${form}`)).status).toBe(200);
  const book = Buffer.from(await (await fetch(`${own.project}/record/xlsx`)).arrayBuffer());
  expect(await readSheetNames(book)).toEqual(['Summary', 'History 2']);
}, 60_000);

test('however many are asked for at once, each is made, and one that is given up leaves its place', async () => {
  const given = new AbortController();
  const asked = Array.from({ length: 5 }, (_, index) =>
    fetch(`${project}/record/json`, index === 3 ? { signal: given.signal } : {}),
  );
  given.abort();
  const answers = await Promise.allSettled(asked);
  expect(answers.map(({ status }) => status)).toEqual([
    'fulfilled',
    'fulfilled',
    'fulfilled',
    'rejected',
    'fulfilled',
  ]);
  expect((await fetch(`${project}/record/geojson`)).status).toBe(200);
}, 60_000);

describe('labels', () => {
  test('a sheet has a label for each closure, tray and cable, and begins where the last one ended', async () => {
    const u1 = closureAt('U1').id;
    const { pages } = await pdfOf('labels', `?closure=${u1}&size=a4-24`);
    expect(pages).toHaveLength(1);
    for (const text of [
      'U1 Ponte Velha',
      'Tray 4',
      '96 Moinho 73–96',
      'B · 96 Ponte',
      'from Moinho, to U2 Curva do Rio',
    ])
      expect(pages[0]).toContain(text);
    expect((await pdfOf('labels', `?closure=${u1}&size=a4-24&skip=20`)).pages).toHaveLength(2);
    expect((await pdfOf('labels', `?closure=${u1}&size=roll-50`)).pages).toHaveLength(8);
    expect((await request(`${project}/record/labels?size=poster`)).status).toBe(400);
  }, 30_000);

  test('the same for a label printer: a row each, with the address that opens the place', async () => {
    const text = new TextDecoder().decode(await bytesOf('labels-csv', `?closure=${closureAt('U1').id}`));
    const rows = parse(text, { bom: true, columns: true }) as Record<string, string>[];
    expect(rows.map(({ Kind }) => Kind)).toEqual([
      'closure',
      ...Array(4).fill('tray'),
      ...Array(3).fill('cable'),
    ]);
    expect(rows[1]!.Address).toBe(`${project.replace('/api/projects', '/p')}/c/${closureAt('U1').id}/t/1`);
  });
});

describe('sign-off', () => {
  const signing = (more: object = {}) => ({
    id: randomUUID(),
    madeAt: new Date().toISOString(),
    by: 'Iara',
    closureId: null,
    name: 'Nilo',
    role: 'owner',
    decision: 'accepted',
    note: '',
    ...more,
  });

  test('freezes the record: its document has the fingerprint that is on record, whatever is recorded later, which stands as later', async () => {
    const own = await newProjectOn(`${server.url}/api`);
    await own.post([makeAttempt(own.closureId, own.splices[0]!, 0.03)]);
    const before = await fetch(`${own.project}/record/json?closure=${own.closureId}`);
    const sha256 = before.headers.get('X-Fingerprint')!;
    const asked = signing({ closureId: own.closureId, note: 'looked at on site' });
    const { status, body } = await request<{ signOff: SignOff }>(`${own.project}/sign-offs`, 'POST', asked);
    expect(status).toBe(201);
    expect(body.signOff).toMatchObject({
      id: asked.id,
      body: { sha256, name: 'Nilo', decision: 'accepted' },
    });
    // Sent once more it is the same.
    const again = await request<{ signOff: SignOff }>(`${own.project}/sign-offs`, 'POST', {
      ...asked,
      name: 'Somebody else',
    });
    expect(again).toMatchObject({ status: 200, body });

    await own.post([
      makeAttempt(own.closureId, own.splices[1]!, 0.04, {
        madeAt: new Date(Date.now() + 1000).toISOString(),
      }),
    ]);
    const frozen = await (await fetch(`${own.project}/sign-offs/${asked.id}/record.json`)).text();
    expect(frozen).toBe(await before.text());
    const now = (await request<AsBuilt>(`${own.project}/record/json?closure=${own.closureId}`)).body;
    expect(now.signOffs).toMatchObject([{ of: 'Joint', sha256, later: 1, name: 'Nilo' }]);
    const short = await fetch(`${own.project}/record/short?closure=${own.closureId}`);
    const { pages } = await readPdf(new Uint8Array(await short.arrayBuffer()));
    expect(pages[0]).toContain('Joint was accepted, signed by Nilo (owner)');
    expect(pages[0]).toContain(`1 record is later than that. Fingerprint then: ${fingerprintWords(sha256)}.`);
    expect((await request(`${server.url}/api/sign-offs/${sha256}`)).body).toMatchObject({
      signed: [{ project: 'Test job', closure: 'Joint', name: 'Nilo', role: 'owner' }],
    });
    expect((await request(`${server.url}/api/sign-offs/${'0'.repeat(64)}`)).body).toEqual({ signed: [] });
    expect((await request<{ signOffs: object[] }>(`${own.project}/sign-offs`)).body.signOffs).toHaveLength(1);

    // Anybody checks the file, by the words or the digits; one changed digit is another record.
    const file = join(temporaryFolder(), 'signed.json');
    const verify = (...given: string[]) => runNode(['scripts/verify.mjs', file, ...given]);
    writeFileSync(file, JSON.stringify(JSON.parse(frozen), null, 2));
    const right = await verify(...fingerprintWords(sha256).split(' '));
    expect([right.status, right.stdout]).toEqual([0, expect.stringContaining(sha256)]);
    expect((await verify(sha256)).status).toBe(0);
    writeFileSync(file, frozen.replace('"loss":0.03', '"loss":0.02'));
    expect(await verify(sha256)).toMatchObject({
      status: 1,
      stdout: expect.stringContaining('ANOTHER record'),
    });
  }, 60_000);

  test('of a whole project, and what it refuses', async () => {
    const own = await newProjectOn(`${server.url}/api`);
    const post = (more: object) => request<ProblemBody>(`${own.project}/sign-offs`, 'POST', signing(more));
    expect((await post({})).status).toBe(201);
    expect((await request<AsBuilt>(`${own.project}/record/json`)).body.signOffs).toMatchObject([
      { of: 'Test job', later: 0 },
    ]);
    expect((await post({ name: ' ' })).body.detail).toBe('name: Say who signs.');
    expect((await post({ closureId: own.definition.project.id })).status).toBe(404);
    expect((await post({ madeAt: '2036-01-01T00:00:00.000Z' })).body.detail).toContain(
      'more than a day after',
    );
    const splice = makeAttempt(own.closureId, own.splices[0]!, 0.03);
    await own.post([splice]);
    expect((await post({ id: splice.id })).status).toBe(409);
  }, 30_000);

  test('what is recorded while the record is made is in it, or after it: never half', async () => {
    const own = await newProjectOn(`${server.url}/api`);
    const recording = Promise.all(
      own.splices
        .slice(0, 12)
        .map((splice, index) => own.post([makeAttempt(own.closureId, splice, index / 100)])),
    );
    const { status, body } = await request<{ signOff: SignOff }>(
      `${own.project}/sign-offs`,
      'POST',
      signing(),
    );
    await recording;
    expect(status).toBe(201);
    const frozen = await (await fetch(`${own.project}/sign-offs/${body.signOff.id}/record.json`)).text();
    const { facts } = (await request<{ facts: { fact: Fact }[] }>(`${own.project}/project.json`)).body;
    const pages = await everyFact<Fact>(`${own.project}/facts`);
    const place = pages.findIndex(({ id }) => id === body.signOff.id);
    expect((JSON.parse(frozen) as AsBuilt).records.count).toBe(place);
    expect(facts).toHaveLength(13);
  }, 60_000);
});

test('no loss of a ribbon and no fiber behind a long label is cut short in the report', async () => {
  const u2 = closureAt('U2');
  const label = 'A cable whose label is as long as somebody could ever want it to be';
  const { project: settings, sites, cables } = (await request<ProjectDefinition>(project)).body;
  const wanted = cables.find(({ label: own }) => own === '96 Ponte')!;
  await request(`${project}/line`, 'PUT', {
    version: settings.lineVersion,
    sites,
    cables: cables.map((cable) => (cable.id === wanted.id ? { ...cable, label } : cable)),
  });
  const ribbons = u2.splices.filter(({ kind }) => kind === 'ribbon');
  // With two decimals, and with a third.
  const losses = ribbons.map((_, ribbon) =>
    Array.from({ length: 12 }, (__, fiber) => (ribbon * 12 + fiber) / (ribbon % 2 ? 1000 : 1000 / 0.3)),
  );
  const run = (ends: AsBuiltEnd[]) => [
    { cableId: ends[0]!.cableId, side: ends[0]!.side, from: ends[0]!.fiber, to: ends.at(-1)!.fiber },
  ];
  const facts = ribbons.map(({ left, right }, index) => ({
    v: 2,
    id: randomUUID(),
    kind: 'attempt',
    madeAt: new Date().toISOString(),
    by: null,
    device: null,
    subject: { on: 'splice', closureId: u2.id, left: run(left), right: run(right) },
    body: {
      source: 'hand',
      simulated: true,
      readings: losses[index]!.map((loss) => ({ loss, cleaveLeft: null, cleaveRight: null })),
      proofTestFailed: false,
      note: '',
    },
  }));
  const { accepted } = (await request<Receipt>(`${project}/facts`, 'POST', { facts })).body;
  expect(accepted).toHaveLength(11);
  const { pages } = await readPdf((await makeDocument(`pdf?closure=${u2.id}`)).bytes);
  const text = pages.join(' ');
  losses.forEach((own, index) => {
    const { left, right } = ribbons[index]!;
    const named = (ends: AsBuiltEnd[]) =>
      `${ends[0]!.cable} R${ends[0]!.unit}, ${ends[0]!.fiber}–${ends.at(-1)!.fiber}`;
    const row = text.slice(text.indexOf(`${named(left)} ${named(right)}`));
    const written = own.map(lossText);
    const each = written.some((one) => one.length > 4) ? 8 : 12;
    for (let from = 0; from < 12; from += each)
      expect(row).toContain(written.slice(from, from + each).join(' '));
  });
  expect(text).toMatch(/A cable whose label [^…]*… 46 BR VI/);
}, 60_000);
