import { formatChainage, formatPressure, lossText, markWords, type Limits } from '@cordel/core';
import {
  fingerprintWords,
  type AsBuilt,
  type AsBuiltClosure,
  type AsBuiltEnd,
  type AsBuiltSplice,
  type AsBuiltSums,
} from '@cordel/core/asBuilt';
import { histogram, lossStrip, plate } from './charts';
import { drawQr } from './qr';
import { accent, ink, Paper, soft, type TableCell, type TableColumn } from './paper';

export interface PdfOrder {
  readonly built: AsBuilt;
  /** SHA-256 of its canonical form. */
  readonly fingerprint: string;
  /** One page, and no more. */
  readonly short: boolean;
  /** When it is made, UTC. */
  readonly at: string;
  /** Of the application. */
  readonly address: string;
  readonly onProgress: (done: number, of: number) => void;
}

/** The record of a closure or a project as a PDF: page one answers whether it is good; then everything behind that answer. */
export async function pdfReport({
  built,
  fingerprint,
  short,
  at,
  address,
  onProgress,
}: PdfOrder): Promise<Uint8Array> {
  const { project, closures } = built;
  const zone = project.timeZone ?? 'UTC';
  const name = built.scope === 'closure' ? closures[0]!.site : project.name;
  const when = (time: string) => momentIn(time, zone);
  const paper = new Paper({
    title: `${name}: record of its splices`,
    letter: project.units === 'in',
    at,
    head: built.scope === 'closure' ? `${name} · ${project.name}` : name,
    foot: `Cordel · ${when(at)} (${zone}) · fingerprint ${fingerprint.slice(0, 16)} · losses are estimates of the splicing machine`,
  });
  const total = closures.reduce((sum, { splices }) => sum + splices.length, 0);
  let done = 0;
  const told = () => {
    done += 1;
    if (done % 200 === 0) onProgress(done, total);
  };
  const context: Context = { paper, built, when, told };
  paper.part(() => firstPage(context, name, fingerprint, address));
  if (!short) {
    for (const closure of closures) paper.part(() => closurePages(context, closure));
    paper.part(() => lastPages(context, fingerprint));
  }
  onProgress(total, total);
  return paper.end();
}

interface Context {
  readonly paper: Paper;
  readonly built: AsBuilt;
  readonly when: (time: string) => string;
  readonly told: () => void;
}

/** "14 Apr 2026, 22:05" */
function momentIn(time: string, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
    timeZone: zone,
  }).format(new Date(time));
}

const mean = (value: number | null) => (value === null ? '–' : value.toFixed(3));
const loss = (value: number | null) => (value === null ? '–' : lossText(value));
const plural = (count: number, one: string, several: string) => `${count} ${count === 1 ? one : several}`;

