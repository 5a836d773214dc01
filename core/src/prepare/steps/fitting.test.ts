import fc from 'fast-check';
import { anyConstruction } from '../../../test/arbitraries';
import { cableOf, joint } from '../../../test/joint';
import { plainly } from '../../../test/plainly';
import { equalTubes, isSmall, metalOf, type Construction, type Entry } from '../../index';
import { builtInModels } from '../../plan/models/builtInModels';
import { seatCables } from '../../plan/models/ports';
import { cutSheet } from '../cut/cutSheet';
import { stepsFor, usualSchools, type Schools } from './steps';

/** The steps of cable A with its own port, in their order. */
function steps(
  model: string,
  construction: Construction,
  manner: Entry['manner'],
  more: { schools?: Partial<Schools>; diameter?: number; order?: string } = {},
) {
  const through = manner === 'express' || manner === 'window';
  const cable = cableOf(1, construction, { through, diameter: more.diameter ?? 14 });
  const made = joint(
    model,
    [
      [cable, manner],
      [cableOf(2, equalTubes(4, 12), { diameter: 12 }), 'branch'],
    ],
    more.order ?? `A${through ? '-' : ''} 1-2 > B 1-2`,
  );
  const seat = seatCables(made.closure, made.cables).seats.find((one) => one.cable.id === cable.id) ?? null;
  const schools = { ...usualSchools, ...more.schools };
  return stepsFor(made.closure, made.plan, cable, { units: 'mm', schools, seat }).flatMap((one) => one.steps);
}
const idsOf = (list: ReturnType<typeof steps>) => list.map(({ id }) => id);
const what = (list: ReturnType<typeof steps>, id: string) =>
  plainly(list.find((step) => step.id === id)!.what)!;
/** Those of them that are there, in the order in which they come. */
const among = (list: ReturnType<typeof steps>, ...ids: string[]) =>
  idsOf(list).filter((id) => ids.includes(id));

const loose = equalTubes(2, 12);

// The order in which a cable is held is common practice.
describe('a seal', () => {
  test('that is threaded goes on before the sheath is opened, with the parts for this diameter', () => {
    // Dome 96, round port: 6 to 18 mm, spacers up to 10.8 mm.
    const list = steps('Dome 96', loose, 'cut', { diameter: 10 });
    expect(idsOf(list)[0]).toBe('seal-first');
    expect(what(list, 'seal-first')).toContain('“Seal M” with 2 × Spacer, Small anti-twist clip');
    expect(what(list, 'fit-seal')).toContain('“Seal M” on it');
  });
  test('of a gland slides on after it, and a slit one goes round a cable that cannot be threaded', () => {
    const inline = steps('Inline 144', loose, 'cut');
    expect(idsOf(inline)).not.toContain('seal-first');
    expect(what(inline, 'fit-seal')).toMatch(/^Slide the gland with “Layered grommet G” over the tubes/);
    const express = steps('Dome 96', loose, 'express');
    expect(idsOf(express)).not.toContain('seal-first');
    expect(what(express, 'fit-seal')).toContain('round the sheath at both openings (Oval)');
    expect(what(express, 'fit-seal')).toContain('seam of the end plate');
  });
});

test('seal, mark, clamp, strength member, aramid: and only then the tubes', () => {
  const inOrder = [
    'fit-seal',
    'fit-align',
    'fit-clamp',
    'fit-rod',
    'fit-aramid',
    'fit-tie',
    'tray-marks',
    'score',
  ];
  expect(among(steps('Dome 96', loose, 'cut'), ...inOrder)).toEqual(inOrder);
  expect(what(steps('Inline 144', loose, 'cut'), 'fit-align')).toContain(
    '90 mm below the sheath edge meets the gland',
  );
  expect(what(steps('Dome 96', loose, 'cut'), 'fit-align')).toContain('meets the bracket');
});

test('each kind of closure holds its cables in its own way', () => {
  const rack = steps('Rack module 144', loose, 'cut');
  expect(among(rack, 'fit-clamp', 'fit-rod', 'fit-aramid', 'fit-seal')).toEqual(['fit-clamp']);
  expect(what(rack, 'fit-clamp')).toContain('32 mm past the clamp');
  const drop: Construction = { kind: 'drop', shape: 'flat', fibers: 2, toningWire: true, messenger: false };
  const dome = steps('Dome 96', drop, 'drop', { diameter: 6.5 });
  expect(idsOf(dome).slice(0, 2)).toEqual(['toning-wire', 'seal-first']);
  expect(among(dome, 'fit-bobbin', 'fit-rod', 'fit-clamp')).toEqual(['fit-bobbin']);
  const shell = steps('Drop joint 4', drop, 'drop', { diameter: 6.5, order: 'A 1-2 > B 1-2' });
  expect(idsOf(shell).filter((id) => id.startsWith('fit'))).toEqual(['fit-shell']);
  expect(what(shell, 'fit-shell')).toContain('38 mm of rod in the channel');
});

