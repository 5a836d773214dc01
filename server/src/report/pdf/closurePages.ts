import { formatPressure, lossText, markWords, measuredWith } from '@cordel/core';
import type { AsBuiltClosure, AsBuiltEnd, AsBuiltSplice, AsBuiltSums } from '@cordel/core/asBuilt';
import { lossStrip, plate } from './charts';
import { keyFigures, loss, mean, plural, type Context } from './context';
import { accent, ink, soft, type TableCell, type TableColumn } from './paper';

/** A closure from its summary to its seal: every splice of every tray against the limits. */
export function closurePages(context: Context, closure: AsBuiltClosure): void {
  const { paper, built, when } = context;
  const { sums, ready } = closure;
  paper.page();
  const outline = paper.heading(2, closure.site);
  paper.text(
    [
      closure.model ?? closure.kind,
      plural(sums.splices, 'splice', 'splices'),
      closure.from && closure.to ? `spliced ${when(closure.from)} to ${when(closure.to)}` : 'not spliced yet',
      closure.people.length > 0 ? `by ${closure.people.join(', ')}` : null,
    ]
      .filter(Boolean)
      .join(' · '),
    'body',
    soft,
  );
  paper.gap(4);
  for (const { words, stands } of ready)
    paper.text(`• ${words}`, stands === 'against' ? 'strong' : 'body', stands === 'against' ? accent : ink);
  paper.gap(4);
  keyFigures(paper, sums, built.project.limits, [closure]);
  for (const { tray, sums: own } of closure.trays) trayPart(context, closure, tray, own, outline);
  const rest = closure.splices.filter(({ tray }) => tray === null);
  if (rest.length > 0) {
    paper.heading(3, 'On no tray: not placed, or not in the plan', outline ? { into: outline } : {});
    singles(context, rest);
  }
  connectors(context, closure, outline);
  exceptions(context, closure, outline);
  sealPart(context, closure, outline);
  photoPart(context, closure, outline);
}

type Outline = PDFKit.PDFOutline | undefined;
const within = (outline: Outline) => (outline ? { into: outline } : {});

function trayPart(
  context: Context,
  { splices }: AsBuiltClosure,
  tray: number,
  sums: AsBuiltSums,
  outline: Outline,
): void {
  const { paper, told } = context;
  const own = splices.filter((one) => one.tray === tray);
  paper.heading(3, `Tray ${tray}`, within(outline));
  const state = [
    `${sums.holds + sums.allowed} of ${sums.splices} hold or are allowed`,
    `mean ${mean(sums.mean)} dB estimated${sums.measured ? `, ${mean(sums.measured.mean)} dB measured on ${plural(sums.measured.fibers, 'fiber', 'fibers')}` : ''}, limit ${mean(sums.meanLimit)}`,
    `highest ${loss(sums.worst)} dB`,
  ].join(' · ');
  if (sums.open === sums.splices) {
    const [first, last] = [own[0]!, own.at(-1)!];
    paper.text(
      `${plural(own.length, 'splice', 'splices')} planned, none made yet: ${endText(first.left[0]!)} – ${endText(first.right[0]!)} to ${endText(last.left.at(-1)!)} – ${endText(last.right.at(-1)!)}.`,
      'small',
      soft,
    );
    own.forEach(told);
    return;
  }
  paper.text(state, 'small', sums.meanOver || sums.redo > 0 ? accent : ink);
  const losses = own.flatMap(({ left, readings }) => left.map((_, index) => readings[index]?.loss ?? null));
  const [limit] = own.map((one) => one.limit);
  if (losses.some((one) => one !== null)) {
    // A wide tray of ribbons takes several strips.
    const inStrip = Math.floor(paper.width / 3);
    for (let start = 0; start < losses.length; start += inStrip) {
      const part = losses.slice(start, start + inStrip);
      const over = part.filter((one) => one !== null && one > limit! + 1e-9).length;
      paper.figure(
        34,
        `Tray ${tray}: losses of ${part.length} fibers in the order of their slots, ${over === 0 ? 'none' : over} over ${lossText(limit!)} dB.`,
        (box) => lossStrip(paper, box, part, limit!),
      );
    }
  }
  const single = own.filter(({ kind }) => kind === 'single');
  const ribbons = own.filter(({ kind }) => kind === 'ribbon');
  if (single.length > 0) singles(context, single);
  if (ribbons.length > 0) ribbonTable(context, ribbons);
  measuredTable(context, own);
}

