import { Hono } from 'hono';
import { createReadStream, createWriteStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import type { RequestVariables } from '../actor';
import { attachmentHeaders } from '../attachment';
import type { Clock } from '../clock';
import { checkBackup, readBackupIntoEmptyShelf } from '../database/backup';
import { bringUpFacts } from '../database/bringUp';
import type { Database } from '../database/database';
import { backupWhileServing, inOwnFolder } from '../database/liveBackup';
import type { Migration } from '../database/migrate';
import { OperatorError } from '../operatorError';
import { refuse } from '../problem';
import { noteDay } from '../serverDays';
import { Turns } from '../turns';

/** Where bytes are taken that are no JSON. */
export const isBackup = (path: string) => path === '/api/restore';

/** One backup at a time: each needs as much room as the database. */
const turns = new Turns(1);

/** Everything that this Cordel has, out as one file, and into an empty one. */
export function wholeShelfRoutes(
  database: Database,
  clock: Clock,
  migrations: readonly Migration[],
  folder: string,
) {
  return new Hono<RequestVariables>()
    .post('/backup', async (context) => {
      const { signal } = context.req.raw;
      const minute = clock.now().toISOString().slice(0, 16).replace(':', '.').replace('T', ' ');
      const name = `Cordel ${minute} UTC.cordel-backup`;
      return new Promise<Response>((answer, fail) => {
        // The file is there until the last byte of it was sent.
        const made = turns.take(signal, () =>
          inOwnFolder(folder, async (place) => {
            const file = join(place, 'whole.cordel-backup');
            await backupWhileServing(database, migrations, place, file, signal).catch((error: unknown) => {
              if (error instanceof OperatorError)
                refuse({ title: 'No backup', status: 500, detail: error.message });
              throw error;
            });
            const { size } = await stat(file);
            const bytes = createReadStream(file);
            answer(
              new Response(Readable.toWeb(bytes) as unknown as ReadableStream, {
                headers: {
                  ...attachmentHeaders('application/gzip', name),
                  'Content-Length': String(size),
                },
              }),
            );
            await new Promise<void>((sent) => bytes.once('close', sent));
          }),
        );
        made.catch(fail);
      });
    })
    .post('/restore', (context) =>
      inOwnFolder(folder, async (place) => {
        const file = join(place, 'incoming.cordel-backup');
        const name = 'This file';
        const { body } = context.req.raw;
        if (body)
          await pipeline(Readable.fromWeb(body as NodeStream), createWriteStream(file, { flags: 'wx' }));
        try {
          await checkBackup(file, name);
          const rows = await database.write((db) => readBackupIntoEmptyShelf(db, migrations, file, name));
          await bringUpFacts(database);
          await noteDay(database, clock.now());
          const count = Object.values(rows).reduce((sum, one) => sum + one, 0);
          return context.json({ rows: count, projects: rows.line_project ?? 0 }, 201);
        } catch (error) {
          if (error instanceof OperatorError)
            refuse({ title: 'Not restored', status: 409, detail: `${error.message} Nothing was changed.` });
          throw error;
        }
      }),
    );
}
