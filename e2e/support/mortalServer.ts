import type { ProjectDefinition } from '@cordel/core';
import {
  dataFolder,
  everyFact,
  removeFolders,
  request,
  startServer,
  type ServerProcess,
} from '../../server/test/process';
import { firstProject } from './shelf';

/** A server with the demo, anew for each journey of a file, that dies and comes back at the same address with the same data. */
export function mortalServer() {
  let folder: string;
  let server: ServerProcess;
  let demo: Awaited<ReturnType<typeof firstProject>>;
  beforeEach(async () => {
    folder = dataFolder('demo');
    server = await startServer(folder);
    demo = await firstProject(server);
  }, 60_000);
  afterEach(() => server.stop());
  afterAll(removeFolders);
  const project = () => `${server.url}/api/projects/${demo.projectId}`;
  return {
    get url() {
      return server.url;
    },
    /** The first project, with the addresses of its screens. */
    get demo() {
      return demo;
    },
    kill: () => server.kill(),
    async startAgain(): Promise<void> {
      server = await startServer(folder, { PORT: new URL(server.url).port });
    },
    /** All that the server has of the project. */
    facts: () => everyFact(`${project()}/facts`),
    definition: async () => (await request<ProjectDefinition>(project())).body,
  };
}
