import type { Page } from 'puppeteer-core';
import type { ProjectDefinition } from '@cordel/core';
import { request } from '../server/test/process';
import { fill, press, see, seeGone, type Size } from './support/browser';
import { demoJourneys } from './support/journeys';

/** Journeys through the preparation of closure U3 of the demo: lists, seals, cut sheet, steps, time. */

const at = demoJourneys({ site: 'U3' });

async function open(size: Size, path: string): Promise<Page> {
  const page = await at.open({ size });
  await page.goto(path);
  return page;
}

const prepare = (path = '') => `${at.demo.closure}/prepare${path}`;

test.each<[Size]>([['phone'], ['wide']])(
  'marks are made in their order, taken back, looked at, and are still made after a reload (%s)',
  async (size) => {
    const page = await open(size, prepare());
    await see(page, 'marks 9 of 17, steps 7 of 21');
    await press(page, 'Cut sheet for 96 Mirante');
    await see(page, '9 of 17 made');
    await press(page, /^Done: 10 · Cut the strength member/);
    await see(page, '10 of 17 made');
    await press(page, 'Take back: Cut the strength member');
    await see(page, '9 of 17 made');
    await press(page, /^Done: 10 · Cut the strength member/);
    await press(page, /^14 · Cut tube 7 RD/);
    const aside = size === 'wide' ? 'ledger' : 'front';
    await see(page, 'Both sides are spliced, so it is cut in the middle and both stubs are alike.', aside);
    await see(page, 'Cannot be taken back. Count the tubes again', aside);
    await press(page, 'Made: Cut tube 7 RD');
    if (size === 'phone') await press(page, 'Close');
    await see(page, '11 of 17 made');
    await see(page, /Enough for \d+ redos of 35.mm/, aside);
    await page.reload();
    await see(page, '11 of 17 made');
    await page.close();
  },
  60_000,
);

test('a wrong count stops the step until it is counted again, or somebody says why', async () => {
  const page = await open('phone', prepare(`/${at.demo.cable('96 Mirante')}/steps`));
  // Tubes and fillers are counted before anything is cut, each for itself.
  await press(page, /^Count the fillers/);
  await see(page, 'a filler is solid and does not give between two fingers');
  await press(page, /^Count the tubes/);
  await see(page, 'answered 8');
  await press(page, 'Not done after all: Count the tubes');
  await see(page, 'How many tubes does the cable have?');
  await fill(page, 'Counted', 'eight');
  await press(page, 'That is it');
  await see(page, 'Give the number that you counted, in digits.');
  await fill(page, 'Counted', '10');
  await press(page, 'That is it');
  await see(page, '10 is not what the plan expects');
  await see(page, 'The plan has 8. Count again without the fillers.');
  await press(page, 'Answer again');
  await fill(page, 'Counted', '8');
  await press(page, 'That is it');
  await see(page, 'answered 8');
  await press(page, 'Done: Strength member');
  // Into the closure, before its tubes are touched.
  for (const step of [
    'Seals round the cable',
    'Bring it to its mark',
    'Clamp the sheath',
    'Strength member into its bracket',
    'Aramid on the stud',
    'Wrap, then tie',
  ])
    await press(page, `Done: ${step}`);
  await press(page, 'Done: Degrease tubes and hands');
  await press(page, 'Done: Pick out the tubes to be opened');
  await see(page, 'Which color has tube 7?');
  await press(page, 'BL blue');
  await see(page, 'BL is not what the plan expects');
  await fill(page, 'Why it is right to go on all the same', 'color faded, counted twice');
  await press(page, 'Go on all the same');
  await see(page, 'answered BL, which is wrong · color faded, counted twice');
  await page.reload();
  await see(page, 'answered BL, which is wrong · color faded, counted twice');
  await page.close();
}, 60_000);

