import fc from 'fast-check';
import { anyConstruction } from '../../../test/arbitraries';
import { cableOf, joint } from '../../../test/joint';
import {
  equalTubes,
  fiberCount,
  fiberName,
  planFindingWords,
  tickTargets,
  prepareState,
  type Cable,
  type Construction,
} from '../../index';
import { tickAt } from '../../../test/example';
import { cutSheet, isReleased, prepareFindingWords, stepsFor, usualSchools } from '../../prepare';

/** What is cut beside the fibers of the order (trade: an express tube is cut whole, in a window some of its fibers are taken out; common practice). */

const ribbonTubes: Construction = {
  kind: 'stranded-ribbon',
  strands: Array.from({ length: 4 }, () => ({
    kind: 'tube' as const,
    ribbons: 6,
    fibersPerRibbon: 12 as const,
  })),
};
const live = (from: number, to: number) => [{ from, to, circuit: 'Ring' }];

function job(
  construction: Construction,
  order: string,
  more: { live?: Cable['live']; manner?: 'express' | 'window'; through?: number[] } = {},
) {
  const { manner = 'express' } = more;
  const cable = cableOf(1, construction, { through: true, ...(more.live ? { live: more.live } : {}) });
  const made = joint(
    'Dome 288',
    [
      [cable, manner],
      [cableOf(2, construction), 'branch'],
    ],
    order,
  );
  const closure = {
    ...made.closure,
    entries: made.closure.entries.map((entry, index) =>
      index === 0 && more.through ? { ...entry, through: more.through } : entry,
    ),
  };
  const again = joint(
    'Dome 288',
    [
      [cable, manner],
      [cableOf(2, construction), 'branch'],
    ],
    order,
    {
      entries: closure.entries,
    },
  );
  const findings = again.plan.findings.filter(({ where }) => where.kind !== 'trays' && where.kind !== 'tray');
  return { ...again, cable, findings, sheet: cutSheet(again.closure, again.plan, cable, { units: 'mm' }) };
}
const codesOf = ({ findings }: ReturnType<typeof job>) =>
  findings.map(({ code, severity }) => `${severity} ${code}`);
const said = ({ findings }: ReturnType<typeof job>) =>
  findings.map((finding) => planFindingWords(finding, 'mm').replaceAll('\u00a0', ' '));

test('live fibers in a tube that is cut for others are an outage, and a window would leave them whole', () => {
  const cut = job(equalTubes(4, 12), 'A- 1-4 > B 1-4', { live: live(5, 8) });
  expect(codesOf(cut)).toEqual(['error live-cut-too']);
  expect(said(cut)).toEqual([
    'Fibers 5–8 carry Ring in tube 1 of A, and it is cut whole for the 4 fibers that the order takes: an outage. Let the cable in by a window, which leaves the others whole, or have the circuit taken down first.',
  ]);
  expect(codesOf(job(equalTubes(4, 12), 'A- 1-4 > B 1-4', { live: live(5, 8), manner: 'window' }))).toEqual(
    [],
  );
  // In another tube they are nobody's business.
  expect(codesOf(job(equalTubes(4, 12), 'A- 1-4 > B 1-4', { live: live(13, 24) }))).toEqual([
    'warning partly-cut',
  ]);
});

test('the cut sheet compares both ways, and neither it nor the steps go on without an answer', () => {
  const { sheet, closure, plan, cable } = job(equalTubes(4, 12), 'A- 1-4 > B 1-4', { live: live(5, 8) });
  const [finding] = sheet.findings;
  expect(finding).toMatchObject({ code: 'live-in-cut', severity: 'error' });
  if (finding?.code !== 'live-in-cut') throw new Error();
  const { cut, window } = finding.params;
  expect([cut.live, window!.live]).toEqual([4, 0]);
  // The window begins where the tube lies in its tray, 640 + 30 mm inside the edge, and ends as far before the other; opened so much farther it leaves as much fiber.
  expect(window!.opening - cut.opening).toBeCloseTo(670, 6);
  expect(window!.free).toBeCloseTo(cut.free, 6);
  expect(prepareFindingWords(finding, 'mm')).toContain('Let the cable in by a window.');

  expect(sheet.marks.filter(({ stop }) => stop).map(({ kind }) => kind)).toEqual(['tube-cut']);
  const steps = stepsFor(closure, plan, cable, { units: 'mm', schools: usualSchools, seat: null }).flatMap(
    (one) => one.steps,
  );
  const ask = steps.findIndex(({ id }) => id.startsWith('live-down'));
  const blade = steps.findIndex(({ id }) => id === 'cut-tubes');
  expect(ask).toBeGreaterThan(0);
  expect(ask).toBeLessThan(blade);
  expect(steps[blade]!.after).toBe(steps[ask]!.id);
  expect(steps[ask]!.check).toMatchObject({ expects: 'count', answer: '0' });

  expect(isReleased(sheet, prepareState([]))).toBe(false);
  const answered = tickAt(tickTargets.step(cable.id, steps[ask]!.id), 1, 'done');
  expect(isReleased(sheet, prepareState([answered]))).toBe(true);
  // For other traffic the answer does not count.
  const other = job(equalTubes(4, 12), 'A- 1-4 > B 1-4', { live: live(5, 9) });
  expect(isReleased(other.sheet, prepareState([answered]))).toBe(false);
});

