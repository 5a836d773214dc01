import type { GearFact, ProjectDefinition, StoredFact } from '@cordel/core';
import type { AsBuiltPicture } from '@cordel/core/asBuilt';

/** In which form a record is handed over. */
export const reportForms = [
  'pdf',
  'short',
  'xlsx',
  'csv',
  'json',
  'geojson',
  'labels',
  'labels-csv',
] as const;
export type ReportForm = (typeof reportForms)[number];

/** What a report is made from. Facts come in slices, so that no message is large. */
export interface ReportOrder {
  readonly form: ReportForm;
  readonly definition: ProjectDefinition;
  readonly gearFacts: readonly GearFact[];
  readonly closureId: string | undefined;
  /** When it is made, UTC. */
  readonly at: string;
  /** Of labels: the size of a sheet, and how many of the first are used already. */
  readonly labels: { readonly size: string; readonly skip: number };
  /** Where the place is opened in Cordel: the address that the person uses. */
  readonly address: string;
}

export type ToReport =
  | { readonly kind: 'facts'; readonly facts: readonly StoredFact[] }
  | { readonly kind: 'known-pictures'; readonly pictures: ReadonlyMap<string, AsBuiltPicture> }
  /** JPEG, small, by the photo's id. */
  | { readonly kind: 'pictures'; readonly pictures: ReadonlyMap<string, Uint8Array> }
  | { readonly kind: 'make'; readonly order: ReportOrder };

export type FromReport =
  | { readonly kind: 'progress'; readonly done: number; readonly of: number }
  | { readonly kind: 'made'; readonly bytes: Uint8Array; readonly fingerprint: string };