test('armor is cut back, bonded and grounded; a messenger comes off before everything and is anchored outside', () => {
  for (const construction of [
    { ...loose, armor: true as const, messenger: true as const },
    {
      kind: 'central-ribbon' as const,
      ribbons: 2,
      fibersPerRibbon: 12 as const,
      armor: true as const,
      messenger: true as const,
    },
  ]) {
    const list = steps('Dome 288', construction as Construction, 'cut', {
      order: construction.kind === 'central-ribbon' ? 'A R1 > B 1-12 ribbonized' : 'A 1-2 > B 1-2',
    });
    expect(idsOf(list)[0]).toBe('messenger');
    expect(
      among(list, 'sheath', 'armor', 'count-tubes', 'count-ribbons', 'fit-shield', 'fit-messenger'),
    ).toEqual(expect.arrayContaining(['sheath', 'armor', 'fit-shield', 'fit-messenger']));
    expect(idsOf(list).indexOf('armor')).toBeGreaterThan(idsOf(list).indexOf('sheath'));
    for (const id of ['armor', 'fit-shield', 'fit-messenger'])
      expect(list.find((step) => step.id === id)!.caution).toMatch(/local code/);
  }
  expect(idsOf(steps('Dome 288', loose, 'cut')).filter((id) => /armor|shield|messenger/.test(id))).toEqual(
    [],
  );
});

describe('schools', () => {
  const sheath = (schools: Partial<Schools>) => what(steps('Dome 96', loose, 'cut', { schools }), 'sheath');
  test('ring first or ripcord first', () => {
    expect(sheath({ sheath: 'ring-first' })).toContain('Ring cut at the mark, then pull each ripcord');
    expect(sheath({ sheath: 'ripcord-first' })).toContain('to the mark, and ring cut where it ends');
  });
  test('a second ring opens nothing by knife, so that the slack is longer by what a knife would take', () => {
    expect(sheath({ secondRing: true })).toMatch(/^Second ring cut .* ripcords stand free/);
    expect(sheath({ secondRing: true })).not.toContain('knife');
    expect(sheath({})).toContain('by knife');
    const { closure, plan } = joint(
      'Dome 96',
      [
        [cableOf(1, loose), 'cut'],
        [cableOf(2, loose), 'branch'],
      ],
      'A 1-2 > B 1-2',
    );
    const sheet = (secondRing: boolean) =>
      cutSheet(closure, plan, cableOf(1, loose), { units: 'mm', secondRing });
    expect(sheet(true).units[0]!.slack.stub - sheet(false).units[0]!.slack.stub).toBeCloseTo(76.2, 9);
    // What was ticked in one way stays ticked in the other.
    expect(sheet(true).marks.map(({ id }) => id)).toEqual(sheet(false).marks.map(({ id }) => id));
  });
  test('both motions of the scorer, and the rod marked or trimmed', () => {
    const score = (scorer: Schools['scorer']) =>
      what(steps('Dome 96', loose, 'cut', { schools: { scorer } }), 'score');
    expect([score('round'), score('swing')].map((text) => /once round|to and fro/.exec(text)?.[0])).toEqual([
      'once round',
      'to and fro',
    ]);
    const rod = (school: Schools['rod']) =>
      what(steps('Dome 96', loose, 'cut', { schools: { rod: school } }), 'fit-rod');
    expect(rod('marked')).toContain('mark it there, cut it at the mark');
    expect(rod('trimmed')).toContain('trimmed now');
  });
});

test('whatever cable in whatever model: it is opened, then fitted, then its fibers are taken', () => {
  fc.assert(
    fc.property(
      anyConstruction,
      fc.constantFrom(...builtInModels.map(({ name }) => name)),
      fc.constantFrom('cut' as const, 'express' as const),
      fc.boolean(),
      (construction, model, manner, secondRing) => {
        const small = isSmall({ construction });
        const list = steps(model, construction, small ? 'drop' : manner, {
          schools: { secondRing },
          order: small || manner === 'cut' ? 'A 1 > B 1' : 'A- 1 > B 1',
        });
        if (construction.kind === 'pigtails') return;
        const ids = idsOf(list);
        expect(new Set(ids).size).toBe(ids.length);
        const fit = ids.filter((id) => id.startsWith('fit-'));
        expect(fit.length).toBeGreaterThan(0);
        expect(ids).not.toContain('fit-undefined');
        const at = (id: string) => ids.indexOf(id);
        if (at('sheath') >= 0) expect(at('sheath')).toBeLessThan(at(fit[0]!));
        if (at('score') >= 0) expect(at(fit.at(-1)!)).toBeLessThan(at('score'));
        expect(ids.includes('fit-shield')).toBe(metalOf(construction).armor);
        for (const { what: text, good, mistake } of list)
          expect(`${text} ${good} ${mistake}`).not.toMatch(/undefined|null|NaN| {2}|\b0 mm\b/);
      },
    ),
    { numRuns: 300 },
  );
});
