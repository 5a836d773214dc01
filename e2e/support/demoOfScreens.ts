import { planClosure, runsOf } from '@cordel/core';
import { dataFolder, removeFolders, request, type ServerProcess } from '../../server/test/process';
import { makePhoto } from './camera';
import { startServerOfWorker } from './devices';
import { nightsToCome } from './nightsToCome';
import { firstProject } from './shelf';

/**
 * What every screen of the app is looked at with: the demo, and on it what a screen needs to have something to show.
 */

let server: ServerProcess;
let demo: Awaited<ReturnType<typeof firstProject>>;

/** The addresses of the screens, while the tests run. */
export const shown = {
  get server() {
    return server;
  },
  get demo() {
    return demo;
  },
  /** A closure under pressure. */
  get pumped() {
    return pumped;
  },
  signedClosure,
};

/** A server with all of it, for a file that looks at screens. */
export function demoOfScreens() {
  beforeAll(async () => {
    server = await startServerOfWorker(dataFolder('demo'));
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
