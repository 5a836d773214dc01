import type { ProjectDefinition } from '@cordel/core';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fill, press, see } from './support/browser';
import { demoJourneys } from './support/journeys';
import { savedBy } from './support/saved';
import { firstProject } from './support/shelf';

/** Journeys of planning: a route made by hand, an order typed, picked and taken in, a fiber followed, a kit packed. */

const at = demoJourneys({ each: false });
let folder: string;
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'cordel-files-'))));
afterAll(() => rmSync(folder, { recursive: true }));

const orderBox = 'Order, one line for each assignment';
const planOf = async (site: string) => {
  const demo = await firstProject(at.server, site);
  return { ...demo, plan: `${demo.closure}/plan` };
};
const stored = async (site: string) => {
  const { definition, closureId } = await planOf(site);
  return definition.closures.find((closure) => closure.id === closureId)!;
};

test('the order is checked while it is typed, completed, undone, and saved', async () => {
  const page = await at.open();
  const { plan } = await planOf('U4');
  await page.goto(plan);
  await see(page, '48 splices, all with a slot. Nothing is wrong with this order.');
  await fill(page, orderBox, 'A 1-48 > B 1-47');
  await see(page, 'Order line 1 joins 48 fibers to 47. Give both sides the same number.');
  await fill(page, orderBox, 'A 1-48 B 1-48');
  await see(page, 'Line 1, character 8');
  await see(page, 'Expected ">", and found "B".');
  await fill(page, orderBox, 'A 1-48 > B 1-48\nA 49-60 > B 1-12');
  await see(page, '48 Ladeira fibers 1–12 are used twice, in order lines 1 and 2. Take them out of one.');
  await fill(page, orderBox, 'A 1-24 > B ');
  await press(page, '1-24 the same numbers');
  await see(page, '24 splices, all with a slot.');
  await see(page, 'B 48 Ladeira: 25–48 stay dark');
  // By the key, as a wide screen's user would.
  await page.keyboard.down('Control');
  await page.keyboard.press('s');
  await page.keyboard.up('Control');
  await see(page, 'Saved');
  expect((await stored('U4')).order).toMatchObject([
    { left: { from: 1, to: 24 }, right: { from: 1, to: 24 } },
  ]);

  await fill(page, orderBox, 'A 1-12 > B 1-12');
  await see(page, '12 splices, all with a slot.');
  await press(page, 'Undo');
  await see(page, '24 splices, all with a slot.');
  // What is not saved survives a reload.
  await fill(page, orderBox, 'A T1 > B 1-12');
  await see(page, '12 splices, all with a slot.');
  await page.reload();
  await see(page, '12 splices, all with a slot.');
  await press(page, 'Discard the changes');
  await press(page, 'Discard them');
  await see(page, '24 splices, all with a slot.');
  await page.close();
}, 120_000);

test('tubes are picked on both cables, and one is kept on a tray by hand', async () => {
  const page = await at.open({ size: 'wide' });
  const { plan } = await planOf('U4');
  await page.goto(plan);
  await see(page, 'splices, all with a slot');
  await fill(page, orderBox, '');
  // The check is there: what it finds moves what stands below it.
  await see(page, 'Tray 1 empty, 24 slots', 'ledger');
  await press(page, 'Pick on the cables');
  await press(page, /^From tube 1 BL/, 'checkbox');
  await press(page, /^From tube 2 OR/, 'checkbox');
  await see(page, '2 picked on one side and 0 on the other. Pick as many on both.');
  await press(page, /^To tube 1 BL/, 'checkbox');
  await press(page, /^To tube 2 OR/, 'checkbox');
  await press(page, 'Add A T1-T2 > B T1-T2');
  await press(page, 'Close');
  await see(page, 'Order line 1 joins 24 fibers to 48.');
  await fill(page, orderBox, 'A T1 > B 1-12\nA T3 > B 25-36');
  await see(page, '24 splices, all with a slot.');
  await press(page, /^A 3 GR/);
  await press(page, 'Keep it on tray 3');
  await see(page, 'Tray 3 12 of 24 single slots', 'ledger');
  await press(page, 'Why here?');
  await page.close();
}, 120_000);

