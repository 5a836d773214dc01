import { z } from 'zod';
import { idSchema } from '../schemas';
import { sortedKeys } from '../sortedKeys';
import { attemptKind, type Attempt } from './attempt';
import { calibrationKind, type Calibration } from './calibration';
import { correctionKind, type Correction } from './correction';
import { envelopeShape, type Envelope } from './envelope';
import { gearEventKind, type GearEvent } from './gearEvent';
import { flashTestKind, type FlashTest } from './flashTest';
import { holdingTestKind, type HoldingTest } from './holdingTest';
import type { FactKind, FactOf, FlatFact, Unchecked } from './kind';
import { lightCheckKind, type LightCheck } from './lightCheck';
import { measuredLossKind, type MeasuredLoss } from './measuredLoss';
import { measurementKind, type Measurement } from './measurement';
import { ownerAnswerKind, type OwnerAnswer } from './ownerAnswer';
import { patternAnswerKind, type PatternAnswer } from './patternAnswer';
import { photoKind, type Photo } from './photo';
import { recleaveKind, type Recleave } from './recleave';
import { reopeningKind, type Reopening } from './reopening';
import { sealCheckKind, type SealCheck } from './sealCheck';
import { signOffKind, type SignOff } from './signOff';
import { tickKind, type Tick } from './tick';
import { weatherKind, type Weather } from './weather';
import { wentOnKind, type WentOn } from './wentOn';

/** Every kind of fact there is. A new one is added here and in a file of its own; nothing else lists them. */
const kinds = [
  attemptKind,
  correctionKind,
  ownerAnswerKind,
  measuredLossKind,
  tickKind,
  measurementKind,
  lightCheckKind,
  calibrationKind,
  gearEventKind,
  recleaveKind,
  weatherKind,
  wentOnKind,
  sealCheckKind,
  flashTestKind,
  holdingTestKind,
  reopeningKind,
  photoKind,
  patternAnswerKind,
  signOffKind,
] as const;

/** Everything that can happen. */
export type Fact = FactOf<(typeof kinds)[number]>;
/** What happened at a splice. */
export type SpliceFact = Attempt | Correction | OwnerAnswer | MeasuredLoss;
/** What happened while cables were prepared. */
export type PrepareFact = Tick | Measurement | LightCheck;
/** What happened while a closure was sealed, and when it was opened again. */
export type SealFact = SealCheck | FlashTest | HoldingTest | Reopening;
/** What happened to the gear. */
export type GearFact = Calibration | GearEvent | Recleave | Weather | WentOn;

export type {
  Attempt,
  Calibration,
  Correction,
  FlashTest,
  GearEvent,
  HoldingTest,
  LightCheck,
  MeasuredLoss,
  Measurement,
  OwnerAnswer,
  PatternAnswer,
  Photo,
  Recleave,
  Reopening,
  SealCheck,
  SignOff,
  Tick,
  Weather,
  WentOn,
};

type AnyKind = FactKind<string, unknown, unknown>;
const byName: ReadonlyMap<string, AnyKind> = new Map(
  kinds.map((kind) => [kind.kind, kind as unknown as AnyKind]),
);

/** The version in which a kind of fact is written today. */
export function factVersion(kind: Fact['kind']): number {
  return byName.get(kind)!.version;
}

/** A fact of a kind or a version that this Cordel does not know. Kept and passed on as it came. */
export type UnknownFact = Envelope<string, unknown, unknown>;

export function isSpliceFact(fact: Fact): fact is SpliceFact {
  return fact.subject.on === 'splice' && fact.kind !== 'tick';
}

export function isGearFact(fact: Fact): fact is GearFact {
  return fact.subject.on === 'gear';
}

/** Whether a fact counts for gear, wherever it happened: what was done to it, what was made with it, and what was corrected of that. */
export function concernsGear(fact: Fact): boolean {
  return byName.get(fact.kind)!.concernsGear(fact.body);
}

/** The closure at which a fact happened; null where it has none, or none that can be read. */
export function closureOf(fact: { readonly subject: unknown }): string | null {
  const { closureId } = (fact.subject ?? {}) as { closureId?: unknown };
  return idSchema.safeParse(closureId).data ?? null;
}

export type ReadFact =
  | { readonly status: 'known'; readonly fact: Fact }
  /** Of a newer kind or version: well formed as far as that can be told. */
  | { readonly status: 'unknown'; readonly fact: UnknownFact }
  | { readonly status: 'wrong'; readonly path: readonly PropertyKey[]; readonly message: string };

