import type { Attempt, Fact } from '@cordel/core';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { everyFact, request } from '../server/test/process';
import { padKey, press, see, seeGone } from './support/browser';
import { refuseRecords } from './support/network';
import { demoJourneys } from './support/journeys';

/** What comes from elsewhere: a foreign page, a newer version, a wrong clock. */

const at = demoJourneys();

test('a page of another port changes nothing on this server, whatever it tries', async () => {
  const models = `${at.server.url}/api/models`;
  const before = (await request(models)).body;
  const catalogue = JSON.stringify({ format: 'cordel-catalogue', formatVersion: 1, models: [] });
  const foreign = createServer((_, response) => {
    response.setHeader('Content-Type', 'text/html');
    response.end(`<!doctype html><title>Foreign</title>
      <form method="post" enctype="text/plain" action="${models}/import"><input name='${catalogue.slice(0, -1)},"x":"' value='"}'></form>`);
  }).listen(0, '127.0.0.1');
  await once(foreign, 'listening');
  const { port } = foreign.address() as AddressInfo;
  // Beside a page of Cordel, as in a person's browser; what it is refused lands in its own console.
  const own = await at.open();
  await own.goto(at.demo.line);
  const page = await own.browserContext().newPage();
  await page.goto(`http://127.0.0.1:${port}/`);
  const restore = `${at.server.url}/api/projects/${at.demo.projectId}`;
  const answers = await page.evaluate(
    async (importing, project, body) => {
      const tries: [string, RequestInit][] = [
        [importing, { method: 'POST', body, mode: 'no-cors' }],
        [importing, { method: 'POST', body, mode: 'no-cors', headers: { 'Content-Type': 'text/plain' } }],
        [importing, { method: 'POST', body, headers: { 'Content-Type': 'application/json' } }],
        [`${project}/restore`, { method: 'POST', mode: 'no-cors' }],
        [project, { method: 'DELETE' }],
      ];
      const results = [];
      for (const [url, options] of tries)
        results.push(
          await fetch(url, options).then(
            (one) => one.type,
            () => 'refused',
          ),
        );
      return results;
    },
    `${models}/import`,
    restore,
    catalogue,
  );
  // A browser shows nothing of an answer to a page of another address; what counts is that nothing happened.
  expect(answers.every((one) => one === 'opaque' || one === 'refused')).toBe(true);
  const sent = page.waitForNavigation();
  await page.$eval('form', (form) => form.submit());
  expect((await sent)!.status()).toBe(403);
  expect((await request(models)).body).toEqual(before);
  expect((await request(restore)).status).toBe(200);
  foreign.close();
  await page.close();
  await own.close();
}, 60_000);

test('records of a newer Cordel are told where figures stand that do not count them', async () => {
  const fact = {
    v: 1,
    id: randomUUID(),
    kind: 'seal-test',
    madeAt: '2026-04-15T03:00:00.000Z',
    by: null,
    device: null,
    subject: { on: 'closure', closureId: at.demo.closureId },
    body: { held: true },
  };
  await request(`${at.server.url}/api/projects/${at.demo.projectId}/facts`, 'POST', { facts: [fact] });
  const page = await at.open();
  await page.goto(at.demo.closure);
  await see(page, 'One record here was written by a newer Cordel. Kept and passed on, but not counted');
  await see(page, '60 of 107 settled');
  await page.close();
}, 60_000);

test('a phone whose clock is two hours slow is told, and what it records carries the server’s time', async () => {
  const page = await at.open();
  await page.evaluateOnNewDocument(() => {
    const now = Date.now.bind(Date);
    Date.now = () => now() - 2 * 3600_000;
  });
  await page.goto(at.demo.bench(3, 6));
  await see(page, 'This device’s clock is 2 hours behind the server’s.');
  await press(page, padKey(2));
  await see(page, 'Slot 6 holds');
  await seeGone(page, /\d to send/);
  const url = `${at.server.url}/api/projects/${at.demo.projectId}/closures/${at.demo.closureId}/facts`;
  const made = (await everyFact<Fact>(url)).find(
    (one): one is Attempt => one.kind === 'attempt' && !one.body.simulated,
  )!;
  expect(Math.abs(Date.parse(made.madeAt) - Date.now())).toBeLessThan(5 * 60_000);
  expect(made.clockOff! / 3600_000).toBeCloseTo(2, 1);
  await page.close();
}, 60_000);

test('a reading that the server will not take counts in no sum, is told, and waits for the person', async () => {
  const page = await at.open();
  await page.goto(at.demo.bench(3, 6));
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  await refuseRecords(page, () => 'This closure was taken away.');
  await press(page, padKey(2));
  await see(page, '1 not taken by the server');
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  await press(page, /^1 not taken by the server/);
  await see(page, 'This closure was taken away.', 'front');
  // After a reload it still stands beside the sums, not in them.
  await page.goto(at.demo.bench(3, 6));
  await see(page, '1 not taken by the server');
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  await page.close();
}, 60_000);

test('with no room on the device what the server has is shown, a reading is refused in sight, and nothing is shown as recorded', async () => {
  // One that has room for nothing more from its first page on.
  const page = await at.open({ unused: true });
  const devtools = await page.createCDPSession();
  const { origin } = new URL(at.server.url);
  await devtools.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 1000 });
  await page.goto(at.demo.bench(3, 6));
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  await press(page, padKey(2));
  await see(page, 'Not recorded: this device has no room left.');
  await see(page, 'Tray 3 · slot 6', 'head');
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  // Somebody makes room.
  await devtools.send('Storage.overrideQuotaForOrigin', { origin });
  await press(page, padKey(3));
  await see(page, 'Slot 6 holds: 0.03 of 0.10 dB.');
  await seeGone(page, 'Not recorded');
  await page.close();
}, 60_000);
