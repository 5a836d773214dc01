import fc from 'fast-check';
import { closure as example, definition, id, isFact, tickAt, timeOf } from '../../../test/example';
import { cleaver as ownCleaver } from '../../../test/gear';
import { cableOf, joint } from '../../../test/joint';
import { plainly } from '../../../test/plainly';
import {
  addFact,
  buildLedger,
  equalTubes,
  fiberEndKey,
  kitList,
  lossSheet,
  planFindingWords,
  prepareState,
  tickTargets,
  unassigned,
  usualLengths,
  type Cable,
  type Construction,
  type Entry,
  type Fact,
  type LightCheck,
} from '../../index';
import {
  allWork,
  connectorSteps,
  connectorsToPutOn,
  cutSheet,
  endState,
  estimateClosure,
  itemsFor,
  lightOf,
  prepareFindingWords,
  stepsFor,
  usualPace,
  usualSchools,
  workLeft,
} from '../../prepare';
import { followFiber } from '../../plan/follow/followFiber';
import { builtInModels } from '../../plan/models/builtInModels';
import { endsInConnectors, isOpened, openedUnits } from '../../plan/opened/openedUnits';

const drop = (fibers = 2): Construction => ({
  kind: 'drop',
  shape: 'flat',
  fibers,
  toningWire: true,
  messenger: false,
});
const pigtails: Construction = { kind: 'pigtails', fibers: 6, bufferMicrometers: 900 };
const feeder = cableOf(1, equalTubes(4, 12));
const customer = cableOf(2, drop());
const open = cableOf(3, pigtails, { siteIds: [id(12)] });
const terminal = builtInModels.find(({ kind }) => kind === 'terminal')!.name;

/** A closure at the customer: the feeder as A, the drop as B, pigtails as C. */
const at = (order: string, more: Parameters<typeof joint>[3] = {}) =>
  joint(
    terminal,
    [
      [feeder, 'cut'],
      [customer, 'drop'],
      [open, 'cut'],
    ],
    order,
    more,
  );
const codes = (order: string) => at(order).plan.findings.map(({ code }) => code);

