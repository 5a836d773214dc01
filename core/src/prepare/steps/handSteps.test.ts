import { closureOfModel, equalTubes, type Cable } from '../../index';
import { newGear, type Cleaver, type Machine, type Stripper } from '../../gear';
import { jointOf } from '../../splice/bench/joint';
import { cableOf, joint } from '../../../test/joint';
import { id } from '../../../test/example';
import { plainly } from '../../../test/plainly';
import { builtInModels } from '../../plan/models/builtInModels';
import { cleaveLengthFor, coatingOf, handLine, handSteps, type HandWork } from './handSteps';

const machine = newGear('machine', id(701), 'Machine 1') as Machine;
const cleaver: Cleaver = { ...(newGear('cleaver', id(702), 'Cleaver 1') as Cleaver), tightLength: 18 };
const stripper = newGear('stripper', id(703), 'Stripper 1') as Stripper;

const tubes = (number: number) => cableOf(number, equalTubes(2, 12));
const ribbons = (number: number) =>
  cableOf(number, { kind: 'central-ribbon', ribbons: 2, fibersPerRibbon: 12 });
const pigtails = (buffer: 250 | 900) =>
  cableOf(9, { kind: 'pigtails', fibers: 12, bufferMicrometers: buffer }, { siteIds: [id(12)] });

function work(a: Cable, b: Cable, order: string, more: Partial<HandWork> = {}, closure = {}): HandWork {
  const made = joint(
    'Dome 96',
    [
      [a, 'cut'],
      [b, b.construction.kind === 'pigtails' || b.construction.kind === 'drop' ? 'drop' : 'cut'],
    ],
    order,
    closure,
  );
  const [splice] = made.plan.splices;
  return {
    splice: splice!,
    cables: made.cables,
    joint: jointOf(made.closure, splice!, made.cables),
    machine,
    cleaver,
    stripper,
    heater: null,
    cleaveAngle: 1,
    wipe: 'dry',
    units: 'in',
    ...more,
  };
}
const lineOf = (hands: HandWork) => plainly(handLine(hands));
const textOf = (hands: HandWork, step: string) =>
  plainly(handSteps(hands).find(({ id: own }) => own === step)?.what);

// The lengths are common practice: 1.5 in (38 mm) of bare glass, a buffer in steps of 1/4 in, 18 mm for 900 μm and 10 mm for 250 μm on one cleaver.
describe('a single splice', () => {
  const plain = work(tubes(1), tubes(2), 'A 1-12 > B 1-12');
  test('says its own numbers in one line, metric where the tools are', () => {
    expect(lineOf(plain)).toBe('strip 1-1/2 in, cleave 10 mm, 60 mm sleeve');
    expect(lineOf({ ...plain, units: 'mm' })).toBe('strip 38 mm, cleave 10 mm, 60 mm sleeve');
    expect(lineOf(work(tubes(1), tubes(2), 'A 1-12 > B 1-12', {}, { sleeveLength: 40 }))).toContain(
      '40 mm sleeve',
    );
  });
  test('goes from the sleeve to the slot, with the machine’s own seconds', () => {
    expect(handSteps(plain).map(({ title }) => title)).toEqual([
      'Sleeve on first',
      'Strip',
      'Clean',
      'Cleave',
      'Look at the grooves',
      'Lay them in',
      'Lift it out',
      'Heat',
      'Cool',
      'Into its slot',
    ]);
    const timers = handSteps({ ...plain, machine: { ...machine, coolSeconds: 45 } }).flatMap(
      ({ timer }) => timer?.seconds ?? [],
    );
    expect(timers).toEqual([35, 45]);
    expect(handSteps({ ...plain, machine: null }).flatMap(({ timer }) => timer?.seconds ?? [])).toEqual([
      35, 30,
    ]);
    expect(textOf(plain, 'hand-place')).toContain('Tray 1, slot 1.');
  });
  test('wipes as this person does', () => {
    expect(textOf(plain, 'hand-clean')).toContain('99 % alcohol');
    expect(textOf({ ...plain, wipe: 'moist' }, 'hand-clean')).toContain('pre-moistened');
  });
  test('with no cleaver picked no length is made up', () => {
    const without = { ...plain, cleaver: null };
    expect(lineOf(without)).toBe('strip 1-1/2 in, 60 mm sleeve');
    expect(textOf(without, 'hand-cleave')).toContain('No cleaver is picked for tonight');
  });
});

