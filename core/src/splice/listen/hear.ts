import type { SpliceFact } from '../../facts';
import type { MachineEvent, MachineState, SeenFiber } from '../../machine/link';
import { readingSchema, type Reading } from '../record/reading';
import { spliceHistory } from '../record/history';

/**
 * What a bench does with what a machine tells it. Pure: the same events at the same bench give the same. A reading is taken by itself only where it is certain which
 * splice it is of; else a person is asked.
 */

export type ResultEvent = Extract<MachineEvent, { kind: 'result' }>;

/** What a listening bench remembers of its machine. */
export interface Hearing {
  /** Number of the last event that was dealt with. */
  readonly number: number;
  /** Events up to this number happened while nobody listened. */
  readonly missed: number;
  /** null: not heard yet. */
  readonly state: MachineState | null;
  /** The splice whose fibers lie in the machine; null where that is not certain. */
  readonly inside: Inside | null;
  /** What it saw before the arc, of what lies in it. */
  readonly before: readonly SeenFiber[] | null;
  /** A person has to say of which splices these are, oldest first. */
  readonly questions: readonly ListenQuestion[];
}

interface Inside {
  readonly spliceId: string;
  /** Records that the splice had when the fibers were laid in. */
  readonly records: number;
}

/** The bench as it stands when an event comes. */
export interface ListeningBench {
  readonly spliceId: string;
  /** Fibers of the splice. */
  readonly fibers: number;
  /** What is on record at it. */
  readonly records: number;
  /** It takes a reading: it is open, to be done again, or a new try was asked for. */
  readonly entering: boolean;
  /** Losses were entered by hand for the try that is being made. */
  readonly byHand: boolean;
  /** The splice at which this reading of the machine is on record already; null where it is at none. */
  readonly recordedAt: (result: ResultEvent) => string | null;
}

/** Why a person is asked, where a reading is not taken by itself. */
export type WhyAsked =
  /** This reading of the machine is on record already. */
  | 'again'
  /** It was made while nobody listened. */
  | 'missed'
  /** It is not known where the bench stood when the fibers were laid in. */
  | 'unbegun'
  /** Somebody recorded at this splice since the fibers were laid in. */
  | 'taken'
  /** The bench went on to another splice meanwhile. */
  | 'moved'
  /** It has another number of fibers. */
  | 'other-count'
  /** Nothing is to be spliced here any more. */
  | 'settled'
  /** Losses of this try were entered by hand. */
  | 'by-hand'
  /** It says no loss, or one that is none. */
  | 'unreadable'
  /** This device had no room to keep it. */
  | 'not-kept';

export interface ListenQuestion {
  readonly result: ResultEvent;
  readonly why: WhyAsked;
  /** The splice that it may be of: where the fibers were laid in, or where it is on record. null: no idea. */
  readonly spliceId: string | null;
}

/** Begins to listen. @param after number of the last event that is known; @param last that of the machine's newest */
export function beginHearing(after: number, last: number, state: MachineState | null = null): Hearing {
  return { number: after, missed: last, state, inside: null, before: null, questions: [] };
}

/** Goes on after the link was down: what happened meanwhile was missed. */
export function resumeHearing(hearing: Hearing, last: number): Hearing {
  return { ...hearing, missed: last };
}

export interface Heard {
  readonly hearing: Hearing;
  /** A reading to be recorded at the splice of the bench. */
  readonly take: ResultEvent | null;
}

/** What follows from an event. One that was dealt with before changes nothing. */
export function hear(hearing: Hearing, event: MachineEvent, bench: ListeningBench): Heard {
  if (event.number <= hearing.number) return { hearing, take: null };
  const missed = event.number <= hearing.missed;
  const next = { ...hearing, number: event.number };
  switch (event.kind) {
    case 'state':
      return { hearing: inState(next, event.state, missed, bench), take: null };
    case 'before':
      return { hearing: { ...next, before: event.fibers }, take: null };
    case 'result': {
      const after = { ...next, inside: null, before: null };
      // Heard a second time because the link was down, or this page was opened anew: it is on record.
      if (missed && bench.recordedAt(event)) return { hearing: after, take: null };
      const question = askedOf(next, event, missed, bench);
      if (!question) return { hearing: after, take: event };
      return { hearing: { ...after, questions: [...next.questions, question] }, take: null };
    }
    default:
      return { hearing: next, take: null };
  }
}

