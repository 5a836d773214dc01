import fc from 'fast-check';
import { anyConstruction } from '../../../test/arbitraries';
import { cableOf, joint } from '../../../test/joint';
import { equalTubes, fiberCount, type Cable, type Construction } from '../../index';
import { cutSheet } from '../cut/cutSheet';
import { isRightAnswer, readAnswer, type StepCheck } from './step';
import { stepsFor, usualSchools, type Schools } from './steps';
import type { Ending } from './chaptersMore';

function chapters(
  construction: Construction,
  order = 'A 1-2 > B 1-2',
  more: { schools?: Partial<Schools>; ending?: Ending; manner?: 'cut' | 'express' | 'window' | 'drop' } = {},
) {
  const { schools = {}, manner = 'cut', ending } = more;
  const cable = cableOf(1, construction, { through: manner === 'express' || manner === 'window' });
  const { closure, plan } = joint(
    'Dome 288',
    [
      [cable, manner],
      [cableOf(2, equalTubes(24, 12)), 'branch'],
    ],
    order,
  );
  return stepsFor(closure, plan, cable, {
    units: 'mm',
    schools: { ...usualSchools, ...schools },
    seat: null,
    ...(ending ? { ending } : {}),
  });
}
const idsOf = (list: ReturnType<typeof chapters>) =>
  list.flatMap(({ steps }) => steps.map((step) => step.id));
const stepOf = (list: ReturnType<typeof chapters>, id: string) =>
  list.flatMap(({ steps }) => steps).find((step) => step.id === id)!;

const drop = (toningWire: boolean): Construction => ({
  kind: 'drop',
  shape: 'flat',
  fibers: 2,
  toningWire,
  messenger: false,
});
const pigtails: Construction = { kind: 'pigtails', fibers: 12, bufferMicrometers: 900 };
const grouped: Construction = {
  kind: 'stranded-tubes',
  strands: [{ kind: 'tube', fibers: 24, groupSize: 12 }],
};
const ribbons: Construction = { kind: 'central-ribbon', ribbons: 24, fibersPerRibbon: 12 };

test('steps are put together for the construction', () => {
  expect(chapters(equalTubes(2, 12)).map(({ id }) => id)).toEqual(['open', 'fit', 'tubes']);
  expect(chapters(ribbons, 'A R1-R2 > B 1-24 ribbonized').map(({ id }) => id)).toEqual([
    'open',
    'fit',
    'ribbons',
  ]);
  expect(chapters(drop(false)).map(({ id }) => id)).toEqual(['drop', 'fit']);
  expect(chapters(pigtails).map(({ id }) => id)).toEqual(['pigtail']);
});

test('the toning wire comes off before anything else, where there is one', () => {
  expect(idsOf(chapters(drop(true)))[0]).toBe('toning-wire');
  expect(idsOf(chapters(drop(false)))).not.toContain('toning-wire');
});

test('binder groups are counted before the binders are gone, a group has 12', () => {
  const list = chapters(grouped);
  const ids = idsOf(list);
  const inOrder = [
    'groups-show.1',
    'group.1.1',
    'group-color.1.1',
    'group.1.2',
    'group-color.1.2',
    'groups-apart',
    'clean-fibers.1',
  ];
  expect(ids.filter((id) => inOrder.includes(id))).toEqual(inOrder);
  expect(stepOf(list, 'group.1.2').check).toMatchObject({ expects: 'count', answer: '12' });
  expect(stepOf(list, 'clean-fibers.1').check).toMatchObject({ expects: 'count', answer: '24' });
});

test('schools differ: tool, wipe, and the drying time of the adhesive (common practice: 60 s, at least 30 s)', () => {
  expect(stepOf(chapters(equalTubes(2, 12)), 'score').what).toContain('Round tube scorer');
  expect(
    stepOf(chapters(equalTubes(2, 12), undefined, { schools: { tube: 'fixed-depth' } }), 'score').what,
  ).toContain('Fixed-depth');
  const glued = (ribbonizing: Schools['ribbonizing']) =>
    stepOf(
      chapters(equalTubes(2, 12), 'A 1-12 > B 1-12 ribbonized', { schools: { ribbonizing } }),
      'ribbonize-dry',
    ).timer!.seconds;
  expect(glued('pads')).toBe(60);
  expect(glued('block')).toBe(30);
});