/** What was measured: each direction and the loss that follows, beside what the machine had estimated. */
function measuredTable({ paper }: Context, splices: readonly AsBuiltSplice[]): void {
  const rows = splices.flatMap((one) =>
    one.readings.flatMap(({ loss: estimate, measured }, index): TableCell[][] => {
      if (!measured) return [];
      const over = measured.loss !== null && measured.loss > one.limit + 1e-9;
      return [
        [
          one.slot === null ? '–' : String(one.slot),
          endCell(one.left[index]!),
          loss(estimate),
          loss(measured.fromLeft),
          loss(measured.fromRight),
          {
            text: measured.loss === null ? 'one end only' : loss(measured.loss),
            look: 'small-strong',
            color: over ? accent : ink,
          },
          [measuredWith(measured), measured.by].filter(Boolean).join(', '),
        ],
      ];
    }),
  );
  if (rows.length === 0) return;
  paper.text('Measured (dB)', 'small-heading');
  paper.table(
    [
      { title: 'Slot', share: 5 },
      { title: 'Left', share: 27 },
      { title: 'Estimated', share: 10, align: 'right' },
      { title: 'From left', share: 10, align: 'right' },
      { title: 'From right', share: 10, align: 'right' },
      { title: 'Measured', share: 12, align: 'right' },
      { title: 'With, by', share: 26 },
    ],
    rows,
    { look: 'tiny', rowHeight: 10.5 },
  );
}

/** Which fiber of its cable. */
const fiberText = (end: AsBuiltEnd) =>
  ` ${end.fiber}${end.side === 'end' ? '' : end.side === 'low' ? '−' : '+'}  ${end.colors}`;
const endText = (end: AsBuiltEnd) => `${end.cable}${fiberText(end)}`;
/** A long label is cut short, its fiber never. */
const endCell = (end: AsBuiltEnd): TableCell => ({ text: end.cable, tail: fiberText(end) });

const verdictCell = ({ mark, owner, tries, planned }: AsBuiltSplice): TableCell => ({
  text: `${planned ? '' : 'Not planned: '}${markWords[mark]}${mark === 'allowed' && owner ? ` (${owner.name ?? owner.by ?? 'owner'})` : ''}${tries > 1 ? `, try ${tries}` : ''}`,
  color: mark === 'redo' || mark === 'owner' ? accent : mark === 'open' ? soft : ink,
});

const singleColumns: TableColumn[] = [
  { title: 'Slot', share: 5 },
  { title: 'Left', share: 27 },
  { title: 'Right', share: 27 },
  { title: 'Est. (dB)', share: 9, align: 'right' },
  { title: 'Verdict', share: 19 },
  { title: 'Circuit', share: 13 },
];

function singles({ paper, told }: Context, splices: readonly AsBuiltSplice[]): void {
  paper.table(
    singleColumns,
    lazily(splices, (one) =>
      one.left.map((left, index): TableCell[] => [
        one.slot === null ? '–' : String(one.slot),
        endCell(left),
        endCell(one.right[index]!),
        lossCell(one, index),
        index === 0 ? verdictCell(one) : '',
        one.circuit ?? '',
      ]),
    ),
    { look: 'tiny', rowHeight: 10.5, told },
  );
}

function lossCell(splice: AsBuiltSplice, index: number): TableCell {
  const value = splice.readings[index]?.loss ?? null;
  return {
    text: loss(value),
    look: 'small-strong',
    color: value !== null && value > splice.limit + 1e-9 ? accent : ink,
  };
}

function* lazily<T>(list: readonly T[], rows: (one: T) => TableCell[][]): Generator<TableCell[]> {
  for (const one of list) yield* rows(one);
}

/** Losses of a ribbon that stand in one row: of twelve fibers, or where one has three decimals of eight. */
const inRow = (texts: readonly string[]) => (texts.some((text) => text.length > 4) ? 8 : 12);

