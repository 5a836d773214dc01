import { idSchema } from '@cordel/core';
import { NotNow, standInCommandSchema, standInSettingsSchema } from '@cordel/core/machine';
import { Hono, type Context } from 'hono';
import { streamSSE } from 'hono/streaming';
import { z } from 'zod';
import type { RequestVariables } from '../actor';
import { StandIns } from '../machine/standIns';
import { notFound, refuse, validated } from '../problem';

const machineParam = z.object({ machineId: idSchema });
const after = z.object({ after: z.coerce.number().int().min(0).max(Number.MAX_SAFE_INTEGER).default(0) });

/** How often a stream says that it is still there, where nothing happens: proxies close one that is silent. ms */
const breath = 15_000;

/** Splicing machines that this server reaches: so far the simulated ones, two for each device. docs/machine-link.md has the form of what they say. */
export function machineRoutes(ending: AbortSignal) {
  const standIns = new StandIns();
  const own = (context: Context<RequestVariables>) =>
    standIns.of(
      context.get('actor').device ??
        refuse({
          title: 'Which device?',
          status: 400,
          detail: 'Say which device asks (Cordel-Device): simulated machines are one’s own.',
        }),
    );
  const at = (context: Context<RequestVariables>, machineId: string) =>
    own(context).at(machineId) ?? notFound('machine');
  return new Hono<RequestVariables>()
    .get('/machines', async (context) => context.json({ machines: await own(context).link.discover() }))
    .get('/machines/:machineId/status', validated('param', machineParam), (context) =>
      context.json({ status: at(context, context.req.valid('param').machineId).status() }),
    )
    .get('/machines/:machineId/log', validated('param', machineParam), validated('query', after), (context) =>
      context.json({
        rows: at(context, context.req.valid('param').machineId).log(context.req.valid('query').after),
      }),
    )
    .get(
      '/machines/:machineId/events',
      validated('param', machineParam),
      validated('query', after),
      (context) => {
        const { machineId } = context.req.valid('param');
        const from = context.req.valid('query').after;
        if (!at(context, machineId).eventsAfter(from))
          refuse({
            title: 'Forgotten',
            status: 410,
            detail: 'The machine has forgotten what happened in between. Read its memory.',
          });
        const { link } = own(context);
        return streamSSE(context, async (out) => {
          const ended = new AbortController();
          out.onAbort(() => ended.abort());
          const alive = setInterval(() => void out.write(': \n\n'), breath);
          try {
            const signal = AbortSignal.any([ended.signal, ending]);
            for await (const event of link.events(machineId, from, signal))
              await out.writeSSE({ id: String(event.number), data: JSON.stringify(event) });
          } finally {
            clearInterval(alive);
          }
        });
      },
    )
    .post(
      '/machines/:machineId/commands',
      validated('param', machineParam),
      validated('json', standInCommandSchema),
      (context) => {
        const running = at(context, context.req.valid('param').machineId);
        try {
          running.command(context.req.valid('json'));
        } catch (error) {
          if (!(error instanceof NotNow)) throw error;
          refuse({ title: 'Not now', status: 409, detail: error.message });
        }
        return context.json({ status: running.status() });
      },
    )
    .post(
      '/machines/:machineId/renew',
      validated('param', machineParam),
      validated('json', standInSettingsSchema),
      (context) => {
        const { machineId } = context.req.valid('param');
        at(context, machineId);
        return context.json({ machineId: own(context).renew(machineId, context.req.valid('json')) });
      },
    );
}
