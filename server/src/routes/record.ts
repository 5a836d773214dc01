import { idSchema, siteOf } from '@cordel/core';
import { labelSizes } from '@cordel/core/labels';
import { Hono, type Context } from 'hono';
import { stream } from 'hono/streaming';
import { z } from 'zod';
import type { RequestVariables } from '../actor';
import { attachmentHeaders } from '../attachment';
import type { Clock } from '../clock';
import type { Database } from '../database/database';
import { gearFacts } from '../gearFacts';
import { notFound, validated } from '../problem';
import { loadDefinition } from '../projectStore';
import { makeReport } from '../report/makeReport';
import { reportForms, type ReportForm } from '../report/messages';
import { projectParam } from './params';

const types: Readonly<Record<ReportForm, readonly [type: string, ending: string]>> = {
  pdf: ['application/pdf', 'record.pdf'],
  short: ['application/pdf', 'record, one page.pdf'],
  xlsx: ['application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', 'record.xlsx'],
  csv: ['text/csv; charset=utf-8; header=present', 'record.csv'],
  json: ['application/json; charset=utf-8', 'record.json'],
  geojson: ['application/geo+json; charset=utf-8', 'map.geojson'],
  labels: ['application/pdf', 'labels.pdf'],
  'labels-csv': ['text/csv; charset=utf-8; header=present', 'labels.csv'],
};

/** A piece of an answer that is sent as lines; a multiple of 3, so that the pieces put together are the whole in base 64. */
const piece = 3 * 64 * 1024;

/** The record of what was built, in every form in which it is handed over. */
export function recordRoutes(database: Database, clock: Clock) {
  return new Hono<RequestVariables>().get(
    '/projects/:projectId/record/:form',
    validated('param', projectParam.extend({ form: z.enum(reportForms) })),
    validated(
      'query',
      z.object({
        closure: idSchema.optional(),
        size: z.enum(labelSizes.map(({ id }) => id)).default(labelSizes[0]!.id),
        skip: z.coerce.number().int().min(0).max(200).default(0),
      }),
    ),
    async (context) => {
      const { projectId, form } = context.req.valid('param');
      const { closure, size, skip } = context.req.valid('query');
      const definition = (await loadDefinition(database.read, projectId)) ?? notFound('project');
      const chosen = definition.closures.find(({ id }) => id === closure);
      if (closure !== undefined && !chosen) notFound('closure');
      const order = {
        form,
        definition,
        gearFacts: await gearFacts(database.read),
        closureId: closure,
        at: clock.now().toISOString(),
        address: addressOf(context),
        labels: { size, skip },
      };
      const { signal } = context.req.raw;
      const [type, ending] = types[form];
      const name = `${chosen ? siteOf(definition.sites, chosen.siteId).name : definition.project.name} ${ending}`;
      if (!context.req.header('Accept')?.includes('application/x-ndjson')) {
        const { bytes, fingerprint } = await makeReport(database.read, order, {
          signal,
          onProgress: () => undefined,
        });
        return new Response(bytes as Uint8Array<ArrayBuffer>, {
          headers: { ...attachmentHeaders(type, name), 'X-Fingerprint': fingerprint },
        });
      }
      // A line for each step, then the document in pieces, for a page that shows how far it is and can end it.
      context.header('Content-Type', 'application/x-ndjson');
      return stream(context, async (out) => {
        const say = (line: unknown) => out.write(`${JSON.stringify(line)}\n`);
        const ended = new AbortController();
        out.onAbort(() => ended.abort(new Error('Nobody waits for it any more.')));
        try {
          const { bytes, fingerprint } = await makeReport(database.read, order, {
            signal: AbortSignal.any([signal, ended.signal]),
            onProgress: (done, of) => void say({ progress: { done, of } }),
          });
          for (let start = 0; start < bytes.length; start += piece)
            await say({ piece: Buffer.from(bytes.subarray(start, start + piece)).toString('base64') });
          await say({ made: { name, type, fingerprint } });
        } catch (error) {
          if (ended.signal.aborted || signal.aborted) return;
          await say({
            problem: 'The document could not be made. Try again; the server’s log has the reason.',
          });
          throw error;
        }
      });
    },
  );
}

/** The address under which the person reached this server, for links in what is handed over. */
function addressOf(context: Context): string {
  const url = new URL(context.req.url);
  const scheme = context.req.header('X-Forwarded-Proto')?.split(',')[0]?.trim();
  return `${scheme === 'https' || scheme === 'http' ? scheme : url.protocol.slice(0, -1)}://${url.host}`;
}