describe('a pigtail', () => {
  test('of 900 μm is stripped in steps and cleaved in its own groove, the cable beside it in its own', () => {
    const hands = work(tubes(1), pigtails(900), 'A 1-12 > B 1-12');
    expect(lineOf(hands)).toBe('strip 1-1/2 in, cleave 10 mm left, 18 mm right, 60 mm sleeve');
    expect(textOf(hands, 'hand-strip')).toBe(
      'Left, 250 μm coating: the coating over 1-1/2 in, with one straight pull. Right, a 900 μm buffer: the buffer over 1-1/2 in, in steps of about 1/4 in.',
    );
    expect(textOf(hands, 'hand-cleave')).toContain(
      'Left, 250 μm coating: 10 mm of bare glass. Right, a 900 μm buffer: 18 mm',
    );
    // Whose length nobody set is not guessed.
    const { tightLength: _, ...unset } = cleaver;
    expect(lineOf({ ...hands, cleaver: unset })).toContain('cleave 10 mm left, ? mm right');
    expect(textOf({ ...hands, cleaver: unset }, 'hand-cleave')).toContain('Cleaver 1 has no length for it');
  });
  test('of 250 μm is like any fiber', () => {
    expect(lineOf(work(tubes(1), pigtails(250), 'A 1-12 > B 1-12'))).toContain('cleave 10 mm,');
  });
});

describe('a ribbon', () => {
  const hands = work(ribbons(1), ribbons(2), 'A R1-2 > B R1-2');
  test('has its holder, its stripper, and its rod', () => {
    expect(lineOf(hands)).toBe('strip 1-1/2 in, cleave 10 mm, holder of 12, 40 mm sleeve');
    expect(textOf(hands, 'hand-strip')).toMatch(/Clean the stripper .* holder for 12 fibers.* at 85 °C/);
    expect(textOf(hands, 'hand-heat')).toContain('Steel rod down.');
    expect(textOf(hands, 'hand-place')).toContain('the rod stands upright');
    expect(textOf(hands, 'hand-grooves')).toContain('all 12 grooves');
    expect(lineOf({ ...hands, cleaver: { ...cleaver, ribbonLength: 16 } })).toContain('cleave 16 mm');
  });
  test('made of loose fibers is cleaved like one', () => {
    const made = work(tubes(1), tubes(2), 'A 1-8 > B 1-8 ribbonized');
    expect(lineOf(made)).toContain('holder of 8');
    expect(coatingOf('ribbon', tubes(1))).toBe('ribbon');
    expect(cleaveLengthFor(cleaver, 'ribbon')).toBe(10);
  });
});

describe('a connector', () => {
  const drop = cableOf(
    3,
    { kind: 'drop', shape: 'flat', fibers: 1, toningWire: false, messenger: false },
    { siteIds: [id(12)] },
  );
  const ending = (kind: 'mechanical' | 'fusion-connector') => {
    const hands = work(tubes(1), drop, 'A 1 > B 1');
    return {
      ...hands,
      joint: { ...hands.joint, kind, sleeve: kind === 'mechanical' ? null : 'connector' },
    } as HandWork;
  };
  test('that is fused brings its own sleeve, heat and housing', () => {
    expect(handSteps(ending('fusion-connector')).map(({ id: own }) => own)).toEqual([
      'hand-strip',
      'hand-clean',
      'hand-cleave',
      'hand-grooves',
      'hand-load',
      'hand-lid',
    ]);
  });
  test('that is pushed on has only its own steps', () => {
    expect(handSteps(ending('mechanical'))).toEqual([]);
  });
});

test('no step of any built-in model is without words, a number that is none, or a rod of a single', () => {
  for (const model of builtInModels) {
    const { sleeveLength } = closureOfModel(model);
    for (const hands of [
      work(tubes(1), tubes(2), 'A 1 > B 1', {}, { sleeveLength }),
      work(
        tubes(1),
        pigtails(900),
        'A 1 > B 1',
        { machine: null, cleaver: null, stripper: null },
        { sleeveLength },
      ),
      work(ribbons(1), ribbons(2), 'A R1 > B R1', { stripper: null }, { sleeveLength }),
    ])
      for (const { title, short, what, good, mistake } of handSteps(hands)) {
        for (const text of [title, short, what, good, mistake]) {
          expect(text.trim()).not.toBe('');
          expect(text).not.toMatch(/undefined|null|NaN|\?\?| {2}/);
        }
        if (hands.splice.kind === 'single') expect(what).not.toMatch(/steel rod|stands upright/i);
      }
  }
});
