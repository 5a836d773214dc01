import type { Attempt, Fact } from '@cordel/core';
import { writeFileSync } from 'node:fs';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { makeProject } from '../../server/test/makeProject';
import { dataFolder, everyFact, removeFolders, request, startServer } from '../../server/test/process';
import { openBrowser, openPage, press, see, seeGone } from '../support/browser';
import { at, report } from './figures';
import { makeRibbonProject } from '../support/ribbonProject';
import { emptyTaps } from './tap';

declare global {
  interface Window {
    /** When a verdict was painted, ms since 1970, by what the board said. */
    verdicts: Map<string, number>;
  }
}

const ribbons = 6;

/** A reading of a ribbon of 12 comes from the machine: until its verdict is painted. */
async function benchVerdict(): Promise<void> {
  const { definition, closureId } = makeRibbonProject(ribbons);
  const server = await startServer(dataFolder('empty'));
  const project = definition.project;
  // Whatever comes holds: each verdict is then of another slot.
  const limits = { ...project.limits, ribbonFiberMax: 3, cleaveAngleMax: 8 };
  await request(`${server.url}/api/projects`, 'POST', { ...definition, project: { ...project, limits } });
  const browser = await openBrowser();
  const empty = await emptyTaps(browser);
  const { page } = await openPage(browser);
  await page.evaluateOnNewDocument(() => {
    window.verdicts = new Map();
    new MutationObserver(() => {
      const text = document.querySelector<HTMLElement>('[data-testid="far-board"]')?.innerText ?? '';
      const place = /Holds\s+(Tray \d+, slot \d+)/.exec(text)?.[1];
      if (!place || window.verdicts.has(place)) return;
      window.verdicts.set(place, Infinity);
      requestAnimationFrame(() => {
        const { port1, port2 } = new MessageChannel();
        port1.onmessage = () => window.verdicts.set(place, Date.now());
        port2.postMessage(null);
      });
    }).observe(document, { subtree: true, childList: true, characterData: true });
  });
  await page.goto(`${server.url}/p/${project.id}/c/${closureId}/listen/1/1`);
  await press(page, 'BL BL: blue left, blue right');
  await press(page, 'Machine');
  await press(page, /ribbons.*in this page/);
  await press(page, 'Close');
  await page.emulateCPUThrottling(4);
  for (let slot = 1; slot <= ribbons; slot += 1) {
    if (slot > 1) await press(page, 'BL BL: blue left, blue right');
    await page.waitForFunction(
      (place) => Number.isFinite(window.verdicts.get(place) ?? Infinity),
      { timeout: 60_000 },
      `Tray 1, slot ${slot}`,
    );
  }
  const painted = await page.evaluate(() => [...window.verdicts.values()]);
  await page.emulateCPUThrottling(1);
  await seeGone(page, 'to send', 'head');
  const facts = await everyFact<Fact>(`${server.url}/api/projects/${project.id}/facts`);
  const happened = facts
    .filter((fact): fact is Attempt => fact.kind === 'attempt')
    .map(({ body }) => Date.parse(body.origin!.at!))
    .sort((a, b) => a - b);
  const took = painted.map((time, index) => time - happened[index]!);
  const plain = at(0.5, empty);
  report(
    `A ribbon of 12 is read by the machine, until its verdict is painted, at 4 × slower (a tap on an empty page: ${plain.toFixed(0)} ms)`,
    `median ${at(0.5, took)} ms, ${(at(0.5, took) / plain).toFixed(1)} ×, worst ${at(1, took)} ms of ${took.length}`,
    'under 150 ms',
  );
  await browser.close();
  await server.stop();
}

const rows = 7008;

/** A log of some seven thousand lines: opened to its first rows, read, compared and stored. */
async function benchLog(): Promise<void> {
  const { definition, closureId } = makeProject(rows / 12);
  const server = await startServer(dataFolder('empty'));
  await request(`${server.url}/api/projects`, 'POST', definition);
  const folder = mkdtempSync(join(tmpdir(), 'cordel-log-'));
  const began = Date.UTC(2026, 3, 10, 1);
  const lines = Array.from({ length: rows }, (_, index) => {
    const [day, time] = new Date(began + index * 60_000).toISOString().slice(0, 19).split('T');
    return `${index + 1};${day};${time};0,0${index % 9};0,${index % 10};0,5;OK`;
  });
  const text = ['No.;Date;Time;Loss (dB);Angle L;Angle R;Proof test', ...lines, ''].join('\r\n');
  writeFileSync(join(folder, 'night.csv'), text);
  const browser = await openBrowser();
  const { page } = await openPage(browser);
  await page.goto(`${server.url}/p/${definition.project.id}/c/${closureId}/log`);
  await see(page, 'Nothing is recorded before you have looked at it.');
  const bare = await bareWork(page, text);
  const step = async (act: () => Promise<unknown>, seen: string | RegExp) => {
    const from = performance.now();
    await act();
    await see(page, seen);
    return performance.now() - from;
  };
  const preview = await step(async () => {
    const field = await page.$('input[type="file"]');
    await (field as NonNullable<typeof field> & { uploadFile(path: string): Promise<void> }).uploadFile(
      join(folder, 'night.csv'),
    );
  }, 'The first splice: 0.00 dB');
  const read = await step(() => press(page, 'Read it so'), `night.csv: ${rows} splices`);
  const compared = await step(() => press(page, 'Compare with what is on record'), `Fills a gap ${rows}`);
  const stored = await step(
    () => press(page, `Record ${rows} of ${rows}`),
    `${rows} records of the log are kept.`,
  );
  report(
    `A log of ${rows} lines, to its first rows (its cells parted in the page: ${bare.parted.toFixed(0)} ms)`,
    `${preview.toFixed(0)} ms, ${(preview / bare.parted).toFixed(1)} ×`,
    'under 1 s',
  );
  report('the same, read and compared', `${read.toFixed(0)} and ${compared.toFixed(0)} ms`, '–');
  report(
    `the same, stored on the device (as many bare objects in IndexedDB: ${bare.put.toFixed(0)} ms)`,
    `${(stored / 1000).toFixed(1)} s, ${(stored / bare.put).toFixed(1)} ×`,
    'under 5 s',
  );
  await browser.close();
  await server.stop();
  rmSync(folder, { recursive: true });
}

/** What parting the cells, and putting as many objects on the disk, takes the page alone. */
function bareWork(page: Page, text: string): Promise<{ parted: number; put: number }> {
  return page.evaluate(async (log) => {
    let from = performance.now();
    const cells = log.split('\r\n').map((line) => line.split(';'));
    const parted = performance.now() - from;
    const open = indexedDB.open('bare');
    open.onupgradeneeded = () => open.result.createObjectStore('bare');
    await new Promise((done) => (open.onsuccess = done));
    from = performance.now();
    const doing = open.result.transaction('bare', 'readwrite');
    cells.forEach((one, index) => doing.objectStore('bare').put({ one }, index));
    await new Promise((done) => (doing.oncomplete = done));
    return { parted, put: performance.now() - from };
  }, text);
}

export async function benchListen(): Promise<void> {
  await benchVerdict();
  await benchLog();
  removeFolders();
}
