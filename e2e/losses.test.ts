import type { Attempt, Fact } from '@cordel/core';
import type { Page } from 'puppeteer-core';
import { everyFact } from '../server/test/process';
import { fill, press, see, seeGone, type Size } from './support/browser';
import { limitsKept } from './support/device';
import { demoJourneys } from './support/journeys';

/** The losses to think with: what stands in the charts is what was read. */

const at = demoJourneys({ each: false });

/** What stands in the list of a chart's numbers. */
async function texts(page: Page, list: string): Promise<string[]> {
  await press(page, `The numbers: ${list}`);
  await page.waitForSelector(`[role=list][aria-label="${list}"] [role=listitem]`);
  const found = await page.evaluate(
    (name) =>
      [...document.querySelectorAll<HTMLElement>(`[role=list][aria-label="${name}"] [role=listitem]`)].map(
        (item) => item.innerText,
      ),
    list,
  );
  await press(page, `Hide the numbers: ${list}`);
  return found;
}

/** "0.02 dB: 43, expected 38" as numbers by what they are of. */
async function numbers(page: Page, list: string): Promise<Map<string, number>> {
  return new Map(
    (await texts(page, list)).map((text) => {
      const [, what, value] = /^(.*): ([\d.]+)/.exec(text)!;
      return [what!, Number(value)];
    }),
  );
}

/** What reads in the tray now, by closure: of each splice its last try. */
async function read(): Promise<Map<string, number[]>> {
  const facts = await everyFact<Fact>(`${at.server.url}/api/projects/${at.demo.projectId}/facts`);
  const attempts = facts
    .filter((fact): fact is Attempt => fact.kind === 'attempt')
    .sort((a, b) => (a.madeAt < b.madeAt ? -1 : 1));
  const last = new Map(attempts.map((fact) => [JSON.stringify(fact.subject), fact]));
  const found = new Map<string, number[]>();
  for (const { subject, body } of last.values()) {
    const own = found.get(subject.closureId) ?? [];
    found.set(subject.closureId, [...own, ...body.readings.flatMap(({ loss }) => loss ?? [])]);
  }
  return found;
}

test.each<Size>(['phone', 'wide'])(
  'losses are looked at, chosen, and lead to the bench: %s',
  async (size) => {
    const page = await at.open({ size });
    await page.goto(`${at.demo.line}/losses`);
    await press(page, /^Look at the losses/);
    const losses = await read();
    const all = [...losses.values()].flat();
    const mean = (list: readonly number[]) =>
      (list.reduce((sum, loss) => sum + loss, 0) / list.length).toFixed(3);
    await see(page, `${all.length} fibers, mean ${mean(all)} dB`);
    const bins = await numbers(page, 'Fibers by loss');
    expect([...bins.values()].reduce((sum, count) => sum + count, 0)).toBe(all.length);
    expect(bins.get('0.03 dB')).toBe(all.filter((loss) => Math.round(loss * 100) === 3).length);
    expect(bins.get('0.14 dB')).toBe(all.filter((loss) => Math.round(loss * 100) === 14).length);

    // Every fiber in its place: the trays add up to the same, and those over are those of the record.
    const trays = await texts(page, 'Trays');
    const counts = trays.map((text) => /: (\d+) fibers, (\d+) over/.exec(text)).filter((one) => one !== null);
    expect(counts.reduce((sum, [, fibers]) => sum + Number(fibers), 0)).toBe(all.length);
    expect(trays.some((text) => /^U4 .*: none$/.test(text))).toBe(true);
    await see(page, /After the calibration of Single 1/);
    // Every try stands in the chart, those that were made again too, with what happened at the gear between.
    const tries = await texts(page, 'Tries in the order of time');
    const made = tries.filter((text) => / dB$/.test(text));
    await see(page, `${made.length} tries, `);
    expect(made.length).toBeGreaterThan(all.length - 8 * 11);
    expect(tries.some((text) => /: Single 1 calibrated at 21\s°C$/.test(text))).toBe(true);

    await see(page, 'Position 7 has the highest mean');
    const positions = await numbers(page, 'Mean of each position');
    expect(positions.get('Position 7')!).toBeGreaterThan(2 * positions.get('Position 6')!);
    await see(page, '1 splice is to be made again, none of them under a seal.');

    // One closure alone; its limit is then drawn, since all of it are single fibers.
    if (size === 'phone') await press(page, /^Choose what is looked at/);
    await press(page, /^U1 Ponte Velha · 96/, 'radio');
    if (size === 'phone') await press(page, 'Look at these');
    const u1 = losses.get(at.demo.closureAt('U1').split('/').at(-1)!)!;
    await see(page, `96 fibers, mean ${mean(u1)} dB`);
    await see(page, 'Dashed: the limit of 0.10 dB.');
    await seeGone(page, 'Ribbons by positions');

    // What is looked at stands in the address.
    await page.reload();
    await see(page, `96 fibers, mean ${mean(u1)} dB`);
    expect(page.url()).toMatch(/[?&]closure=/);

    await press(page, /^Tray 2, slot 19/);
    await see(page, 'Tray 2 · slot 19', 'head');
    await page.goBack();
    await see(page, 'The worst');
    await page.close();
  },
  120_000,
);

/** Changes whether the owner wants measured losses. */
async function wantMeasured(page: Page): Promise<void> {
  await press(page, /The owner wants measured losses/, 'checkbox');
  await press(page, 'Save and judge again');
  await limitsKept(page);
  await seeGone(page, 'to send', 'head');
}

test.each<Size>(['phone', 'wide'])(
  'a loss is measured where it deserves it, and counts when the owner wants it: %s',
  async (size) => {
    const page = await at.open({ size });
    const u1 = at.demo.closureAt('U1');
    await page.goto(`${at.demo.line}/losses/look`);
    // The likeliest to change what becomes of it is entered with both directions.
    await press(page, /^U1 Ponte Velha, tray 2, slot 23/);
    await see(page, 'Measured losses, tray 2', 'head');
    await see(page, 'Estimated 0.09 dB, limit 0.10 dB');
    await fill(page, 'From the left, 96 Moinho (dB)', '0.31');
    await see(page, 'One direction by OTDR gives no loss');
    await fill(page, 'From the right, 96 Ponte (dB)', '-0,03');
    await see(page, 'Measured: 0.14 dB');
    await press(page, 'Save, next fiber');
    await see(page, 'Slot 23 is recorded.');
    await see(page, '1 of 24 fibers measured');

    // By the estimate it holds; by the owner's wish it is over.
    await page.goto(`${u1}/t/2/23`);
    await press(page, /^Holds 0\.09 dB est\., 0\.14 meas\. · 1 try$/);
    await see(page, 'Measured 0.14 dB by OTDR at 1550 nm: 0.31 from the left, -0.03 from the right');
    await page.goto(`${at.demo.line}/limits`);
    await wantMeasured(page);
    await page.goto(`${u1}/t/2/23`);
    await see(page, 'measured 0.14 dB, over 0.10 dB.');

    // Taken back, the estimate counts again.
    await page.goto(`${u1}/measure/2?slot=23&fiber=1`);
    await press(page, 'Take it back');
    await see(page, '0 of 24 fibers measured');
    await page.goto(`${u1}/t/2/23`);
    await see(page, 'Holds 0.09 dB est. · 1 try');

    // What was measured is looked at by itself: twelve of tray 1.
    await page.goto(`${at.demo.line}/losses/look?of=measured`);
    await see(page, '12 fibers, mean');
    await page.goto(`${at.demo.line}/limits`);
    await wantMeasured(page);
    await page.close();
  },
  120_000,
);
