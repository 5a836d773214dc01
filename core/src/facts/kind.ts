import { z } from 'zod';
import { envelopeShape, type Envelope } from './envelope';

/** A fact as Cordel 0.1 wrote it: no `v`, all fields side by side. Those that every kind had are read already. */
export interface FlatFact {
  readonly closureId: string;
  readonly [field: string]: unknown;
}

/** A subject and a body that are not checked yet. */
export interface Unchecked {
  readonly subject: unknown;
  readonly body: unknown;
}

export interface FactKind<K extends string, S, B> {
  readonly kind: K;
  readonly version: number;
  readonly schema: z.ZodType<Envelope<K, S, B>>;
  /**
   * Brings a subject and a body of version `from` up to this one; `schema` checks what comes out. Version 1 comes flat, as Cordel 0.1 wrote it. null: it
   * cannot be read any more.
   */
  readonly upcast: (from: number, old: Unchecked & { readonly flat?: FlatFact }) => Unchecked | null;
  /** Whether it counts for gear, wherever it happened. */
  readonly concernsGear: (body: B) => boolean;
}

/** One kind of fact. `check` is what subject and body have to agree on. */
export function factKind<const K extends string, S, B>({
  kind,
  version,
  subject,
  body,
  check,
  upcast,
  concernsGear = () => false,
}: {
  kind: K;
  version: number;
  subject: z.ZodType<S>;
  body: z.ZodType<B>;
  check?: {
    readonly when: (fact: { subject: S; body: B }) => boolean;
    readonly message: string;
    readonly path: string[];
  };
  upcast: FactKind<K, S, B>['upcast'];
  concernsGear?: (body: B) => boolean;
}): FactKind<K, S, B> {
  const whole = z.strictObject({
    ...envelopeShape,
    v: z.literal(version),
    kind: z.literal(kind),
    subject,
    body,
  });
  const schema = check
    ? whole.refine((fact) => check.when(fact as { subject: S; body: B }), {
        message: check.message,
        path: check.path,
      })
    : whole;
  return { kind, version, schema: schema as never as FactKind<K, S, B>['schema'], upcast, concernsGear };
}

export type FactOf<T> = T extends FactKind<infer K, infer S, infer B> ? Envelope<K, S, B> : never;
