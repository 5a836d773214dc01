import type { Units } from './line/project';

/** Where a finding lies, in the user's own terms. */
export type Place =
  /** Row of the order, from 1: of its text while it is edited. */
  | { readonly kind: 'order-line'; readonly line: number }
  /** A cable by its letter at the closure. */
  | { readonly kind: 'cable'; readonly key: string }
  | { readonly kind: 'tray'; readonly tray: number }
  | { readonly kind: 'trays' }
  /** A stretch of a cable between two sites. */
  | { readonly kind: 'span'; readonly label: string; readonly from: string; readonly to: string }
  /** Row of a pasted column, from 1. */
  | { readonly kind: 'row'; readonly row: number }
  | { readonly kind: 'column' };

/**
 * An expected problem, told as a value. Its code is stable and for programs, and `params` are the numbers and names that it is about, in the
 * units in which everything is stored. The English is in the `words` of its stage: what is wrong, where, and what to do.
 */
export interface Finding {
  readonly code: string;
  readonly severity: 'error' | 'warning';
  readonly where: Place;
  readonly params: object;
}

/** The English of one stage's findings, by code. What a finding of a code has to carry is what its words take. */
export type FindingWords = Readonly<Record<string, (params: never, units: Units) => string>>;

type ParamsOf<W extends FindingWords, Code extends keyof W> =
  Parameters<W[Code]> extends [] ? Readonly<Record<string, never>> : Parameters<W[Code]>[0];

/** A finding whose words are in this table. */
export type FindingIn<W extends FindingWords> = {
  [Code in keyof W & string]: {
    readonly code: Code;
    readonly severity: Finding['severity'];
    readonly where: Place;
    readonly params: ParamsOf<W, Code>;
  };
}[keyof W & string];

/** What is told, without where and how bad. */
export type Told<F extends Finding> = F extends Finding ? Pick<F, 'code' | 'params'> : never;

/** Adds a finding to the list that it was made for. */
export type Say<F extends Finding> = <Code extends F['code']>(
  code: Code,
  params: Extract<F, { code: Code }>['params'],
  severity?: Finding['severity'],
) => void;

/** Adds findings of one place to a list; errors, where nothing else is said. */
export function sayAt<F extends Finding>(findings: F[], where: Place): Say<F> {
  return (code, params, severity = 'error') =>
    void findings.push({ code, severity, where, params } as unknown as F);
}

/** What a table says to one of its findings. */
export function wordsIn<W extends FindingWords>(table: W, told: Told<FindingIn<W>>, units: Units): string {
  const say = table[told.code] as (params: object, units: Units) => string;
  return say(told.params, units);
}

/** "line 2", "cable A", "tray 3" */
export function placeWords(place: Place): string {
  switch (place.kind) {
    case 'order-line':
      return `line ${place.line}`;
    case 'cable':
      return `cable ${place.key}`;
    case 'tray':
      return `tray ${place.tray}`;
    case 'trays':
      return 'trays';
    case 'span':
      return `${place.label}, ${place.from} to ${place.to}`;
    case 'row':
      return `row ${place.row}`;
    case 'column':
      return 'column';
  }
}
