import type { Page } from 'puppeteer-core';
import { fill, padKey, patience, press, see, seeGone } from './support/browser';
import { demoJourneys } from './support/journeys';
import { firstProject } from './support/shelf';

/** Journeys of a technician at the bench, on a phone, against the real server and the demo. */

const at = demoJourneys();
let page: Page;
beforeEach(async () => {
  page = await at.open();
});

const sent = () => seeGone(page, /\d to send/);

test('from the shelf to the bench, and a tray recorded by tapping', async () => {
  await page.goto(at.server.url);
  await press(page, /^Vale do Umbu ring/);
  await press(page, /^U2 Curva do Rio/);
  await see(page, '60 of 107 settled');
  await press(page, 'Splice tray 3, slot 6');
  await see(page, 'Tray 3 · slot 6');
  await see(page, '54 · 6 WH');

  for (let slot = 6; slot <= 24; slot += 1) {
    await see(page, `Tray 3 · slot ${slot}`);
    await press(page, padKey(slot % 5));
    await see(page, `Slot ${slot} holds: 0.0${slot % 5} of 0.10 dB.`);
  }
  // The tray is full: the bench goes on to the next tray by itself.
  await see(page, 'Tray 4 · slot 1');
  await sent();
  await page.goto(at.demo.closure);
  await see(page, '79 of 107 settled');
  await press(page, /^Tray 3 24 of 24/);
  await see(page, 'nothing left to splice');
}, 120_000);

test('over the limit asks for a redo, counts tries, and becomes the owner’s call', async () => {
  await page.goto(at.demo.bench(3, 6));
  const enter = async (digits: string) => {
    await press(page, '0.10 dB or more');
    for (const digit of digits) await press(page, digit);
    await press(page, `Enter 0.${digits} dB`);
  };
  await enter('14');
  await see(page, 'Redo. Try 2 of 3');
  await see(page, '0.14 dB is over 0.10 dB.');
  await enter('13');
  await see(page, 'Redo. Try 3 of 3');
  await enter('12');
  await see(page, 'All 3 tries are used.');
  await press(page, 'Owner allows it');
  await see(page, 'Slot 6 is allowed.');
  await press(page, 'Next to splice');
  await see(page, 'Tray 3 · slot 7');
}, 120_000);

test('a sleeve that was forgotten makes a redo of a splice that held', async () => {
  await page.goto(at.demo.bench(3, 6));
  await press(page, 'Sleeve on?');
  await see(page, 'sleeve on');
  await press(page, padKey(2));
  await see(page, 'Slot 6 holds: 0.02 of 0.10 dB.');
  // Asked anew at the next one.
  await see(page, 'Sleeve on?');
  await page.goto(at.demo.bench(3, 6));
  await press(page, 'Sleeve forgotten');
  await see(page, 'Redo. Try 2 of 3');
  await see(page, 'The sleeve was forgotten. Cut it out, sleeve on first, and splice again.');
  await see(page, /slack for \d+/);
  await press(page, padKey(3));
  await see(page, 'Slot 6 holds: 0.03 of 0.10 dB.');
}, 120_000);

test('an absurd reading is refused at the pad with its reason', async () => {
  await page.goto(at.demo.bench(3, 6));
  await press(page, '0.10 dB or more');
  await press(page, 'Delete');
  await press(page, '1');
  await press(page, '4');
  await see(page, 'A reading over 10 dB is not a splice.');
  await press(page, 'Cancel');
  await see(page, 'Tray 3 · slot 6');
}, 120_000);

