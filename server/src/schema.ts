import { sql } from 'drizzle-orm';
import type {
  Cable,
  Closure,
  ClosureModel,
  Fact,
  Limits,
  ProjectSettings,
  Site,
  UnknownFact,
} from '@cordel/core';
import type { Gear } from '@cordel/core/gear';
import {
  bigint,
  bigserial,
  boolean,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';

/** PGlite reads bytes as a Uint8Array, node-postgres as a Buffer, which is one. */
const bytes = customType<{ data: Uint8Array; driverData: Uint8Array }>({ dataType: () => 'bytea' });

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
  /** null: times are shown as on each device. */
  timeZone: text('time_zone'),
  /** What its nights are planned from; null: nobody planned any. */
  nights: jsonb('nights').$type<NonNullable<ProjectSettings['nights']>>(),
  version: integer('version').notNull(),
  /** Sites and cables are edited on their own. */
  lineVersion: integer('line_version').notNull().default(1),
  /** Counts every change of what belongs to the project but its facts. */
  revision: bigint('revision', { mode: 'number' }).notNull().default(0),
  /** `seq` of its newest fact. */
  lastSeq: bigint('last_seq', { mode: 'number' }).notNull().default(0),
  createdAt: time('created_at').notNull().defaultNow(),
  /** Taken from the shelf by a person; it can be put back until it is cleared away. */
  deletedAt: time('deleted_at'),
  /** `server_day.n` of the newest day at that time. */
  deletedOn: bigint('deleted_on', { mode: 'number' }),
  /** Who imports it, while it is being imported and nobody sees it; and when they last stored a part of it. */
  importing: text('importing'),
  importingAt: time('importing_at'),
  /** The transaction that made an import visible: to readers across projects its facts are as new as that. */
  shownTx: bigint('shown_tx', { mode: 'number' }).notNull().default(0),
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
    position: jsonb('position').$type<NonNullable<Site['position']>>(),
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
    sealing: jsonb('sealing').$type<NonNullable<Closure['sealing']>>(),
    sleeveLength: integer('sleeve_length_mm').$type<NonNullable<Closure['sleeveLength']>>(),
    spareSlots: integer('spare_slots'),
    pins: jsonb('pins').$type<NonNullable<Closure['pins']>>(),
    entries: jsonb('entries').$type<Closure['entries']>().notNull(),
    trays: jsonb('trays').$type<Closure['trays']>().notNull(),
    order: jsonb('splice_order').$type<Closure['order']>().notNull(),
    version: integer('version').notNull(),
  },
  (table) => [
    index('plan_closure_project').on(table.projectId),
    uniqueIndex('plan_closure_site').on(table.siteId),
  ],
);

/** Append-only: rows are inserted, never updated but to bring an older version up. They go only with their whole project. */
export const fact = pgTable(
  'fact',
  {
    id: uuid('id').primaryKey(),
    projectId: projectId(),
    /**
     * Order of arrival in the project, from 1, without holes: it is given out under the lock of the project's row, so that a reader who asks for what
     * comes after a number never finds a lower one later, however many connections write.
     */
    seq: bigint('seq', { mode: 'number' }).notNull(),
    /** null for what is about no closure. */
    closureId: uuid('closure_id').references(() => planClosure.id),
    kind: text('kind').notNull(),
    v: integer('v').notNull(),
    /** The whole fact, as it came. */
    body: jsonb('body').$type<Fact | UnknownFact>().notNull(),
    /** Whether this Cordel knows its kind and version. What is not known is looked at again by the next one. */
    understood: boolean('understood').notNull(),
    /** See `concernsGear` of the core. */
    concernsGear: boolean('concerns_gear').notNull(),
    /**
     * The transaction that stored it, for readers across projects: what is below the oldest one that still runs is complete. 0 for what a restore or a
     * migration brought.
     */
    tx: bigint('tx', { mode: 'number' })
      .notNull()
      .default(sql`pg_current_xact_id()::text::bigint`),
    receivedAt: time('received_at').notNull(),
  },
  (table) => [
    uniqueIndex('fact_project_seq').on(table.projectId, table.seq),
    index('fact_closure').on(table.closureId, table.seq),
    index('fact_gear')
      .on(table.tx)
      .where(sql`${table.concernsGear}`),
    index('fact_not_understood')
      .on(table.id)
      .where(sql`not ${table.understood}`),
  ],
);

/** Records as they were when somebody signed them, in canonical form. What was signed is the fact; this is the document whose fingerprint it has. */
export const handoverSigned = pgTable(
  'handover_signed',
  {
    /** Of the fact. */
    id: uuid('id').primaryKey(),
    projectId: projectId(),
    /** null: the whole project. */
    closureId: uuid('closure_id'),
    sha256: text('sha256').notNull(),
    document: text('document').notNull(),
    signedAt: time('signed_at').notNull(),
  },
  (table) => [
    index('handover_signed_project').on(table.projectId),
    index('handover_signed_sha256').on(table.sha256),
  ],
);

/**
 * The pictures of photos, by the id of the fact that says that one was taken. A picture comes ahead of its fact, so one without a fact is on its way, or its fact was
 * given up.
 */
export const picture = pgTable(
  'picture',
  {
    id: uuid('id').primaryKey(),
    projectId: projectId(),
    /** JPEG, as large as it is kept, and small. */
    whole: bytes('whole').notNull(),
    small: bytes('small').notNull(),
    /** Of `whole`. */
    sha256: text('sha256').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    receivedAt: time('received_at').notNull(),
  },
  (table) => [index('picture_project').on(table.projectId)],
);

/** What was deleted, so that an edit of an older copy does not bring it back. */
export const tombstone = pgTable(
  'tombstone',
  {
    kind: text('kind').$type<'closure' | 'model' | 'gear'>().notNull(),
    id: uuid('id').notNull(),
    version: integer('version').notNull(),
  },
  (table) => [primaryKey({ columns: [table.kind, table.id] })],
);

/** Every day on which a server ran, in the order in which they were seen: how long something has been deleted is counted in these, not by one clock. */
export const serverDay = pgTable('server_day', {
  n: bigserial('n', { mode: 'number' }).primaryKey(),
  day: date('day').notNull().unique(),
});

/** One row: which database this is. Another one after a restore, so that nobody goes on from where they were in the old one. */
export const databaseIdentity = pgTable('database_identity', {
  epoch: uuid('epoch').primaryKey().defaultRandom(),
});

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