/** A ribbon is one row, or a few: the losses of its fibers in order, none cut short. */
function ribbonTable({ paper, told }: Context, splices: readonly AsBuiltSplice[]): void {
  const columns: TableColumn[] = [
    { title: 'Slot', share: 4 },
    { title: 'Left', share: 17 },
    { title: 'Right', share: 17 },
    { title: 'Estimated losses of its fibers, in order (dB)', share: 48 },
    { title: 'Verdict', share: 14 },
  ];
  const run = (ends: readonly AsBuiltEnd[]): TableCell => {
    const [first, last] = [ends[0]!, ends.at(-1)!];
    return {
      text: first.cable,
      tail: ` ${first.unit === null ? '' : `R${first.unit}, `}${first.fiber}–${last.fiber}`,
    };
  };
  paper.table(
    columns,
    lazily(splices, (one) => {
      const texts = one.readings.map((reading) => loss(reading.loss));
      const each = inRow(texts);
      const color = one.worst !== null && one.worst > one.limit + 1e-9 ? accent : ink;
      const rows = Math.max(1, Math.ceil(texts.length / each));
      return Array.from({ length: rows }, (_, row): TableCell[] => [
        ...(row === 0
          ? [one.slot === null ? '–' : String(one.slot), run(one.left), run(one.right)]
          : ['', '', '']),
        { text: '', tail: texts.slice(row * each, (row + 1) * each).join(' '), color },
        row === 0 ? verdictCell(one) : '',
      ]);
    }),
    { look: 'tiny', rowHeight: 10.5, told },
  );
}

function connectors({ paper, when }: Context, { connectors: ends }: AsBuiltClosure, outline: Outline): void {
  if (ends.length === 0) return;
  paper.heading(3, 'Fibers that end in connectors', within(outline));
  paper.table(
    [
      { title: 'Fiber', share: 34 },
      { title: 'Connector', share: 20 },
      { title: 'Light', share: 26 },
      { title: 'When, by', share: 20 },
    ],
    ends.map(({ end, connector, light, at, by }): TableCell[] => [
      endCell(end),
      connector,
      light,
      at ? [when(at), by].filter(Boolean).join(', ') : '',
    ]),
    { look: 'tiny', rowHeight: 10.5 },
  );
}

/** What was redone, and what was allowed, with who and why. */
function exceptions({ paper, when }: Context, { splices }: AsBuiltClosure, outline: Outline): void {
  const list = splices.filter(
    ({ earlier, owner, corrections }) => earlier.length > 0 || owner !== null || corrections > 0,
  );
  if (list.length === 0) return;
  paper.heading(3, 'Redone, corrected, allowed', within(outline));
  for (const one of list) {
    const place = one.tray === null ? 'On no tray' : `Tray ${one.tray}, slot ${one.slot}`;
    const lines = [
      ...one.earlier.map(
        ({ madeAt, by, worst, withdrawn, note }) =>
          `${withdrawn ? 'taken back' : 'tried before'}: ${worst === null ? 'not read' : `${lossText(worst)} dB`}, ${when(madeAt)}${by ? `, ${by}` : ''}${note ? `, ${note}` : ''}`,
      ),
      one.corrections > 0 ? plural(one.corrections, 'correction', 'corrections') : null,
      one.owner
        ? `owner ${one.owner.answer === 'allow' ? 'allowed it' : one.owner.answer === 'redo' ? 'wants it done again' : 'was asked'}: ${[one.owner.name ?? one.owner.by, when(one.owner.madeAt), one.owner.note].filter(Boolean).join(', ')}`
        : null,
    ].filter(Boolean);
    paper.text(
      `${place}, ${endText(one.left[0]!)} – ${endText(one.right[0]!)}, ${loss(one.worst)} dB now: ${lines.join('; ').replace(/\.$/, '')}.`,
      'small',
    );
  }
}

/** Two in a row are large enough to see a seal. */
const photosInRow = 2;

function photoPart(
  { paper, pictures, when }: Context,
  { photos = [] }: AsBuiltClosure,
  outline: Outline,
): void {
  if (photos.length === 0) return;
  paper.heading(3, 'Photos', { ...within(outline), room: paper.width / photosInRow });
  paper.photos(
    photos.map(({ id, shows, caption, at, by }) => ({
      jpeg: pictures.get(id) ?? null,
      alt: `Photo: ${[shows, caption].filter(Boolean).join(', ')}.`,
      lines: [shows, ...(caption === '' ? [] : [caption]), [when(at), by].filter(Boolean).join(', ')],
    })),
    photosInRow,
  );
}

const chapterNames = {
  look: 'Final look',
  tighten: 'Tightened',
  close: 'Closed',
  after: 'After the test',
} as const;

