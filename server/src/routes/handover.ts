import { idSchema, lossSheet, siteOf, writeProjectFile } from '@cordel/core';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import Papa from 'papaparse';
import { z } from 'zod';
import type { Database } from '../database';
import { notFound, problemResponse, refuse, validated } from '../problem';
import { insertDefinition, insertFacts, loadDefinition, loadFacts } from '../projectStore';
import { readProjectText } from '../projectText';
import { projectParam, storedUnlessTaken, taken } from './line';

const importLimit = 64 * 1024 * 1024;

/** The loss sheet, and the whole project as a document, out and in. */
export function handoverRoutes(database: Database) {
  return new Hono()
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
        const facts = (await loadFacts(database.read, projectId)).map((stored) => stored.fact);
        const sheet = lossSheet(
          definition,
          facts,
          chosen.map((one) => one.id),
        );
        const name = closure ? siteOf(definition.sites, chosen[0]!.siteId).name : definition.project.name;
        return attachment(
          // The mark at the start tells spreadsheets that this is UTF-8; without it they guess.
          `\uFEFF${Papa.unparse([[...sheet.header], ...sheet.rows.map((row) => [...row])], { newline: '\r\n', escapeFormulae: true })}\r\n`,
          'text/csv; charset=utf-8; header=present',
          `${name} losses.csv`,
        );
      },
    )
    .get('/projects/:projectId/project.json', validated('param', projectParam), async (context) => {
      const { projectId } = context.req.valid('param');
      const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
      return attachment(
        writeProjectFile(definition, await loadFacts(database.read, projectId)),
        'application/json; charset=utf-8',
        `${definition.project.name}.json`,
      );
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
        if (!/^application\/json\b/i.test(context.req.header('Content-Type') ?? ''))
          refuse({
            title: 'Not a project file',
            status: 415,
            detail: 'Send the project file as application/json.',
          });
        const read = readProjectText(await context.req.text());
        if (read.problems) {
          const [first] = read.problems;
          const more = read.problems.length - 1;
          return refuse({
            title: 'The file is not valid',
            status: 400,
            detail: `Line ${first!.line}${first!.path ? `, ${first!.path}` : ''}: ${first!.message}${more > 0 ? ` And ${more} more.` : ''} Nothing was changed.`,
            errors: read.problems.slice(0, 100).map(({ line, path, message }) => ({
              path: `line ${line}${path ? `, ${path}` : ''}`,
              message,
            })),
          });
        }
        const { file } = read;
        const stored = await storedUnlessTaken(() =>
          database.write(async (db) => {
            await insertDefinition(db, file);
            await insertFacts(db, file.project.id, file.facts);
          }),
        );
        if (!stored) refuse(taken);
        return context.json({ id: file.project.id, name: file.project.name }, 201);
      },
    );
}

function attachment(body: string, type: string, name: string): Response {
  const plain = name.replace(/[^\w .-]+/g, '_');
  return new Response(body, {
    headers: {
      'Content-Type': type,
      'Content-Disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name).replace(/['()*]/g, escape)}`,
      'Cache-Control': 'no-store',
    },
  });
}
