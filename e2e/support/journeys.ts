import type { Fact, ProjectDefinition } from '@cordel/core';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { Page } from 'puppeteer-core';
import {
  bareFolder,
  dataFolder,
  everyFact,
  keepRows,
  putBack,
  removeFolders,
  request,
  startServer,
  type ServerProcess,
} from '../../server/test/process';
import type { Prepared } from './browser';
import type { Device } from './deviceOfJourneys';
import { giveBack, leaveBrowser, startServerOfWorker, takeDevice } from './devices';
import { firstProject } from './shelf';

const movableClock = { NODE_OPTIONS: `--import=${pathToFileURL(join(__dirname, 'movableClock.mjs')).href}` };

/**
 * What journeys through the demo stand on: a browser and a server for the file, with the demo's data put back before
 * each journey (with `each` false: journeys leave each other's data alone), and pages whose troubles fail the journey.
 * @param shelf with the demo on it, or nothing
 * @param site the closure at the site whose name starts so
 * @param movable the server's clock can be moved, for machines that take their time at it
 * @param tonight the demo happens in the night of the test, made anew; else in its own, the same every day
 */
export function demoJourneys({
  site,
  each = true,
  tonight = false,
  movable = false,
  shelf = 'demo',
}: {
  site?: string;
  each?: boolean;
  tonight?: boolean;
  movable?: boolean;
  shelf?: 'demo' | 'empty';
} = {}) {
  let server: ServerProcess;
  let running = true;
  let demo: Awaited<ReturnType<typeof firstProject>>;
  /** Nobody worked on the data since it was put back. */
  let asKept = true;
  let opened: Device[] = [];
  /** Devices that stood at a splice since the data was put back. */
  let stood: string[] = [];
  const startAgain = async () => {
    server = await startServer(server.folder, { PORT: new URL(server.url).port });
    running = true;
  };

  beforeAll(async () => {
    const folder = tonight ? bareFolder() : dataFolder(shelf);
    if (tonight) await (await startServer(folder, {}, undefined, ['--demo'])).stop();
    if (each) keepRows(folder);
    server = await startServerOfWorker(folder, movable ? movableClock : {});
    if (shelf === 'demo') demo = await firstProject(server, site);
  }, 120_000);
  afterAll(async () => {
    await leaveBrowser();
    if (running) await server.stop();
    removeFolders();
    // Nothing that a person does is a mistake of ours.
    expect(server.output()).not.toContain('"level":"error"');
  });
  beforeEach(async () => {
    if (!running) await startAgain();
    if (!each || asKept) return;
    putBack(server.folder, stood);
    stood = [];
    asKept = true;
  }, 60_000);
  afterEach(async () => {
    const devices = opened;
    opened = [];
    for (const device of devices) {
      if (running) await giveBack(device, server.url);
      else await device.discard();
    }
    stood.push(...devices.flatMap((device) => [...device.stood]));
    expect(devices.flatMap((device) => device.troubles)).toEqual([]);
  }, 60_000);

  const project = () => `${server.url}/api/projects/${demo.projectId}`;
  return {
    get server() {
      asKept = false;
      return server;
    },
    /** The first project, with the addresses of its screens. */
    get demo() {
      return demo;
    },
    /** Its address at the server. */
    get project() {
      return project();
    },
    /** All that the server has recorded of it. */
    facts: () => everyFact<Fact>(`${project()}/facts`),
    /** The project as the server has it now. */
    definition: async () => (await request<ProjectDefinition>(project())).body,
    /** Half a minute goes by at the server, whose clock can be moved. */
    passHalfMinute: () => void server.process.kill('SIGUSR2'),
    /** Ends the server at once, as a power cut would. */
    async kill(): Promise<void> {
      running = false;
      await server.kill();
    },
    /** At the same address, with the same data. */
    startAgain,
    /**
     * A device of its own.
     * @param unused on which Cordel never was; else it has the application, and nothing that was entered
     */
    async open({ unused = false, ...how }: Prepared & { readonly unused?: boolean } = {}): Promise<Page> {
      asKept = false;
      const device = await takeDevice(unused);
      opened.push(device);
      return device.take(how);
    },
  };
}
