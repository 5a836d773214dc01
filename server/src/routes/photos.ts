import { idSchema } from '@cordel/core';
import { and, eq } from 'drizzle-orm';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { z } from 'zod';
import type { RequestVariables } from '../actor';
import type { Clock } from '../clock';
import type { Database } from '../database/database';
import { NoPicture, readPicture } from '../pictures/readPicture';
import { notFound, problemResponse, refuse, validated } from '../problem';
import { loadDefinition } from '../projectStore';
import { picture } from '../schema';
import { Turns } from '../turns';
import { within } from '../unitOfWork';
import { projectParam } from './params';

const mostMegabytes = 25;
const photoParam = projectParam.extend({ photoId: idSchema });

/** Pictures that are decoded at once. */
const turns = new Turns(2);

/** Where pictures go in and out: bytes, not JSON. */
export const isPicture = (path: string) => /^\/api\/projects\/[^/]+\/photos\/[^/]+$/.test(path);

/** The pictures of photos. They come ahead of the facts that say what they show, and as often as it takes: the first one counts. */
export function photoRoutes(database: Database, clock: Clock) {
  return new Hono<RequestVariables>()
    .put(
      '/projects/:projectId/photos/:photoId',
      validated('param', photoParam),
      bodyLimit({
        maxSize: mostMegabytes * 1024 * 1024,
        onError: () =>
          problemResponse({
            title: 'Too large',
            status: 413,
            detail: `A photo may have at most ${mostMegabytes} MB. Nothing was stored.`,
          }),
      }),
      async (context) => {
        const { projectId, photoId } = context.req.valid('param');
        const type = context.req.header('Content-Type')?.split(';')[0]?.trim().toLowerCase();
        if (type !== 'application/octet-stream')
          refuse({
            title: 'Not bytes',
            status: 415,
            detail: 'Send a picture as application/octet-stream. Nothing was changed.',
          });
        if (await isKept(database, projectId, photoId)) return context.json({ kept: photoId });
        if (!(await loadDefinition(database.read, projectId))) notFound('project');
        const { signal } = context.req.raw;
        const read = await turns.take(signal, async () =>
          readPicture(new Uint8Array(await context.req.arrayBuffer())).catch((error: unknown) => {
            if (!(error instanceof NoPicture)) throw error;
            return refuse({ title: 'No picture', status: 422, detail: error.message });
          }),
        );
        await within(database, context.get('actor'), projectId, async ({ db }) => {
          await db
            .insert(picture)
            .values({ id: photoId, projectId, ...read, receivedAt: clock.now() })
            .onConflictDoNothing();
        });
        return context.json({ kept: photoId }, 201);
      },
    )
    .get(
      '/projects/:projectId/photos/:photoId',
      validated('param', photoParam),
      validated('query', z.object({ size: z.enum(['whole', 'small']).default('whole') })),
      async (context) => {
        const { projectId, photoId } = context.req.valid('param');
        const { size } = context.req.valid('query');
        const [row] = await database.read
          .select({ bytes: picture[size] })
          .from(picture)
          .where(and(eq(picture.id, photoId), eq(picture.projectId, projectId)));
        const { bytes } = row ?? notFound('photo');
        return new Response(Uint8Array.from(bytes), { headers: { 'Content-Type': 'image/jpeg' } });
      },
    );
}

/** Whether a picture is here already. Ends the request where another project has it. */
async function isKept(database: Database, projectId: string, photoId: string): Promise<boolean> {
  const [row] = await database.read
    .select({ projectId: picture.projectId })
    .from(picture)
    .where(eq(picture.id, photoId));
  if (row && row.projectId !== projectId)
    refuse({
      title: 'Taken',
      status: 409,
      detail: 'Another project has a photo of this identifier. Take it again.',
    });
  return row !== undefined;
}
