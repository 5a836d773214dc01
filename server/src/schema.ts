import { sql } from 'drizzle-orm';
import type { Cable, Closure, ClosureModel, Fact, Limits, ProjectSettings, Site } from '@cordel/core';
import type { Gear } from '@cordel/core/gear';
import {
  bigserial,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';

const projectId = () =>
  uuid('project_id')
    .notNull()
    .references(() => lineProject.id, { onDelete: 'cascade' });

const time = (name: string) => timestamp(name, { withTimezone: true, precision: 3 });

export const lineProject = pgTable('line_project', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  units: text('units').$type<ProjectSettings['units']>().notNull(),
  limits: jsonb('limits').$type<Limits>().notNull(),
  window: jsonb('window').$type<NonNullable<ProjectSettings['window']>>(),
  version: integer('version').notNull(),
  createdAt: time('created_at').notNull().defaultNow(),
  /** Taken from the shelf by a person; it can be put back until it is cleared away. */
  deletedAt: time('deleted_at'),
});

export const lineSite = pgTable(
  'line_site',
  {
    id: uuid('id').primaryKey(),
    projectId: projectId(),
    name: text('name').notNull(),
    kind: text('kind').$type<Site['kind']>().notNull(),
    chainage: doublePrecision('chainage_m').notNull(),
    placement: text('placement').$type<NonNullable<Site['placement']>>(),
    branchFrom: uuid('branch_from'),
  },
  (table) => [index('line_site_project').on(table.projectId)],
);

export const lineCable = pgTable(
  'line_cable',
  {
    id: uuid('id').primaryKey(),
    projectId: projectId(),
    label: text('label').notNull(),
    schemeId: text('scheme_id').notNull(),
    construction: jsonb('construction').$type<Cable['construction']>().notNull(),
    siteIds: jsonb('site_ids').$type<string[]>().notNull(),
    ownScheme: jsonb('own_scheme').$type<NonNullable<Cable['ownScheme']>>(),
    fiberType: text('fiber_type').$type<NonNullable<Cable['fiberType']>>(),
    modeField: doublePrecision('mode_field_um'),
    groupIndex: doublePrecision('group_index'),
    diameter: doublePrecision('diameter_mm'),
    excess: doublePrecision('excess'),
    sheathMarks: jsonb('sheath_marks').$type<NonNullable<Cable['sheathMarks']>>(),
    live: jsonb('live').$type<NonNullable<Cable['live']>>(),
  },
  (table) => [index('line_cable_project').on(table.projectId)],
);

export const planClosure = pgTable(
  'plan_closure',
  {
    id: uuid('id').primaryKey(),
    projectId: projectId(),
    siteId: uuid('site_id')
      .notNull()
      .references(() => lineSite.id),
    kind: text('kind').$type<Closure['kind']>().notNull(),
    model: text('model'),
    ports: jsonb('ports').$type<NonNullable<Closure['ports']>>(),
    lengths: jsonb('lengths').$type<NonNullable<Closure['lengths']>>(),
    parts: jsonb('parts').$type<NonNullable<Closure['parts']>>(),
    testPressure: doublePrecision('test_pressure_kpa'),
    sleeveLength: integer('sleeve_length_mm').$type<NonNullable<Closure['sleeveLength']>>(),
    spareSlots: integer('spare_slots'),
    pins: jsonb('pins').$type<NonNullable<Closure['pins']>>(),
    entries: jsonb('entries').$type<Closure['entries']>().notNull(),
    trays: jsonb('trays').$type<Closure['trays']>().notNull(),
    order: jsonb('splice_order').$type<Closure['order']>().notNull(),
    version: integer('version').notNull(),
  },
  (table) => [index('plan_closure_project').on(table.projectId)],
);

/** What counts for the gear, wherever it happened: what was done to it, what was made with it, and attempts that were taken back. */
export function concernsGear({ kind, body }: { kind: unknown; body: unknown }) {
  return sql`(${kind} in ('calibration', 'gear-event', 'weather', 'went-on')
    or (${kind} = 'attempt' and ${body} -> 'gear' is not null)
    or (${kind} = 'correction' and ${body} -> 'result' = 'null'::jsonb))`;
}

/** Append-only: rows are inserted, never updated. They go only with their whole project. */
export const spliceFact = pgTable(
  'splice_fact',
  {
    id: uuid('id').primaryKey(),
    /** Order of arrival, for a client that asks what is new. Writes go through one connection, so no lower number turns up later. */
    seq: bigserial('seq', { mode: 'number' }).notNull(),
    projectId: projectId(),
    closureId: uuid('closure_id')
      .notNull()
      .references(() => planClosure.id, { onDelete: 'cascade' }),
    /** null for what happened at the closure and at none of its splices: a tick, a measurement. */
    spliceId: text('splice_id'),
    kind: text('kind').$type<Fact['kind']>().notNull(),
    body: jsonb('body').$type<Fact>().notNull(),
    receivedAt: time('received_at').notNull(),
  },
  (table) => [
    index('splice_fact_closure').on(table.closureId, table.seq),
    index('splice_fact_gear').on(table.seq).where(concernsGear(table)),
  ],
);

/** The catalogue of closure models: one for the whole shelf, copied into a closure when it is put at a site. */
export const planModel = pgTable('plan_model', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull(),
  body: jsonb('body').$type<ClosureModel>().notNull(),
  version: integer('version').notNull(),
});

/** Gear of the crews: one list for the whole shelf, since a machine goes from project to project. */
export const gearItem = pgTable('gear_item', {
  id: uuid('id').primaryKey(),
  label: text('label').notNull(),
  body: jsonb('body').$type<Gear>().notNull(),
  version: integer('version').notNull(),
});
