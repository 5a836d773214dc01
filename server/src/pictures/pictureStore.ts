import type { AsBuiltPicture } from '@cordel/core/asBuilt';
import { and, eq, inArray } from 'drizzle-orm';
import type { Queries } from '../database/database';
import { fact, picture } from '../schema';

/** What is known of a project's pictures, by the photo's id. */
export async function knownPictures(
  db: Queries,
  projectId: string,
): Promise<ReadonlyMap<string, AsBuiltPicture>> {
  const rows = await db
    .select({ id: picture.id, sha256: picture.sha256, width: picture.width, height: picture.height })
    .from(picture)
    .where(eq(picture.projectId, projectId));
  return new Map(rows.map(({ id, ...known }) => [id, known]));
}

/** Pictures that are in memory at once. */
const slice = 20;

/** The small pictures of a closure's photos, or of all of a project, a few at a time. */
export async function* smallPictures(
  db: Queries,
  projectId: string,
  closureId: string | undefined,
): AsyncGenerator<ReadonlyMap<string, Uint8Array>> {
  const ids = await db
    .select({ id: picture.id })
    .from(picture)
    .innerJoin(fact, eq(fact.id, picture.id))
    .where(
      and(
        eq(picture.projectId, projectId),
        closureId === undefined ? undefined : eq(fact.closureId, closureId),
      ),
    );
  for (let start = 0; start < ids.length; start += slice) {
    const part = ids.slice(start, start + slice).map(({ id }) => id);
    const rows = await db
      .select({ id: picture.id, small: picture.small })
      .from(picture)
      .where(inArray(picture.id, part));
    yield new Map(rows.map(({ id, small }) => [id, Uint8Array.from(small)]));
  }
}