test('an order comes from a table: every bad row is told at once, then the mended one is taken in', async () => {
  const page = await at.open();
  const { plan } = await planOf('U3');
  await page.goto(plan);
  await see(page, '24 splices');
  await press(page, 'From a CSV file');
  const take = async (name: string, rows: string[]) => {
    writeFileSync(join(folder, name), rows.join('\r\n'));
    const chooser = page.waitForFileChooser();
    await press(page, /^(Pick the file|Another file)/);
    await (await chooser).accept([join(folder, name)]);
  };
  const head = 'From cable;From fiber;To cable;To fiber;Circuit';
  await take('bad.csv', [head, 'A+;1;C;1;', 'Z;2;C;2;', 'A+;three;C;99;']);
  await see(page, '3 things are wrong. Nothing is taken in.');
  await see(page, /Row 3, From cable: “Z” is no cable of this closure\./);
  await see(page, /Row 4, From fiber: “three” is not a range of fibers\./);
  await see(page, /Row 4, To fiber: 24 Escola has 24 fibers, so there is no fiber 99\./);
  await take('good.csv', [head, 'A+;1;C;1;School', 'A+;2;C;2;School', 'A+;3;C;3;School']);
  await see(page, '1 line: A+ 1-3 > C 1-3 : School');
  await press(page, 'Put them in place of the order');
  await see(page, 'Only 3 of the 12 fibers of tube 1 of A are spliced');
  await see(page, 'Tray 1 3 of 24 single slots');
  await page.close();
}, 120_000);

test('a plan that would cut what is spliced off is guarded, and the readings stay as not planned', async () => {
  const page = await at.open();
  const { plan, closure } = await planOf('U1');
  await page.goto(plan);
  await see(page, '96 splices');
  await fill(page, orderBox, 'A 1-84 > B 1-84');
  await see(page, '84 splices');
  await press(page, 'Save the plan');
  await see(page, '12 recorded splices leave the plan.');
  await see(page, 'A 85 BL to B 85 BL');
  await press(page, 'Save the plan all the same');
  await see(page, 'Saved');
  await page.goto(closure);
  await press(page, /^12 spliced here but not in the plan/);
  await see(page, 'Spliced, not in the plan');
  await see(page, '96 Moinho 85 · 1 BL to 96 Ponte 85 · 1 BL');
  await page.close();
}, 120_000);

test('a fiber is followed to both its ends, across closures and down the branch', async () => {
  const page = await at.open();
  const { line, definition } = await firstProject(at.server);
  const cable = definition.cables.find((one) => one.label === '96 Ponte')!;
  await page.goto(`${line}/follow?cable=${cable.id}&fiber=75`);
  await see(page, '4 970 m');
  await see(page, /Moinho The cable ends here\. .*U1 Ponte Velha .*U2 Curva do Rio .*U3 Escola .*T1 Escola/);
  await press(page, 'The next fiber');
  await see(page, '76 · 4 BR');
  expect(page.url()).toContain('fiber=76');
  await fill(page, 'Fiber, 1 to 96', '97');
  await see(page, 'This cable has fibers 1 to 96.');

  const { bench } = await firstProject(at.server, 'U3');
  await page.goto(bench(1, 3));
  await press(page, 'Details');
  await press(page, 'Follow this fiber');
  await see(page, '4 970 m, 4 splices');
  await page.close();
}, 120_000);

test('the kit counts, is ticked, and is saved as a table', async () => {
  const page = await at.open();
  const { line, closureId } = await firstProject(at.server);
  await page.goto(`${line}/kit?closure=${closureId}`);
  // Of this closure's everything was packed. Before that is known nothing can be ticked. Of 96 singles 52 hold, of 11 ribbons 8: their sleeves are on, and what their cables take is in.
  await see(page, '10 of 10 packed', 'head');
  await press(page, /49 Single sleeve, 60 mm/, 'checkbox');
  await see(page, '9 of 10 packed', 'head');
  await fill(page, 'Spares (%)', '0');
  await see(page, '44 Single sleeve, 60 mm');
  await see(page, /1 Transport tube/);
  await page.reload();
  await see(page, '9 of 10 packed', 'head');
  const list = await savedBy(page, () => press(page, 'Kit list (CSV)'));
  expect(list.bytes.toString()).toContain('"Single sleeve, 60 mm",44,0,44,');
  await page.close();
}, 120_000);

