import { mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { dataFolder, removeFolders, startServer } from '../server/test/process';
import { openBrowser, openPage, press, see, seeGone, type Light, type Size } from './support/browser';
import { attach } from './support/camera';
import { enteredByHand, read, table } from './support/nightLog';
import { nightsToCome } from './support/nightsToCome';
import { firstProject } from './support/shelf';

/** One picture of each main view, from the demo. The folder to write to is the first argument. */
async function main(folder: string): Promise<void> {
  mkdirSync(folder, { recursive: true });
  const server = await startServer(dataFolder('demo'));
  const demo = await firstProject(server);
  const school = await firstProject(server, 'U3');
  await nightsToCome(`${server.url}/api/projects/${demo.projectId}`, demo.definition);
  const views: [
    name: string,
    path: string,
    shows: string,
    size?: Size,
    light?: Light,
    then?: (page: Page) => Promise<void>,
  ][] = [
    ['line', demo.line, '60 of 107'],
    ['closure', demo.closure, '60 of 107 settled'],
    ['bench-redo-night', demo.bench(2, 19), 'Redo. Try 2 of 3', 'phone', 'night'],
    ['bench-wide', demo.bench(3, 6), 'Tray mean', 'wide'],
    ['plan-wide', `${demo.closure}/plan`, '107 splices', 'wide'],
    [
      'follow-night',
      `${demo.line}/follow?cable=${demo.cable('96 Moinho')}&fiber=75`,
      '4 splices',
      'phone',
      'night',
    ],
    ['prepare', `${school.closure}/prepare`, 'marks 9 of 17'],
    ['cut-sheet', `${school.closure}/prepare/${demo.cable('96 Mirante')}`, '9 of 17 made'],
    [
      'steps-night',
      `${school.closure}/prepare/${demo.cable('96 Mirante')}/steps`,
      '7 of 21 done',
      'phone',
      'night',
    ],
    [
      'seal-look',
      `${demo.closure}/seal/look`,
      '0 of 14 right',
      'phone',
      'day',
      async (page) => {
        await press(page, /^It is right/);
        await see(page, '1 of 14 right', 'head');
        await press(page, /^Not right/);
        await press(page, 'lid does not close');
        await see(page, 'Not right · lid does not close');
      },
    ],
    ['losses', `${demo.line}/losses/look`, 'Position 7 has the highest mean'],
    ['nights', `${demo.line}/nights`, 'Proven: there is no better plan.', 'wide'],
    ['ready', `${demo.line}/handover`, '46 splices are open.'],
    [
      'shelf',
      server.url,
      '156 of 287 splices',
      'phone',
      'day',
      async (page) => {
        await press(page, /^Take along/);
        await see(page, /Along: \d+ records/);
      },
    ],
    [
      'log',
      `${school.closure}/log`,
      'Nothing is recorded before you have looked at it.',
      'phone',
      'day',
      async (page) => {
        await enteredByHand(server);
        await page.reload();
        await attach(page, 'Log of a splicing machine', [table(read)], 'night.csv');
        await press(page, 'Read it so');
        await press(page, 'Compare with what is on record');
        await press(page, 'Differs 3');
      },
    ],
    [
      'seal-bubble-night',
      `${school.closure}/seal/test`,
      'Soap after pumping',
      'phone',
      'night',
      async (page) => {
        await press(page, /^Pumped to/);
        await press(page, /^No bubbles Opening 1/);
        await see(page, /round 1: 1 of/, 'head');
        await press(page, /^Bubbles: Opening 2/);
        await see(page, 'Look at the rest');
      },
    ],
    // Last, since it records a reading.
    [
      'bench',
      demo.bench(3, 6),
      'Tray mean',
      'phone',
      'day',
      async (page) => {
        await press(page, '0.03 dB');
        await see(page, 'holds:');
      },
    ],
    [
      'hands-free',
      `${demo.closure}/listen/3/16`,
      'No machine',
      'phone',
      'day',
      async (page) => {
        await press(page, 'Machine');
        await press(page, /single fibers.*in this page/);
        await press(page, 'Are mine: one key for each step', 'radio');
        await press(page, 'As fast as it goes', 'radio');
        await press(page, 'Close');
        await press(page, /^Lay in/);
        // What the machine sees of this pair may ask for another cleave first.
        for (let key = ''; !/^Take out/.test(key);) {
          const big = await page.waitForFunction(() =>
            [...document.querySelectorAll<HTMLElement>('[role=button]')]
              .map(({ innerText }) => innerText)
              .find((text) => /at the simulated machine/.test(text)),
          );
          key = (await big.jsonValue())!;
          if (/^Take out/.test(key)) break;
          await press(page, /^(Fuse|Recleave|Reseat)/);
          await seeGone(page, 'at the simulated machine');
        }
        await see(page, /Holds|Redo/);
      },
    ],
  ];
  const browser = await openBrowser();
  for (const [name, path, shows, size = 'phone', light = 'day', then] of views) {
    const { page } = await openPage(browser, { size, light });
    await page.goto(path, { waitUntil: 'networkidle0' });
    await see(page, shows);
    if (then) {
      await then(page);
      await page.waitForNetworkIdle();
    }
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: join(folder, `${name}.png`) as `${string}.png` });
    await page.browserContext().close();
  }
  await reportPicture(browser, demo, join(folder, 'report.png'));
  await browser.close();
  await server.stop();
  removeFolders();
}

/** Page one of the report of U1, drawn by pdf.js in the browser. */
async function reportPicture(
  browser: Browser,
  demo: Awaited<ReturnType<typeof firstProject>>,
  path: string,
): Promise<void> {
  const site = demo.definition.sites.find(({ name }) => name.startsWith('U1'))!;
  const closure = demo.definition.closures.find(({ siteId }) => siteId === site.id)!;
  const answer = await fetch(
    `${demo.line.replace('/p/', '/api/projects/')}/record/short?closure=${closure.id}`,
  );
  const pdf = Buffer.from(await answer.arrayBuffer()).toString('base64');
  const program = (name: string) =>
    `data:text/javascript;base64,${readFileSync(join(process.env.CORDEL_ROOT!, `node_modules/pdfjs-dist/legacy/build/${name}.mjs`)).toString('base64')}`;
  const page = await browser.newPage();
  await page.setViewport({ width: 640, height: 900 });
  await page.setContent('<body style="margin:0"><canvas></canvas></body>');
  await page.addScriptTag({
    type: 'module',
    content: `
      const { getDocument, GlobalWorkerOptions } = await import(${JSON.stringify(program('pdf'))});
      GlobalWorkerOptions.workerSrc = ${JSON.stringify(program('pdf.worker'))};
      const data = Uint8Array.from(atob(${JSON.stringify(pdf)}), (one) => one.charCodeAt(0));
      const first = await (await getDocument({ data }).promise).getPage(1);
      const viewport = first.getViewport({ scale: 1.07 });
      const canvas = document.querySelector('canvas');
      Object.assign(canvas, { width: viewport.width, height: viewport.height });
      await first.render({ canvasContext: canvas.getContext('2d'), viewport }).promise;
      document.title = 'drawn';`,
  });
  await page.waitForFunction(() => document.title === 'drawn');
  await (await page.$('canvas'))!.screenshot({ path: path as `${string}.png` });
  await page.close();
}

void main(process.argv[2]!);