function firstPage(
  { paper, built, when }: Context,
  name: string,
  fingerprint: string,
  address: string,
): void {
  const { closures, project, sums } = built;
  const against = closures.flatMap(({ ready, site }) =>
    ready.filter(({ stands }) => stands === 'against').map((line) => ({ ...line, site })),
  );
  paper.heading(1, name);
  paper.text(
    built.scope === 'closure'
      ? `${project.name} · record of its splices`
      : `${plural(closures.length, 'closure', 'closures')} · record of its splices`,
    'body',
    soft,
  );
  paper.gap(8);
  const good = against.length === 0 && sums.splices > 0;
  paper.text(
    good
      ? 'Good: nothing stands against its acceptance.'
      : `Not ready: ${plural(against.length, 'thing stands', 'things stand')} against its acceptance.`,
    'reading',
    good ? ink : accent,
  );
  paper.gap(4);
  for (const { words, site } of against.slice(0, 7))
    paper.text(`• ${built.scope === 'project' ? `${site}: ` : ''}${words}`);
  if (against.length > 7) paper.text(`• ${against.length - 7} more, with the closures.`);
  const tells = new Map<string, string[]>();
  for (const { ready, site } of closures)
    for (const { words, stands, code } of ready)
      if (stands === 'told' && code !== 'estimates') tells.set(site, [...(tells.get(site) ?? []), words]);
  paper.gap(6);
  keyFigures(paper, sums, project.limits, closures);
  paper.gap(10);
  const losses = lossesOf(closures);
  if (losses.length > 0)
    paper.figure(
      132,
      `Losses of ${losses.length} fibers by hundredths of a dB. ${losses.filter((one) => one > project.limits.singleMax).length} are over the limit of a single splice, ${lossText(project.limits.singleMax)} dB; the mean is ${mean(sums.mean)} dB, the highest ${loss(sums.worst)} dB.`,
      (box) =>
        histogram(paper, box, losses, [
          { limit: project.limits.singleMax, name: 'single' },
          ...(project.limits.ribbonFiberMax !== project.limits.singleMax
            ? [{ limit: project.limits.ribbonFiberMax, name: 'ribbon fiber' }]
            : []),
        ]),
    );
  paper.text(
    'Estimated loss of each fiber (dB), and how many read it; over the limit in red-orange.',
    'small',
    soft,
  );
  if (tells.size > 0) {
    paper.gap(6);
    paper.text('To be known', 'small-heading');
    const all = [...tells].flatMap(([site, words]) =>
      words.map((one) => (built.scope === 'project' ? `${site}: ${one}` : one)),
    );
    for (const one of all.slice(0, 6)) paper.text(`• ${one}`, 'small');
    if (all.length > 6) paper.text(`• ${all.length - 6} more, with the closures.`, 'small');
  }
  const last = built.signOffs.at(-1);
  if (last) {
    paper.gap(4);
    paper.text(
      `${last.of} was ${last.decision.replaceAll('-', ' ')}, signed by ${last.name} (${last.role}), ${when(last.at)}${last.later > 0 ? `; ${plural(last.later, 'record is', 'records are')} later than that` : ''}. Fingerprint then: ${fingerprintWords(last.sha256)}.`,
      'strong',
    );
  }
  const { y } = paper;
  paper.y = paper.pageFoot - printHeight;
  printPart(paper, built, fingerprint, address, when);
  // What follows goes on above it where there is room, else on a page of its own.
  paper.y = y;
  if (built.scope === 'project')
    if (paper.pageFoot - printHeight - y > 60 + built.sites.length * 12.5) route(paper, built);
    else {
      paper.page();
      route(paper, built);
    }
}

/** How much of page one the fingerprint takes, at its foot. */
const printHeight = 82;

function printPart(
  paper: Paper,
  { records }: AsBuilt,
  fingerprint: string,
  address: string,
  when: Context['when'],
): void {
  const text = `${address}/verify?sha256=${fingerprint}`;
  const { y } = paper;
  paper.figure(76, `QR code of the fingerprint: ${text}`, ({ x }) =>
    drawQr(paper.doc, text, { x, y, width: 76, height: 76 }, ink),
  );
  paper.y = y + 6;
  const beside = { x: paper.left + 92, width: paper.width - 92 };
  paper.text('Fingerprint of this record', 'small-heading', ink, beside);
  paper.text(fingerprintWords(fingerprint), 'strong', ink, beside);
  paper.text(`SHA-256 ${fingerprint}`, 'tiny', soft, beside);
  paper.text(
    `${plural(records.count, 'record', 'records')}${records.lastMadeAt ? `, the last of ${when(records.lastMadeAt)}` : ''}. The record as JSON has the same fingerprint: npm run verify -- FILE, or the page behind the code.`,
    'small',
    soft,
    beside,
  );
}

const lossesOf = (closures: readonly AsBuiltClosure[]) =>
  closures.flatMap(({ splices }) =>
    splices
      .filter(({ planned }) => planned)
      .flatMap(({ readings }) => readings.flatMap((one) => one.loss ?? [])),
  );

