import { planClosure, runsOf } from '@cordel/core';
import axe from 'axe-core';
import type { Browser, Page } from 'puppeteer-core';
import {
  dataFolder,
  removeFolders,
  request,
  startServer,
  type ServerProcess,
} from '../../server/test/process';
import { attach, makePhoto } from './camera';
import { fill, openBrowser, openPage, press, see, seeGone, setLight, type Size } from './browser';
import { nightsToCome } from './nightsToCome';
import { refuseRecords, setOffline } from './network';
import { read, table } from './nightLog';
import { firstProject } from './shelf';

/** Every screen of the app, in the demo, for what is looked at on all of them. */

let browser: Browser;
let server: ServerProcess;
let demo: Awaited<ReturnType<typeof firstProject>>;

/** A server with the demo and a browser, for a file that looks at every screen. */
export function everyScreen() {
  beforeAll(async () => {
    browser = await openBrowser();
    server = await startServer(dataFolder('demo'));
    demo = await firstProject(server);
    // The ribbon in the fourth holder was looked at; the one in the third is still to be asked about.
    const closure = demo.definition.closures.find(({ id }) => id === demo.closureId)!;
    const plan = planClosure(closure, new Map(demo.definition.cables.map((cable) => [cable.id, cable])));
    const ribbon = plan.splices.find(({ tray, slot }) => tray === 5 && slot === 10)!;
    const fact = {
      v: 2,
      id: '019d8ea6-0000-7000-8000-000000000001',
      kind: 'tick',
      madeAt: '2026-04-15T02:00:00.000Z',
      by: null,
      device: null,
      subject: {
        on: 'splice',
        closureId: demo.closureId,
        left: runsOf(ribbon.left),
        right: runsOf(ribbon.right),
      },
      body: { what: 'polarity', state: 'done', answer: null, note: '' },
    };
    await request(`${server.url}/api/projects/${demo.projectId}/facts`, 'POST', { facts: [fact] });
    await nightsToCome(`${server.url}/api/projects/${demo.projectId}`, demo.definition);
    await planConnectors();
    await pumpUp();
    await takePhoto();
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await server.stop();
    removeFolders();
  });
}

/** Fibers of the school's terminal that end in connectors, of which one lets no light through. */
async function planConnectors(): Promise<void> {
  const school = await firstProject(server, 'T1');
  const closure = school.definition.closures.find(({ id }) => id === school.closureId)!;
  const left = { cableId: school.cable('24 Escola'), side: 'end', from: 11, to: 12 };
  const line = { left, right: null, connector: 'fusion-connector', mode: 'single', circuit: null };
  const url = `${server.url}/api/projects/${demo.projectId}`;
  const order = [...closure.order, { id: '019d8ea6-0000-7000-8000-000000000002', ...line }];
  await request(`${url}/closures/${closure.id}`, 'PUT', { ...closure, order });
  const light = {
    v: 2,
    id: '019d8ea6-0000-7000-8000-000000000003',
    kind: 'light-check',
    madeAt: '2026-04-15T02:00:00.000Z',
    by: null,
    device: null,
    subject: { on: 'end', closureId: closure.id, cableId: left.cableId, fiber: 11, side: 'end' },
    body: { seen: 'glows', note: '' },
  };
  await request(`${url}/facts`, 'POST', { facts: [light] });
}

/** U1, of which nothing stands against acceptance. */
function signedClosure(): string {
  const site = demo.definition.sites.find(({ name }) => name.startsWith('U1'))!;
  return demo.definition.closures.find(({ siteId }) => siteId === site.id)!.id;
}

/** U3 is under pressure, and one of its seals bubbles. */
async function pumpUp(): Promise<void> {
  const u3 = await firstProject(server, 'U3');
  const cable = u3.definition.closures.find(({ id }) => id === u3.closureId)!.entries[2]!.cableId;
  const fact = (number: number, body: object) => ({
    v: 2,
    id: `019d8ea6-0000-7000-8000-00000000001${number}`,
    kind: 'flash-test',
    madeAt: `2026-04-15T02:00:0${number}.000Z`,
    by: null,
    device: null,
    subject: { on: 'closure', closureId: u3.closureId },
    body,
  });
  const facts = [
    fact(1, { did: 'pumped', kPa: 34.5, soap: 'after' }),
    fact(2, { did: 'looked', seal: { of: 'cable', cableId: cable, face: 'only' }, saw: 'bubbles' }),
  ];
  await request(`${server.url}/api/projects/${demo.projectId}/facts`, 'POST', { facts });
  pumped = u3.closure;
}
let pumped = '';