test('a clock runs on when the screen is left, and over a reload', async () => {
  const page = await open('phone', `${at.demo.closureAt('T1')}/prepare/${at.demo.cable('Drop Hall')}/steps`);
  await press(page, 'A fused connector');
  await press(page, /^Heat\b/);
  await press(page, /^Start the clock: 0:20/);
  await see(page, /Heater: 0:(20|1\d)/);
  await press(page, 'Up to preparing');
  await see(page, 'Prepare · T1 Escola');
  await see(page, /Heater: 0:(20|1\d)/);
  // The clock of the device is moved on; the page is loaded again, as after a crash.
  await page.evaluateOnNewDocument(() => {
    const { now } = Date;
    Date.now = () => now() + 60_000;
  });
  await page.reload();
  // The closure is there: until then a page that loads stands in for it.
  await see(page, 'Prepare · T1 Escola');
  await see(page, 'Heater: done');
  await press(page, 'Put away the clock: Heater');
  await seeGone(page, 'Heater');
  await page.close();
}, 60_000);

test('lists are looked at, what is missing says what it stops, cautions are asked', async () => {
  const page = await open('wide', prepare());
  await see(page, 'Missing: Soap solution, bottle (stops the flash test).');
  await press(page, 'Check the lists');
  await see(page, 'Gas collects in a handhole too');
  await press(page, 'Missing: Ring cutter');
  await see(page, 'Ring cutter: stops the ring cut.');
  await press(page, /^✓ Test the air: seen to|^Test the air: seen to/, 'checkbox');
  await see(page, 'One caution is open');
  await page.close();
}, 60_000);

test('a thickness by tape, a wrong unit and a wrong cable are told, the parts follow', async () => {
  const page = await open('phone', prepare('/seals'));
  await see(page, /12.4.mm across, measured/);
  await press(page, 'A tape, around', 'radio');
  await fill(page, 'C, around (mm)', '32');
  await see(page, /10.19.mm across/);
  await press(page, 'Measured: C, 24 Escola');
  await see(page, /10.19.mm across, measured/);
  await see(page, 'Seal M');
  await press(page, 'A caliper, across', 'radio');
  await fill(page, 'C, across (mm)', '0');
  await press(page, 'Measured: C, 24 Escola');
  await see(page, '“0” is not a thickness.');
  await fill(page, 'C, across (mm)', '0.4');
  await press(page, 'Measured: C, 24 Escola');
  await see(page, 'was probably given in mm, meant in inches');
  await press(page, 'Take back: the thickness of 24 Escola');
  await see(page, /10.2.mm across, by the cable’s data/);
  // 96 Mirante: 112 at U2 and 1 836 here.
  await see(
    page,
    /U2 Curva do Rio to U3 Escola: 1.724.m of cable, 1.758.m of fiber; the plan has 1.690.m of route/,
  );
  await fill(page, 'A, printed at the cut (m)', '1112');
  await press(page, 'Read: the number on 96 Mirante');
  await see(page, /The sheath numbers give 1.000.m of cable, and the plan has 1.690.m of route/);
  await page.close();
}, 60_000);

test('the closure’s own table is edited, and the cut sheet follows; inches that nobody touched stay as they are', async () => {
  const page = await open('phone', `${at.demo.closure}/table`);
  await fill(page, 'Sheath opening (mm)', '64');
  await fill(page, 'Strength member left (mm)', '8 in');
  await press(page, 'Save the table');
  await see(page, 'was probably given in mm, meant in inches');
  await page.goto(`${at.demo.closure}/table`);
  await fill(page, 'Sheath opening (mm)', 'far');
  await press(page, 'Save the table');
  await see(page, 'Give the sheath opening as a number.');
  await fill(page, 'Sheath opening (mm)', '120 in');
  await press(page, 'Save the table');
  await see(page, 'Prepare · U3 Escola');
  await press(page, 'Cut sheet for 96 Mirante');
  await see(page, /made before the plan or the closure’s table changed, at another measure/);
  await page.goto(`${at.demo.closure}/table`);
  await page.waitForFunction(
    () => document.querySelector<HTMLInputElement>('[aria-label="Sheath opening (mm)"]')?.value === '3048',
  );
  await page.waitForFunction(
    () =>
      document.querySelector<HTMLInputElement>('[aria-label="Strength member left (mm)"]')?.value === '203.2',
  );
  await page.close();
}, 60_000);

