import { z } from 'zod';
import { timeZoneSchema } from '../../line/timeZone';
import { encodings } from './encoding';

/** What a column of a machine's log may hold. A log with a row for each splice has a column for each fiber of some of them. */
export const logFields = [
  /** The machine's number of the splice. */
  'splice',
  /** With the date, or without it. */
  'time',
  'date',
  /** Of the fiber in the splice, from 1, in a log with a row for each fiber. */
  'fiber',
  'loss',
  'cleaveLeft',
  'cleaveRight',
  'offset',
  'gap',
  'proofTest',
  'program',
  /** What somebody typed at the machine: a name of the splice. */
  'label',
] as const;
export type LogField = (typeof logFields)[number];

/** Fields that each fiber of a splice has of its own. */
export const fieldsOfFiber: ReadonlySet<LogField> = new Set([
  'loss',
  'cleaveLeft',
  'cleaveRight',
  'offset',
  'gap',
] satisfies LogField[]);

const columnSchema = z.strictObject({
  /** As its heading says, or its number from 1 where there is none. */
  name: z.string().max(200),
  /** null: it is passed over. */
  holds: z.enum(logFields).nullable(),
  /** Of which fiber, in a log with a row for each splice; null: of all, or of the only one. */
  fiber: z.int().min(1).max(24).nullable(),
});
export type LogColumn = Readonly<z.infer<typeof columnSchema>>;

/** How the log of one machine is to be read. Made once, and kept with the machine. */
export const logMappingSchema = z
  .strictObject({
    format: z.enum(['delimited', 'json-lines', 'fixed']),
    encoding: z.enum(encodings),
    /** Between the cells of a delimited one. */
    delimiter: z.enum([',', ';', '\t', '|']),
    /** Where the columns of a fixed one begin, from 0. */
    starts: z.array(z.int().min(0).max(10_000)).max(200),
    decimal: z.enum(['.', ',']),
    /** Lines ahead of the heading, or of the first row where there is none. */
    skip: z.int().min(0).max(200),
    heading: z.boolean(),
    columns: z.array(columnSchema).min(1).max(200),
    /** A row is a fiber, or a whole splice. */
    row: z.enum(['fiber', 'splice']),
    /** dB or thousandths of it; μm or nm. */
    lossUnit: z.enum(['dB', 'mdB']),
    lengthUnit: z.enum(['um', 'nm']),
    order: z.enum(['ymd', 'dmy', 'mdy']),
    zone: timeZoneSchema,
    /** What stands in the column of the proof test where it failed, in lower case. */
    failed: z.array(z.string().max(60)).max(20),
  })
  .refine(({ columns }) => columns.some(({ holds }) => holds === 'loss'), {
    path: ['columns'],
    message: 'Say which column holds the loss.',
  });
export type LogMapping = Readonly<z.infer<typeof logMappingSchema>>;
