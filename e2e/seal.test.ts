import type { Page } from 'puppeteer-core';
import { fill, press, see, seeGone, type Size } from './support/browser';
import { setOffline } from './support/network';
import { onDevice } from './support/device';
import { demoJourneys } from './support/journeys';

/** Sealing: looked at, tightened, closed, tested with a bubble and without, held under pressure, opened again. */

const at = demoJourneys({ site: 'T1' });

/** Answers every point of the page with yes, and goes on to the next stage. */
async function allRight(page: Page, total: number, next: RegExp): Promise<void> {
  for (let done = 1; done <= total; done += 1) {
    await press(page, /^It is right/);
    await see(page, `${done} of ${total} right`, 'head');
  }
  await press(page, next);
}

async function tighten(page: Page, total: number): Promise<void> {
  for (let done = 1; done <= total; done += 1) {
    await press(page, /^Tight: opening/);
    await see(page, `${done} of ${total} tight`, 'head');
  }
}

async function lookedAndClosed(size: Size): Promise<Page> {
  const page = await at.open({ size });
  await page.goto(`${at.demo.closure}/seal/look`);
  await see(page, '0 of 13 right', 'head');
  await allRight(page, 13, /^Next: Tighten/);
  await see(page, '0 of 5 tight', 'head');
  await tighten(page, 5);
  await press(page, /^Next: Close/);
  await see(page, 'Lid closed evenly');
  await allRight(page, 1, /^Next: Flash test/);
  await see(page, 'not made yet', 'head');
  return page;
}

test('the whole way to the seal, on a phone with no network: a bubble, the causes, set anew, tested again', async () => {
  const page = await at.open({ size: 'phone' });
  await page.goto(at.demo.closure);
  await press(page, 'Seal');
  await see(page, 'Final look: 13 not looked at yet.');
  await press(page, /^Next: Final look/);
  // Made from what is in it: eight sleeves, the drops with their parts, the plugs of the rest.
  await see(page, 'All fibers kept inside, 8 sleeves seated', { role: 'group', name: 'Tray 1' });
  await onDevice(page);
  await setOffline(page, true);
  await press(page, /^Not right/);
  await press(page, 'lid does not close');
  await see(page, 'Not right · lid does not close', { role: 'group', name: 'Tray 1' });
  await page.reload();
  await see(page, 'Not right · lid does not close', { role: 'group', name: 'Tray 1' });
  // What nobody looked at comes first; then what was not right.
  for (let done = 1; done <= 12; done += 1) {
    await press(page, /^It is right/);
    await see(page, `${done} of 13 right`, 'head');
  }
  await press(page, /^It is right now/);
  await see(page, '13 of 13 right', 'head');
  await press(page, /^Next: Tighten/);
  await press(page, /Opening 4, Drop: .*, open$/);
  await see(page, /Not yet: the next is Opening \d+, /);
  await tighten(page, 5);
  await press(page, /^Next: Close/);
  await allRight(page, 1, /^Next: Flash test/);

  await fill(page, 'Pressure (kPa)', '40');
  await see(page, 'Never above 34.5');
  await seeGone(page, 'Pumped to');
  await fill(page, 'Pressure (kPa)', '27,6');
  await press(page, /^Pumped to 27.6/);
  await see(page, 'round 1: 0 of 16 looked at', 'head');
  // Said on every screen of the closure, also after the browser was closed.
  await page.goto(at.demo.closure);
  await see(page, /27.6.kPa in this closure since/);
  await page.goto(at.demo.bench(1, 1));
  await see(page, /27.6.kPa in this closure since/);
  await press(page, 'Let it out');
  await press(page, /Opening 3, Drop: .*, not looked at$/);
  await press(page, /^Bubbles: Opening 3, Drop/);
  await see(page, 'Opening 3, Drop: B Drop Hall bubbles', { role: 'group', name: 'Seals' });
  await press(page, 'No bubbles at the other 15');
  await press(page, 'Out, cap still off');
  await see(page, 'The pressure is out. Now the cap of the valve.');
  await press(page, 'Cap is back on the valve');
  const leak = { role: 'group', name: 'Bubbles: Opening 3, Drop: B Drop Hall' };
  await see(page, /Drop Hall is 4.mm, by its data: measure it; “Drop grommet” takes 2.mm to 8.5.mm/, leak);
  await see(page, 'Look at clamp and clamp tail', leak);
  await press(page, /^Set anew/);
  await press(page, /^Pumped to 27.6/);
  await see(page, 'round 2: 0 of 16 looked at', 'head');
  await press(page, 'No bubbles at the other 16');
  await press(page, 'Pressure out, cap back on');
  await see(page, /No bubbles at 16 seals, 27.6.kPa/);
  await see(page, 'set anew: Opening 3, Drop: B Drop Hall', { role: 'group', name: 'Rounds' });
  await press(page, /^Next: After the test/);
  await allRight(page, 3, /^Sealed: to the stages/);
  await see(page, 'Sealed: every point is right');
  await setOffline(page, false);
  await seeGone(page, 'to send', 'head');
  await page.reload();
  await see(page, 'Sealed: every point is right');
  // It is opened again, with a reason: all of it is to be done anew, and the rounds stay.
  await press(page, 'Opened again');
  await press(page, 'another reason', 'radio');
  await press(page, 'Record that it was opened');
  await see(page, 'Say why it was opened.');
  await fill(page, 'Note', 'water in the handhole');
  await press(page, 'Record that it was opened');
  await see(page, 'another reason, water in the handhole');
  await see(page, 'Final look: 13 not looked at yet.');
  await page.close();
}, 180_000);

test('a holding test on a wide screen: warmer or colder is reckoned in, and a gauge over the stop is let out', async () => {
  const page = await lookedAndClosed('wide');
  await page.goto(`${at.demo.closure}/seal/hold`);
  await fill(page, 'Gauge (kPa)', '36');
  await fill(page, 'Temperature in it (°C)', '20');
  await fill(page, 'or height above the sea (m)', '0');
  await fill(page, 'May lose (kPa)', '2');
  await press(page, /^Begin the test/);
  await see(page, 'Never more than 34.5 kPa (5 psi). Let it out first.');
  await fill(page, 'Gauge (kPa)', '30');
  // The sun on it: 34.5 are reached at 30 °C (135.825 / 131.325 × 293.15 K by hand).
  await see(page, /reaches 34.5.kPa at 30 °C/);
  await press(page, /^Begin the test/);
  await see(page, /30.kPa in this closure since/);
  await fill(page, 'Gauge (kPa)', '25.5');
  await fill(page, 'Temperature in it (°C)', '10');
  await press(page, /^Store this reading/);
  const test = { role: 'group', name: 'Test' };
  await see(page, 'Cannot tell, wait until', test);
  await see(page, /283\.15 \/ 293\.15 − 101\.33 = 25\.52 kPa/, test);
  await fill(page, 'Gauge (kPa)', '35.2');
  await fill(page, 'Temperature in it (°C)', '31');
  await press(page, /^Store this reading/);
  await see(page, /35.2.kPa are above the stop/, test);
  await press(page, 'Pressure out, cap back on');
  await seeGone(page, 'in this closure since');
  await page.close();
}, 120_000);