test('a connector has its own steps: sleeve and boot before the strip', () => {
  expect(idsOf(chapters(drop(false), undefined, { ending: 'mechanical' }))).toContain('mechanical-light');
  const fusion = chapters(pigtails, undefined, { ending: 'fusion-connector' });
  expect(idsOf(fusion).indexOf('fusion-parts')).toBeLessThan(idsOf(fusion).indexOf('fusion-splice'));
  expect(stepOf(fusion, 'fusion-heat').timer).toEqual({ label: 'Heater', seconds: 20 });
});

test('what cools is handled after it has cooled, and what goes on first is asked whatever the kit has', () => {
  const ids = idsOf(chapters(pigtails, undefined, { ending: 'fusion-connector' }));
  expect(ids.filter((id) => id.startsWith('fusion'))).toEqual([
    'fusion-parts',
    'fusion-splice',
    'fusion-heat',
    'fusion-cool',
    'fusion-housing',
  ]);
});

test('the fiber of a drop is the one that the order takes', () => {
  const what = (order: string) => stepOf(chapters(drop(false), order), 'drop-fiber').what;
  expect(what('A 2 > B 1')).toBe('The order takes fiber 2 OR.');
  expect(what('A 1-2 > B 1-2')).toBe('The order takes fibers 1 BL, 2 OR.');
});

test('a cable that goes through is asked how many tubes are about to be cut; a window how many fibers', () => {
  expect(
    stepOf(chapters(equalTubes(4, 12), 'A- T2-T3 > B T1-T2', { manner: 'express' }), 'cut-tubes').check!
      .answer,
  ).toBe('2');
  expect(
    stepOf(chapters(equalTubes(4, 12), 'A- 1-5 > B 1-5', { manner: 'window' }), 'window.1').check!.answer,
  ).toBe('5');
  expect(
    stepOf(chapters(equalTubes(4, 12), 'A- T2 > B T1', { manner: 'express' }), 'tube-color.2').check!.answer,
  ).toBe('OR');
});

/** Trade: tubes and fillers are counted before anything is cut, and tubes unwound from the rod before it is (common practice). */
test('tubes and fillers are counted first, and the rod is cut when the tubes are unwound from it', () => {
  const strands = [
    ...Array.from({ length: 4 }, () => ({ kind: 'tube' as const, fibers: 12 })),
    { kind: 'filler' as const },
    { kind: 'filler' as const },
  ];
  for (const manner of ['cut', 'express', 'window'] as const) {
    const sign = manner === 'cut' ? '' : '-';
    const list = chapters({ kind: 'stranded-tubes', strands }, `A${sign} T2-T3 > B T1-T2`, { manner });
    const inOrder = ['count-tubes', 'count-fillers', 'unwind', 'yarn', 'strength-member'];
    expect(idsOf(list).filter((id) => inOrder.includes(id))).toEqual(inOrder);
    expect(stepOf(list, 'count-tubes').check!.answer).toBe('4');
    expect(stepOf(list, 'count-fillers').check!.answer).toBe('2');
    // The fillers are cut after they were counted.
    expect(stepOf(list, 'yarn').marks!.some((mark) => mark.startsWith('filler'))).toBe(true);
  }
});

test('each tube that is opened is asked about by itself', () => {
  const ids = idsOf(chapters(equalTubes(6, 12), 'A T1-T6 > B T1-T6'));
  for (const what of ['tube-color', 'clean-fibers'])
    expect(ids.filter((id) => id.startsWith(what))).toEqual(
      [1, 2, 3, 4, 5, 6].map((tube) => `${what}.${tube}`),
    );
});

test('a tube with a tracer can be told from the one without', () => {
  const { check } = stepOf(chapters(equalTubes(24, 12), 'A T14 > B T14'), 'tube-color.14');
  const codes = check!.choices!.map(({ code }) => code);
  expect(check!.answer).toBe('OR-BK');
  expect(codes).toEqual(expect.arrayContaining(['OR-BK', 'OR', 'BL-BK', 'GR-BK']));
  expect(new Set(codes).size).toBe(codes.length);
});

