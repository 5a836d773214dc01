import type { QueryClient } from '@tanstack/react-query';
import type { Along } from '../sync/store';
import { engine, snapshots } from '../sync/here';
import { keys } from './keys';
import { bookQuery, gearQuery } from './gear';
import { modelsQuery } from './plan';
import { progressQuery, projectQuery, shelfQuery } from './projects';

/** What was asked for in the last minute need not be asked for again. ms */
const fresh = 60_000;

/**
 * Brings everything of a project to this device, so that the whole job can be done with no network: its definition, all that was recorded, the gear and
 * what happened to it, the models. Rejects with what could not be had; what came until then is kept.
 * @param photos the pictures too, small: they are large beside everything else, so only who asks for it waits for them
 */
export async function takeAlong(
  client: QueryClient,
  projectId: string,
  { photos = false }: { photos?: boolean } = {},
): Promise<Along> {
  const began = Date.now();
  await engine().ready;
  // Made here, and nowhere else: all of it is here.
  if (engine().edits.unborn(projectId)) return engine().pull.noteAlong(projectId, began);
  await Promise.all([
    client.fetchQuery({ ...projectQuery(projectId), staleTime: fresh }),
    client.fetchQuery({ ...progressQuery(projectId), staleTime: fresh }),
    client.fetchQuery({ ...shelfQuery(), staleTime: fresh }),
    client.fetchQuery({ ...modelsQuery(), staleTime: fresh }),
    client.fetchQuery({ ...gearQuery(), staleTime: fresh }),
    client.fetchQuery({ ...bookQuery(), staleTime: fresh }),
    engine().pull.run(projectId),
  ]);
  const error = engine().pull.errorOf(projectId);
  if (error) throw error;
  if (photos) await engine().pictures.bring(projectId);
  return engine().pull.noteAlong(projectId, began);
}

/** Takes a project from this device; it stays on the server. false while something recorded in it waits here. */
export async function removeFromDevice(client: QueryClient, projectId: string): Promise<boolean> {
  if (!(await engine().pull.forget(projectId))) return false;
  client.removeQueries({ queryKey: keys.project(projectId) });
  await snapshots().forget([keys.project(projectId), keys.progress(projectId)]);
  return true;
}

/** Asks the browser not to clear what is kept when room gets short. true where it promised. */
export async function askToKeep(): Promise<boolean> {
  return (await navigator.storage?.persist?.().catch(() => false)) ?? false;
}
