import fc from 'fast-check';
import { attempt, id, subjectOf } from '../../test/example';
import { cableOf, joint } from '../../test/joint';
import { plainly } from '../../test/plainly';
import { sealedFacts, sealFacts } from '../../test/seal';
import {
  equalTubes,
  knownFact,
  readFact,
  type Cable,
  type Construction,
  type Entry,
  type Fact,
} from '../index';
import { builtInModels } from '../plan/models/builtInModels';
import {
  blockWords,
  bubbleCauses,
  chapterProgress,
  isSealed,
  pointWords,
  reseatSteps,
  sealKey,
  sealStage,
  sealWords,
  tighteningStands,
  type SealedAt,
} from './index';

const ribbons: Construction = { kind: 'central-ribbon', ribbons: 4, fibersPerRibbon: 12 };
const drop: Construction = { kind: 'drop', shape: 'flat', fibers: 2, toningWire: true, messenger: false };
const constructions: Readonly<Record<string, Construction>> = {
  loose: equalTubes(4, 12),
  grouped: {
    kind: 'stranded-tubes',
    armor: true,
    strands: [{ kind: 'tube', fibers: 24, groupSize: 12 }, { kind: 'filler' }],
  },
  ribbons,
  'ribbon tubes': {
    kind: 'stranded-ribbon',
    strands: [{ kind: 'tube', ribbons: 2, fibersPerRibbon: 12 }],
  },
  drop,
  pigtails: { kind: 'pigtails', fibers: 12, bufferMicrometers: 900 },
};

function thing(
  model: string,
  entries: readonly (readonly [cable: Cable, manner: Entry['manner']])[],
  order: string,
  facts: readonly Fact[] = [],
  more: Parameters<typeof joint>[3] = {},
): SealedAt {
  return {
    ...joint(model, entries, order, more),
    site: { name: 'U1', placement: 'pole' },
    diameters: new Map(),
    facts,
  };
}

const feeder = cableOf(1, equalTubes(4, 12), { diameter: 12.4 });
const onward = cableOf(2, equalTubes(4, 12), { diameter: 12.4 });
const dome = (facts: readonly Fact[] = [], more: Parameters<typeof joint>[3] = {}) =>
  thing(
    'Dome 96',
    [
      [feeder, 'cut'],
      [onward, 'cut'],
    ],
    'A 1-30 > B 1-30',
    facts,
    more,
  );
const blocks = (one: SealedAt) => sealStage(one).blocks.map(({ code }) => code);
const keys = (one: SealedAt, chapter: string) =>
  sealStage(one)
    .points.filter((point) => point.chapter === chapter)
    .map(({ key }) => key);

describe('the final look is made from what is in the closure', () => {
  test('a dome with two cut cables: two trays, straps, both seals, six plugs, four points of the dome', () => {
    expect(keys(dome(), 'look')).toEqual([
      'tray 1',
      'tray 2',
      'straps',
      'tubes',
      'strength-members',
      `seal ${feeder.id}`,
      `seal ${onward.id}`,
      'plugs Oval 4',
      'plugs Round 2',
      'gasket',
    ]);
    expect(keys(dome(), 'close')).toEqual(['bolts', 'dome', 'lip', 'latch']);
    expect(keys(dome(), 'after')).toEqual(['collar', 'mounted', 'slack-stored', 'tag']);
  });

  test('side straps come first with fewer than six trays, and are not named with six (common practice)', () => {
    const straps = (trays: number) => {
      const at = dome([], {
        trays: Array.from({ length: trays }, () => ({ singleSlots: 24, ribbonSlots: 12 })),
      });
      const stage = sealStage(at);
      const point = stage.points.find(({ key }) => key === 'straps')!;
      return pointWords(point, at, stage, 'mm').right.includes('side straps first');
    };
    expect([straps(5), straps(6)]).toEqual([true, false]);
  });

  test('an express cable has a coil and two openings, armor a ground, ribbons in a dome a transport tube, several drops a bobbin', () => {
    const express = cableOf(1, constructions.grouped!, { through: true, diameter: 14 });
    const at = thing(
      'Dome 96',
      [
        [express, 'express'],
        [cableOf(2, ribbons, { diameter: 12 }), 'branch'],
        [cableOf(3, drop, { diameter: 8 }), 'drop'],
        [cableOf(4, drop, { diameter: 8 }), 'drop'],
      ],
      'A+ 1-2 > C 1-2\nA+ 3-4 > D 1-2\nA+ 5-16 > B 1-12',
    );
    const look = keys(at, 'look');
    expect(look).toEqual(
      expect.arrayContaining([`coil ${express.id}`, 'ground', 'transport-tubes', 'bobbin']),
    );
    expect(keys(at, 'tighten').filter((key) => key.includes(express.id))).toEqual([
      `tightened cable ${express.id} in`,
      `tightened cable ${express.id} out`,
    ]);
  });

  test('a rack has no seals and no test, a gel joint nothing to tighten', () => {
    const rack = thing(
      'Rack module 144',
      [
        [feeder, 'cut'],
        [cableOf(3, constructions.pigtails!), 'cut'],
      ],
      'A 1-12 > B 1-12',
    );
    expect(sealStage(rack)).toMatchObject({ seals: [], openings: [], testPressure: 0, how: null });
    expect(keys(rack, 'tighten')).toEqual([]);
    const gel = thing(
      'Drop joint 4',
      [
        [cableOf(1, drop, { diameter: 4 }), 'drop'],
        [cableOf(2, drop, { diameter: 4 }), 'drop'],
      ],
      'A 1-2 > B 1-2',
    );
    expect(keys(gel, 'tighten')).toEqual([]);
    // Two drops share a shell; the other end is plugged.
    expect(sealStage(gel).openings.map(({ guests }) => guests.length)).toEqual([2, 0]);
  });

  test('a cable that no port takes is asked about all the same', () => {
    const thick = cableOf(1, equalTubes(4, 12), { diameter: 40 });
    const at = thing(
      'Dome 96',
      [
        [thick, 'cut'],
        [onward, 'cut'],
      ],
      'A 1-2 > B 1-2',
    );
    const stage = sealStage(at);
    const point = stage.points.find(({ key }) => key === `seal ${thick.id}`)!;
    expect(pointWords(point, at, stage, 'mm').right).toContain('Its port is not known');
    expect(stage.openings.at(-1)).toMatchObject({ number: null, port: null });
  });
});