function sealPart({ paper, built, when }: Context, { seal, kind }: AsBuiltClosure, outline: Outline): void {
  const { units } = built.project;
  paper.heading(3, 'Seal', within(outline));
  paper.text(
    seal.underPressure !== null
      ? `There are ${formatPressure(seal.underPressure, units)} in it.`
      : seal.sealed
        ? 'Sealed: every point is right, and no pressure was left in it.'
        : seal.tickedOnly
          ? 'Ticked as sealed and tested; no points and no test are on record.'
          : 'Not sealed.',
    'strong',
    seal.sealed || seal.tickedOnly ? ink : accent,
  );
  if (kind === 'rack') paper.text('A rack has no seals.', 'small', soft);
  if (seal.openings.length > 0 && (seal.rounds.length > 0 || seal.points.some(({ answer }) => answer)))
    paper.figure(
      120,
      `End plate with ${seal.openings.length} openings. ${
        seal.openings
          .filter(({ bubbled }) => bubbled)
          .map(({ name }) => `Bubbled in a test: ${name}.`)
          .join(' ') || 'None bubbled.'
      }`,
      (box) => {
        plate(paper, box, seal.openings);
        paper.set('tiny', ink);
        const x = box.x + 134;
        const inColumn = Math.max(1, Math.floor(box.height / 10));
        seal.openings
          .filter(({ plug, bubbled }) => !plug || bubbled)
          .slice(0, inColumn * 2)
          .forEach(({ name, bubbled }, index) => {
            paper.set('tiny', bubbled ? accent : ink);
            paper.line(`${name}${bubbled ? ' · bubbled, set anew' : ''}`, {
              x: x + Math.floor(index / inColumn) * ((box.width - 134) / 2),
              y: box.y + (index % inColumn) * 10,
              width: (box.width - 134) / 2 - 6,
              height: 10,
            });
          });
      },
    );
  if (seal.rounds.length > 0)
    paper.table(
      [
        { title: 'Round', share: 7 },
        { title: 'Pressure', share: 11 },
        { title: 'When, by', share: 26 },
        { title: 'Seen', share: 60 },
      ],
      seal.rounds.map((round): TableCell[] => [
        `${round.number}${round.beforeReopening ? '*' : ''}`,
        formatPressure(round.kPa, units),
        [when(round.at), round.by].filter(Boolean).join(', '),
        {
          text:
            round.bubbles.length > 0
              ? `bubbles: ${round.bubbles.join('; ')}`
              : `no bubbles at ${round.looked} seals`,
          color: round.bubbles.length > 0 ? accent : ink,
        },
      ]),
    );
  for (const { number, reseated } of seal.rounds)
    if (reseated.length > 0) paper.text(`After round ${number}, set anew: ${reseated.join('; ')}.`, 'small');
  if (seal.rounds.some(({ beforeReopening }) => beforeReopening))
    paper.text('* before the closure was opened again', 'tiny', soft);
  for (const { hours, lost, uncertainty, mayLose, verdict, leakRate, readAt } of seal.holding)
    paper.text(
      `Holding test, ${when(readAt)}: ${verdict === 'cannot-tell' ? 'cannot tell' : verdict} after ${hours.toFixed(1)} h; lost ${formatPressure(lost, units)} ± ${formatPressure(uncertainty, units)}, may lose ${formatPressure(mayLose, units)}${leakRate === null ? '' : `; leak rate ${leakRate.toExponential(1)} Pa·m³/s`}.`,
      'small',
      verdict === 'leaking' ? accent : ink,
    );
  for (const { at, by, reason, note } of seal.reopenings)
    paper.text(`Opened again ${[when(at), by, reason, note].filter(Boolean).join(', ')}.`, 'small');
  const answered = seal.points.filter(({ answer }) => answer !== null);
  if (answered.length > 0)
    paper.table(
      [
        { title: 'Stage', share: 14 },
        { title: 'Point', share: 56 },
        { title: 'Answer', share: 10 },
        { title: 'When, by', share: 24 },
      ],
      seal.points.map(({ chapter, title, answer, stale, at, by, note }): TableCell[] => [
        chapterNames[chapter],
        [title, note].filter(Boolean).join(': '),
        {
          text: answer === null ? 'open' : stale ? 'look again' : answer === 'yes' ? 'right' : 'not right',
          color: answer === 'yes' && !stale ? ink : accent,
        },
        at ? [when(at), by].filter(Boolean).join(', ') : '',
      ]),
      { look: 'tiny', rowHeight: 10.5 },
    );
}
