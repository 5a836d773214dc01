import { cableA, cableB, closure, id } from '../../../test/example';
import { equalTubes, type Cable } from '../../line/cable';
import { dinVde0888 } from '../../line/colorCode';
import type { Closure, Entry } from '../closure';
import { planClosure } from '../trays/closurePlan';
import { readOrder } from './orderText';
import { planFindingWords, type PlanFinding } from '../words';

/** What the plan says to mistakes that cost a night (trade: common practice). */

interface Job {
  left?: Partial<Cable>;
  right?: Partial<Cable>;
  leftEntry?: Partial<Entry>;
  rightEntry?: Partial<Entry>;
  closure?: Partial<Closure>;
}

function plan(order: string, { left, right, leftEntry, rightEntry, closure: more }: Job = {}) {
  const cables = [
    { ...cableA, ...left },
    { ...cableB, ...right },
  ];
  const entries: Entry[] = [
    { cableId: cableA.id, manner: 'cut', ...leftEntry },
    { cableId: cableB.id, manner: 'cut', ...rightEntry },
  ];
  const read = readOrder(order, entries);
  expect(read.problems).toEqual([]);
  const lines = read.lines.map((line, index) => ({ ...line, id: id(900 + index) }));
  return planClosure(
    {
      ...closure,
      trays: Array.from({ length: 4 }, () => ({ singleSlots: 12, ribbonSlots: 6 })),
      entries,
      order: lines,
      ...more,
    },
    new Map(cables.map((cable) => [cable.id, cable])),
  );
}
const said = (finding: PlanFinding) => planFindingWords(finding, 'mm').replace(/\u00a0/g, ' ');
const codes = (...job: Parameters<typeof plan>) => plan(...job).findings.map((finding) => finding.code);
const message = (...job: Parameters<typeof plan>) => said(plan(...job).findings[0]!);

const ribbons = (count: number, fibersPerRibbon: 6 | 8 | 12 = 6) => ({
  construction: { kind: 'central-ribbon' as const, ribbons: count, fibersPerRibbon },
});
const through = { siteIds: [id(11), id(12), id(13)] };

test('a sound order has nothing against it', () => {
  expect(codes('A 1-24 > B 1-24')).toEqual([]);
  expect(codes('A T1-T4 > B T1-T4')).toEqual([]);
  expect(codes('A R1-R4 > B R1-R4', { left: ribbons(4), right: ribbons(4) })).toEqual([]);
});

test('ribbons are one splice each, in straight or reversed order', () => {
  const straight = plan('A R2 > B R2', { left: ribbons(4), right: ribbons(4) }).splices[0]!;
  const reversed = plan('A R2 > B R2 reversed', { left: ribbons(4), right: ribbons(4) }).splices[0]!;
  expect(straight.left.map((end) => end.fiber)).toEqual([7, 8, 9, 10, 11, 12]);
  expect(straight.right.map((end) => end.fiber)).toEqual([7, 8, 9, 10, 11, 12]);
  // Method B: 1 meets 12, 2 meets 11 … (common practice), here of six.
  expect(reversed.right.map((end) => end.fiber)).toEqual([12, 11, 10, 9, 8, 7]);
});

test('loose fibers are made into ribbons of the other side’s size, or of 12', () => {
  const toRibbon = plan('A T1 > B R1 ribbonized', { right: ribbons(4) });
  expect(toRibbon.splices.map((splice) => splice.left.length)).toEqual([6]);
  const loose = plan('A 1-24 > B 1-24 ribbonized');
  expect(loose.splices.map((splice) => splice.left.length)).toEqual([12, 12]);
});

test.each<[string, string, Job, string]>([
  ['a ribbon broken up', 'A 1-3 > B 1-3 ribbon', { left: ribbons(4), right: ribbons(4) }, 'ribbon-split'],
  [
    'a ribbon of 12 against a ribbon of 8',
    'A 1-24 > B 1-24 ribbon',
    { left: ribbons(2, 12), right: ribbons(3, 8) },
    'ribbon-sizes-differ',
  ],
  ['loose fibers called ribbons', 'A T1 > B R1', { right: ribbons(4) }, 'no-ribbons'],
  [
    'a ribbon flipped without a planned polarity',
    'A 6-1 > B 1-6 ribbon',
    { left: ribbons(4), right: ribbons(4) },
    'reversed-unplanned',
  ],
  [
    'a filler counted as a tube',
    'A T3 > B T1',
    {
      left: {
        construction: {
          kind: 'stranded-tubes',
          strands: [{ kind: 'tube', fibers: 6 }, { kind: 'filler' }, { kind: 'tube', fibers: 6 }],
        },
      },
    },
    'filler-counted',
  ],
  ['two color schemes', 'A 1 > B 1', { right: { schemeId: dinVde0888.id } }, 'schemes-differ'],
  ['single-mode against multimode', 'A 1 > B 1', { right: { fiberType: 'om3' } }, 'fiber-modes-differ'],
  [
    'mode fields that differ',
    'A 1 > B 1',
    { left: { modeField: 9.2 }, right: { modeField: 8.6 } },
    'mode-fields-differ',
  ],
  [
    'a circuit that is live',
    'A 1-6 > B 1-6',
    { left: { live: [{ from: 5, to: 8, circuit: 'Ring north' }] } },
    'live-cut',
  ],
  [
    'a tube both express and cut',
    'A+ T2 > B T2',
    { left: through, leftEntry: { manner: 'express', through: [2] } },
    'express-and-cut',
  ],
  [
    'a cut end of a cable that goes through',
    'A 1 > B 1',
    { left: through, leftEntry: { manner: 'express' } },
    'side',
  ],
  ['a side of a cable that ends', 'A+ 1 > B 1', {}, 'side'],
  ['a cable that runs on, let in as cut', 'A 1 > B 1', { left: through }, 'manner'],
  ['a cable that is not at the site', 'A 1 > B 1', { left: { siteIds: [id(13), id(11)] } }, 'not-at-site'],
  ['two cables called alike', 'B 1 > B 2', { leftEntry: { key: 'B' } }, 'key-twice'],
  [
    'a cable too thick for the ports',
    'A 1 > B 1',
    {
      left: { diameter: 21 },
      closure: { ports: [{ name: 'Round', count: 4, from: 6, to: 18, express: false }] },
    },
    'no-port',
  ],
])('tells of %s', (_, order, job, code) => {
  expect(codes(order, job)).toContain(code);
});

