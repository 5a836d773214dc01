import { runsOf } from '@cordel/core';
import { newGear, type Machine } from '@cordel/core/gear';
import { randomUUID } from 'node:crypto';
import { build } from 'esbuild';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { makeAttempt, makeProject } from '../../server/test/makeProject';
import { dataFolder, removeFolders, request, startServer } from '../../server/test/process';
import { openBrowser, openPage, see } from '../support/browser';
import { makeRibbonProject } from '../support/ribbonProject';
import { at, report } from './figures';

const taps = 50;

/**
 * A machine that was calibrated a moment ago and is picked for the night, so that the bench counts, keeps the heater's clocks and watches every rule
 * while it is measured.
 */
async function withGear(url: string, projectId: string, closureId: string, page: Page): Promise<void> {
  const machine = newGear('machine', randomUUID(), 'Measured') as Machine;
  await request(`${url}/api/gear/${machine.id}`, 'PUT', machine);
  const gear = { id: machine.id, label: machine.label };
  const calibration = {
    v: 2,
    id: randomUUID(),
    kind: 'calibration',
    madeAt: new Date().toISOString(),
    by: null,
    device: null,
    subject: { on: 'gear', closureId, gearId: gear.id, label: gear.label },
    body: { passed: true, conditions: { temperature: 20, humidity: 50, pressure: 95 }, note: '' },
  };
  await request(`${url}/api/projects/${projectId}/facts`, 'POST', { facts: [calibration] });
  await page.evaluateOnNewDocument(
    (tonight) => localStorage.setItem('cordel.gear-tonight', JSON.stringify(tonight)),
    { pickedAt: Date.now(), machine: gear, program: 'Single mode', heater: '60 mm' },
  );
}

/**
 * From the tap on the pad to the painted verdict and next fiber, on a phone-sized page with the processor slowed four times, in a closure
 * of 864 splices of which half are spliced.
 */
export async function benchTap(): Promise<void> {
  const { definition, closureId, splices } = makeProject(72);
  const server = await startServer(dataFolder('empty'));
  const project = `${server.url}/api/projects`;
  await request(project, 'POST', definition);
  const facts = splices.slice(0, 432).map((splice, index) =>
    makeAttempt(closureId, splice, (index % 9) / 100, {
      madeAt: new Date(Date.now() - (432 - index) * 150_000).toISOString(),
    }),
  );
  await request(`${project}/${definition.project.id}/facts`, 'POST', { facts });

  const browser = await openBrowser();
  const { page } = await openPage(browser);
  await withGear(server.url, definition.project.id, closureId, page);
  const first = splices[432]!;
  await page.goto(`${server.url}/p/${definition.project.id}/c/${closureId}/t/${first.tray}/${first.slot}`);
  await see(page, `Tray ${first.tray} · slot ${first.slot}`);
  await page.emulateCPUThrottling(4);
  await watch(page);

  const durations: number[] = [];
  for (let index = 0; index < taps; index += 1) {
    const next = splices[433 + index]!;
    const key = await page.waitForSelector('[aria-label="0.03 dB"]');
    const painted = page.evaluate(
      (title) => window.paintedAfterTap(title),
      `Tray ${next.tray} · slot ${next.slot}`,
    );
    await key!.tap();
    durations.push(await painted);
  }
  const empty = await emptyTaps(browser);
  report(
    `Tap to painted verdict and next fiber, on the disk, 864 splices, 4 × slower (${taps} taps)`,
    beside(durations, empty),
    'median under 100 ms, worst under 250 ms',
  );
  await reportTaps(page, 'A single that holds: taps', durations.length, 'one');
  report('Smallest target at the bench', `${await smallestTarget(page)} px`, 'at least 56 px');
  await browser.close();
  await server.stop();
  removeFolders();
}

/** The same for ribbons of 12: from "the other 11 read so too" to the painted verdict and the next ribbon, in a closure of 72 ribbons. */
export async function benchRibbonTap(): Promise<void> {
  const { definition, closureId, ribbons } = makeRibbonProject(72);
  const server = await startServer(dataFolder('empty'));
  const project = `${server.url}/api/projects`;
  await request(project, 'POST', definition);
  // Nobody is asked how the ribbons lie: that is not what is measured.
  const facts = ribbons.map(({ left, right }) => ({
    v: 2,
    id: randomUUID(),
    kind: 'tick',
    madeAt: new Date().toISOString(),
    by: null,
    device: null,
    subject: { on: 'splice', closureId, left: runsOf(left), right: runsOf(right) },
    body: { what: 'polarity', state: 'done', answer: null, note: '' },
  }));
  await request(`${project}/${definition.project.id}/facts`, 'POST', { facts });

  const browser = await openBrowser();
  const { page } = await openPage(browser);
  await withGear(server.url, definition.project.id, closureId, page);
  const first = ribbons[0]!;
  await page.goto(`${server.url}/p/${definition.project.id}/c/${closureId}/t/${first.tray}/${first.slot}`);
  await see(page, 'fiber 1 of 12 in the ribbon');
  await page.emulateCPUThrottling(4);
  await watch(page);
  const durations: number[] = [];
  for (const next of ribbons.slice(1, 31)) {
    const key = await page.waitForSelector('[aria-label="0.02 dB"]');
    await key!.tap();
    await see(page, 'Fiber 1 of 12 reads 0.02.');
    const title = `Tray ${next.tray} · slot ${next.slot}`;
    const painted = page.evaluate((wanted) => window.paintedAfterTap(wanted), title);
    const same = await page.waitForSelector('::-p-aria(The other 11 read 0.02 too)');
    await same!.tap();
    durations.push(await painted);
  }
  report(
    `Tap to painted verdict and next ribbon, 72 ribbons of 12, 4 × slower (${durations.length} taps)`,
    beside(durations, await emptyTaps(browser)),
    'under 150 ms',
  );
  await reportTaps(page, 'A ribbon of 12 with equal readings: taps', durations.length, 'two');
  await browser.close();
  await server.stop();
  removeFolders();
}