test('cleave angles before the arc, a failed proof test, a note', async () => {
  await page.goto(at.demo.bench(3, 6));
  await press(page, 'Before arc');
  await see(page, 'Cleaves, offset and gap were not looked at yet.');
  await press(page, 'More, Cleave left');
  for (let step = 0; step < 8; step += 1) await press(page, 'More, Cleave left');
  await see(page, 'Recleave left: 1.3°, over the project’s 1.0°.');
  for (let step = 0; step < 6; step += 1) await press(page, 'Less, Cleave left');
  await see(page, 'Fuse: what was looked at is within the limits.');
  await press(page, 'More, Axis offset');
  await press(page, 'Back to the pad');
  await press(page, 'Details');
  await fill(page, 'Note', 'gusts');
  await press(page, 'Proof test failed');
  await press(page, 'Back to the pad');
  await see(page, 'left 0.7° · proof test failed · note added');
  await press(page, padKey(2));
  await see(page, 'The proof test failed. Splice again whatever the loss reads.');
  await press(page, /^Redo 0\.02 dB/);
  await see(page, 'Try 1: 0.02 dB, left 0.7°, offset 0.5 μm · proof test failed');
  await press(page, 'Close');
  await press(page, padKey(2));
  await see(page, 'Tray 3 · slot 7');
}, 120_000);

test('an entry is taken back at once, and corrected later', async () => {
  await page.goto(at.demo.bench(3, 6));
  await press(page, padKey(9));
  await see(page, 'Tray 3 · slot 7');
  await press(page, 'Take back');
  await see(page, 'Tray 3 · slot 6');
  await see(page, 'the reading is taken back');
  await press(page, padKey(4));
  await see(page, 'Tray 3 · slot 7');

  await press(page, /slot 6, /);
  await press(page, 'History, correct');
  await see(page, 'Try 1: 0.04 dB');
  await press(page, 'Correct this reading');
  await fill(page, 'Loss (dB)', '99');
  await press(page, 'Correct');
  await see(page, 'A reading over 10 dB is not a splice.');
  await fill(page, 'Loss (dB)', '0,05');
  await fill(page, 'Why it is corrected', 'misread');
  await press(page, 'Correct');
  await see(page, 'Slot 6 holds: 0.05 of 0.10 dB.');
  await sent();
  await page.reload();
  await press(page, 'History, correct');
  await see(page, 'Corrected to 0.05 dB');
  await see(page, 'Taken back');
  await press(page, 'Correct this reading');
  await press(page, 'Proof test failed');
  await fill(page, 'Loss (dB)', '');
  await fill(page, 'Why it is corrected', 'broke at the pull');
  await press(page, 'Correct');
  await see(page, 'Slot 6, redo. The proof test failed.');
}, 120_000);

test('nothing waits for the network: verdicts go on, survive a reload, and are sent when the server is back', async () => {
  await page.goto(at.demo.bench(3, 6));
  await see(page, 'Tray 3 · slot 6');
  await at.kill();
  for (let slot = 6; slot <= 9; slot += 1) {
    await press(page, padKey(3));
    await see(page, `Slot ${slot} holds`);
  }
  await see(page, '4 to send');
  await at.startAgain();
  await page.reload();
  await see(page, 'Tray 3 · slot 10');
  await sent();
  await see(page, 'U2 Curva do Rio · 64 of 107');
  expect((await firstProject(at.server)).rollUp.settled).toBe(64);
}, 120_000);

test('every screen opens with no network, also after a reload: the application is on the device', async () => {
  const page = await at.open({ unused: true });
  await page.goto(at.demo.bench(3, 6));
  await see(page, 'Tray mean');
  // It keeps itself once the first screen stands, and takes over the open page.
  await page.waitForFunction(() => navigator.serviceWorker.controller?.state === 'activated', {
    timeout: patience,
  });
  await at.kill();
  // The bench with everything on it is one piece, and a page that was never opened is there too.
  await press(page, 'Details');
  await see(page, 'Order of work');
  await page.goto(`${at.server.url}/gear/new?kind=cleaver`);
  await see(page, 'Cleave length');
  // A project that was never opened on this device is not on it, and that is said.
  await page.goto(`${at.server.url}/p/01900000-0000-7000-8000-00000000ffff`);
  await see(page, 'The server does not answer. What you enter is kept on this device.');
  const missing = await page.evaluate(async () => {
    const kept = new Set(
      (await Promise.all((await caches.keys()).map(async (name) => (await caches.open(name)).keys())))
        .flat()
        .map(({ url }) => new URL(url).pathname),
    );
    return ['/index.html', '/plan.worker.js', '/manifest.webmanifest'].filter((path) => !kept.has(path));
  });
  expect(missing).toEqual([]);
}, 120_000);