function inState(hearing: Hearing, state: MachineState, missed: boolean, bench: ListeningBench): Hearing {
  const next = { ...hearing, state };
  if (state === 'ready') return { ...next, inside: null, before: null };
  if (state !== 'gap-set') return next;
  // Seated or cleaved anew: the same fibers.
  if (hearing.state === 'pause') return next;
  // As long as somebody has to say where the one before belongs, it is not known either where the hands are with the next.
  const certain = !missed && hearing.questions.length === 0 && bench.entering;
  return {
    ...next,
    before: null,
    inside: certain ? { spliceId: bench.spliceId, records: bench.records } : null,
  };
}

function askedOf(
  { inside }: Hearing,
  result: ResultEvent,
  missed: boolean,
  bench: ListeningBench,
): ListenQuestion | null {
  const ask = (why: WhyAsked, spliceId = inside?.spliceId ?? null) => ({ result, why, spliceId });
  const recorded = bench.recordedAt(result);
  if (recorded) return ask('again', recorded);
  if (missed) return ask('missed');
  if (!inside) return ask('unbegun');
  if (inside.spliceId !== bench.spliceId) return ask('moved');
  if (result.fibers.length !== bench.fibers) return ask('other-count', null);
  if (inside.records !== bench.records) return ask('taken');
  if (!bench.entering) return ask('settled');
  if (bench.byHand) return ask('by-hand');
  if (!readingsOf(result)) return ask('unreadable');
  return null;
}

/** What was to be taken could not be kept: a person decides. */
export function notKept(hearing: Hearing, result: ResultEvent, spliceId: string): Hearing {
  return { ...hearing, questions: [...hearing.questions, { result, why: 'not-kept', spliceId }] };
}

/** Number of the last event that need not be heard again by who begins anew: what somebody still has to say something to comes again. */
export function heardUpTo({ number, questions }: Hearing): number {
  return Math.min(number, ...questions.map(({ result }) => result.number - 1));
}

/** A person has said what became of the oldest question. */
export function answered(hearing: Hearing): Hearing {
  return { ...hearing, questions: hearing.questions.slice(1) };
}

/** Whether what lies in the machine is what the bench shows: only then what it sees before the arc is judged as of this splice. */
export function liesInMachine({ inside }: Hearing, spliceId: string): boolean {
  return inside?.spliceId === spliceId;
}

/** What is recorded of a result; null where a loss or a value is none that can be recorded. */
export function readingsOf(result: Pick<ResultEvent, 'fibers' | 'proofTestFailed'>): Reading[] | null {
  const readings = result.fibers.map(({ loss, cleaveLeft, cleaveRight, offset, gap }) => ({
    loss,
    cleaveLeft,
    cleaveRight,
    ...(offset === null ? {} : { offset }),
    ...(gap === null ? {} : { gap }),
  }));
  const whole = readings.every(
    (one) => readingSchema.safeParse(one).success && (one.loss !== null || result.proofTestFailed),
  );
  return whole ? readings : null;
}

/**
 * Where the readings of a machine's memory are on record: the splice by number and time, so that numbers that began anew are told apart.
 * @param splices of the closure, with their facts
 */
export function recordedFrom(
  memory: string,
  splices: Iterable<{ readonly splice: { readonly id: string }; readonly facts: readonly SpliceFact[] }>,
): (result: Pick<ResultEvent, 'splice' | 'at'>) => string | null {
  const key = (splice: number | null, at: string | null) => `${splice} ${at}`;
  const known = new Map<string, string>();
  for (const { splice, facts } of splices)
    for (const { fact } of facts.length > 0 ? spliceHistory(facts).attempts : []) {
      const { origin } = fact.body;
      if (origin?.memory === memory) known.set(key(origin.splice, origin.at), splice.id);
    }
  return ({ splice, at }) => known.get(key(splice, at)) ?? null;
}