function keyFigures(
  paper: Paper,
  sums: AsBuiltSums,
  limits: Limits,
  closures: readonly AsBuiltClosure[],
): void {
  const sealed = closures.filter(({ seal }) => seal.sealed || seal.tickedOnly).length;
  const figures: (readonly [string, string, boolean])[] = [
    [
      `${sums.holds + sums.allowed} of ${sums.splices}`,
      'splices hold or are allowed',
      sums.holds + sums.allowed < sums.splices,
    ],
    [
      `${mean(sums.mean)} dB`,
      `mean of ${sums.fibersRead} fibers, limit ${mean(sums.meanLimit)}`,
      sums.meanOver,
    ],
    [
      `${loss(sums.worst)} dB`,
      `highest, limit ${lossText(limits.singleMax)} single, ${lossText(limits.ribbonFiberMax)} ribbon`,
      false,
    ],
    [
      closures.length === 1 ? (sealed ? 'sealed' : 'not sealed') : `${sealed} of ${closures.length}`,
      closures.length === 1 ? sealWord(closures[0]!) : 'closures sealed',
      sealed < closures.length,
    ],
  ];
  const each = paper.width / figures.length;
  const words = figures.map(([value, what]) => `${value}: ${what}`).join('. ');
  paper.figure(46, words, (box) =>
    figures.forEach(([value, what, over], index) => {
      paper.set('reading', over ? accent : ink);
      paper.line(value, { x: box.x + index * each, y: box.y, width: each - 8, height: 24 });
      paper.set('small', soft);
      paper.doc.text(what, box.x + index * each, box.y + 24, { width: each - 10 });
    }),
  );
}

const sealWord = ({ seal }: AsBuiltClosure) => {
  const rounds = seal.rounds.filter(({ beforeReopening }) => !beforeReopening);
  return seal.testPressure === 0
    ? 'no flash test by its table'
    : rounds.length === 0
      ? 'no flash test on record'
      : `${plural(rounds.length, 'test round', 'test rounds')}`;
};

/** The sites on the cord, by their distance. */
function route(paper: Paper, { sites, closures, project }: AsBuilt): void {
  paper.heading(2, 'The line');
  const closureAt = new Map(closures.map((one) => [one.siteId, one]));
  const columns: TableColumn[] = [
    { title: 'Site', share: 30 },
    { title: 'Distance', share: 14 },
    { title: 'Splices', share: 22 },
    { title: 'Mean (dB)', share: 12, align: 'right' },
    { title: 'Highest (dB)', share: 12, align: 'right' },
    { title: 'Seal', share: 14 },
  ];
  const names = new Map(sites.map((site) => [site.id, site.name]));
  paper.table(
    columns,
    sites.map((site): TableCell[] => {
      const closure = closureAt.get(site.id);
      const distance = `${formatChainage(site.chainage, project.units)}${site.branchFrom ? ` from ${names.get(site.branchFrom) ?? ''}` : ''}`;
      if (!closure) return [site.name, distance, '', '', '', ''];
      const { sums, seal } = closure;
      const settled = sums.holds + sums.allowed;
      return [
        { text: site.name, look: 'small-strong' },
        distance,
        { text: `${settled} of ${sums.splices}`, color: settled < sums.splices ? accent : ink },
        { text: mean(sums.mean), color: sums.meanOver ? accent : ink },
        loss(sums.worst),
        {
          text: seal.sealed ? 'sealed' : seal.tickedOnly ? 'ticked' : 'not sealed',
          color: seal.sealed || seal.tickedOnly ? ink : accent,
        },
      ];
    }),
  );
}

function closurePages(context: Context, closure: AsBuiltClosure): void {
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
    `mean ${mean(sums.mean)} dB, limit ${mean(sums.meanLimit)}`,
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
}

const endText = (end: AsBuiltEnd) =>
  `${end.cable} ${end.fiber}${end.side === 'end' ? '' : end.side === 'low' ? '−' : '+'}  ${end.colors}`;

const verdictCell = ({ mark, owner, tries, planned }: AsBuiltSplice): TableCell => ({
  text: `${planned ? '' : 'Not planned: '}${markWords[mark]}${mark === 'allowed' && owner ? ` (${owner.name ?? owner.by ?? 'owner'})` : ''}${tries > 1 ? `, try ${tries}` : ''}`,
  color: mark === 'redo' || mark === 'owner' ? accent : mark === 'open' ? soft : ink,
});

const singleColumns: TableColumn[] = [
  { title: 'Slot', share: 5 },
  { title: 'Left', share: 27 },
  { title: 'Right', share: 27 },
  { title: 'Loss (dB)', share: 9, align: 'right' },
  { title: 'Verdict', share: 19 },
  { title: 'Circuit', share: 13 },
];

