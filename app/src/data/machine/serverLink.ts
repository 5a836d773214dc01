import {
  foundMachineSchema,
  logRowSchema,
  machineEventSchema,
  machineStatusSchema,
  NotNow,
  type MachineEvent,
  type MachineLink,
} from '@cordel/core/machine';
import { EventSourceParserStream } from 'eventsource-parser/stream';
import { z } from 'zod';
import type { MachineServer } from './serveMachines';

/** Why a machine cannot be heard, in words for the person. */
export class LinkLost extends Error {}

/** Machines that the server reaches. @param address of its API @param device that asks */
export function serverLink(address: string, device: string): MachineLink {
  return serverMachines(address, device).link;
}

/**
 * The same, over HTTP and server-sent events, with hands at those that are simulated.
 */
export function serverMachines(address: string, device: string): MachineServer {
  const ask = async (path: string, init: RequestInit = {}): Promise<Response> => {
    let answer: Response;
    try {
      const headers = {
        'Cordel-Device': device,
        ...(init.body ? { 'Content-Type': 'application/json' } : {}),
      };
      answer = await fetch(`${address}${path}`, { ...init, headers });
    } catch (error) {
      throw new LinkLost('The server does not answer, so its machines cannot be heard.', { cause: error });
    }
    if (answer.ok) return answer;
    const { detail } = (await answer.json().catch(() => ({}))) as { detail?: string };
    throw new (answer.status === 409 ? NotNow : LinkLost)(detail ?? `The server answered ${answer.status}.`);
  };
  const read = async <S extends z.ZodType>(path: string, schema: S, body?: object): Promise<z.infer<S>> =>
    schema.parse(await (await ask(path, body ? { method: 'POST', body: JSON.stringify(body) } : {})).json());
  const at = (machineId: string) => `/machines/${encodeURIComponent(machineId)}`;
  const link: MachineLink = {
    discover: async () =>
      (await read('/machines', z.object({ machines: z.array(foundMachineSchema) }))).machines,
    status: async (machineId) =>
      (await read(`${at(machineId)}/status`, z.object({ status: machineStatusSchema }))).status,
    log: async (machineId, after) =>
      (await read(`${at(machineId)}/log?after=${after}`, z.object({ rows: z.array(logRowSchema) }))).rows,
    async *events(machineId, after, stop): AsyncGenerator<MachineEvent> {
      const ended = new AbortController();
      stop.addEventListener('abort', () => ended.abort());
      if (stop.aborted) return;
      try {
        const { body } = await ask(`${at(machineId)}/events?after=${after}`, { signal: ended.signal });
        const reader = body!
          .pipeThrough(new TextDecoderStream())
          .pipeThrough(new EventSourceParserStream())
          .getReader();
        for (;;) {
          const { done, value } = await reader.read();
          if (done) break;
          yield machineEventSchema.parse(JSON.parse(value.data));
        }
      } catch (error) {
        if (stop.aborted) return;
        if (error instanceof LinkLost) throw error;
        throw new LinkLost('The link to the machine dropped.', { cause: error });
      } finally {
        ended.abort();
      }
      if (!stop.aborted) throw new LinkLost('The link to the machine dropped.');
    },
  };
  return {
    link,
    command: async (machineId, command) =>
      (await read(`${at(machineId)}/commands`, z.object({ status: machineStatusSchema }), command)).status,
    renew: async (machineId, settings) =>
      (await read(`${at(machineId)}/renew`, z.object({ machineId: z.string() }), settings)).machineId,
  };
}
