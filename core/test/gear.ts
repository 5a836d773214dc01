import type { Calibration, Conditions, GearEvent, GearFact, Recleave, Weather, WentOn } from '../src';
import { emptyBook, newGear, type Cleaver, type GearBook, type GearUse, type Machine } from '../src/gear';
import { id } from './example';

/** A made-up machine and cleaver with their usual rules, and things that happen to them `hours` after 1 April 2026. */

export const machine = newGear('machine', id(701), 'Machine 1') as Machine;
export const cleaver = newGear('cleaver', id(702), 'Cleaver 1') as Cleaver;

export function hourOf(hours: number): string {
  return new Date(Date.UTC(2026, 3, 1) + hours * 3600_000).toISOString();
}

let made = 20_000;
const factBase = (gear: { id: string; label: string }, hours: number) => {
  made += 1;
  return {
    v: 2,
    id: id(made),
    madeAt: hourOf(hours),
    by: null,
    device: null,
    subject: { on: 'gear' as const, closureId: id(21), gearId: gear.id, label: gear.label },
  };
};

const fair: Conditions = { temperature: 20, humidity: 50, pressure: 101.3 };

export const calibration = (
  hours: number,
  passed = true,
  conditions: Partial<Conditions> = {},
): Calibration => ({
  ...factBase(machine, hours),
  kind: 'calibration',
  body: { passed, conditions: { ...fair, ...conditions }, note: '' },
});
export const recleave = (hours: number, ends: number): Recleave => ({
  ...factBase(cleaver, hours),
  kind: 'recleave',
  body: { ends, note: '' },
});
export const weather = (hours: number, conditions: Partial<Conditions>): Weather => ({
  ...factBase(machine, hours),
  kind: 'weather',
  body: { conditions: { temperature: null, humidity: null, pressure: null, ...conditions }, note: '' },
});
export const event = (
  hours: number,
  name: GearEvent['body']['event'],
  value?: number,
  gear: { id: string; label: string } = machine,
): GearEvent => ({
  ...factBase(gear, hours),
  kind: 'gear-event',
  body: { event: name, ...(value === undefined ? {} : { value }), note: '' },
});
export const wentOn = (
  hours: number,
  about: WentOn['body']['about'],
  rules: string[],
  gear: { id: string; label: string } = machine,
): WentOn => ({ ...factBase(gear, hours), kind: 'went-on', body: { about, rules, note: '' } });

export function use(hours: number, more: Partial<GearUse> = {}): GearUse {
  made += 1;
  return {
    id: id(made),
    madeAt: hourOf(hours),
    machine: machine.id,
    cleaver: cleaver.id,
    fibers: 1,
    cladding: 125,
    bad: false,
    ...more,
  };
}

/** `count` splices, a minute apart, from `hours` on. */
export const uses = (count: number, hours: number, more: Partial<GearUse> = {}): GearUse[] =>
  Array.from({ length: count }, (_, index) => use(hours + index / 60, more));

export const bookOf = (facts: readonly GearFact[], own: readonly GearUse[] = []): GearBook => ({
  ...emptyBook,
  facts,
  uses: own,
});
