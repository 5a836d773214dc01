import { planClosure, runsOf } from '@cordel/core';
import { randomUUID } from 'node:crypto';
import { request, type ServerProcess } from '../../server/test/process';
import { firstProject } from './shelf';

const began = Date.parse('2026-04-14T23:10:00.000Z');
/** What was entered by hand at slots 1 to 8, and what the machine has of them, and of the ninth. */
const entered = [3, 2, 5, 1, 4, 2, 3, 6];
export const read = [3, 6, 5, 1, 14, 2, 30, 6, 2];
export const minute = (index: number) => began + index * 7 * 60_000;

/** Eight readings that somebody entered a minute after the machine had them. */
export async function enteredByHand(server: ServerProcess) {
  const u3 = await firstProject(server, 'U3');
  const closure = u3.definition.closures.find(({ id }) => id === u3.closureId)!;
  const { splices } = planClosure(closure, new Map(u3.definition.cables.map((cable) => [cable.id, cable])));
  const facts = entered.map((hundredths, index) => ({
    v: 3,
    id: randomUUID(),
    kind: 'attempt',
    madeAt: new Date(minute(index) + 60_000).toISOString(),
    by: 'Iara',
    device: null,
    subject: {
      on: 'splice',
      closureId: u3.closureId,
      left: runsOf(splices[index]!.left),
      right: runsOf(splices[index]!.right),
    },
    body: {
      source: 'hand',
      simulated: true,
      readings: [{ loss: hundredths / 100, cleaveLeft: null, cleaveRight: null }],
      proofTestFailed: false,
      note: '',
    },
  }));
  const { body } = await request<{ refused: unknown[] }>(
    `${server.url}/api/projects/${u3.projectId}/facts`,
    'POST',
    { facts },
  );
  if (body.refused.length > 0) throw new Error(`Refused: ${JSON.stringify(body.refused[0])}`);
  return u3;
}

/** As a machine in the project's zone writes it, with a comma and in the Western page. */
export const table = (losses: readonly number[]) =>
  Buffer.from(
    [
      'Emenda nº;Data;Hora;Perda (dB);Ângulo esq.;Ângulo dir.;Tração',
      ...losses.map((hundredths, index) => {
        const local = new Date(minute(index) - 3 * 3600_000).toISOString();
        const [year, month, day] = local.slice(0, 10).split('-');
        return `${index + 1};${day}/${month}/${year};${local.slice(11, 19)};${(hundredths / 100).toFixed(2).replace('.', ',')};0,4;0,5;OK`;
      }),
      '',
    ].join('\r\n'),
    'latin1',
  );