test('says what is wrong, where, and what to do', () => {
  const live = { left: { live: [{ from: 5, to: 8, circuit: 'Ring north' }] } };
  expect(message('A 1-6 > B 1-6', live)).toBe(
    'A 5–6 carries Ring north, and order line 1 cuts it. Take it out, or have the circuit taken down first.',
  );
  // 9.2 to 8.6 μm: 0.0197 dB, and one way ±0.293 dB (D. Marcuse 1977; values of the design's truth table).
  expect(message('A 1 > B 1', { left: { modeField: 9.2 }, right: { modeField: 8.6 } })).toContain(
    'still loses 0.020 dB, and a redo will not help. An OTDR reads −0.273 dB from A and +0.313 dB from B',
  );
  expect(
    message('A 1 > B 1', {
      left: { diameter: 21 },
      closure: { ports: [{ name: 'Round', count: 4, from: 6, to: 18, express: false }] },
    }),
  ).toBe(
    'A is 21 mm thick, and no port takes that (nearest: Round, 6 mm to 18 mm). Use another seal kit or another closure; do not force it.',
  );
});

test('a port that two cables would need is told for the second', () => {
  const port = { name: 'Round', count: 1, from: 6, to: 18, express: false };
  const job = { left: { diameter: 12 }, right: { diameter: 10 }, closure: { ports: [port] } };
  expect(message('A 1 > B 1', job)).toBe(
    'B is 10 mm thick, and every port that takes it is taken. Use a closure with more ports.',
  );
});

test('a tube that no tray holds whole is told with its trays', () => {
  const { findings } = plan('A 1-24 > B 1-24', {
    left: { construction: equalTubes(1, 24) },
    closure: { trays: Array.from({ length: 3 }, () => ({ singleSlots: 10 })) },
  });
  // Of the other side the tubes that the tray's end cuts through.
  expect(findings.map((finding) => said(finding).replace(/\. .*/, ''))).toEqual([
    'Tube 1 of A is planned on trays 1 and 2 and 3',
    'Tube 2 of B is planned on trays 1 and 2',
    'Tube 4 of B is planned on trays 2 and 3',
  ]);
});

test('an overlap is told once, as a range', () => {
  const { findings } = plan('A 1-12 > B 1-12\nA 13-24 > B 7-18');
  expect(findings.map(said)).toEqual([
    'B fibers 7–12 are used twice, in order lines 1 and 2. Take them out of one.',
  ]);
});

// Trade: only the tubes to be spliced are cut; in a window some fibers are taken out of a tube and the others stay whole (common practice).
test('an express tube of which only some fibers are spliced is told, and a window lets the others be', () => {
  const part = (manner: 'express' | 'window') =>
    codes('A+ 7-9 > B 1-3', { left: through, leftEntry: { manner } });
  expect(part('express')).toEqual(['partly-cut']);
  expect(part('window')).toEqual([]);
  expect(codes('A+ T2 > B T1', { left: through, leftEntry: { manner: 'express' } })).toEqual([]);
});

test('whole ribbons that are ordered fiber by fiber are asked about', () => {
  const both = { left: ribbons(4), right: ribbons(4) };
  expect(message('A 1-12 > B 13-24', both)).toBe(
    'Order line 1 takes whole ribbons (R1–R2 to R3–R4) fiber by fiber. If ribbons are meant, write “ribbon” behind it; if not, they have to be taken apart.',
  );
  expect(plan('A 1-12 > B 13-24', both).splices).toHaveLength(12);
  expect(codes('A R1-R2 > B R3-R4', both)).toEqual([]);
  // Part of a ribbon, or loose fibers on the other side, can be nothing else.
  expect(codes('A 1-3 > B 1-3', both)).toEqual([]);
  expect(codes('A 1-12 > B 1-12', { left: ribbons(4) })).toEqual([]);
});

test('no ribbon is made of one fiber', () => {
  const { findings, splices } = plan('A 1-13 > B 1-13 ribbonized');
  expect(findings.map(said)).toEqual([
    'Order line 1 makes ribbons of 13 loose fibers, and the last one would have a single fiber. Take one fiber less, and splice it singly.',
  ]);
  expect(splices).toEqual([]);
  expect(codes('A 1-14 > B 1-14 ribbonized')).toEqual([]);
});