describe('every built-in model through every construction', () => {
  const jobs = builtInModels.flatMap(({ name, kind, ports }) =>
    Object.entries(constructions).flatMap(([what, construction]) => {
      const express =
        ports.some((port) => port.express) &&
        construction.kind !== 'pigtails' &&
        construction.kind !== 'drop';
      const manners: Entry['manner'][] =
        construction.kind === 'drop' ? ['drop'] : express ? ['cut', 'express', 'window'] : ['cut'];
      return manners.map((manner) => [name, what, manner, kind] as const);
    }),
  );
  test.each(jobs)(
    '%s, %s as %s: all its points and its test seal it, and each of them is needed',
    (name, what, manner) => {
      const construction = constructions[what]!;
      const ports = builtInModels.find((model) => model.name === name)!.ports;
      const widest = ports.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
      const through = manner === 'express' || manner === 'window';
      const own = cableOf(1, construction, { through, diameter: (widest.from + widest.to) / 2 });
      const other = cableOf(2, construction, { diameter: (widest.from + widest.to) / 2 });
      const fibers = construction.kind === 'drop' ? '1-2' : '1-12';
      const at = thing(
        name,
        [
          [own, manner],
          [other, construction.kind === 'drop' ? 'drop' : 'cut'],
        ],
        `${through ? 'A-' : 'A'} ${fibers} > B ${fibers}`,
      );
      const facts = sealedFacts(at);
      expect(blocks({ ...at, facts })).toEqual([]);
      expect(isSealed({ ...at, facts })).toBe(true);
      // Without any one of them it is not.
      for (const left of facts)
        expect(isSealed({ ...at, facts: facts.filter((fact) => fact !== left) })).toBe(false);
      // And all of them are said in whole words.
      const stage = sealStage({ ...at, facts });
      for (const point of stage.points) {
        const words = pointWords(point, at, stage, 'mm');
        for (const text of Object.values(words)) expect(text).not.toMatch(/undefined|NaN|^$| {2}/);
      }
      for (const seal of stage.seals) {
        expect(sealWords(seal, stage, at)).not.toMatch(/undefined|gone/);
        expect(bubbleCauses(seal, stage, 'in').length).toBeGreaterThan(2);
        expect(reseatSteps(seal, stage).at(-1)).toContain('test again');
      }
      // Facts go over the wire and come back the same.
      for (const fact of facts)
        expect(readFact(JSON.parse(JSON.stringify(fact)))).toEqual({ status: 'known', fact });
    },
  );
});

