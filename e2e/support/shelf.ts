import type { ProjectDefinition } from '@cordel/core';
import { request, type ServerProcess } from '../../server/test/process';

interface Entry {
  readonly project: { readonly id: string; readonly name: string };
  readonly progress: readonly {
    readonly closureId: string;
    readonly rollUp: {
      readonly count: number;
      readonly settled: number;
      readonly marks: Record<string, number>;
    };
  }[];
}

/** The first project on a server's shelf, with the addresses of its screens; its closure is the one at a site whose name starts so. */
export async function firstProject(server: ServerProcess, siteName = 'U2') {
  const { body } = await request<{ shelf: Entry[] }>(`${server.url}/api/projects`);
  const { project, progress } = body.shelf[0]!;
  const definition = (await request<ProjectDefinition>(`${server.url}/api/projects/${project.id}`)).body;
  const at = definition.sites.find((site) => site.name.startsWith(siteName))!;
  const closureId = definition.closures.find((one) => one.siteId === at.id)!.id;
  const line = `${server.url}/p/${project.id}`;
  const closure = `${line}/c/${closureId}`;
  return {
    projectId: project.id,
    closureId,
    definition,
    /** Address of the closure at the site whose name starts so. */
    closureAt: (name: string) => {
      const site = definition.sites.find((one) => one.name.startsWith(name))!;
      return `${line}/c/${definition.closures.find((one) => one.siteId === site.id)!.id}`;
    },
    /** Identifier of a cable by its label. */
    cable: (label: string) => definition.cables.find((one) => one.label === label)!.id,
    rollUp: progress.find((one) => one.closureId === closureId)!.rollUp,
    line,
    closure,
    bench: (tray: number, slot: number) => `${closure}/t/${tray}/${slot}`,
  };
}