function singles({ paper, told }: Context, splices: readonly AsBuiltSplice[]): void {
  paper.table(
    singleColumns,
    lazily(splices, (one) =>
      one.left.map((left, index): TableCell[] => [
        one.slot === null ? '–' : String(one.slot),
        endText(left),
        endText(one.right[index]!),
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

/** A ribbon is one row: its fibers' losses in order. */
function ribbonTable({ paper, told }: Context, splices: readonly AsBuiltSplice[]): void {
  const columns: TableColumn[] = [
    { title: 'Slot', share: 5 },
    { title: 'Left', share: 17 },
    { title: 'Right', share: 17 },
    { title: 'Losses of its fibers, in order (dB)', share: 43 },
    { title: 'Verdict', share: 16 },
  ];
  const run = (ends: readonly AsBuiltEnd[]) => {
    const [first, last] = [ends[0]!, ends.at(-1)!];
    return `${first.cable} ${first.unit === null ? '' : `R${first.unit}, `}${first.fiber}–${last.fiber}`;
  };
  paper.table(
    columns,
    lazily(splices, (one) => [
      [
        one.slot === null ? '–' : String(one.slot),
        run(one.left),
        run(one.right),
        {
          text: one.readings.map((reading) => loss(reading.loss)).join('  '),
          color: one.worst !== null && one.worst > one.limit + 1e-9 ? accent : ink,
        },
        verdictCell(one),
      ],
    ]),
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
      endText(end),
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
      `${place}, ${endText(one.left[0]!)} – ${endText(one.right[0]!)}, ${loss(one.worst)} dB now: ${lines.join('; ')}.`,
      'small',
    );
  }
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

function lastPages({ paper, built, when }: Context, fingerprint: string): void {
  paper.page();
  paper.heading(2, 'What stands behind it');
  const { project, calibrations, closures, cables, records } = built;
  const { limits } = project;
  paper.heading(3, 'Limits', { bookmark: false });
  paper.text(
    `Single splice ${lossText(limits.singleMax)} dB, fiber of a ribbon ${lossText(limits.ribbonFiberMax)} dB, mean of a tray ${lossText(limits.trayMean)} dB, of a closure ${lossText(limits.closureMean)} dB; cleave angle ${limits.cleaveAngleMax}°; ${limits.tries} tries before it is the owner’s call.`,
  );
  paper.heading(3, 'What is estimated', { bookmark: false });
  paper.text(
    `All losses are estimates that the splicing machine makes from pictures of the joint; none is measured. The actual loss of a splice is the mean of readings with a reflectometer from both ends.${records.simulated > 0 ? ` ${plural(records.simulated, 'reading is', 'readings are')} simulated: no glass was involved.` : ''}${records.unread > 0 ? ` ${plural(records.unread, 'record', 'records')} of a newer Cordel count for nothing here.` : ''}`,
  );
  paper.heading(3, 'Gear and calibrations', { bookmark: false });
  const machines = [...new Set(closures.flatMap((one) => one.machines))].sort();
  const cleavers = [...new Set(closures.flatMap((one) => one.cleavers))].sort();
  paper.text(
    `Machines: ${machines.join(', ') || 'not on record'}. Cleavers: ${cleavers.join(', ') || 'not on record'}.`,
  );
  if (calibrations.length > 0)
    paper.table(
      [
        { title: 'Machine', share: 30 },
        { title: 'When, by', share: 34 },
        { title: 'Arc calibration', share: 16 },
        { title: 'Note', share: 24 },
      ],
      calibrations.map(({ gear, at, by, passed, note }): TableCell[] => [
        gear,
        [when(at), by].filter(Boolean).join(', '),
        { text: passed ? 'passed' : 'failed', color: passed ? ink : accent },
        note,
      ]),
    );
  else paper.text('No arc calibration of these nights is on record.', 'small', soft);
  paper.heading(3, 'Cables', { bookmark: false });
  paper.table(
    [
      { title: 'Cable', share: 26 },
      { title: 'Fibers', share: 10, align: 'right' },
      { title: 'Construction', share: 24 },
      { title: 'Fiber', share: 22 },
    ],
    cables.map(({ label, fibers, construction, fiberType }): TableCell[] => [
      label,
      String(fibers),
      construction.replace('-', ' '),
      fiberType,
    ]),
  );
  paper.heading(3, 'How to check this record', { bookmark: false });
  paper.text(
    'The record as JSON, written in the one form of RFC 8785, has the SHA-256 below. Whoever has the file checks it with npm run verify -- FILE, or on the page “Check a record” of Cordel; the words on page one are its first 96 bits (proquints).',
  );
  paper.text(fingerprint, 'strong');
}
