import type { Attempt, Fact } from '@cordel/core';
import type { Page } from 'puppeteer-core';
import { everyFact } from '../server/test/process';
import { press, see, seeGone, type Size } from './support/browser';
import { demoJourneys } from './support/journeys';

/** The losses to think with: what stands in the charts is what was read. */

const at = demoJourneys({ each: false });

/** "0.02 dB: 43, expected 38" of a list under a chart, as numbers by what they are of. */
async function numbers(page: Page, list: string): Promise<Map<string, number>> {
  await press(page, `The numbers: ${list}`);
  const texts = await page.evaluate(
    (name) =>
      [...document.querySelectorAll<HTMLElement>(`[role=list][aria-label="${name}"] [role=listitem]`)].map(
        (item) => item.innerText,
      ),
    list,
  );
  await press(page, `Hide the numbers: ${list}`);
  return new Map(
    texts.map((text) => {
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

    await press(page, /^Tray 2, slot 19/);
    await see(page, 'Tray 2 · slot 19', 'head');
    await page.goBack();
    await see(page, 'The worst');
    await page.close();
  },
  120_000,
);
