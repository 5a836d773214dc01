import { randomUUID } from 'node:crypto';
import Papa from 'papaparse';
import { newProjectOn, oneServer, type ProblemBody } from './journey';
import { makeAttempt } from './makeProject';
import { dataFolder, request, startServer } from './process';

/** What is handed over and taken in: loss sheets and project files. */

let api: string;

oneServer((_, address) => {
  api = address;
});

const newProject = () => newProjectOn(api);

describe('hand over', () => {
  test('the loss sheet is RFC 4180: CRLF, quoted where needed, every row as long as its header', async () => {
    const { project, closureId, splices } = await newProject();
    const notes = ['plain', 'comma, quote " and\nline', '=1+1', '=1+\n1', '@x\r\ny'];
    const facts = notes.map((note, index) => makeAttempt(closureId, splices[index]!, 0.03, { note }));
    await request(`${project}/facts`, 'POST', { facts });
    const { body, headers } = await request<string>(`${project}/loss-sheet.csv?closure=${closureId}`);
    expect(headers.get('Content-Type')).toMatch(/^text\/csv/);
    expect(headers.get('Content-Disposition')).toContain('attachment');
    expect(body.replace(/"[^"]*"/g, '').replace(/\r\n/g, '')).not.toMatch(/[\r\n]/);
    const { data, errors } = Papa.parse<string[]>(body.replace(/^\uFEFF/, '').trimEnd());
    expect(errors).toEqual([]);
    expect(new Set(data.map((row) => row.length)).size).toBe(1);
    expect(data).toHaveLength(25);
    const note = data[0]!.indexOf('Note');
    // A spreadsheet must not take a technician's note for a formula.
    expect(data.slice(1, 6).map((row) => row[note])).toEqual([
      'plain',
      'comma, quote " and\nline',
      "'=1+1",
      "'=1+\n1",
      "'@x\r\ny",
    ]);
  });

  test('a project exported and imported into an empty server is the same, to the byte', async () => {
    const demo = await startServer(dataFolder('demo'));
    const { body } = await request<{ shelf: { project: { id: string } }[] }>(`${demo.url}/api/projects`);
    const path = `projects/${body.shelf[0]!.project.id}/project.json`;
    const text = await (await fetch(`${demo.url}/api/${path}`)).text();
    await demo.stop();

    expect((await request(`${api}/import`, 'POST', text)).status).toBe(201);
    expect(await (await fetch(`${api}/${path}`)).text()).toBe(text);

    const again = await request<ProblemBody>(`${api}/import`, 'POST', text);
    expect(again.status).toBe(409);
    expect(again.body.detail).toContain('Nothing was changed');
  }, 60_000);

  test.each([
    [
      'a broken line',
      (text: string) => text.replace('"units": "mm",', '"units": mm",'),
      /^Line 6: .*not readable JSON/,
    ],
    [
      'a bad value',
      (text: string) => text.replace('"tries": 3', '"tries": 0'),
      /^Line 13, project\.limits\.tries: At least 1 try\./,
    ],
    ['a missing field', (text: string) => text.replace('"name": "Test job",', ''), /^Line 4, project\.name/],
    [
      'another format',
      (text: string) => text.replace('cordel-project', 'other'),
      /^Line 2, format: This is not a Cordel project file\./,
    ],
    [
      'a reference to nothing',
      (text: string) => text.replace(/"siteId": "[^"]+"/, `"siteId": "${randomUUID()}"`),
      /^Line \d+, closures\.0\.siteId: There is no site/,
    ],
    ['nothing at all', () => '', /^Line 1: .*value expected/],
  ])('a file with %s is refused with line and field, and nothing is changed', async (_, spoil, expected) => {
    const { project, definition } = await newProject();
    const before = (await request(`${api}/projects`)).body;
    const text = await (await fetch(`${project}/project.json`)).text();
    const { status, body } = await request<ProblemBody>(`${api}/import`, 'POST', spoil(text));
    expect(status).toBe(400);
    expect(body.detail).toMatch(expected);
    expect((await request(`${api}/projects/${definition.project.id}`)).status).toBe(200);
    expect((await request(`${api}/projects`)).body).toEqual(before);
  });
});
