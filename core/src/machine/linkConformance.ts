import { sortedKeys } from '../sortedKeys';
import {
  foundMachineSchema,
  logRowSchema,
  machineEventSchema,
  machineStatusSchema,
  type MachineEvent,
  type MachineLink,
} from './link';

/** What a test of an adapter hands in. */
export interface ConformanceInput {
  readonly link: MachineLink;
  readonly machineId: string;
  /** Has the machine make one splice, from laying in to taking out, and resolves when that is done. A person does it at a real one. */
  readonly makeSplice: () => Promise<void>;
  /** Lets a moment pass in which others have their turn. */
  readonly moment: () => Promise<void>;
  readonly newSignal: () => {
    readonly signal: Parameters<MachineLink['events']>[2];
    readonly abort: () => void;
  };
}

/** An event that did not come by then does not come. */
const mostMoments = 1000;

/**
 * Tries an adapter with two splices, and tells each rule of `MachineLink` that it breaks; none where it keeps all.
 */
export async function linkConformance({
  link,
  machineId,
  makeSplice,
  moment,
  newSignal,
}: ConformanceInput): Promise<readonly string[]> {
  const broken: string[] = [];
  const must = (rule: string, holds: boolean) => {
    if (!holds) broken.push(rule);
  };
  const found = await link.discover();
  must(
    'discover gives machines by the schema',
    found.every((one) => foundMachineSchema.safeParse(one).success),
  );
  must('discover gives each machine once', new Set(found.map(({ id }) => id)).size === found.length);
  must(
    'discover gives this machine',
    found.some(({ id }) => id === machineId),
  );

  const before = await link.status(machineId);
  must('status is by the schema', machineStatusSchema.safeParse(before).success);
  const logBefore = await link.log(machineId, 0);
  const lastSplice = logBefore.at(-1)?.splice ?? 0;

  // Somebody listens from now on.
  const heard: MachineEvent[] = [];
  const { signal, abort } = newSignal();
  const listening = (async () => {
    for await (const event of link.events(machineId, before.last, signal)) heard.push(event);
  })();
  await makeSplice();
  const after = await link.status(machineId);
  for (let turn = 0; turn < mostMoments && (heard.at(-1)?.number ?? 0) < after.last; turn += 1)
    await moment();
  abort();
  must('events end when the signal is aborted', await ends(listening));
  const told = heard.length;

  must(
    'events are by the schema',
    heard.every((event) => machineEventSchema.safeParse(event).success),
  );
  must(
    'events are numbered from what was heard last, without a hole',
    heard.every(({ number }, index) => number === before.last + 1 + index),
  );
  must('a splice gives a result', heard.filter(({ kind }) => kind === 'result').length === 1);
  must(
    'what is seen before the arc comes ahead of the result',
    heard.findIndex(({ kind }) => kind === 'before') < heard.findIndex(({ kind }) => kind === 'result'),
  );
  must('status gives the number of the last event', after.last === before.last + told);

  const log = await link.log(machineId, lastSplice);
  must(
    'the memory is by the schema',
    log.every((row) => logRowSchema.safeParse(row).success),
  );
  const result = heard.find((event) => event.kind === 'result');
  if (result) {
    const { kind: _kind, number: _number, ...row } = result;
    must('the memory has the splice as the event told it', same(log.at(-1), row));
  }
  must(
    'the memory gives nothing before the number that was asked for',
    log.every(({ splice }) => splice > lastSplice),
  );

  // Nobody listens; what was missed comes afterwards.
  await makeSplice();
  const { last } = await link.status(machineId);
  const missed: MachineEvent[] = [];
  const second = newSignal();
  for await (const event of link.events(machineId, after.last, second.signal)) {
    missed.push(event);
    if (event.number >= last) break;
  }
  second.abort();
  must('what was missed comes first, in order', missed[0]?.number === after.last + 1);
  must('what was missed is whole', missed.length === last - after.last);

  const nobody = '01900000-0000-7000-8000-00000000dead';
  must('an unknown machine is refused with words', await refuses(() => link.status(nobody)));
  return broken;
}

const same = (a: unknown, b: unknown) => JSON.stringify(sortedKeys(a)) === JSON.stringify(sortedKeys(b));
async function ends(work: Promise<void>): Promise<boolean> {
  return work.then(
    () => true,
    () => false,
  );
}

async function refuses(work: () => Promise<unknown>): Promise<boolean> {
  try {
    await work();
    return false;
  } catch (error) {
    return error instanceof Error && error.message.length > 10;
  }
}
