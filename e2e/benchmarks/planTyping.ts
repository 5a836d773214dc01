import { dataFolder, removeFolders, request, startServer } from '../../server/test/process';
import { makeProject } from '../../server/test/makeProject';
import { openBrowser, openPage, press, see } from '../support/browser';
import { at, report } from './figures';

declare global {
  interface Window {
    longFrames: number[];
    frameTimes: number[];
  }
}

/** The plan of 6 912 fibers in the browser: the longest time the main thread is kept while it is opened, and while an order of 200 lines is typed. */
export async function benchPlanTyping(): Promise<void> {
  const { definition } = makeProject(576);
  const server = await startServer(dataFolder('empty'));
  await request(`${server.url}/api/projects`, 'POST', definition);
  const browser = await openBrowser();
  const { page } = await openPage(browser, { size: 'wide' });
  await page.evaluateOnNewDocument(() => {
    window.longFrames = [];
    // Tasks over 50 ms are what the browser itself calls long.
    new PerformanceObserver((list) =>
      list.getEntries().forEach((entry) => window.longFrames.push(entry.duration)),
    ).observe({ type: 'longtask', buffered: true });
  });
  await page.goto(`${server.url}/p/${definition.project.id}`, { waitUntil: 'networkidle0' });
  await page.evaluate(() => (window.longFrames.length = 0));
  await press(page, /^Joint/);
  await press(page, 'Plan');
  await see(page, '6912 splices, all with a slot');
  const opened = await page.evaluate(() => window.longFrames.splice(0));

  const lines = Array.from({ length: 200 }, (_, index) => {
    const range = `${index * 34 + 1}-${index * 34 + 34}`;
    return `A ${range} > B ${range}`;
  });
  const box = 'textarea[aria-label^="Order"]';
  await page.focus(box);
  await page.evaluate((selector) => document.querySelector<HTMLTextAreaElement>(selector)!.select(), box);
  await page.keyboard.press('Backspace');
  // Pasted but for its last lines, which are typed letter by letter.
  await page.evaluate(
    (pasted) => document.execCommand('insertText', false, pasted),
    lines.slice(0, 195).join('\n'),
  );
  await see(page, '6630 splices, all with a slot');
  await page.evaluate(() => {
    window.longFrames.length = 0;
    window.frameTimes = [];
    let before = performance.now();
    const frame = (now: number) => {
      window.frameTimes.push(now - before);
      before = now;
      requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });
  await page.keyboard.type(`\n${lines.slice(195).join('\n')}`, { delay: 30 });
  await see(page, '6800 splices, all with a slot');
  const { long, frames } = await page.evaluate(() => ({
    long: window.longFrames,
    frames: window.frameTimes,
  }));
  await browser.close();
  await server.stop();
  removeFolders();
  report(
    'Open the closure of 6 912 fibers and its plan: tasks over 50 ms on the main thread',
    opened.length === 0 ? 'none' : `${opened.length}, longest ${Math.max(...opened).toFixed(0)} ms`,
    'none',
  );
  report(
    'Type the last lines of 200 into it: frames',
    `95 % ${at(0.95, frames).toFixed(0)} ms, longest ${Math.max(...frames).toFixed(0)} ms, ${long.length} long tasks`,
    'no frame over 50 ms',
  );
}