describe('the plan', () => {
  test('a line with one side makes ends and no splices', () => {
    const { plan } = at('A 1-2 > fused connector : Ring\nB 1 > mechanical connector\nC 1 > own connector');
    expect(plan.splices.length + plan.unplaced.length).toBe(0);
    expect(plan.ends).toEqual([
      { cableId: feeder.id, fiber: 1, side: 'end', connector: 'fusion-connector', circuit: 'Ring' },
      { cableId: feeder.id, fiber: 2, side: 'end', connector: 'fusion-connector', circuit: 'Ring' },
      { cableId: customer.id, fiber: 1, side: 'end', connector: 'mechanical', circuit: null },
      { cableId: open.id, fiber: 1, side: 'end', connector: 'own', circuit: null },
    ]);
    expect(unassigned(plan, customer)).toEqual([{ from: 2, to: 2 }]);
  });

  test('an end is used once, whether it is spliced or wears a connector', () => {
    expect(codes('A 1-2 > B 1-2\nB 2 > fused connector')).toContain('end-used-twice');
    expect(codes('B 2 > fused connector\nA 1-2 > B 1-2')).toContain('end-used-twice');
    const { plan } = at('B 1-2 > fused connector\nB 1-2 > mechanical connector');
    expect(plan.findings.map((one) => planFindingWords(one, 'mm'))).toEqual([
      'Cable 2 fibers 1–2 are used twice, in order lines 1 and 2. Take them out of one.',
    ]);
    expect(plan.ends.map(({ connector }) => connector)).toEqual(['fusion-connector', 'fusion-connector']);
  });

  test('what cannot wear it is told, and what has to be done before', () => {
    expect(codes('B 1 > fused connector')).toEqual([]);
    expect(codes('C 1 > own connector')).toEqual([]);
    expect(codes('A 1 > fused connector')).toEqual(['bare-in-connectors']);
    expect(codes('B 1 > own connector')).toEqual(['no-own-connector']);
    expect(at('B 1 > own connector').plan.ends).toEqual([]);
    expect(codes('C 1 > fused connector')).toEqual(['second-connector']);
    expect(codes('B 3 > fused connector')).toEqual(['range']);
    const ribbons = cableOf(4, { kind: 'central-ribbon', ribbons: 2, fibersPerRibbon: 12 });
    const { plan } = joint('Dome 96', [[ribbons, 'cut']], 'A R1 > fused connector');
    expect(plan.findings.map(({ code }) => code)).toEqual(['ribbon-in-connectors']);
    expect(plan.ends).toHaveLength(12);
  });

  test('live fibers are no less cut by a connector: of the fibers, and of the tube they lie in', () => {
    const live = [{ from: 5, to: 6, circuit: 'Ring' }];
    const through = cableOf(5, equalTubes(4, 12), { through: true, live });
    const findings = (order: string, manner: Entry['manner']) =>
      joint('Dome 96', [[through, manner]], order).plan.findings.map(({ code }) => code);
    expect(findings('A- 5 > fused connector', 'express')).toContain('live-cut');
    expect(findings('A- 1 > fused connector', 'express')).toContain('live-cut-too');
    expect(findings('A- 1 > fused connector', 'window')).not.toContain('live-cut-too');
  });

  test('a holder is opened for connectors as for splices; pigtails that nobody splices stay as they are', () => {
    const { plan, closure } = at('A 1-2 > fused connector\nA 13 > B 1\nC 1 > own connector');
    const { opened } = openedUnits(plan, feeder, 'cut');
    expect(opened.map(({ holder, used, inConnectors }) => [holder.number, used, inConnectors])).toEqual([
      [1, 2, 2],
      [2, 1, 0],
    ]);
    expect(endsInConnectors(plan, feeder.id)).toBe(false);
    expect(endsInConnectors(plan, open.id)).toBe(true);
    expect(isOpened(plan, closure, open)).toBe(false);
    expect(isOpened(at('A 1 > C 1').plan, closure, open)).toBe(true);
    expect(stepsFor(closure, plan, open, { units: 'mm', schools: usualSchools, seat: null })).toEqual([]);
  });

  test('a fiber is followed to its connector, and from it', () => {
    const { closure, plan, cables } = at('A 1 > B 1\nA 2 > fused connector');
    const route = { sites: definition.sites, cables, closures: [{ closure, plan }] };
    const way = followFiber(route, feeder.id, 2);
    expect(way.map(({ kind }) => kind)).toEqual(['stop', 'length', 'connector']);
    expect(way.at(-1)).toMatchObject({ siteId: id(12), end: { fiber: 2, connector: 'fusion-connector' } });
    expect(followFiber(route, feeder.id, 1).at(-1)!.kind).not.toBe('connector');
  });
});