/** Characters of an unknown fact as JSON; more is no fact. */
const mostUnknown = 64 * 1024;
const deepest = 40;

const unknownSchema = z.looseObject({ ...envelopeShape, subject: z.unknown(), body: z.unknown() });

/**
 * Reads a fact of any age: an older one is brought up to what is written today, one of a newer kind or version is kept as it came. Never throws,
 * whatever it is given.
 */
export function readFact(raw: unknown): ReadFact {
  const { kind, v } = (typeof raw === 'object' && raw !== null ? raw : {}) as { kind?: unknown; v?: unknown };
  const known = typeof kind === 'string' ? byName.get(kind) : undefined;
  const version = v === undefined ? 1 : v;
  if (known && typeof version === 'number' && version <= known.version) {
    const current = version === known.version ? raw : broughtUp(known, version, raw as object);
    if (current === null) return wrong('This was written by an older Cordel and cannot be read any more.');
    const parsed = known.schema.safeParse(current);
    if (parsed.success) return { status: 'known', fact: parsed.data as Fact };
    return firstIssue(parsed.error);
  }
  if (v === undefined)
    return wrong(kind === undefined ? 'This is not a fact.' : 'There is no such kind of fact.', ['kind']);
  const parsed = unknownSchema.safeParse(raw);
  if (!parsed.success) return firstIssue(parsed.error);
  const trouble = storableTrouble(raw);
  return trouble
    ? wrong(trouble)
    : { status: 'unknown', fact: { ...(raw as UnknownFact), id: parsed.data.id } };
}

/** A fact for this Cordel to count with: null where it is of a newer one, or cannot be read. For what a server or this device has checked before. */
export function knownFact(raw: { readonly kind: string; readonly v: number }): Fact | null {
  const kind = byName.get(raw.kind);
  if (kind?.version === raw.v) return raw as Fact;
  const read = readFact(raw);
  return read.status === 'known' ? read.fact : null;
}

/** The fact with its fields in the order in which they are always written, so that the same fact is the same text on every server. */
export function inWrittenOrder<F extends Fact | UnknownFact>(fact: F): F {
  const kind = byName.get(fact.kind);
  if (kind?.version === fact.v) return kind.schema.parse(fact) as F;
  return sortedKeys(fact) as F;
}

/** Whether two facts say the same, whatever order their fields came in, and whichever version of their kind they were written in. */
export function sameFact(a: Fact | UnknownFact, b: Fact | UnknownFact): boolean {
  const text = (one: Fact | UnknownFact) => JSON.stringify(sortedKeys(knownFact(one) ?? one));
  return text(a) === text(b);
}

function wrong(message: string, path: readonly PropertyKey[] = []): ReadFact {
  return { status: 'wrong', path, message };
}

function firstIssue(error: z.ZodError): ReadFact {
  const [issue] = error.issues;
  return wrong(issue!.message, issue!.path);
}

function broughtUp(kind: AnyKind, version: number, raw: object): unknown {
  if (version === 1) {
    const flat = raw as FlatFact & Record<string, unknown>;
    const lifted = kind.upcast(1, { flat, subject: null, body: null });
    if (!lifted) return null;
    const { id, madeAt, by } = flat;
    return { v: kind.version, id, kind: kind.kind, madeAt, by, device: null, ...lifted };
  }
  const { subject, body, ...rest } = raw as Unchecked;
  const lifted = kind.upcast(version, { subject, body });
  return lifted ? { ...rest, v: kind.version, ...lifted } : null;
}

/** Why a value of unknown shape cannot be stored, or null. Walks it without recursion, so that depth costs nothing. */
function storableTrouble(value: unknown): string | null {
  let size = 0;
  const waiting: { value: unknown; depth: number }[] = [{ value, depth: 0 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.depth > deepest) return `A fact has at most ${deepest} levels.`;
    const strings: string[] = [];
    if (typeof next.value === 'string') strings.push(next.value);
    else if (typeof next.value === 'object' && next.value !== null)
      for (const [key, inner] of Object.entries(next.value)) {
        strings.push(key);
        waiting.push({ value: inner, depth: next.depth + 1 });
      }
    size += 4;
    for (const text of strings) {
      if (/[\0\p{Cs}]/u.test(text)) return 'Some characters of this text are broken.';
      size += text.length;
    }
    if (size > mostUnknown) return 'A fact has at most 64 KB.';
  }
  return null;
}
