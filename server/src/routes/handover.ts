import {
  idSchema,
  lossSheet,
  projectFileSchema,
  referenceProblems,
  siteOf,
  writeProjectFile,
} from '@cordel/core';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import Papa from 'papaparse';
import { z } from 'zod';
import { attachment } from '../attachment';
import type { Database } from '../database';
import { documentProblem, readDocument } from '../documentText';
import { notFound, problemResponse, refuse, taken, validated } from '../problem';
import { insertDefinition, insertFacts, loadDefinition, loadFacts } from '../projectStore';
import { projectParam, storedUnlessTaken } from './line';

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
        const read = readDocument(await context.req.text(), projectFileSchema, (file) =>
          referenceProblems(file, file.facts),
        );
        if (read.problems) return refuse(documentProblem(read.problems));
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
