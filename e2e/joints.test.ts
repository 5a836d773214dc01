import type { Page } from 'puppeteer-core';
import { fill, padKey, press, see, type Size } from './support/browser';
import { demoJourneys } from './support/journeys';
import { firstProject } from './support/shelf';

/** Splices that are more than two fibers and an arc: loose fibers made into ribbons, drops that end in connectors. */

const at = demoJourneys({ each: false });

const open = (size: Size) => at.open({ size });

async function save(page: Page): Promise<void> {
  await page.keyboard.down('Control');
  await page.keyboard.press('s');
  await page.keyboard.up('Control');
  await see(page, 'Saved');
}

test('loose fibers are counted and looked at before the adhesive, and then spliced as a ribbon', async () => {
  const page = await open('phone');
  const u4 = await firstProject(at.server, 'U4');
  await page.goto(`${u4.closure}/plan`);
  await see(page, 'Nothing is wrong with this order.');
  await fill(page, 'Order, one line for each assignment', 'A 1-12 > B 1-12 ribbonized');
  await see(page, /1 splices?, all with a slot/);
  await save(page);

  await page.goto(u4.closure);
  await press(page, /^Splice tray/);
  await see(page, '1 of 3 before the adhesive.');
  await fill(page, 'Counted', '11');
  await press(page, 'That is it');
  await see(page, 'This ribbon takes 12.');
  await press(page, 'Answer again');
  await fill(page, 'Counted', '12');
  await press(page, 'That is it');
  await answerColor(page, 'wrong');
  await press(page, 'Answer again');
  await answerColor(page, 'right');
  await see(page, '3 of 3 before the adhesive.');
  await answerColor(page, 'right');
  await see(page, /Glue .* into a ribbon/);
  await press(page, /^Adhesive on: clock 1:00/);
  await see(page, /Adhesive dries, .*: (1:00|0:5\d)/);
  await press(page, 'It is a ribbon now');

  // The other side is loose too.
  await see(page, 'on the right: 1 of 3 before the adhesive.');
  await fill(page, 'Counted', '12');
  await press(page, 'That is it');
  await see(page, 'on the right: 2 of 3');
  await answerColor(page, 'right');
  await see(page, 'on the right: 3 of 3');
  await answerColor(page, 'right');
  await press(page, 'It is a ribbon now');
  await see(page, 'which colors lie at the hinge, left and right?');
  await press(page, 'BL BL: blue left, blue right');
  await press(page, padKey(3));
  await press(page, 'The other 11 read 0.03 too');
  await see(page, 'holds: 0.03 of 0.12 dB.');
  await page.close();
}, 120_000);

/** The twelve colors of the code in order (TIA-598-D). */
const code = 'BL OR GR BR SL WH RD BK YL VI RS AQ'.split(' ');

/** Looks which place is asked for, and answers with its color or with that of its neighbor. */
async function answerColor(page: Page, how: 'right' | 'wrong'): Promise<void> {
  await see(page, /which color lies at place \d+/);
  const place = await page.evaluate(() => Number(/at place (\d+)/.exec(document.body.innerText)![1]));
  const right = code[place - 1]!;
  await press(page, new RegExp(`^${how === 'right' ? right : code[place % 12]!} `));
  if (how === 'wrong') await see(page, `${right} belongs at place ${place}.`);
}

test('a drop that ends in a mechanical connector is judged by light, with its own steps and no sleeve', async () => {
  const page = await open('wide');
  const t1 = await firstProject(at.server, 'T1');
  await page.goto(`${t1.closure}/plan`);
  await see(page, 'Nothing is wrong with this order.');
  await press(page, /Drop Hall/, 'button');
  await press(page, 'A mechanical connector', 'radio');
  await press(page, 'Close');
  await press(page, /Drop Library/, 'button');
  await press(page, 'A fused connector', 'radio');
  await press(page, 'Close');
  await save(page);

  const splice = t1.definition.closures.find((one) => one.id === t1.closureId)!;
  expect(splice.entries.some((entry) => entry.ending !== undefined)).toBe(false);
  await page.goto(t1.bench(1, 1));
  await see(page, 'mechanical connector');
  await press(page, 'Details');
  await press(page, 'Hand steps');
  await see(page, 'Drop Hall, fiber 1');
  await press(page, 'Done: Take the right fiber');
  await see(page, 'Coating back');
  await press(page, 'Close');
  await see(page, 'Never look into a fiber end.');
  await press(page, 'It glows');
  await see(page, 'Light shows at the joint: the fiber is not seated. Cleave a new end and seat it again.');
  await press(page, 'Stays dark');
  await see(page, 'Slot 1 holds: it stays dark.');
  await page.close();
}, 120_000);

test('a fused connector wears its own short sleeve and asks for its parts', async () => {
  const page = await open('phone');
  const t1 = await firstProject(at.server, 'T1');
  const library = t1.cable('Drop Library');
  const tray = t1.definition.closures.find((one) => one.id === t1.closureId)!;
  expect(tray.entries.find((entry) => entry.cableId === library)?.ending).toBe('fusion-connector');
  await page.goto(t1.bench(1, 3));
  await see(page, 'fused connector, connector sleeve, 27 mm');
  await press(page, 'Details');
  await press(page, 'Hand steps');
  await press(page, 'Done: Take the right fiber');
  await see(page, 'How many parts that go on first are still on the table?');
  await fill(page, 'On the table', '1');
  await press(page, 'That is it');
  await see(page, 'Put them on now; afterwards it means cutting.');
  await press(page, 'Answer again');
  await fill(page, 'On the table', '0');
  await press(page, 'That is it');
  // Between its parts and its heat stands what the hands do at this very fiber.
  await press(page, /^3\s*Cleave/);
  await see(page, '10, 16, 18 or 20 mm are in use');
  await see(page, 'Start the clock: 0:20');
  await page.close();
}, 120_000);

test('what the hands do at a splice is told with its own numbers, a line each, and the rest with a tap', async () => {
  const page = await open('phone');
  const u2 = await firstProject(at.server, 'U2');
  await page.goto(u2.closure);
  await press(page, /^Splice tray/);
  await see(page, /strip 38 mm.*60 mm sleeve|strip 1‑1\/2 in.*60 mm sleeve/);
  await press(page, 'Details');
  await press(page, 'Hand steps');
  await see(page, /tray \d, slot \d+/);
  await press(page, /^8\s*Heat/);
  await see(page, 'Sleeve centered over the joint');
  await press(page, /^Start the clock: 0:35/);
  await press(page, 'Close');
  // The clock runs on every page.
  await see(page, /Heater: 0:3\d/);
  await page.close();
}, 120_000);
