import type { Fact } from '@cordel/core';
import { everyFact } from '../server/test/process';
import { fill, press, see, seeGone } from './support/browser';
import { demoJourneys } from './support/journeys';

/** Numbers in the person's own decimal sign: on the screen, never in what is kept. */

const at = demoJourneys();

test('with a comma chosen, numbers are shown and typed with it, and stored as the same numbers', async () => {
  const page = await at.open({ size: 'wide' });
  await page.goto(at.server.url);
  await press(page, /^Preferences/);
  await press(page, '0,05', 'radio');
  await page.goto(at.demo.bench(3, 6));
  await see(page, 'U2 Curva do Rio · 60 of 107', 'head');
  const before = (await everyFact<Fact>(`${at.server.url}/api/projects/${at.demo.projectId}/facts`)).length;
  await press(page, /^2 ,02 dB$/);
  await see(page, 'Slot 6 holds: 0,02 of 0,10 dB.');
  // By the keys of a keyboard, with the comma.
  for (const key of [',', '0', '3', '5', 'Enter']) await page.keyboard.press(key as 'Enter');
  await see(page, 'Slot 7 holds: 0,035 of 0,10 dB.');
  await seeGone(page, 'to send', 'head');
  const facts = await everyFact<Fact>(`${at.server.url}/api/projects/${at.demo.projectId}/facts`);
  const losses = facts
    .slice(before)
    .flatMap((fact) => (fact.kind === 'attempt' ? fact.body.readings.map(({ loss }) => loss) : []));
  expect(losses).toEqual([0.02, 0.035]);
  await page.goto(`${at.demo.line}/limits`);
  const field = 'Single splice, at most (dB)';
  const value = () =>
    page.$eval(`input[aria-label="${field}"]`, (input) => (input as HTMLInputElement).value);
  await see(page, 'Save and judge again');
  expect(await value()).toBe('0,10');
  await fill(page, field, '0,12');
  await press(page, 'Save and judge again');
  await seeGone(page, 'to send', 'head');
  await page.goto(at.demo.bench(3, 8));
  await see(page, 'Tray mean');
  await page.goto(`${at.demo.line}/limits`);
  await see(page, 'Save and judge again');
  expect(await value()).toBe('0,12');
  // Back to the point.
  await page.goto(at.server.url);
  await press(page, /^Preferences/);
  await press(page, '0.05', 'radio');
  await page.goto(`${at.demo.line}/limits`);
  await see(page, 'Save and judge again');
  expect(await value()).toBe('0.12');
  await page.close();
}, 90_000);