describe('cutting and packing', () => {
  // The design's table: 12 in (305 mm) at the customer's end, rods cut at the sheath (common practice).
  test.each(builtInModels.map((model) => [model.name] as const))(
    'a drop that only ends in connectors is opened 12 in at %s, its rods at the sheath, and nothing of it lies on a tray',
    (name) => {
      const diameter = Math.min(...builtInModels.find((one) => one.name === name)!.ports.map(({ to }) => to));
      const cable = cableOf(2, drop(), { diameter });
      const { closure, plan } = joint(name, [[cable, 'drop']], 'A 1-2 > fused connector');
      const sheet = cutSheet(closure, plan, cable, { units: 'mm' });
      expect(sheet.findings).toEqual([]);
      expect(sheet.opened).toEqual({ from: 0, to: 304.8 });
      expect(sheet.marks.find(({ id: own }) => own === 'strength-member')!.at).toBeCloseTo(304.8);
      expect(sheet.marks.filter(({ kind }) => kind === 'tray')).toEqual([]);
      // Nobody said how much one try takes.
      expect(sheet.redos).toBeNull();
      const spliced = joint(
        name,
        [
          [cable, 'drop'],
          [cableOf(6, drop(), { diameter }), 'drop'],
        ],
        'A 1 > fused connector\nA 2 > B 2',
      );
      expect(cutSheet(spliced.closure, spliced.plan, cable, { units: 'mm' }).opened.to).toBeGreaterThan(
        304.8,
      );
    },
  );

  test('its own table comes first', () => {
    const { closure, plan } = at('B 1 > fused connector');
    const lengths = { ...usualLengths, connectorOpening: 250 };
    expect(cutSheet({ ...closure, lengths }, plan, customer, { units: 'mm' }).opened.to).toBe(250);
  });

  const constructions: Record<string, Construction> = {
    loose: equalTubes(4, 12),
    ribbons: { kind: 'central-ribbon', ribbons: 4, fibersPerRibbon: 12 },
    ribbonTubes: {
      kind: 'stranded-ribbon',
      strands: Array.from({ length: 2 }, () => ({ kind: 'tube', ribbons: 2, fibersPerRibbon: 12 })),
    },
    drop: drop(),
  };
  const jobs = builtInModels
    .filter(({ kind }) => kind !== 'drop')
    .flatMap((model) =>
      Object.entries(constructions).flatMap(([name, construction]) =>
        (construction.kind === 'drop'
          ? (['drop'] as const)
          : model.ports.some(({ express }) => express)
            ? (['cut', 'express', 'window'] as const)
            : (['cut'] as const)
        ).map((manner) => [model.name, name, manner, construction] as const),
      ),
    );
  test.each(jobs)('%s takes %s as %s into connectors without an error', (model, _, manner, construction) => {
    const through = manner === 'express' || manner === 'window';
    const ports = builtInModels
      .find((one) => one.name === model)!
      .ports.filter(({ express }) => express || !through);
    const port = ports.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
    const cable = cableOf(1, construction, { through, diameter: (port.from + port.to) / 2 });
    const { closure, plan } = joint(
      model,
      [[cable, manner]],
      through ? 'A- 1-2 > fused connector' : 'A 1-2 > fused connector',
    );
    const sheet = cutSheet(closure, plan, cable, { units: 'mm' });
    expect([
      ...plan.findings
        .filter(({ severity }) => severity === 'error')
        .map((one) => planFindingWords(one, 'mm')),
      ...sheet.findings
        .filter(({ severity }) => severity === 'error')
        .map((one) => prepareFindingWords(one, 'mm')),
    ]).toEqual([]);
    expect(sheet.marks.length).toBeGreaterThan(0);
    const said = sheet.marks.map(({ title, why }) => `${title} ${why}`).join(' ');
    expect(said).not.toContain('no tray yet');
    if (construction.kind !== 'drop') expect(said).toContain('fan-out');
    // Every mark is made by exactly one step.
    const steps = stepsFor(closure, plan, cable, { units: 'mm', schools: usualSchools, seat: null }).flatMap(
      (chapter) => chapter.steps,
    );
    expect(steps.flatMap(({ marks = [] }) => marks).sort()).toEqual(
      sheet.marks.map(({ id: own }) => own).sort(),
    );
    expect(new Set(steps.map(({ id: own }) => own)).size).toBe(steps.length);
  });

  test('connectors, wipes and the light source are packed, each once, and not what is on already', () => {
    const { closure, plan, cables } = at(
      'B 1 > fused connector\nB 2 > mechanical connector\nC 1-2 > own connector',
    );
    const kit = (connected: string[] = []) =>
      new Map(
        kitList(closure, plan, cables, {
          sparePercent: 0,
          done: {
            settled: new Set(),
            connected: new Set(connected),
            opened: new Set(),
            sealed: false,
          },
        }).map(({ item, count }) => [item, count]),
      );
    expect(kit().get('fusion-connector')).toBe(1);
    expect(kit().get('mechanical-connector')).toBe(1);
    expect(kit().get('wipe')).toBe(2);
    expect(kit().has('single-sleeve-60')).toBe(false);
    expect(kit([fiberEndKey(plan.ends[0]!)]).has('fusion-connector')).toBe(false);
    const tools = itemsFor(closure, plan, cables, usualSchools).map(({ id: own }) => own);
    expect(tools).toEqual(expect.arrayContaining(['machine', 'cleaver', 'light']));
    const mechanical = at('B 1 > mechanical connector');
    const without = itemsFor(mechanical.closure, mechanical.plan, mechanical.cables, usualSchools);
    expect(without.map(({ id: own }) => own)).not.toContain('machine');
  });

  test('bare fibers are fanned out: kits, time and a step of their own; those of a drop are not', () => {
    const { closure, plan, cables } = at('A 1-13 > fused connector\nA 25 > C 1\nB 1 > fused connector');
    const kit = kitList(closure, plan, cables, { sparePercent: 0 });
    expect(kit.find(({ item }) => item === 'fan-out')!.count).toBe(2);
    expect(allWork(closure, plan, cables)).toMatchObject({ connectors: 14, fanOuts: 2 });
    const { lines } = estimateClosure(closure, plan, cables, allWork(closure, plan, cables), usualPace);
    expect(lines.find(({ id: own }) => own === 'connector')!.seconds).toBe(
      14 * usualPace.connector + 2 * usualPace.fanOut,
    );
    const stepsOf = (cable: Cable) =>
      stepsFor(closure, plan, cable, { units: 'mm', schools: usualSchools, seat: null }).flatMap(
        ({ steps }) => steps,
      );
    const steps = stepsOf(feeder);
    expect(plainly(steps.find(({ id: own }) => own === 'fan-out')!.what)).toBe(
      'Tubes 1 BL, 2 OR: the 13 fibers that wear connectors go into a tube of the fan-out each, in color order. Close it and tie it down.',
    );
    expect(steps.find(({ id: own }) => own === 'tray-marks')!.title).toBe(
      'Mark the entries of tray and fan-out',
    );
    const ofDrop = stepsOf(customer);
    expect(ofDrop.map(({ id: own }) => own)).not.toContain('fan-out');
    expect(ofDrop.find(({ id: own }) => own === 'drop-fiber')!.what).toBe('The order takes fiber 1 BL.');
    expect(ofDrop.find(({ id: own }) => own === 'drop-rods')!.what).toBe('Cut them at the sheath.');
  });

  test('connectors take their time, as long as they are not on', () => {
    const { closure, plan, cables } = at('B 1-2 > fused connector\nC 1 > own connector');
    expect(allWork(closure, plan, cables).connectors).toBe(2);
    const { lines } = estimateClosure(closure, plan, cables, allWork(closure, plan, cables), usualPace);
    expect(lines.find(({ id: own }) => own === 'connector')).toMatchObject({
      what: '2 connectors',
      seconds: 2 * usualPace.connector,
    });
    const facts = connectorSteps('fusion-connector', 'mm').map(({ id: step }, index) =>
      tickAt(tickTargets.stepAt(plan.ends[0]!, step), index + 1, 'done'),
    );
    const ledger = buildLedger(plan, [], definition.project.limits);
    expect(workLeft(closure, plan, cables, ledger, facts).connectors).toBe(1);
  });
});