describe('what blocks the seal', () => {
  const make = sealFacts();
  const whole = sealedFacts(dome(), make);
  const after = (...facts: Fact[]) => dome([...whole, ...facts]);

  test('a point that is not right, with what to do', () => {
    const at = after(make.check({ what: 'whole', point: 'lip' }, 'no', 'stands open at the hinge'));
    expect(blocks(at)).toEqual(['wrong']);
    const stage = sealStage(at);
    expect(blockWords(stage.blocks[0]!, at, stage, 'mm')).toBe(
      'Lip of the dome captured all round: not right (stands open at the hinge). Open the collar and begin opposite the latch.',
    );
  });

  test('a splice that was made after its tray was looked at', () => {
    const { plan } = dome();
    const splice = plan.splices[0]!;
    const at = after(attempt(0, 0.02, { subject: subjectOf(splice), minute: 9000 }));
    expect(blocks(at)).toEqual(['stale']);
    expect(
      sealStage(at)
        .points.filter(({ stale }) => stale)
        .map(({ key }) => key),
    ).toEqual(['tray 1']);
    const again = make.check({ what: 'tray', tray: 1 }, 'yes', '', 9001);
    expect(isSealed({ ...at, facts: [...at.facts, again] })).toBe(true);
  });

  test('bubbles, a seal set anew, too little pressure, a test that is not finished', () => {
    const [seal] = sealStage(dome()).seals;
    const others = sealStage(dome()).seals;
    const round = (kPa: number, bubbling: boolean) => [
      make.pump(kPa),
      ...others.map((one, index) => make.look(one, bubbling && index === 0 ? 'bubbles' : 'none')),
      make.release(),
    ];
    const bubbles = round(34.5, true);
    const result = (...facts: Fact[]) => sealStage(after(...facts)).result;
    expect(result(...bubbles)).toBe('bubbles');
    expect(blocks(after(...bubbles))).toEqual(['test']);
    expect(result(...bubbles, make.flash({ did: 'reseated', seal: seal!, note: 'cap was loose' }))).toBe(
      'reseated',
    );
    expect(result(...round(20, false))).toBe('too-low');
    expect(result(...round(34.5, false).slice(1))).toBe('tight');
    expect(result(make.pump())).toBe('open');
    expect(blocks(after(make.pump()))[0]).toBe('pressure');
    expect(blocks(after(make.pump(), make.release(false)))[0]).toBe('cap-off');
    expect(sealStage(after(...bubbles)).state.rounds).toHaveLength(2);
  });

  test('a closure whose table gives no test pressure, and one that is not tested', () => {
    const none = dome([], { testPressure: undefined as never });
    expect(blocks(none)).toContain('no-test-pressure');
    const zero = dome([], { testPressure: 0 });
    expect(blocks(zero)).not.toContain('test');
  });

  test('it was opened again: all has to be looked at and tested anew, and the rounds before are kept', () => {
    const at = after(make.reopen('leak'));
    expect(blocks(at)).toEqual(['open', 'open', 'open', 'test', 'open']);
    expect(sealStage(at).state.rounds).toMatchObject([{ before: true }]);
    expect(isSealed({ ...at, facts: [...at.facts, ...sealedFacts(at, make)] })).toBe(true);
  });

  test('the tick of an older version counts until it is opened again or begun anew', () => {
    const tick = knownFact({
      v: 2,
      id: id(7000),
      kind: 'tick',
      madeAt: new Date(Date.UTC(2026, 3, 15, 1)).toISOString(),
      by: null,
      device: null,
      subject: { on: 'closure', closureId: id(21) },
      body: { what: 'sealed', state: 'done', note: '' },
    } as never)!;
    expect(sealStage(dome([tick]))).toMatchObject({ sealed: false, tickedOnly: true });
    expect(isSealed(dome([tick, make.reopen()]))).toBe(false);
    expect(isSealed(dome([tick, make.pump()]))).toBe(false);
  });
});

