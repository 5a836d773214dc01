import { z } from 'zod';
import { endOfKey } from '../plan/fiberEnd';
import { textSchema } from '../schemas';
import { noteSchema } from './envelope';
import { factKind, type FactOf, type FlatFact, type Unchecked } from './kind';
import { cableSubject, closureSubject, endSubject, spliceSubject } from './subject';

/** What somebody answered where a step asked: whether it is what the plan expects is derived. */
export const tickAnswerSchema = z
  .strictObject({
    count: z.int('Give a whole number.').min(0).max(100_000).optional(),
    /** Two-letter color codes, in the order in which they were asked; left and then right for a ribbon's hinge. */
    colors: z.array(textSchema.trim().min(1).max(12)).min(1).max(30).optional(),
    /** As it was written down, where it is neither. */
    words: textSchema.trim().min(1).max(100, 'Keep the answer to 100 characters.').optional(),
  })
  .refine(
    ({ count, colors, words }) => count !== undefined || colors !== undefined || words !== undefined,
    'Give an answer.',
  );
export type TickAnswer = z.infer<typeof tickAnswerSchema>;

const name = textSchema.min(1).max(200);
const common = {
  /** "open" takes an earlier tick back. */
  state: z.enum(['done', 'missing', 'open']),
  /** Why somebody went on after a wrong answer. */
  note: noteSchema,
};
const answer = tickAnswerSchema.nullable();

/** Which subject each thing that can be ticked belongs to. */
const places = {
  item: ['closure'],
  caution: ['closure'],
  sealed: ['closure'],
  holder: ['closure'],
  mark: ['cable'],
  step: ['cable', 'end'],
  ribbonized: ['end'],
  polarity: ['splice'],
} as const;

/** A step, a mark, a part or a caution was ticked, found missing, or opened again. The last tick of a thing counts. */
export const tickKind = factKind({
  kind: 'tick',
  version: 2,
  subject: z.discriminatedUnion('on', [closureSubject, cableSubject, endSubject, spliceSubject]),
  body: z.discriminatedUnion('what', [
    /** Something to bring: a part of the kit or a tool. */
    z.strictObject({ what: z.literal('item'), item: name, ...common }),
    z.strictObject({ what: z.literal('caution'), caution: name, ...common }),
    /** The closure is closed and tested. */
    z.strictObject({ what: z.literal('sealed'), ...common }),
    /** A mark of the cut sheet was made, `mm` from the sheet's zero; null where it was not said. */
    z.strictObject({
      what: z.literal('mark'),
      mark: name,
      mm: z.number().min(-1_000_000).max(1_000_000).nullable(),
      ...common,
    }),
    /** A guided step of a cable, or of one fiber end of it. */
    z.strictObject({ what: z.literal('step'), step: name, answer, ...common }),
    /** Loose fibers were made into a ribbon, known by its first end. */
    z.strictObject({ what: z.literal('ribbonized'), answer, ...common }),
    /** How a ribbon lies in its holders, looked at before it was fused. */
    z.strictObject({ what: z.literal('polarity'), answer, ...common }),
    /** The same as Cordel 0.1 noted it: by place. The layout may have changed since, so it is shown and counts for no ribbon. */
    z.strictObject({
      what: z.literal('holder'),
      tray: z.int().min(1),
      holder: z.int().min(1),
      answer,
      ...common,
    }),
  ]),
  check: {
    when: ({ subject, body }) => (places[body.what] as readonly string[]).includes(subject.on),
    message: 'This cannot be ticked there.',
    path: ['subject', 'on'],
  },
  upcast: (_, { flat }) => (flat ? ofFlat(flat) : null),
});
export type Tick = FactOf<typeof tickKind>;

/** Cordel 0.1 named what was ticked in one text: "mark <cable> ring-cut.low". */
function ofFlat({ closureId, about, state, answer, note }: FlatFact): Unchecked | null {
  if (typeof about !== 'string') return null;
  const [what = '', ...rest] = about.split(' ');
  const closure = { on: 'closure', closureId };
  const given = { state, note };
  const answered = { ...given, answer: answerOf(answer) };
  const [first = '', ...others] = rest;
  const second = others.join(' ');
  const end = endOfKey(first);
  switch (what) {
    case 'item':
      return { subject: closure, body: { what, item: rest.join(' '), ...given } };
    case 'caution':
      return { subject: closure, body: { what, caution: rest.join(' '), ...given } };
    case 'sealed':
      return { subject: closure, body: { what, ...given } };
    case 'mark':
      return {
        subject: { on: 'cable', closureId, cableId: first },
        body: { what, mark: second, mm: lengthOf(answer), ...given },
      };
    case 'step':
      return {
        subject: end ? { on: 'end', closureId, ...end } : { on: 'cable', closureId, cableId: first },
        body: { what, step: second, ...answered },
      };
    case 'ribbonized':
      return end ? { subject: { on: 'end', closureId, ...end }, body: { what, ...answered } } : null;
    case 'polarity': {
      const [tray, holder] = first.split('.').map(Number);
      return { subject: closure, body: { what: 'holder', tray, holder, ...answered } };
    }
    default:
      return null;
  }
}

function textOf(answer: unknown): string | null {
  const text = (answer as { text?: unknown } | null | undefined)?.text;
  return typeof text === 'string' ? text : null;
}

function lengthOf(answer: unknown): number | null {
  const text = textOf(answer);
  const value = text === null || text === '' ? NaN : Number(text);
  return Number.isFinite(value) ? value : null;
}

/** "8", "BL", "BL left, BL right", "12, BL, RD". */
function answerOf(answer: unknown): TickAnswer | null {
  const text = textOf(answer);
  if (text === null) return null;
  const parts = text.split(',').map((part) => part.trim().replace(/ (left|right)$/, ''));
  const counts = parts.filter((part) => /^\d{1,5}$/.test(part));
  const colors = parts.filter((part) => /^[A-Z][A-Z0-9/+-]{1,11}$/.test(part));
  if (counts.length > 1 || counts.length + colors.length !== parts.length) return { words: text };
  return {
    ...(counts[0] === undefined ? {} : { count: Number(counts[0]) }),
    ...(colors.length > 0 ? { colors } : {}),
  };
}