test('a ribbon is cut out of a tube with all the others in it', () => {
  const cut = job(ribbonTubes, 'A- R1 > B R1', { live: live(13, 24), through: [2] });
  expect(codesOf(cut)).toEqual(['error live-cut-too']);
  expect(said(cut)[0]).toContain('Fibers 13–24 carry Ring in tube 1 of A');
  expect(codesOf(job(ribbonTubes, 'A- R1 > B R1', { live: live(13, 24), manner: 'window' }))).toEqual([]);
  // What stays whole is a tube there: ribbons 7 to 12 lie in tube 2.
  expect(said(job(ribbonTubes, 'A- R7-R12 > B R7-R12', { through: [2] }))).toEqual([
    'Tube 2 of A is to go through whole, and order line 1 cuts it. Take it out of the line, or let it be cut.',
  ]);
  expect(codesOf(job(ribbonTubes, 'A- R1-R6 > B R1-R6', { through: [2] }))).toEqual([]);
});

test('a ribbon of which some fibers are taken is cut whole, or split in a window', () => {
  const ribbons: Construction = { kind: 'central-ribbon', ribbons: 4, fibersPerRibbon: 12 };
  expect(codesOf(job(ribbons, 'A- 1-6 > B 1-6', { live: live(9, 9) }))).toEqual(['error live-cut-too']);
  expect(said(job(ribbons, 'A- 1-6 > B 1-6', { live: live(9, 9), manner: 'window' }))).toEqual([
    'Fiber 9 carries Ring in ribbon 1 of A, in a ribbon of which the order takes other fibers: splitting it can break them. Take fibers of another ribbon, or have the circuit taken down first.',
  ]);
  expect(codesOf(job(ribbons, 'A- R1 > B R1', { live: live(13, 24) }))).toEqual([]);
});

test('the second binder group is cut with the first', () => {
  const grouped: Construction = {
    kind: 'stranded-tubes',
    strands: [
      { kind: 'tube', fibers: 24, groupSize: 12 },
      { kind: 'tube', fibers: 24, groupSize: 12 },
    ],
  };
  expect(codesOf(job(grouped, 'A- 1-12 > B 1-12', { live: live(13, 14) }))).toEqual(['error live-cut-too']);
});

test('whatever the cable: every live fiber that shares a tube, or a ribbon without a tube, with a fiber of the order is told', () => {
  const anyJob = fc.record({
    construction: anyConstruction,
    order: fc.tuple(fc.nat(), fc.nat()),
    live: fc.tuple(fc.nat(), fc.nat()),
    both: fc.boolean(),
  });
  fc.assert(
    fc.property(anyJob, ({ construction, order, live: traffic, both }) => {
      const count = fiberCount(construction);
      const span = ([a, b]: [number, number]) => [1 + (Math.min(a, b) % count), 1 + (Math.max(a, b) % count)];
      const [from, to] = span(order).sort((a, b) => a - b) as [number, number];
      const [first, last] = span(traffic).sort((a, b) => a - b) as [number, number];
      const text = `A- ${from}-${to} > B ${from}-${to}${both ? `\nA+ ${from}-${from} > B ${to}-${to}` : ''}`;
      const { cable, findings } = job(construction, text, { live: live(first, last) });
      const holderOf = (fiber: number) => {
        const { tube, unit } = fiberName(cable, fiber);
        return tube?.number ?? unit;
      };
      const opened = new Set<number>();
      for (let fiber = from; fiber <= to; fiber += 1) opened.add(holderOf(fiber));
      const expected: number[] = [];
      for (let fiber = first; fiber <= last; fiber += 1)
        if (opened.has(holderOf(fiber))) expected.push(fiber);
      const told = new Set<number>();
      for (const finding of findings) {
        const spans =
          finding.code === 'live-cut-too'
            ? finding.params.live
            : finding.code === 'live-cut'
              ? [finding.params]
              : [];
        for (const one of spans) for (let fiber = one.from; fiber <= one.to; fiber += 1) told.add(fiber);
      }
      expect([...told].sort((a, b) => a - b)).toEqual(expected);
    }),
  );
});