test('openings are tightened across, those in use, and a wrong order is told', () => {
  const make = sealFacts();
  const four = ['A', 'B', 'C', 'D'].map((_, index) =>
    cableOf(index + 1, equalTubes(1, 12), { diameter: 12.4 }),
  );
  const at = thing(
    'Dome 96',
    four.map((cable) => [cable, 'cut'] as const),
    'A 1-12 > B 1-12\nC 1-12 > D 1-12',
    [],
    { ports: [{ name: 'R', count: 4, from: 5, to: 20, express: false }] },
  );
  const stage = sealStage(at);
  const list = stage.points.filter(({ chapter }) => chapter === 'tighten');
  expect(list.map(({ opening }) => opening!.number)).toEqual([1, 3, 2, 4]);
  const tapped = (...which: number[]) =>
    tighteningStands(
      sealStage({ ...at, facts: which.map((index) => make.check(list[index]!.point)) }).points,
    );
  expect(tapped(0, 1)).toMatchObject({ next: { key: list[2]!.key }, outOfOrder: false });
  expect(tapped(0, 2)).toMatchObject({ next: { key: list[1]!.key }, outOfOrder: true });
  expect(tapped(0, 1, 3, 2)).toMatchObject({ next: null, outOfOrder: true });
  expect(tapped(0, 1, 2, 3)).toMatchObject({ next: null, outOfOrder: false });
  // The maker's order comes before it.
  const own = { ...at, closure: { ...at.closure, sealing: { order: [4, 2] } } };
  expect(
    sealStage(own)
      .points.filter(({ chapter }) => chapter === 'tighten')
      .map(({ opening }) => opening!.number),
  ).toEqual([4, 2, 1, 3]);
  expect(chapterProgress(stage, 'tighten')).toEqual({ done: 0, total: 4 });
});

test('a bubbling seal: the cap first, then the seal for this diameter, with the measured one', () => {
  const at = { ...dome(), diameters: new Map([[feeder.id, 9.1]]) };
  const stage = sealStage(at);
  const seal = stage.seals.find((one) => sealKey(one).includes(feeder.id))!;
  expect(
    bubbleCauses(seal, stage, 'mm')
      .slice(0, 2)
      .map(({ title, check }) => `${title}: ${plainly(check)}`),
  ).toEqual([
    'Cap not home: Tighten it by hand until the sealing material begins to bulge.',
    'Wrong seal for this diameter: Cable 1 is 9.1 mm, measured; “Seal M” takes 6 mm to 18 mm.',
  ]);
});

test('no order of taps ends the stage under pressure, with the cap off, or above 5 psi', () => {
  const at = dome();
  const { seals } = sealStage(at);
  const points = sealStage(at).points;
  const tap = fc.oneof(
    fc.record({
      did: fc.constant('pumped' as const),
      kPa: fc.double({ min: -5, max: 80, noNaN: true }),
      soap: fc.constant('after' as const),
    }),
    fc.record({ did: fc.constant('over' as const), kPa: fc.double({ min: 30, max: 80, noNaN: true }) }),
    fc.record({
      did: fc.constant('looked' as const),
      seal: fc.constantFrom(...seals),
      saw: fc.constantFrom('none' as const, 'bubbles' as const, 'open' as const),
    }),
    fc.record({ did: fc.constant('released' as const), capBack: fc.boolean() }),
    fc.record({
      did: fc.constant('reseated' as const),
      seal: fc.constantFrom(...seals),
      note: fc.constant(''),
    }),
    fc.constant({ did: 'points' as const }),
    fc.constant({ did: 'all' as const }),
    fc.constant({ did: 'reopen' as const }),
  );
  let ended = 0;
  fc.assert(
    fc.property(fc.array(tap, { maxLength: 25 }), (taps) => {
      const make = sealFacts();
      const offered: Fact[] = taps.flatMap((one): Fact[] =>
        one.did === 'points'
          ? points.map(({ point }) => make.check(point))
          : one.did === 'all'
            ? seals.map((seal) => make.look(seal))
            : one.did === 'reopen'
              ? [make.reopen()]
              : [make.flash(one as never)],
      );
      // What the schema refuses never comes into the record.
      const facts = offered.filter((fact) => readFact(fact).status === 'known');
      // Kept beside it, the plainest way to think of it: the last of pump and release says what is in there.
      let inside = 0;
      let cap = true;
      for (const fact of facts)
        if (fact.kind === 'flash-test') {
          if (fact.body.did === 'pumped' || fact.body.did === 'over') [inside, cap] = [fact.body.kPa, false];
          if (fact.body.did === 'released') [inside, cap] = [0, fact.body.capBack];
          if (fact.body.did === 'pumped') expect(fact.body.kPa).toBeLessThanOrEqual(34.5);
        }
      const stage = sealStage({ ...at, facts });
      expect(stage.state.pressure?.kPa ?? 0).toBe(inside);
      if (stage.sealed) {
        ended += 1;
        expect([inside, cap]).toEqual([0, true]);
      }
      // In whatever order they arrive.
      expect(sealStage({ ...at, facts: [...facts].reverse() }).sealed).toBe(stage.sealed);
    }),
    { numRuns: 400 },
  );
  const make = sealFacts();
  ended += Number(isSealed({ ...at, facts: sealedFacts(at, make) }));
  expect(ended).toBeGreaterThan(0);
});
