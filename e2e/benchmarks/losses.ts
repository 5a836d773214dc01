import type { Browser } from 'puppeteer-core';
import { makeAttempt, makeProject } from '../../server/test/makeProject';
import { dataFolder, removeFolders, request, startServer } from '../../server/test/process';
import { openBrowser, openPage, see } from '../support/browser';
import { at, report } from './figures';

const times = 5;

/** The page to look at the losses of 7 000 splices, on a phone-sized page with the processor slowed four times: from the tap to the painted page, a choice, and what keeps the main thread while it is panned. */
export async function benchLosses(): Promise<void> {
  const server = await startServer(dataFolder('empty'));
  const api = `${server.url}/api/projects`;
  const filled = async (tubes: number) => {
    const { definition, closureId, splices } = makeProject(tubes, `${tubes * 12} fibers`);
    await request(api, 'POST', definition);
    const began = Date.now() - splices.length * 150_000;
    const facts = splices.map((splice, index) =>
      makeAttempt(closureId, splice, ((index * 37) % 11) / 100, {
        madeAt: new Date(began + index * 150_000).toISOString(),
        by: index % 200 < 120 ? 'Iara' : 'Davi',
      }),
    );
    for (let start = 0; start < facts.length; start += 500)
      await request(`${api}/${definition.project.id}/facts`, 'POST', {
        facts: facts.slice(start, start + 500),
      });
    return { id: definition.project.id, fibers: splices.length };
  };
  const [small, large] = [await filled(1), await filled(584)];
  const browser = await openBrowser();
  const plain = await opened(browser, server.url, small);
  const own = await opened(browser, server.url, large);
  const beside = (of: 'drawn' | 'seen' | 'whole') =>
    `${at(0.5, own[of]).toFixed(0)} ms (12 fibers: ${at(0.5, plain[of]).toFixed(0)})`;
  report(
    `Losses of ${large.fibers} splices: tap to first chart, 4 × slower`,
    beside('drawn'),
    'under 300 ms',
  );
  report('The same, to every fiber in its place: what is in sight', beside('seen'), 'under 300 ms');
  report('The same, to the chart in time', beside('whole'), 'under 300 ms');
  report(
    'Tasks over 50 ms while it is panned from end to end',
    own.long.length === 0 ? 'none' : `${own.long.length}, longest ${Math.max(...own.long).toFixed(0)} ms`,
    'none',
  );
  await browser.close();
  await server.stop();
  removeFolders();
}

async function opened(
  browser: Browser,
  url: string,
  { id, fibers }: { id: string; fibers: number },
): Promise<{ drawn: number[]; seen: number[]; whole: number[]; long: number[] }> {
  const { page } = await openPage(browser);
  const drawn: number[] = [];
  const seen: number[] = [];
  const whole: number[] = [];
  await page.goto(`${url}/p/${id}/losses`);
  await see(page, `${fibers} of ${fibers}`);
  await page.emulateCPUThrottling(4);
  for (let time = 0; time < times; time += 1) {
    const result = await page.evaluate(async () => {
      const key = [...document.querySelectorAll<HTMLElement>('[role=button]')].find((one) =>
        one.innerText.startsWith('Look at the losses'),
      )!;
      const began = performance.now();
      const painted = (text: string) =>
        new Promise<number>((done) => {
          const look = () =>
            document.body.innerText.includes(text)
              ? requestAnimationFrame(() => setTimeout(() => done(performance.now() - began)))
              : requestAnimationFrame(look);
          look();
        });
      key.click();
      const first = await painted('Bars: fibers by loss');
      const second = await painted('One row a tray');
      return { first, second, last: await painted('Circles: single fibers') };
    });
    drawn.push(result.first);
    seen.push(result.second);
    whole.push(result.last);
    if (time < times - 1) {
      await page.goBack();
      await see(page, `${fibers} of ${fibers}`);
    }
  }
  const long = await page.evaluate(async () => {
    const found: number[] = [];
    const observer = new PerformanceObserver((list) =>
      list.getEntries().forEach((entry) => found.push(entry.duration)),
    );
    observer.observe({ type: 'longtask' });
    const pane = [...document.querySelectorAll('div')].find(
      (one) => one.scrollHeight > one.clientHeight + 50 && getComputedStyle(one).overflowY !== 'visible',
    )!;
    for (let top = 0; top < pane.scrollHeight; top += 120) {
      pane.scrollTop = top;
      await new Promise((done) => requestAnimationFrame(done));
    }
    await new Promise((done) => setTimeout(done, 200));
    observer.disconnect();
    return found;
  });
  await page.close();
  return { drawn, seen, whole, long };
}