let made = 7000;
const light = (
  end: { readonly cableId: string; readonly fiber: number; readonly side: 'end' | 'low' | 'high' },
  seen: LightCheck['body']['seen'],
  minute: number,
): LightCheck => ({
  v: 2,
  id: id((made += 1)),
  kind: 'light-check',
  madeAt: timeOf(minute),
  by: 'Iara',
  device: null,
  subject: { on: 'end', closureId: example.id, cableId: end.cableId, fiber: end.fiber, side: end.side },
  body: { seen, note: '' },
});

describe('the light check', () => {
  const { closure, plan, cables } = at(
    'B 1 > fused connector\nB 2 > mechanical connector\nC 1 > own connector',
  );
  const [fused, mechanical, own] = plan.ends as [
    (typeof plan.ends)[0],
    (typeof plan.ends)[0],
    (typeof plan.ends)[0],
  ];
  const after = (...facts: Fact[]) => prepareState(facts);

  test('is a fact of its own, of one end', () => {
    expect(isFact(light(fused, 'far-end', 1))).toBe(true);
    expect(isFact({ ...light(fused, 'far-end', 1), body: { seen: 'perhaps', note: '' } })).toBe(false);
    expect(isFact({ ...light(fused, 'far-end', 1), subject: { on: 'closure', closureId: example.id } })).toBe(
      false,
    );
    // No splice is changed by it.
    const ledger = buildLedger(plan, [], definition.project.limits);
    expect(addFact(ledger, light(fused, 'far-end', 1))).toBe(ledger);
  });

  test('comes after the steps, which a connector that came with the pigtail does not have', () => {
    const ids = (connector: Parameters<typeof connectorSteps>[0]) =>
      connectorSteps(connector, 'mm').map(({ id: step }) => step);
    expect(ids('own')).toEqual([]);
    expect(ids('mechanical')).toEqual(['mechanical-strip', 'mechanical-cleave', 'mechanical-seat']);
    expect(ids('fusion-connector')[0]).toBe('fusion-parts');
    expect(ids('fusion-connector').at(-1)).toBe('fusion-housing');
  });

  test('the splice in a connector is told with tonight’s lengths', () => {
    const cleaver = { ...ownCleaver, cleaveLength: 10 };
    const what = (hands: Parameters<typeof connectorSteps>[2]) =>
      plainly(
        connectorSteps('fusion-connector', 'mm', hands).find(({ id: step }) => step === 'fusion-splice')!
          .what,
      );
    expect(what({ coating: 250, cleaver })).toContain(
      'Strip 38 mm, clean, cleave to 10 mm, or as the connector asks',
    );
    // A length that nobody set is not guessed.
    expect(what({ coating: 900, cleaver })).toContain('cleave as the connector asks');
    expect(what({ coating: 250, cleaver: null })).toContain('cleave as the connector asks');
  });

  test('an end is open, begun, on, and then light gets through it or not; the last check counts', () => {
    const [first, ...others] = connectorSteps('mechanical', 'mm').map(({ id: step }, index) =>
      tickAt(tickTargets.stepAt(mechanical, step), index + 1, 'done'),
    );
    expect(endState(mechanical, after())).toBe('open');
    expect(endState(mechanical, after(first!))).toBe('begun');
    expect(endState(mechanical, after(first!, ...others))).toBe('on');
    expect(endState(mechanical, after(first!, light(mechanical, 'glows', 20)))).toBe('fails');
    const [bad, good, back] = (['nothing', 'far-end', 'open'] as const).map((seen, index) =>
      light(own, seen, 30 + index),
    ) as [LightCheck, LightCheck, LightCheck];
    expect(endState(own, after(bad))).toBe('fails');
    expect(endState(own, after(good, bad))).toBe('passes');
    expect(endState(own, after(back, bad, good))).toBe('open');
    // Of this end alone.
    expect(endState(fused, after(good))).toBe('open');
  });

  test('whatever order facts come in, the same counts', () => {
    const some = [
      light(fused, 'glows', 1),
      light(fused, 'far-end', 2),
      light(own, 'nothing', 3),
      light(own, 'open', 4),
      light(mechanical, 'far-end', 5),
    ];
    fc.assert(
      fc.property(fc.shuffledSubarray(some, { minLength: some.length }), (facts) => {
        const state = prepareState(facts);
        expect(plan.ends.map((end) => endState(end, state))).toEqual(['passes', 'passes', 'open']);
      }),
    );
  });

  test('what light does not get through may need another connector', () => {
    expect(connectorsToPutOn(plan, after())).toEqual([fused, mechanical]);
    expect(connectorsToPutOn(plan, after(light(fused, 'far-end', 1)))).toEqual([mechanical]);
    expect(connectorsToPutOn(plan, after(light(fused, 'glows', 1)))).toEqual([fused, mechanical]);
  });

  test('stands in the loss sheet, which has a row for each end', () => {
    const project = {
      ...definition,
      cables: [...cables.values()] as Cable[],
      closures: [closure],
    };
    const { header, rows } = lossSheet(project, [light(fused, 'far-end', 1)], [closure.id]);
    expect(rows).toHaveLength(3);
    rows.forEach((row) => expect(row).toHaveLength(header.length));
    const cell = (row: number, name: string) => rows[row]![header.indexOf(name)];
    expect(cell(0, 'Right cable')).toBe('fused connector');
    expect(cell(0, 'Verdict')).toBe('Light at the far end');
    expect([cell(0, 'Made at (UTC)'), cell(0, 'By')]).toEqual([timeOf(1), 'Iara']);
    expect(cell(1, 'Verdict')).toBe('Not checked');
    expect(lightOf(after(light(fused, 'open', 1)), fused)).toBeNull();
  });
});
