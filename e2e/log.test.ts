import type { Attempt, Fact } from '@cordel/core';
import { planClosure, runsOf } from '@cordel/core';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { everyFact, request } from '../server/test/process';
import { press, see, seeGone, type Size } from './support/browser';
import { demoJourneys } from './support/journeys';
import { firstProject } from './support/shelf';

/** A machine's log against what was entered by hand: what differs, what fills a gap, and all of it taken back at once. */

const at = demoJourneys();
let folder: string;
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'cordel-log-'))));
afterAll(() => rmSync(folder, { recursive: true }));

const began = Date.parse('2026-04-14T23:10:00.000Z');
/** What was entered by hand at slots 1 to 8, and what the machine has of them, and of the ninth. */
const entered = [3, 2, 5, 1, 4, 2, 3, 6];
const read = [3, 6, 5, 1, 14, 2, 30, 6, 2];
const minute = (index: number) => began + index * 7 * 60_000;

/** Eight readings that somebody entered a minute after the machine had them. */
async function enteredByHand() {
  const u3 = await firstProject(at.server, 'U3');
  const closure = u3.definition.closures.find(({ id }) => id === u3.closureId)!;
  const { splices } = planClosure(closure, new Map(u3.definition.cables.map((cable) => [cable.id, cable])));
  const facts = entered.map((hundredths, index) => ({
    v: 3,
    id: randomUUID(),
    kind: 'attempt',
    madeAt: new Date(minute(index) + 60_000).toISOString(),
    by: 'Iara',
    device: null,
    subject: {
      on: 'splice',
      closureId: u3.closureId,
      left: runsOf(splices[index]!.left),
      right: runsOf(splices[index]!.right),
    },
    body: {
      source: 'hand',
      simulated: true,
      readings: [{ loss: hundredths / 100, cleaveLeft: null, cleaveRight: null }],
      proofTestFailed: false,
      note: '',
    },
  }));
  const { body } = await request<{ refused: unknown[] }>(
    `${at.server.url}/api/projects/${u3.projectId}/facts`,
    'POST',
    { facts },
  );
  expect(body.refused).toEqual([]);
  return u3;
}

/** As a machine in the project's zone writes it, with a comma and in the Western page. */
const table = (losses: readonly number[]) =>
  Buffer.from(
    [
      'Emenda nº;Data;Hora;Perda (dB);Ângulo esq.;Ângulo dir.;Tração',
      ...losses.map((hundredths, index) => {
        const local = new Date(minute(index) - 3 * 3600_000).toISOString();
        const [year, month, day] = local.slice(0, 10).split('-');
        return `${index + 1};${day}/${month}/${year};${local.slice(11, 19)};${(hundredths / 100).toFixed(2).replace('.', ',')};0,4;0,5;OK`;
      }),
      '',
    ].join('\r\n'),
    'latin1',
  );

async function pick(page: Page, name: string, content: Buffer): Promise<void> {
  writeFileSync(join(folder, name), content);
  const chooser = page.waitForFileChooser();
  await press(page, /^(Pick the log|Another file)$/);
  await (await chooser).accept([join(folder, name)]);
}

async function factsOf(projectId: string, closureId: string): Promise<Fact[]> {
  const all = await everyFact<Fact>(`${at.server.url}/api/projects/${projectId}/facts`);
  return all.filter(({ subject }) => subject.on === 'splice' && subject.closureId === closureId);
}

test.each<Size>(['phone', 'wide'])(
  'a log against hand entries with three differences: looked at, recorded, taken back, and nothing twice (%s)',
  async (size) => {
    const u3 = await enteredByHand();
    const page = await at.open({ size });
    await page.goto(`${u3.closure}/log`);
    await see(page, 'Nothing is recorded before you have looked at it.');
    await pick(page, 'night.csv', table(read));
    await see(page, 'This is how it seems to be written.');
    await see(page, /The first splice: 0\.03 dB, .*20:10/);
    await press(page, 'Read it so');
    await see(page, 'night.csv: 9 splices');
    await press(page, 'Compare with what is on record');
    await see(page, 'What was entered came 1 min after the machine’s time; that is taken into account.');
    for (const [what, count] of [
      ['Differs', 3],
      ['Fills a gap', 1],
      ['Agrees', 5],
    ] as const)
      await press(page, `${what} ${count}`);
    await press(page, 'Differs 3');
    await see(page, '0.06', { role: 'group', name: 'Tray 1 · slot 2: Differs' });
    await see(page, '0.02', { role: 'group', name: 'Tray 1 · slot 2: Differs' });
    await press(page, 'Take all that differ from the log');
    await see(page, 'Corrected', { role: 'group', name: 'Tray 1 · slot 7: Differs' });
    // The third one was read off rightly, and the machine’s is of a practice.
    const row = await page.waitForSelector('[aria-label="Tray 1 · slot 7: Differs"] [role="button"]');
    await row!.click();
    await press(page, 'Record 3 of 9');
    await see(page, '3 records of the log are kept.');
    await seeGone(page, 'to send', 'head');
    const made = (await factsOf(u3.projectId, u3.closureId)).slice(8);
    expect(made.map(({ kind }) => kind).sort()).toEqual(['attempt', 'correction', 'correction']);
    const attempt = made.find((fact): fact is Attempt => fact.kind === 'attempt')!;
    expect(attempt.madeAt).toBe(new Date(minute(8) + 60_000).toISOString());
    expect(attempt.body).toMatchObject({
      source: 'log',
      readings: [{ loss: 0.02, cleaveLeft: 0.4, cleaveRight: 0.5 }],
      origin: { splice: 9, at: new Date(minute(8)).toISOString() },
    });

    // The same file again has nothing new.
    await pick(page, 'night.csv', table(read));
    await press(page, 'Read it so');
    await press(page, 'Compare with what is on record');
    await see(page, 'On record 1');
    await see(page, 'Nothing to record');
    await press(page, 'Put it away');

    // And a longer one only what is new; taken back, all of it is gone at once.
    await pick(page, 'longer.csv', table([...read, 1, 2]));
    await press(page, 'Read it so');
    await press(page, 'Compare with what is on record');
    await press(page, 'Record 2 of 11');
    await see(page, '2 records of the log are kept.');
    await press(page, 'Undo all of it');
    await seeGone(page, 'records of the log are kept');
    await page.goto(u3.closure);
    await see(page, '8 of 24 settled');
    await page.close();
  },
  120_000,
);

test('a file that is cut off, doubled or no log says what and where, and is taken in part only where that is chosen', async () => {
  const u3 = await enteredByHand();
  const page = await at.open({ size: 'phone' });
  await page.goto(`${u3.closure}/log`);
  await pick(page, 'picture.csv', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 1]));
  await see(page, 'No losses are found in this file.');
  const whole = table(read);
  // In the middle of the last row.
  await pick(page, 'half.csv', whole.subarray(0, whole.length - 20));
  await press(page, 'Read it so');
  await see(page, 'Line 10 is cut off: the file was not written to its end.');
  await seeGone(page, 'Compare with what is on record');
  await press(page, 'Go on without them');
  await press(page, 'Compare with what is on record');
  await see(page, 'Agrees 5');
  await seeGone(page, 'Fills a gap 1');
  await page.close();
}, 120_000);
