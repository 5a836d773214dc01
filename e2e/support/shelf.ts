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

/** The first project on a server's shelf, with the addresses of its screens. */
export async function firstProject(server: ServerProcess) {
  const { body } = await request<{ shelf: Entry[] }>(`${server.url}/api/projects`);
  const { project, progress } = body.shelf[0]!;
  const line = `${server.url}/p/${project.id}`;
  const closure = `${line}/c/${progress[0]!.closureId}`;
  return {
    projectId: project.id,
    closureId: progress[0]!.closureId,
    rollUp: progress[0]!.rollUp,
    line,
    closure,
    bench: (tray: number, slot: number) => `${closure}/t/${tray}/${slot}`,
  };
}
