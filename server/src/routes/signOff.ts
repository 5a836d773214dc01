import {
  factVersion,
  factTimeTrouble,
  idSchema,
  readFact,
  signOffRoles,
  siteOf,
  textSchema,
  timeSchema,
  type SignOff,
} from '@cordel/core';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { Hono } from 'hono';
import { z } from 'zod';
import type { RequestVariables } from '../actor';
import { attachment } from '../attachment';
import type { Clock } from '../clock';
import type { Database } from '../database/database';
import { appendFacts, factsById } from '../factStore';
import { gearFacts } from '../gearFacts';
import { notFound, refuse, validated } from '../problem';
import { definitionOf } from '../projectStore';
import { makeReport } from '../report/makeReport';
import { fact, handoverSigned, lineProject } from '../schema';
import { within } from '../unitOfWork';
import { projectParam } from './params';

const signingSchema = z.strictObject({
  id: idSchema,
  madeAt: timeSchema,
  by: textSchema.trim().max(40).nullable(),
  /** null: the whole project. */
  closureId: idSchema.nullable(),
  name: textSchema.trim().min(1, 'Say who signs.').max(80, 'Keep the name to 80 characters.'),
  role: z.enum(signOffRoles),
  decision: z.enum(['accepted', 'accepted-with-remarks', 'sent-back']),
  note: textSchema.trim().max(500, 'Keep the note to 500 characters.'),
});

/** So often the record is made anew, where others recorded while it was being made. */
const mostTries = 4;

/** Signing the record of a closure or a project: it is frozen as it is, its fingerprint goes on record, and anybody can ask whose fingerprint one is. */
export function signOffRoutes(database: Database, clock: Clock) {
  return new Hono<RequestVariables>()
    .post(
      '/projects/:projectId/sign-offs',
      validated('param', projectParam),
      validated('json', signingSchema),
      async (context) => {
        const { projectId } = context.req.valid('param');
        const { id, madeAt, by, closureId, ...signed } = context.req.valid('json');
        const trouble = factTimeTrouble({ madeAt }, clock.trusted());
        if (trouble) refuse({ title: 'The time cannot be', status: 400, detail: trouble });
        // Sent once more: the first one counts.
        const [known] = await factsById(database.read, [id]);
        if (known) {
          const read = readFact(known.body);
          if (known.projectId !== projectId || read.status !== 'known' || read.fact.kind !== 'sign-off')
            return refuse({ title: 'Taken', status: 409, detail: 'Another record has this identifier.' });
          return context.json({ signOff: read.fact }, 200);
        }
        const { device } = context.get('actor');
        for (let tries = 0; tries < mostTries; tries += 1) {
          const row = await rowOf(database, projectId);
          const definition = await definitionOf(database.read, row);
          if (closureId !== null && !definition.closures.some((one) => one.id === closureId))
            notFound('closure');
          const { bytes, fingerprint } = await makeReport(
            database.read,
            {
              form: 'json',
              definition,
              gearFacts: await gearFacts(database.read),
              closureId: closureId ?? undefined,
              at: clock.now().toISOString(),
              address: '',
              labels: { size: '', skip: 0 },
            },
            { signal: context.req.raw.signal, onProgress: () => undefined },
          );
          const signOff: SignOff = {
            v: factVersion('sign-off'),
            id,
            kind: 'sign-off',
            madeAt,
            by,
            device,
            subject: closureId === null ? { on: 'project' } : { on: 'closure', closureId },
            body: { sha256: fingerprint, ...signed },
          };
          const stored = await within(database, context.get('actor'), projectId, async ({ db, row: now }) => {
            // What was recorded or changed meanwhile is not in the record that was made.
            if (now.lastSeq !== row.lastSeq || now.revision !== row.revision) return false;
            await db.insert(handoverSigned).values({
              id,
              projectId,
              closureId,
              sha256: fingerprint,
              document: new TextDecoder().decode(bytes),
              signedAt: new Date(madeAt),
            });
            await appendFacts(db, projectId, [signOff], clock.now());
            return true;
          });
          if (stored) return context.json({ signOff }, 201);
        }
        return refuse({
          title: 'Others are recording',
          status: 409,
          detail:
            'The record changed each time while it was made ready to be signed. Nothing was signed. Sign when the others have stopped.',
        });
      },
    )
    .get('/projects/:projectId/sign-offs', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      await rowOf(database, projectId);
      const rows = await database.read
        .select({ body: fact.body })
        .from(fact)
        .where(and(eq(fact.projectId, projectId), eq(fact.kind, 'sign-off')))
        .orderBy(desc(fact.seq));
      return context.json({
        signOffs: rows.flatMap(({ body }) => {
          const read = readFact(body);
          return read.status === 'known' && read.fact.kind === 'sign-off' ? [read.fact] : [];
        }),
      });
    })
    .get(
      '/projects/:projectId/sign-offs/:id/record.json',
      validated('param', projectParam.extend({ id: idSchema })),
      async (context) => {
        const { projectId, id } = context.req.valid('param');
        const [row] = await database.read
          .select({ document: handoverSigned.document, sha256: handoverSigned.sha256 })
          .from(handoverSigned)
          .where(and(eq(handoverSigned.projectId, projectId), eq(handoverSigned.id, id)));
        if (!row) return notFound('signed record');
        return attachment(
          row.document,
          'application/json; charset=utf-8',
          `signed record ${row.sha256.slice(0, 12)}.json`,
        );
      },
    )
    .get(
      '/sign-offs/:sha256',
      validated(
        'param',
        z.object({ sha256: z.string().regex(/^[0-9a-f]{64}$/, 'A SHA-256 has 64 hexadecimal digits.') }),
      ),
      async (context) => {
        const { sha256 } = context.req.valid('param');
        const rows = await database.read
          .select({ body: fact.body, project: lineProject })
          .from(handoverSigned)
          .innerJoin(fact, eq(fact.id, handoverSigned.id))
          .innerJoin(lineProject, eq(lineProject.id, handoverSigned.projectId))
          .where(and(eq(handoverSigned.sha256, sha256), isNull(lineProject.deletedAt)));
        const signed = await Promise.all(
          rows.map(async ({ body, project }) => {
            const read = readFact(body);
            if (read.status !== 'known' || read.fact.kind !== 'sign-off') return [];
            const { subject, madeAt, body: own } = read.fact;
            const { sites, closures } = await definitionOf(database.read, project);
            const closure =
              subject.on === 'closure' ? closures.find(({ id }) => id === subject.closureId) : undefined;
            return [
              {
                project: project.name,
                closure: closure ? siteOf(sites, closure.siteId).name : null,
                name: own.name,
                role: own.role,
                decision: own.decision,
                at: madeAt,
              },
            ];
          }),
        );
        return context.json({ signed: signed.flat() });
      },
    );
}

async function rowOf(database: Database, projectId: string) {
  const [row] = await database.read
    .select()
    .from(lineProject)
    .where(and(eq(lineProject.id, projectId), isNull(lineProject.deletedAt), isNull(lineProject.importing)));
  return row ?? notFound('project');
}
