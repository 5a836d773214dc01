import type { AsBuilt } from '@cordel/core/asBuilt';
import { dataFolder, removeFolders, request, startServer } from '../../server/test/process';
import { openBrowser, openPage, press, see, seeGone } from '../support/browser';
import { setOffline } from '../support/network';
import { attach, makePhoto } from '../support/camera';
import { onDevice } from '../support/device';
import { firstProject } from '../support/shelf';
import { at, report } from './figures';

const count = 10;

/** Ten photos of 12 megapixels taken with no network, the page closed and opened again, and sent. */
export async function benchPhotos(): Promise<void> {
  const photos: Buffer[] = [];
  for (let n = 0; n < count; n += 1) photos.push(await makePhoto(4000, 3000, n));
  const server = await startServer(dataFolder('demo'));
  const { projectId, closure, closureId } = await firstProject(server, 'U1');
  const api = `${server.url}/api/projects/${projectId}`;
  const browser = await openBrowser();
  const { page } = await openPage(browser);
  await page.goto(`${closure}/seal/look`);
  await press(page, /^Tray 1/);
  const tray = { role: 'group', name: 'Tray 1' };
  await see(page, 'All fibers kept inside', tray);
  await onDevice(page);
  // What drawing one anew takes, and nothing else.
  const bare = await page.evaluate(async (text) => {
    const blob = new Blob([Uint8Array.from(atob(text), (one) => one.charCodeAt(0))]);
    const began = performance.now();
    const drawn = await createImageBitmap(blob);
    const canvas = document.createElement('canvas');
    canvas.width = 2560;
    canvas.height = 1920;
    canvas.getContext('2d')!.drawImage(drawn, 0, 0, 2560, 1920);
    await new Promise((done) => canvas.toBlob(done, 'image/jpeg', 0.85));
    return performance.now() - began;
  }, photos[0]!.toString('base64'));
  await setOffline(page, true);
  const kept: number[] = [];
  for (let n = 0; n < count; n += 1) {
    const began = performance.now();
    await attach(page, 'Photo of Tray 1', [photos[n]!]);
    await see(page, n === 0 ? '1 photo' : `${n + 1} photos`, tray);
    kept.push(performance.now() - began);
  }
  report(
    `A photo of 12 megapixels (${(photos[0]!.length / 1e6).toFixed(1)} MB) on the disk of the device with no network: median, worst (drawing it anew alone: ${bare.toFixed(0)} ms)`,
    `${at(0.5, kept).toFixed(0)} ms, ${at(1, kept).toFixed(0)} ms, ${(at(0.5, kept) / bare).toFixed(1)} ×`,
    'none lost',
  );
  await page.reload();
  await see(page, '10 to send', 'head');
  const began = performance.now();
  await setOffline(page, false);
  await seeGone(page, 'to send', 'head');
  const sent = performance.now() - began;
  const { photos: there } = (await request<AsBuilt>(`${api}/record/json?closure=${closureId}`)).body
    .closures[0]!;
  const different = new Set(there!.flatMap(({ picture }) => (picture ? [picture.sha256] : [])));
  // The same number of the same size by the shortest way.
  const small = Buffer.from(await (await fetch(`${api}/photos/${there![0]!.id}`)).arrayBuffer());
  const plain = performance.now();
  for (let n = 0; n < count; n += 1)
    await fetch(`${api}/photos/019d8ea6-0000-7000-8000-00000000000${n}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: small as never,
    });
  const direct = performance.now() - plain;
  report(
    `${count} of them sent after the page was opened anew: ${different.size} different ones are on the server (sent alone: ${(direct / 1000).toFixed(1)} s)`,
    `${(sent / 1000).toFixed(1)} s, ${(sent / direct).toFixed(1)} ×`,
    `${count} of ${count}`,
  );
  await browser.close();
  await server.stop();
  removeFolders();
}