/** "median 75 ms (3.1 × that of an empty page), worst 210 ms at tap 3" */
function beside(durations: readonly number[], empty: readonly number[]): string {
  const worst = Math.max(...durations);
  const [median, plain] = [at(0.5, durations), at(0.5, empty)];
  return `median ${median.toFixed(0)} ms (${(median / plain).toFixed(1)} × the ${plain.toFixed(0)} of an empty page), worst ${worst.toFixed(0)} ms at tap ${durations.indexOf(worst) + 1}`;
}

/** The same taps on a page that is nothing but React, a heading and a key: what this machine takes for any tap. */
export async function emptyTaps(browser: Browser): Promise<number[]> {
  const bundle = await build({
    stdin: {
      contents: `import { createElement as h, useState } from 'react';
        import { createRoot } from 'react-dom/client';
        const App = () => {
          const [count, setCount] = useState(0);
          return h('div', null,
            h('h1', { role: 'heading' }, 'Tap ' + count),
            h('p', { 'data-testid': 'last-verdict' }, 'holds'),
            h('button', { 'aria-label': 'key', style: { width: 300, height: 300 }, onClick: () => setCount(count + 1) }, 'key'));
        };
        createRoot(document.getElementById('root')).render(h(App));`,
      resolveDir: join(__dirname, '../../app'),
    },
    bundle: true,
    minify: true,
    write: false,
    format: 'iife',
    define: { 'process.env.NODE_ENV': '"production"' },
  });
  const { page } = await openPage(browser);
  await page.setContent('<div id="root"></div>');
  await page.addScriptTag({ content: bundle.outputFiles[0]!.text });
  await page.emulateCPUThrottling(4);
  await watch(page);
  const durations: number[] = [];
  for (let count = 1; count <= taps; count += 1) {
    const key = await page.waitForSelector('[aria-label="key"]');
    const painted = page.evaluate((title) => window.paintedAfterTap(title), `Tap ${count}`);
    await key!.tap();
    durations.push(await painted);
  }
  await page.close();
  return durations;
}

declare global {
  interface Window {
    /** Taps since the stopwatch was put in. */
    taps: number;
    /** Resolves with the ms from the next click on the page until a frame with this title and a verdict has been painted, and what was recorded is on the disk. */
    paintedAfterTap(title: string): Promise<number>;
  }
}

/** Puts the stopwatch into the page. */
async function watch(page: Page): Promise<void> {
  await page.evaluate(() => {
    window.taps = 0;
    let writes = 0;
    let onWritten = () => undefined as void;
    const { add } = IDBObjectStore.prototype;
    IDBObjectStore.prototype.add = function (...given) {
      if (this.name === 'entry') {
        writes += 1;
        this.transaction.addEventListener('complete', () => {
          writes -= 1;
          if (writes === 0) onWritten();
        });
      }
      return add.apply(this, given);
    };
    window.addEventListener('pointerup', () => (window.taps += 1), { capture: true });
    window.paintedAfterTap = (title) =>
      new Promise((done) => {
        let clicked = 0;
        const shown = () =>
          document.querySelector('[role="heading"]')?.textContent === title &&
          document.querySelector('[data-testid="last-verdict"]') !== null;
        // pointerup is the moment the finger leaves the key; the click follows it.
        window.addEventListener('pointerup', (event) => (clicked = event.timeStamp), {
          capture: true,
          once: true,
        });
        const frame = () => {
          if (clicked === 0 || !shown()) return void requestAnimationFrame(frame);
          // The message runs after the frame that this callback belongs to has been painted.
          const channel = new MessageChannel();
          channel.port1.onmessage = () => {
            onWritten = () => done(performance.now() - clicked);
            if (writes === 0) onWritten();
          };
          channel.port2.postMessage(null);
        };
        requestAnimationFrame(frame);
      });
  });
}

async function reportTaps(page: Page, what: string, splices: number, target: string): Promise<void> {
  const taps = await page.evaluate(() => window.taps);
  report(what, String(taps / splices), target);
}

/** The shorter side of the smallest thing that can be tapped, px. */
function smallestTarget(page: Page): Promise<number> {
  return page.evaluate(() =>
    Math.min(
      ...[...document.querySelectorAll('[role=button], [role=link], [role=radio], input')]
        .filter((element) => element.getClientRects().length > 0)
        .map((element) => element.getBoundingClientRect())
        .map(({ width, height }) => Math.round(Math.min(width, height))),
    ),
  );
}