test('a fiber is found by its number and by its colors', async () => {
  const page = await at.open({ size: 'wide' });
  const { line, definition } = await firstProject(at.server);
  const cable = definition.cables.find((one) => one.label === '48 Ladeira')!;
  await page.goto(`${line}/cable/${cable.id}`);
  await see(page, 'Which fiber is this?', 'ledger');
  await fill(page, 'Number, 1 to 48', '37');
  await press(page, /show fiber 37, tube 2 orange, group 2, blue/);
  await see(page, 'Tube 2, fibers 25 to 48');
  await press(page, 'Tube BL, blue');
  await press(page, 'Fiber AQ, aqua');
  await press(page, /show fiber 24, tube 1 blue, group 2, aqua/);
  await see(page, 'Tube 1, fibers 1 to 24');
  await page.close();
}, 120_000);

test('a branch, a cable and a closure are added to the route by hand, and spliced', async () => {
  const page = await at.open();
  const { line } = await firstProject(at.server);
  await page.goto(line);
  await press(page, 'Add a site');
  await fill(page, 'Name', 'T2 Ferry');
  await press(page, 'Terminal');
  await press(page, 'Branch at U4 Mirante');
  await press(page, 'Save the site');
  await see(page, 'Give the distance as a number.');
  await fill(page, 'Distance along the branch (m)', '90');
  await press(page, 'Save the site');
  await see(page, 'Put a closure here');

  await page.goto(`${line}/cable/new/edit`);
  await press(page, 'Save the cable');
  await see(page, 'Not saved yet');
  await fill(page, 'Label', '12 Ferry');
  await fill(page, 'Tubes', '2');
  await fill(page, 'Fibers in a tube', '6');
  await fill(page, 'Fillers at positions', '9');
  await press(page, 'U4 Mirante');
  await press(page, '↳ T2 Ferry');
  await press(page, 'Save the cable');
  await see(page, 'There are 3 positions, so no filler at 9.');
  await fill(page, 'Fillers at positions', '2');
  await press(page, 'Save the cable');
  await see(page, '12 fibers, 2 tubes, 1 filler');

  await page.goto(`${line}/s/${(await siteOf('T2')).id}`);
  await press(page, /^Drop joint 4/);
  await see(page, 'Plan · T2 Ferry');
  await see(page, '12 fibers, 2 tubes, 1 filler · ends here, cut');
  await fill(page, orderBox, 'A 1-2 > A 3-4');
  await see(page, '2 splices, all with a slot.');
  await press(page, 'Save the plan');
  await see(page, 'Saved');
  await page.goto(line);
  await see(page, /T2 Ferry/);
  await page.close();
}, 120_000);

async function siteOf(start: string): Promise<ProjectDefinition['sites'][number]> {
  const { definition } = await firstProject(at.server);
  return definition.sites.find((site) => site.name.startsWith(start))!;
}

test('a closure model is changed, copied and handed on, and a broken catalogue says where', async () => {
  const page = await at.open();
  await page.goto(`${at.server.url}/models`);
  await press(page, 'Edit Drop joint 4');
  await fill(page, 'Trays', '0');
  await press(page, 'Save the model');
  await see(page, 'At least 1 tray.');
  await fill(page, 'Trays', '2');
  await fill(page, 'Port 1, cables from (mm)', '12');
  await press(page, 'Save the model');
  await see(page, 'The smallest diameter is above the largest.');
  await fill(page, 'Port 1, cables from (mm)', '3');
  await press(page, 'Save the model');
  await see(page, /Drop joint 4 drop · 2 trays of 4/);
  await press(page, 'Copy Drop joint 4');
  await see(page, 'Drop joint 4 (copy)');
  const text = await (await fetch(`${at.server.url}/api/models.json`)).text();
  writeFileSync(join(folder, 'models.json'), text.replace('"trays": 12', '"trays": 0'));
  const chooser = page.waitForFileChooser();
  await press(page, 'Take in (JSON)');
  await (await chooser).accept([join(folder, 'models.json')]);
  await see(page, /Line \d+, models\.\d+\.trays: At least 1 tray\. Nothing was changed\./);
  await page.close();
}, 120_000);