test('a project in inches is measured in inches, and a table that nobody touched stays as it was', async () => {
  const { project } = at.demo.definition;
  const address = `${at.server.url}/api/projects/${project.id}`;
  const { version, name, limits, window } = project;
  const settings = { version, name, limits, window, units: 'in' };
  expect((await request(`${address}/settings`, 'PUT', settings)).status).toBe(200);
  const before = (await request<ProjectDefinition>(address)).body;
  const page = await open('phone', prepare(`/${at.demo.cable('24 Escola')}`));
  await see(page, 'Measured from the cable end.');
  await see(page, /64.in/);
  await press(page, /Cut the strength member/);
  await see(page, /56.in from the cable end/);
  await see(page, /8.in stay for the bracket/);
  await press(page, 'Close');
  await press(page, 'The closure’s table');
  await page.waitForFunction(
    () => document.querySelector<HTMLInputElement>('[aria-label="Strength member left (in)"]')?.value === '8',
  );
  await press(page, 'Save the table');
  await see(page, 'Prepare · U3 Escola');
  const after = (await request<ProjectDefinition>(address)).body;
  const closureOf = (definition: ProjectDefinition) =>
    definition.closures.find((one) => one.id === at.demo.closureId)!;
  expect(closureOf(after)).toEqual({ ...closureOf(before), version: closureOf(before).version + 1 });
  await page.close();
}, 60_000);

test('the time says its arithmetic, the end against the window, and follows a time that is changed', async () => {
  const page = await open('wide', `${at.demo.line}/time`);
  await see(page, /after the window closes at|spare: the window closes at/);
  await press(page, 'U3 Escola', 'radio');
  await see(page, '24 single splices');
  await see(page, 'as measured here');
  await press(page, 'Times to reckon with');
  await fill(page, 'Seal the closure (min)', 'soon');
  await see(page, 'Minutes from 0 to 600.');
  await fill(page, 'Seal the closure (min)', '100');
  await press(page, 'Reckon with these');
  await see(page, '1 h 40 min');
  await page.close();
}, 60_000);

test('packed once is packed for everybody: a tick in the kit shows in the lists', async () => {
  const page = await open('phone', `${at.demo.line}/kit?closure=${at.demo.closure.split('/c/')[1]}`);
  await see(page, 'Kit · U3 Escola');
  await press(page, /Soap solution, bottle/, 'checkbox');
  await page.goto(prepare());
  await see(page, 'everything looked at');
  await seeGone(page, 'Missing:');
  await page.close();
}, 60_000);

test('traffic in a tube that would be cut stops cut sheet and steps until somebody answers for it; a window cuts nothing live', async () => {
  const page = await open('phone', `${at.demo.closureAt('M1')}/prepare`);
  const sheet = `${at.demo.closureAt('M1')}/prepare/${at.demo.cable('48 Vila')}`;
  await page.goto(sheet);
  await see(page, 'express, by window');
  await see(page, /open a window/);
  // Let in as an express cable, the whole tube is cut, and the clinic with it.
  await page.goto(`${at.demo.closureAt('M1')}/plan`);
  await see(page, '4 splices, all with a slot.');
  await press(page, /^A 48 Vila/);
  await press(page, 'Express', 'radio');
  await press(page, 'Close');
  await see(page, 'Fibers 29–36 carry Clinic in tube 3 of A, and it is cut whole for the 4 fibers');
  await press(page, 'Save the plan');
  await see(page, 'Saved');

  await page.goto(sheet);
  await see(page, /Fibers 29–36 carry Clinic in what is cut, Tube 3 GR: an outage\./);
  await see(page, /Cut whole: 8 live fibers cut, .* By a window: no live fiber cut/);
  await press(page, /· Cut tube 3 GR/);
  await see(page, 'Not before the circuit is down. The steps ask for it.');
  await page.waitForSelector('[aria-label="Made: Cut tube 3 GR"][aria-disabled="true"]');
  await press(page, 'Close');
  await press(page, 'Steps');
  await press(page, /^Cut the tubes/);
  await see(page, 'First: Live fibers in what is cut.');
  await press(page, /^Live fibers in what is cut/);
  await see(page, 'How many of the circuits still carry traffic?');
  await fill(page, 'Still carrying', '1');
  await press(page, 'That is it');
  await see(page, 'Do not cut. Let the cable in by a window');
  await press(page, 'Answer again');
  await fill(page, 'Still carrying', '0');
  await press(page, 'That is it');
  await see(page, 'answered 0');
  await page.goto(sheet);
  await press(page, /· Cut tube 3 GR/);
  await press(page, 'Made: Cut tube 3 GR');
  await press(page, 'Close');
  await see(page, '1 of ');
  await page.close();
}, 90_000);