/** U1 has a photo of its second tray. */
async function takePhoto(): Promise<void> {
  const url = `${server.url}/api/projects/${demo.projectId}`;
  const id = '019d8ea6-0000-7000-8000-000000000021';
  await fetch(`${url}/photos/${id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: (await makePhoto(640, 480)) as never,
  });
  const photo = {
    v: 2,
    id,
    kind: 'photo',
    madeAt: '2026-04-15T02:00:00.000Z',
    by: 'Davi',
    device: null,
    subject: { on: 'closure', closureId: signedClosure() },
    body: {
      did: 'taken',
      of: { what: 'point', point: { what: 'tray', tray: 2 } },
      caption: 'its lid closes',
    },
  };
  await request(`${url}/facts`, 'POST', { facts: [photo] });
}

/** The address at which the server of this file shows its shelf. */
export const shelfAddress = () => server.url;

/** Where what follows from the page stands: beside it on a wide screen, else below it or over it. */
const asideOn = (page: Page) => (page.viewport()!.width >= 1000 ? 'ledger' : 'front');

interface ScreenAt {
  readonly name: string;
  readonly path: () => string;
  /** What shows that the screen is there. */
  readonly shows: string | RegExp;
  /** That stands beside the page where there is room. */
  readonly aside?: boolean;
  readonly then?: (page: Page) => Promise<void>;
}

export const screens: ScreenAt[] = [
  { name: 'shelf', path: () => server.url, shows: '156 of 287 splices' },
  {
    name: 'preferences',
    path: () => server.url,
    shows: '156 of 287 splices',
    then: async (page) => {
      await press(page, /^Preferences/);
      await see(page, 'Text size');
    },
  },
  { name: 'new project', path: () => `${server.url}/new`, shows: 'Cable B' },
  { name: 'line', path: () => demo.line, shows: '60 of 107' },
  { name: 'losses', path: () => `${demo.line}/losses`, shows: 'dB mean' },
  {
    name: 'settings',
    path: () => `${demo.line}/settings`,
    shows: 'As a clock in America/Sao_Paulo shows it.',
  },
  { name: 'limits', path: () => `${demo.line}/limits`, shows: 'Save and judge again' },
  { name: 'closure', path: () => demo.closure, shows: '60 of 107 settled' },
  { name: 'seal', path: () => `${demo.closure}/seal/stages`, shows: 'Between here and the seal' },
  {
    name: 'seal, final look',
    path: () => `${demo.closure}/seal/look`,
    shows: '0 of 14 right',
    then: async (page) => {
      await press(page, /^Not right/);
      await see(page, 'What is wrong: Tray 1');
    },
  },
  {
    name: 'seal, a photo',
    path: () => `${demo.closureAt('U1')}/seal/stages`,
    shows: 'Tray 2: its lid closes',
    then: async (page) => {
      await press(page, 'Photo 1 of 1, Tray 2: its lid closes');
      await see(page, 'Take out of the record');
    },
  },
  { name: 'seal, tighten', path: () => `${demo.closure}/seal/tighten`, shows: '0 of 4 tight' },
  { name: 'seal, before the test', path: () => `${demo.closure}/seal/test`, shows: 'Soap after pumping' },
  { name: 'seal, under pressure', path: () => `${pumped}/seal/test`, shows: 'Look at the rest, then' },
  { name: 'seal, holding test', path: () => `${demo.closure}/seal/hold`, shows: 'Begin the test' },
  { name: 'ready', path: () => `${demo.line}/handover`, shows: '46 splices are open.' },
  { name: 'owner’s calls', path: () => `${demo.line}/handover/calls`, shows: 'All 3 tries are used.' },
  { name: 'documents', path: () => `${demo.line}/handover/documents`, shows: 'Report of one page (PDF)' },
  {
    name: 'sign-off',
    path: () => `${demo.line}/handover/sign?closure=${signedClosure()}`,
    shows: 'Nothing stands against acceptance.',
    then: async (page) => {
      await fill(page, 'Who signs', 'Nilo');
      await press(page, /^Sign the record as it is now/);
      await see(page, 'The signed record (JSON)');
    },
  },
  { name: 'backup', path: () => `${server.url}/backup`, shows: 'there is something on this shelf' },
  {
    name: 'measured losses',
    path: () => `${demo.closureAt('U1')}/measure/1`,
    shows: '12 of 24 fibers measured',
  },
  {
    name: 'losses, looked at',
    path: () => `${demo.line}/losses/look`,
    shows: 'Position 7 has the highest mean',
  },
  { name: 'practice', path: () => `${server.url}/practice`, shows: 'Which fiber is 157?' },
  {
    name: 'practice, a night',
    path: () => `${server.url}/practice/night-1`,
    shows: 'Ribbon 1 of 12',
    then: async (page) => {
      await press(page, 'Fuse');
      await see(page, 'Read so far');
    },
  },
  {
    name: 'practice, a night that is over',
    path: () => `${server.url}/practice/night-4`,
    shows: 'Fiber 1 of 24',
    then: async (page) => {
      const actions = Array.from({ length: 24 }, () => [{ do: 'fuse' }, { do: 'accept' }]).flat();
      await page.evaluate((night) => localStorage.setItem('cordel.nights-running', JSON.stringify(night)), {
        'night-4': { seed: 20_260_415, actions },
      });
      await page.reload();
      await press(page, 'See how it went');
      await see(page, 'It was: an arc');
    },
  },
  {
    name: 'practice, a question answered',
    path: () => `${server.url}/practice`,
    shows: 'Which fiber is 157?',
    then: async (page) => {
      await press(page, 'Begin, 20 questions');
      await see(page, '1 of 20');
      const answers = await page.$$('[role=button][tabindex="0"]');
      await answers[1]!.click();
      await see(page, /Right\.|Not this one\./);
    },
  },
  {
    name: 'check a record',
    path: () => `${server.url}/verify?sha256=${'0'.repeat(64)}`,
    shows: 'Nothing with this',
  },
  {
    name: 'find',
    path: () => `${server.url}/find?project=${demo.projectId}&q=${encodeURIComponent('3.08 km brown')}`,
    shows: 'U2 Curva do Rio, tray 2, slot 22',
  },
  { name: 'tray', path: () => `${demo.closure}/t/2`, shows: 'Redo slot 19' },
  { name: 'bench', path: () => demo.bench(3, 6), shows: 'Tray mean' },
  { name: 'bench, redo', path: () => demo.bench(2, 19), shows: 'Redo. Try 2 of 3' },
  { name: 'bench, owner’s call', path: () => demo.bench(2, 22), shows: 'Owner allows it' },
  {
    name: 'bench, full pad',
    path: () => demo.bench(3, 6),
    shows: 'Tray mean',
    then: (page) => press(page, '0.10 dB or more'),
  },
  {
    name: 'bench, details',
    path: () => demo.bench(3, 6),
    shows: 'Tray mean',
    then: (page) => press(page, 'Details'),
  },
  {
    name: 'bench, before the arc',
    path: () => demo.bench(5, 10),
    shows: 'Straight: 1 meets 1, 12 meets 12',
    then: async (page) => {
      await press(page, 'Before arc');
      await see(page, 'Fiber 1 of 12');
      await press(page, 'More, Gap');
    },
  },
  {
    name: 'bench, asked how a ribbon lies',
    path: () => demo.bench(5, 9),
    shows: 'which colors lie at the hinge, left and right?',
  },
  {
    name: 'bench, ribbon half read',
    path: () => demo.bench(5, 10),
    shows: 'Straight: 1 meets 1, 12 meets 12',
    then: async (page) => {
      await press(page, /0\.02 dB$|^2 \.02 dB/);
      await see(page, 'The other 11 read 0.02 too');
    },
  },
  {
    name: 'history',
    path: () => demo.bench(1, 15),
    shows: 'The owner allowed it.',
    then: async (page) => {
      await press(page, 'History, correct');
      await press(page, 'Correct this reading');
      await see(page, 'Why it is corrected');
    },
  },
  {
    name: 'cable',
    path: () => `${demo.line}/cable/${demo.cable('144 Ladeira')}`,
    shows: 'Ribbon 1, fibers 1 to 12',
  },
  {
    name: 'cable, edited',
    path: () => `${demo.line}/cable/${demo.cable('48 Ladeira')}/edit`,
    shows: 'Save the cable',
    then: (page) => press(page, 'Own'),
  },
  { name: 'site', path: () => `${demo.line}/s/${demo.definition.sites[0]!.id}`, shows: 'Save the site' },
  {
    name: 'follow',
    path: () => `${demo.line}/follow?cable=${demo.cable('96 Moinho')}&fiber=75`,
    shows: '4 splices',
  },
  { name: 'kit', path: () => `${demo.line}/kit`, shows: 'Single sleeve, 60 mm' },
  {
    name: 'plan',
    path: () => `${demo.closure}/plan`,
    shows: '107 splices',
    then: async (page) => {
      await fill(page, 'Order, one line for each assignment', 'A 1-96 > B 1-95\nC R1 D R1\nC ');
      await see(page, 'Give both sides the same number');
    },
  },
  {
    name: 'plan, picked',
    path: () => `${demo.closure}/plan`,
    // The check is there: what it finds moves what stands below it.
    shows: /On the trays Trays and slots Tray 1/,
    aside: true,
    then: async (page) => {
      await press(page, 'Pick on the cables');
      await press(page, /^From tube 1 BL/, 'checkbox');
      await press(page, /^To tube 1 BL/, 'checkbox');
    },
  },
  { name: 'closure models', path: () => `${server.url}/models`, shows: 'Dome 288' },
  { name: 'closure model', path: () => `${server.url}/models/new`, shows: 'Save the model' },
  { name: 'prepare', path: () => `${demo.closureAt('U3')}/prepare`, shows: 'marks 9 of 17' },
  {
    name: 'before a blade comes out',
    path: () => `${demo.closureAt('U4')}/prepare/before`,
    shows: '5 cautions are open',
  },
  {
    name: 'seals and measures',
    path: () => `${demo.closureAt('U3')}/prepare/seals`,
    shows: '1 of 3 cables measured',
  },
  {
    name: 'cut sheet',
    path: () => `${demo.closureAt('U3')}/prepare/${demo.cable('96 Mirante')}`,
    shows: '9 of 17 made',
    then: async (page) => {
      await press(page, /^14 · Cut tube 7 RD/);
      await see(page, 'Both sides are spliced', asideOn(page));
    },
  },
  {
    name: 'steps, with a question and a clock',
    path: () => `${demo.closureAt('T1')}/prepare/${demo.cable('Drop Hall')}/steps`,
    shows: 'Toning wire off',
    then: async (page) => {
      await press(page, 'A fused connector');
      await press(page, /^Heat\b/);
      await press(page, /^Start the clock/);
      await press(page, /^Strip the small tube/);
      await see(page, 'How many fibers come out of the drop?');
    },
  },
  {
    name: 'steps, answered wrongly',
    path: () => `${demo.closureAt('U3')}/prepare/${demo.cable('96 Mirante')}/steps`,
    shows: '7 of 21 done',
    then: async (page) => {
      await press(page, /^Tube 7: its color/);
      await press(page, 'BL blue');
      await see(page, 'BL is not what the plan expects');
    },
  },
  {
    name: 'connectors',
    path: () => `${demo.closureAt('T1')}/prepare/connectors`,
    shows: 'glows at the joint',
    then: async (page) => {
      await press(page, /^A 12 /);
      await see(page, 'What goes on first');
    },
  },
  {
    name: 'hands free, nothing linked',
    path: () => `${demo.closureAt('U3')}/listen/1/1`,
    shows: 'No machine',
    then: async (page) => {
      await press(page, 'Machine');
      await see(page, 'in this page, works with no network');
    },
  },
  {
    name: 'hands free, its machine',
    path: () => `${demo.closureAt('U3')}/listen/1/1`,
    shows: 'No machine',
    then: async (page) => {
      await press(page, 'Machine');
      await press(page, /single fibers.*in this page/);
      await press(page, 'Are mine: one key for each step', 'radio');
      await press(page, 'As fast as it goes', 'radio');
      await see(page, 'What is wrong tonight');
    },
  },
  {
    name: 'hands free, before the arc',
    path: () => `${demo.closureAt('U3')}/listen/1/1`,
    shows: 'Lay in',
    then: async (page) => {
      await press(page, /^Lay in/);
      await see(page, /Fuse|Recleave/);
    },
  },
  {
    name: 'hands free, by hand',
    path: () => `${demo.closureAt('U3')}/listen/1/1`,
    shows: 'Lay in',
    then: async (page) => {
      await press(page, 'By hand');
      await see(page, 'By hand: tray 1, slot 1');
    },
  },
  {
    name: 'a log, how it is read',
    path: () => `${demo.closureAt('U3')}/log`,
    shows: 'Nothing is recorded before you have looked at it.',
    then: async (page) => {
      await attach(page, 'Log of a splicing machine', [table(read)], 'night.csv');
      await press(page, 'Change how it is read');
      await see(page, 'Between the cells');
    },
  },
  {
    name: 'a log, compared',
    path: () => `${demo.closureAt('U3')}/log`,
    shows: 'Nothing is recorded before you have looked at it.',
    then: async (page) => {
      await attach(page, 'Log of a splicing machine', [table(read)], 'night.csv');
      await press(page, 'Read it so');
      await press(page, 'Compare with what is on record');
      await see(page, 'Fills a gap 9');
    },
  },
  { name: 'closure’s table', path: () => `${demo.closureAt('U3')}/table`, shows: 'Save the table' },
  { name: 'time', path: () => `${demo.line}/time`, shows: 'after the window closes' },
  { name: 'nights', path: () => `${demo.line}/nights`, shows: 'Proven: there is no better plan.' },
  {
    name: 'nights, a closure',
    path: () => `${demo.line}/nights`,
    shows: 'Proven: there is no better plan.',
    then: async (page) => {
      await press(page, /^U2 Curva do Rio.* back by/);
      await see(page, 'Why here');
      await see(page, 'It fits on the first night');
    },
  },
  {
    name: 'nights, what they are made from',
    path: () => `${demo.line}/nights/setup`,
    shows: 'Ways and reserve',
    then: async (page) => {
      await press(page, /^U2 Curva do Rio circuits back by/);
      await see(page, 'Sealed before it is begun');
    },
  },
  {
    name: 'a crew’s sheet',
    path: () => {
      const { nights, crews } = demo.definition.project.nights!;
      return `${demo.line}/nights/sheet?night=${nights[0]!.id}&crew=${crews[0]!.id}`;
    },
    shows: 'Single sleeve, 60 mm',
  },
  { name: 'nothing here', path: () => `${server.url}/elsewhere`, shows: 'There is no page at this address' },
  {
    name: 'bench, order of work',
    path: () => demo.bench(3, 6),
    shows: 'Tray mean',
    then: async (page) => {
      await press(page, 'Details');
      await press(page, 'Order of work');
      await see(page, 'Tube after tube');
    },
  },
  { name: 'gear', path: () => `${server.url}/gear`, shows: 'Cleaver R' },
  {
    name: 'a machine, edited',
    path: () => `${server.url}/gear`,
    shows: /Single 1 calibrated/,
    then: async (page) => {
      await press(page, /^Single 1/);
      await see(page, 'When something is due');
    },
  },
  {
    name: 'gear, a new cleaver',
    path: () => `${server.url}/gear/new?kind=cleaver`,
    shows: 'Cleave length',
    then: async (page) => {
      await press(page, 'Put it on the list');
      await see(page, 'Not saved yet');
    },
  },
  // From here on the page asks for gear.
  {
    name: 'bench, gear asked for',
    path: () => demo.bench(3, 6),
    shows: 'Tray mean',
    then: async (page) => {
      await page.evaluate(() => localStorage.setItem('askForGear', 'yes'));
      await page.evaluate(() => localStorage.removeItem('cordel.gear-tonight'));
      await page.reload();
      await see(page, 'Which gear tonight?');
    },
  },
  {
    name: 'bench, calibration due',
    path: () => demo.bench(3, 6),
    shows: 'Which gear tonight?',
    then: async (page) => {
      await press(page, 'Single 1', 'radio');
      await press(page, 'These tonight');
      await see(page, 'Arc calibration is due');
    },
  },
  {
    name: 'gear tonight',
    path: () => demo.bench(2, 22),
    shows: 'Owner allows it',
    then: async (page) => {
      await press(page, 'Gear tonight');
      await see(page, 'Note the weather as it is now');
    },
  },
  // From here on the server takes no more records.
  {
    name: 'waiting, one refused',
    path: () => demo.bench(3, 10),
    shows: 'Tray mean',
    then: async (page) => {
      // Without the gear that a screen before it picked: that may be due, and ask.
      await page.evaluate(() =>
        ['askForGear', 'cordel.gear-tonight'].forEach((key) => localStorage.removeItem(key)),
      );
      await page.reload();
      await see(page, 'Tray mean');
      await refuseFirst(page);
      await press(page, /0\.02 dB$|^2 \.02 dB/);
      await see(page, 'Slot 10 holds');
      await page.goto(`${server.url}/waiting`);
      await see(page, 'What the server will not take counts in no sum');
      // It comes with the project, and moves the keys beside it.
      await see(page, 'Go there');
      await press(page, 'Drop: Reading 0.02 dB');
      await see(page, 'Dropped, it is gone for good.');
    },
  },
  {
    name: 'decide',
    path: () => `${demo.line}/limits`,
    shows: 'Save and judge again',
    then: async (page) => {
      await overtakeLimits(page);
      await press(page, 'Yours: 4', 'radio');
    },
  },
];

/** Limits are changed on this page with no network, and by somebody else meanwhile; the page stands where that is decided. */
async function overtakeLimits(page: Page): Promise<void> {
  const url = `${server.url}/api/projects/${demo.projectId}`;
  await setOffline(page, true);
  await fill(page, 'Tries, before it is the owner’s call', '4');
  await fill(page, 'Single splice, at most (dB)', '0.12');
  await press(page, 'Save and judge again');
  await see(page, 'to send', 'head');
  const { body } = await request<typeof demo.definition>(url);
  const { id: _, lineVersion: __, ...settings } = body.project;
  const limits = {
    ...settings.limits,
    tries: settings.limits.tries + 2,
    singleMax: settings.limits.singleMax + 0.05,
  };
  await request(`${url}/settings`, 'PUT', { ...settings, limits });
  await setOffline(page, false);
  await seeGone(page, 'to send', 'head');
  await page.goto(`${server.url}/waiting`);
  await press(page, 'Decide: Settings and limits changed');
  await see(page, 'Somebody else saved this while your change waited here.');
}

/** The server refuses the first record of this page, and then does not answer any. */
async function refuseFirst(page: Page): Promise<void> {
  const message = 'This project has no such closure on the server. It may have been deleted there.';
  await refuseRecords(page, (before) => (before === 0 ? message : null));
}

/** A page for one group of screens, so that the app's script is read once and not for each. */
export function pageFor(options: { size?: Size }, prepare?: (page: Page) => Promise<void>): () => Page {
  let page: Page;
  beforeAll(async () => {
    ({ page } = await openPage(browser, options));
    await prepare?.(page);
  }, 60_000);
  return () => page;
}

export async function goTo(page: Page, { path, shows, aside = false, then }: ScreenAt): Promise<void> {
  await page.goto(path());
  await see(page, shows, aside ? asideOn(page) : 'front');
  await then?.(page);
}

async function serious(page: Page, rules?: string[]): Promise<string[]> {
  const { violations } = await page.evaluate(
    (only) =>
      (window as unknown as { axe: typeof axe }).axe.run(
        document,
        // What passes is not asked for one by one.
        { resultTypes: ['violations'], ...(only ? { runOnly: { type: 'rule', values: only } } : {}) },
      ),
    rules,
  );
  return violations
    .filter((violation) => violation.impact === 'serious' || violation.impact === 'critical')
    .map(
      (violation) => `${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 160)).join('\n')}`,
    );
}

/** Looks at one size of every screen: axe by day, and its colors by night. */
export function axeOn(size: Size): void {
  everyScreen();
  const page = pageFor({ size }, async (opened) => void (await opened.evaluateOnNewDocument(axe.source)));

  test.each(screens)(
    '$name has no serious problem by day, nor by night',
    async (screen) => {
      await setLight(page(), 'day');
      await goTo(page(), screen);
      expect(await serious(page())).toEqual([]);
      // Names, roles and places are the same by night; only the colors are others.
      await setLight(page(), 'night');
      await page().waitForFunction(() => document.documentElement.style.colorScheme === 'dark');
      expect(await serious(page(), ['color-contrast'])).toEqual([]);
    },
    60_000,
  );
}
