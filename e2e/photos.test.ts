import type { AsBuilt } from '@cordel/core/asBuilt';
import sharp from 'sharp';
import { dataFolder, request, startServer } from '../server/test/process';
import { openPage, press, see, seeGone, fill, openBrowser } from './support/browser';
import { setOffline } from './support/network';
import { attach, makePhoto } from './support/camera';
import { onDevice } from './support/device';
import { demoJourneys } from './support/journeys';
import { savedBy } from './support/saved';

/** Photos of the seal, and the whole shelf as a file. */

const at = demoJourneys({ site: 'U1' });
const api = () => `${at.server.url}/api/projects/${at.demo.projectId}`;
const photosOnServer = async () =>
  (await request<AsBuilt>(`${api()}/record/json?closure=${at.demo.closureId}`)).body.closures[0]!.photos!;

test('on a phone with no network a photo is taken, described, shown after the page died, and sent when there is one', async () => {
  const page = await at.open({ size: 'phone' });
  await page.goto(`${at.demo.closure}/seal/look`);
  await press(page, /^Tray 1/);
  const tray = { role: 'group', name: 'Tray 1' };
  await see(page, 'All fibers kept inside', tray);
  await onDevice(page);
  await setOffline(page, true);
  await attach(page, 'Photo of Tray 1', [await makePhoto(3200, 2400)]);
  await see(page, '1 photo', tray);
  await see(page, '1 to send', 'head');
  // What is no picture is told, and the others are kept.
  await attach(page, 'Photos of Tray 1', ['<svg onload="alert(1)"/>', await makePhoto(400, 300, 1)]);
  await see(page, /IMG_0.jpg: This is no picture that can be read here/, tray);
  await see(page, '2 photos', tray);
  await press(page, /^Photo 1 of 2/);
  await fill(page, 'What it shows', 'sleeves seated 🧰');
  await press(page, 'Keep these words');
  await see(page, 'not on the server yet');
  await press(page, 'Close');
  await page.reload();
  await press(page, /^Tray 1/);
  await press(page, 'Photo 1 of 2, sleeves seated 🧰');
  // It is drawn, and not just named.
  await page.waitForFunction(() =>
    [...document.querySelectorAll<HTMLImageElement>('[aria-modal] img')].some(
      (one) => one.naturalWidth === 2560,
    ),
  );
  await press(page, 'Close');
  await setOffline(page, false);
  await seeGone(page, 'to send', 'head');
  const [first, second] = await photosOnServer();
  expect([first!.caption, first!.picture, second!.picture?.width]).toEqual([
    'sleeves seated 🧰',
    expect.objectContaining({ width: 2560, height: 1920 }),
    400,
  ]);
  const kept = Buffer.from(await (await fetch(`${api()}/photos/${first!.id}`)).arrayBuffer());
  expect((await sharp(kept).metadata()).exif).toBeUndefined();
  // Out of the record, and back.
  await press(page, /^Photo 2 of 2/);
  await press(page, 'Take out of the record');
  await see(page, 'The photo is out of the record.');
  await seeGone(page, 'to send', 'head');
  expect(await photosOnServer()).toHaveLength(1);
  await press(page, 'Put it back');
  await see(page, '2 photos', tray);
  await page.close();
}, 120_000);

test('on a wide screen the photos of all points stand together, those of another device too', async () => {
  const phone = await at.open({ size: 'phone' });
  await phone.goto(`${at.demo.closure}/seal/after`);
  await press(phone, /^Tag written and on/);
  await attach(phone, 'Photo of Tag written and on', [await makePhoto(800, 600)]);
  await see(phone, '1 photo', { role: 'group', name: 'Tag written and on' });
  await seeGone(phone, 'to send', 'head');
  // Of any of the openings too, not only of the one that was tightened last.
  await phone.goto(`${at.demo.closure}/seal/tighten`);
  await press(phone, /^2\. Opening 5/);
  await attach(phone, 'Photos of Opening 5, Round: A 96 Moinho', [await makePhoto(700, 500)]);
  await see(phone, '2. Opening 5, Round: A 96 Moinho, tight, 1 photo', { role: 'group', name: 'Order' });
  await seeGone(phone, 'to send', 'head');
  await phone.close();
  const page = await at.open({ size: 'wide' });
  await page.goto(`${at.demo.closure}/seal/stages`);
  await see(page, 'Tag written and on', { role: 'group', name: 'Photos: the closure' });
  await page.waitForFunction(() =>
    [...document.querySelectorAll<HTMLImageElement>('[aria-label="Photos: the closure"] img')].some(
      (one) => one.naturalWidth === 800,
    ),
  );
  await attach(page, 'Photos of the closure', [await makePhoto(900, 600)]);
  await see(page, 'The closure', { role: 'group', name: 'Photos: the closure' });
  await page.close();
}, 120_000);

test('one key writes the whole shelf, and an empty Cordel reads it', async () => {
  const page = await at.open({ size: 'wide' });
  await page.goto(at.server.url);
  await press(page, 'Backup of the whole shelf');
  await see(page, 'there is something on this shelf', { role: 'group', name: 'Read' });
  const { name, bytes } = await savedBy(page, () => press(page, 'Write a backup'));
  expect(name).toMatch(/^Cordel \d{4}-\d\d-\d\d \d\d.\d\d UTC.cordel-backup$/);
  await see(page, 'Keep it where it outlives this machine.');
  await page.close();

  const other = await startServer(dataFolder('empty'));
  const browser = await openBrowser();
  try {
    const { page: phone, troubles } = await openPage(browser, { size: 'phone' });
    await phone.goto(`${other.url}/backup`);
    await attach(phone, 'Backup file', [bytes.subarray(0, bytes.length / 2)]);
    await see(phone, 'This file is no whole backup of Cordel');
    await attach(phone, 'Backup file', [bytes]);
    await see(phone, /1 project is here now, \d+ rows, counted and whole/);
    await press(phone, 'To the shelf');
    await see(phone, at.demo.definition.project.name);
    expect(troubles).toEqual([]);
  } finally {
    await browser.close();
    await other.stop();
  }
}, 120_000);
