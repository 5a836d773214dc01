import type { ProjectDefinition } from '@cordel/core';
import { makeProject } from './makeProject';
import { dataFolder, removeFolders, request, startServer, type ServerProcess } from './process';

/** What a refused request says. */
export interface ProblemBody {
  title: string;
  detail: string;
  request?: string;
  errors?: { path: string; message: string }[];
  current?: { version: number };
}
export interface Receipt {
  accepted: { id: string; seq: number; receivedAt: string }[];
  refused: { id: string; path?: string; message: string }[];
}

/** A new project on a server, with its addresses. */
export async function newProjectOn(api: string, tubes = 2) {
  const made = makeProject(tubes);
  const { status } = await request(`${api}/projects`, 'POST', made.definition);
  if (status !== 201) throw new Error(`The project was answered with ${status}.`);
  const project = `${api}/projects/${made.definition.project.id}`;
  return {
    ...made,
    project,
    factsUrl: `${project}/closures/${made.closureId}/facts`,
    read: async () => (await request<ProjectDefinition>(project)).body,
    post: (facts: readonly unknown[]) => request<Receipt>(`${project}/facts`, 'POST', { facts }),
  };
}

/** A server on an empty shelf for all tests of a file. None of them may make it fail: what is wrong with a request is told, not logged as a mistake of ours. */
export function oneServer(
  onStarted: (server: ServerProcess, api: string) => void,
  environment: Record<string, string> = {},
): void {
  let server: ServerProcess;
  beforeAll(async () => {
    server = await startServer(dataFolder('empty'), environment);
    onStarted(server, `${server.url}/api`);
  }, 60_000);
  afterAll(async () => {
    await server.stop();
    removeFolders();
    expect(server.output()).not.toContain('request failed');
  });
}
