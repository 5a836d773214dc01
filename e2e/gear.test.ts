import type { Page } from 'puppeteer-core';
import { fill, padKey, press, see, seeGone, type Size } from './support/browser';
import { demoJourneys } from './support/journeys';

/** Gear: picked once a night, standing on every splice, and asking when it is due. */

const at = demoJourneys();

/** A device on which nobody said yet with which gear the night is made. */
const device = (size: Size = 'phone') => at.open({ size, askForGear: true });

async function pick(page: Page, ...labels: string[]): Promise<void> {
  await see(page, 'Which gear tonight?');
  for (const label of labels) await press(page, label, 'radio');
  await press(page, 'These tonight');
}

test('a calibration that is due is asked for until it passes, and the gear stands on the splices after it', async () => {
  const page = await device();
  await page.goto(at.demo.bench(3, 6));
  await pick(page, 'Single 1', 'Cleaver A');
  await see(page, 'Arc calibration is due · Single 1');
  await see(page, 'A new session: no splice for 8 h or more before it, and not calibrated since.');
  await see(page, 'With single-mode fiber on both sides.');
  await fill(page, 'Temperature (°C)', 'mild');
  await see(page, 'Give a number, or leave it empty.');
  await fill(page, 'Temperature (°C)', '11,5');
  await press(page, 'It failed');
  await see(page, 'It failed once. Prepare new ends on both sides (strip, clean, cleave) and try again.');
  await press(page, 'It failed');
  await see(page, 'It failed 2 times.');
  await press(page, 'It passed');
  await press(page, padKey(2));
  await see(page, 'Slot 6 holds: 0.02 of 0.10 dB.');

  // Picked for the night: not asked for again.
  await page.waitForFunction(() => location.pathname.endsWith('/3/7'));
  await page.reload();
  await see(page, 'Tray 3 · slot 7');
  await press(page, padKey(3));
  await see(page, 'Slot 7 holds: 0.03 of 0.10 dB.');
  await page.goto(at.demo.bench(3, 6));
  await press(page, 'History, correct');
  await see(page, 'Single 1, Cleaver A · program “Single mode” · heater “60 mm”');
  // The machine's own page tells every try with its weather.
  await page.goto(`${at.server.url}/gear`);
  await press(page, /^Single 1/);
  await see(page, /Calibration passed, try 3 · 11\.5 °C · 82 %/);
  await see(page, /Calibration failed, try 1/);
  await page.close();
}, 120_000);

test('splicing on without a calibration stays possible and goes on record with the splices made meanwhile', async () => {
  const page = await device('wide');
  await page.goto(at.demo.bench(3, 6));
  await pick(page, 'Single 1');
  await press(page, /^Splice on without it/);
  await press(page, /\.02 dB$/);
  await see(page, 'Slot 6 holds: 0.02 of 0.10 dB.');
  await press(page, /slot 6, /);
  await press(page, 'History, correct');
  await see(page, 'without the calibration that was due');
  await page.goto(`${at.server.url}/gear`);
  await see(page, /Single 1 calibrated .* Calibration due: A new session/);
  await page.close();
}, 120_000);

test('a program that does not fit is told on the card, and switched with one tap', async () => {
  const page = await device();
  await page.goto(at.demo.bench(3, 6));
  await pick(page, 'Ribbon 1');
  await press(page, 'It passed');
  await see(page, 'Tap what the machine reads.');
  await page.goto(at.demo.bench(5, 10));
  await see(page, 'The heater is on “60 mm”, and this splice wears a ribbon sleeve, 40 mm.');
  await press(page, 'Switched to “Ribbon”');
  await seeGone(page, 'The heater is on');
  await page.close();
}, 120_000);

test('a piece of gear is made, and its own rule asks for the blade', async () => {
  const page = await device();
  await page.goto(`${at.server.url}/gear`);
  await press(page, 'Add a cleaver');
  await see(page, 'New cleaver');
  await press(page, 'Put it on the list');
  await see(page, /Not saved yet: /);
  await fill(page, 'Label', 'Cleaver B');
  await fill(page, 'A position is due after (fibers)', 'two');
  await see(page, 'Give a whole number.');
  await fill(page, 'A position is due after (fibers)', '2');
  await press(page, 'Put it on the list');
  await see(page, /Cleaver B position 1 of 16 · 0 fibers cleaved on it/);

  await page.goto(at.demo.bench(3, 6));
  await see(page, 'Which gear tonight?');
  // No machine on record: only the cleaver is watched.
  await press(page, 'None', 'radio');
  await press(page, 'Cleaver B', 'radio');
  await press(page, 'These tonight');
  await press(page, padKey(2));
  await see(page, 'The blade is due · Cleaver B');
  await press(page, 'Turned to position 2');
  await press(page, padKey(2));
  await see(page, 'Slot 7 holds');
  await see(page, 'The blade is due · Cleaver B');
  await press(page, /^Splice on without it/);
  await press(page, padKey(2));
  await see(page, 'Slot 8 holds');
  await seeGone(page, /\d to send/);
  await page.goto(`${at.server.url}/gear`);
  await see(page, /Cleaver B position 2 of 16 · 4 fibers cleaved on it/);

  await press(page, /^Cleaver B/);
  await press(page, 'Take it off the list');
  await press(page, 'Take Cleaver B off');
  await see(page, 'Cleaver R');
  await seeGone(page, 'Cleaver B');
  await page.close();
}, 120_000);

test('new electrodes, the machine’s own counter and the weather are noted from the bench', async () => {
  const page = await device('wide');
  await page.goto(at.demo.bench(3, 6));
  await pick(page, 'Single 1');
  await press(page, 'It passed');
  await press(page, 'Details');
  await press(page, 'Gear tonight');
  await fill(page, 'Arcs, as the machine’s own counter shows', '3900');
  await press(page, 'Note it: Arcs, as the machine’s own counter shows');
  await see(page, '3 900 arcs noted.');
  await see(page, '3 900 arcs on the electrodes');
  await press(page, 'Electrodes replaced');
  await see(page, '0 arcs on the electrodes');
  await see(page, /Calibration due: .*lectrodes/);
  await press(page, 'Close');
  await see(page, 'Arc calibration is due · Single 1');
  await press(page, 'It passed');
  await press(page, 'Details');
  await press(page, 'Gear tonight');
  await fill(page, 'Temperature (°C)', '35');
  await press(page, 'Note the weather as it is now');
  await see(page, 'Weather noted.');
  await page.close();
}, 120_000);

test('ends that are cleaved again before the arc wear the blade, and what was seen of the old ones is gone', async () => {
  const page = await device();
  await page.goto(at.demo.bench(3, 6));
  await pick(page, 'Single 1', 'Cleaver A');
  await press(page, 'It passed');
  await press(page, 'Before arc');
  // From 0.5° by tenths: over the project's 1°.
  for (let step = 0; step < 7; step += 1) await press(page, 'More, Cleave left');
  await press(page, 'More, Cleave right');
  await press(page, 'Recleaved left');
  await see(page, '0.5°');
  await seeGone(page, '1.1°');
  await press(page, 'Back to the pad');
  await press(page, padKey(2));
  await see(page, 'Slot 6 holds: 0.02 of 0.10 dB.');
  // The gear's page tells what the server knows.
  await seeGone(page, 'to send', 'head');
  await page.goto(`${at.server.url}/gear`);
  await press(page, /^Cleaver A/);
  await see(page, 'Cleaved again before the arc: 1 end');
  await page.close();
}, 120_000);