/** Trade: the edge color of a ribbon proves nothing about which ribbon it is. */
test('a ribbon is known by its number or its place, never by its edge', () => {
  const tubes: Construction = {
    kind: 'stranded-ribbon',
    strands: Array.from({ length: 4 }, () => ({
      kind: 'tube' as const,
      ribbons: 6,
      fibersPerRibbon: 12 as const,
    })),
  };
  // Ribbon 15 of the cable is the third of tube 3.
  const inTubes = chapters(tubes, 'A- R15 > B 1-12 ribbonized', { manner: 'window' });
  expect(stepOf(inTubes, 'ribbon-number.3').check).toMatchObject({ expects: 'count', answer: '3' });
  expect(stepOf(inTubes, 'tube-color.3').check!.answer).toBe('GR');
  expect(stepOf(inTubes, 'count-ribbons.3').check!.answer).toBe('6');
  const central = chapters(ribbons, 'A R5-R6 > B 1-24 ribbonized');
  expect(stepOf(central, 'count-ribbons').check!.answer).toBe('24');
  expect(stepOf(central, 'ribbon-number.6').check!.answer).toBe('6');
  for (const list of [inTubes, central])
    expect(
      list
        .flatMap(({ steps }) => steps)
        .filter(({ id, check }) => id.startsWith('ribbon') && check?.expects === 'color'),
    ).toEqual([]);
});

test('ribbons of two sizes are counted each by its own', () => {
  const list = chapters(equalTubes(4, 12), 'A 1-8 > B 1-8 ribbonized\nA 13-24 > B 13-24 ribbonized');
  expect(idsOf(list).filter((id) => id.startsWith('ribbonize-order'))).toEqual([
    'ribbonize-order.12',
    'ribbonize-order.8',
  ]);
});

test('answers are compared as numbers and as color codes', () => {
  const count = { ask: '', expects: 'count', answer: '12', wrong: '' } as const;
  const color = { ask: '', expects: 'color', answer: 'BL', wrong: '' } as const;
  const right = (check: StepCheck, text: string) => {
    const answer = readAnswer(check, text);
    return answer !== null && isRightAnswer(check, answer);
  };
  expect(['12', ' 12 ', '012'].every((answer) => right(count, answer))).toBe(true);
  expect(['11', '', 'twelve', '12.5', '1e1', '-12'].some((answer) => right(count, answer))).toBe(false);
  expect(readAnswer(count, 'twelve')).toBeNull();
  expect(right(color, 'bl')).toBe(true);
  expect(right(color, 'OR')).toBe(false);
});

test('whatever the cable: step names are unique, every mark of the cut sheet is made by one step, and every check can be wrong', () => {
  const anyJob = fc.record({
    construction: anyConstruction,
    manner: fc.constantFrom('cut' as const, 'express' as const, 'window' as const),
    size: fc.integer({ min: 1, max: 48 }),
  });
  fc.assert(
    fc.property(anyJob, ({ construction, manner, size }) => {
      const through = manner !== 'cut';
      const cable: Cable = cableOf(1, construction, { through });
      const last = Math.min(size, fiberCount(construction));
      const { closure, plan } = joint(
        'Dome 288',
        [
          [cable, manner],
          [cableOf(2, equalTubes(24, 12)), 'branch'],
        ],
        `A${through ? '-' : ''} 1-${last} > B 1-${last}`,
      );
      const steps = stepsFor(closure, plan, cable, {
        units: 'in',
        schools: usualSchools,
        seat: null,
      }).flatMap((chapter) => chapter.steps);
      expect(new Set(steps.map((step) => step.id)).size).toBe(steps.length);
      const marks = cutSheet(closure, plan, cable, { units: 'in' }).marks.map((mark) => mark.id);
      const made = steps.flatMap((step) => step.marks ?? []);
      expect([...new Set(made)].sort()).toEqual([...marks].sort());
      expect(made.length).toBe(new Set(made).size);
      for (const { check } of steps)
        if (check) expect(isRightAnswer(check, readAnswer(check, `${check.answer}0`)!)).toBe(false);
    }),
  );
});

/** Trade: up to six ribbons in a flat jacket enter a module as they are; more, or bare ones, want a breakout or tubing (common practice). */
test('ribbons enter a module in their jacket, in mesh, or through a breakout', () => {
  const into = (count: number) => {
    const cable = cableOf(1, { kind: 'central-ribbon', ribbons: count, fibersPerRibbon: 12 });
    const { closure, plan } = joint(
      'Rack module 144',
      [
        [cable, 'cut'],
        [cableOf(2, equalTubes(1, 12)), 'branch'],
      ],
      'A R1 > B 1-12 ribbonized',
    );
    const list = stepsFor(closure, plan, cable, { units: 'mm', schools: usualSchools, seat: null });
    return stepOf(list, 'ribbon-module').what;
  };
  expect(into(6)).toContain('6 ribbons go in as they are');
  expect(into(7)).toContain('a breakout kit, or furcation tubing');
  expect(idsOf(chapters(ribbons, 'A R1-R2 > B 1-24 ribbonized'))).not.toContain('ribbon-module');
});
