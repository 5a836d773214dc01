import type { Attempt, Fact } from '@cordel/core';
import type { Page } from 'puppeteer-core';
import { everyFact } from '../server/test/process';
import { press, see, seeGone, type Size } from './support/browser';
import { attach } from './support/camera';
import { onDevice } from './support/device';
import { demoJourneys } from './support/journeys';
import { enteredByHand, minute, read, table } from './support/nightLog';

/** A machine's log against what was entered by hand: what differs, what fills a gap, and all of it taken back at once. */

const at = demoJourneys();

const pick = (page: Page, name: string, content: Buffer) =>
  attach(page, 'Log of a splicing machine', [content], name);

async function factsOf(projectId: string, closureId: string): Promise<Fact[]> {
  const all = await everyFact<Fact>(`${at.server.url}/api/projects/${projectId}/facts`);
  return all.filter(({ subject }) => subject.on === 'splice' && subject.closureId === closureId);
}

test.each<Size>(['phone', 'wide'])(
  'a log against hand entries with three differences: looked at, recorded, taken back, and nothing twice (%s)',
  async (size) => {
    const u3 = await enteredByHand(at.server);
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
  const u3 = await enteredByHand(at.server);
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

test('a log that is shared to the application is kept on the device, and opened at the closure it is of', async () => {
  await enteredByHand(at.server);
  const page = await at.open({ size: 'phone' });
  await page.goto(at.server.url);
  await see(page, 'Vale do Umbu ring, section 2');
  await onDevice(page);
  // As the system does it: a form with the file, sent to where the manifest says. A page may send none, so it asks for the address itself.
  await page.evaluate(async (content) => {
    const form = new FormData();
    form.append('log', new File([content], 'noite de ontem.csv', { type: 'text/csv' }));
    await fetch('/share', { method: 'POST', body: form, redirect: 'manual' });
  }, table(read).toString('latin1'));
  await page.goto(`${at.server.url}/share`);
  await see(page, 'noite de ontem.csv');
  await press(page, 'U3 Escola');
  await see(page, /The first splice: 0\.03 dB/);
  await press(page, 'Read it so');
  await press(page, 'Compare with what is on record');
  await press(page, 'Record 1 of 9');
  await see(page, '1 record of the log is kept.');
  await page.goto(`${at.server.url}/share`);
  await see(page, 'Nothing came');
  await page.close();
}, 120_000);
