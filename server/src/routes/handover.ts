import { idSchema, knownFact, lossSheet, projectFileParts, siteOf, spreadsheetFormula } from '@cordel/core';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { HTTPException } from 'hono/http-exception';
import { stream } from 'hono/streaming';
import Papa from 'papaparse';
import { z } from 'zod';
import type { RequestVariables } from '../actor';
import { attachment, attachmentHeaders } from '../attachment';
import type { Clock } from '../clock';
import type { Database } from '../database/database';
import { breathe, loadFacts } from '../factStore';
import { gearFacts } from '../gearFacts';
import { importProject, receiveFile } from '../import/importProject';
import { notFound, problemResponse, validated } from '../problem';
import { loadDefinition } from '../projectStore';
import { projectParam } from './params';

const importLimit = 64 * 1024 * 1024;

/** The loss sheet, and the whole project as a document, out and in. */
export function handoverRoutes(database: Database, clock: Clock) {
  return new Hono<RequestVariables>()
    .get(
      '/projects/:projectId/loss-sheet.csv',
      validated('param', projectParam),
      validated('query', z.object({ closure: idSchema.optional() })),
      async (context) => {
        const { projectId } = context.req.valid('param');
        const { closure } = context.req.valid('query');
        const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
        const chosen = definition.closures.filter((one) => !closure || one.id === closure);
        if (closure && chosen.length === 0) notFound('closure');
        const facts = (await loadFacts(database.read, projectId)).flatMap(
          (stored) => knownFact(stored.fact) ?? [],
        );
        const sheet = lossSheet(
          definition,
          facts,
          chosen.map((one) => one.id),
          await gearFacts(database.read),
        );
        const name = closure ? siteOf(definition.sites, chosen[0]!.siteId).name : definition.project.name;
        return attachment(
          // The mark at the start tells spreadsheets that this is UTF-8; without it they guess.
          `\uFEFF${Papa.unparse([[...sheet.header], ...sheet.rows.map((row) => [...row])], { newline: '\r\n', escapeFormulae: spreadsheetFormula })}\r\n`,
          'text/csv; charset=utf-8; header=present',
          `${name} losses.csv`,
        );
      },
    )
    .get('/projects/:projectId/project.json', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
      const facts = await loadFacts(database.read, projectId);
      const headers = attachmentHeaders('application/json; charset=utf-8', `${definition.project.name}.json`);
      for (const [name, value] of Object.entries(headers)) context.header(name, value);
      return stream(context, async (out) => {
        for (const part of projectFileParts(definition, facts)) {
          await out.write(part);
          await breathe();
        }
      });
    })
    .post(
      '/import',
      bodyLimit({
        maxSize: importLimit,
        onError: () =>
          problemResponse({
            title: 'Too large',
            status: 413,
            detail: 'A project file may have at most 64 MB. Nothing was changed.',
          }),
      }),
      async (context) => {
        const thread = await receiveFile(context.req.raw.body);
        const take = (onProgress: Parameters<typeof importProject>[3]) =>
          importProject(database, thread, clock.trusted(), onProgress);
        if (!context.req.header('Accept')?.includes('application/x-ndjson'))
          return context.json(await take(() => undefined), 201);
        // A line for each step, and a last one with what came of it, for a page that shows how far it is.
        context.header('Content-Type', 'application/x-ndjson');
        return stream(context, async (out) => {
          const say = (line: unknown) => out.write(`${JSON.stringify(line)}\n`);
          try {
            say({ taken: await take((progress) => void say({ progress })) });
          } catch (error) {
            if (!(error instanceof HTTPException) || !error.res) throw error;
            await say({ problem: await error.res.json() });
          }
        });
      },
    );
}
