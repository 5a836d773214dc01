import { cleaver, machine } from '../../test/gear';
import { id } from '../../test/example';
import { celsiusToFahrenheit, fahrenheitToCelsius } from '../units/weather';
import { altitudeAt, pressureAt } from './conditions';
import { gearSchema, gearWords, heaterProgramFor, newGear, programFor, type GearKind } from './gear';
import { ruleWords } from './rules';

// ISO 2533 (ICAO standard atmosphere), table of pressure against altitude.
test.each([
  [0, 101.325],
  [500, 95.461],
  [1000, 89.875],
  [2000, 79.495],
  [3000, 70.109],
  [5000, 54.02],
])('the standard atmosphere at %d m is %d kPa', (altitude, pressure) => {
  expect(pressureAt(altitude)).toBeCloseTo(pressure, 1);
  expect(altitudeAt(pressureAt(altitude))).toBeCloseTo(altitude, 6);
});

// By the definition of the scales (NIST SP 811).
test.each([
  [-40, -40],
  [0, 32],
  [37, 98.6],
  [100, 212],
])('%d °C is %d °F', (celsius, fahrenheit) => {
  expect(celsiusToFahrenheit(celsius)).toBeCloseTo(fahrenheit, 9);
  expect(fahrenheitToCelsius(fahrenheit)).toBeCloseTo(celsius, 9);
});

test.each(Object.keys(gearWords) as GearKind[])('a new %s is sound as it is', (kind) => {
  const item = newGear(kind, id(9), 'Mine');
  expect(gearSchema.parse(item)).toEqual(item);
});

test('the program of a fiber type and the heater program of a sleeve', () => {
  expect(programFor(machine, 'g657a2')!.name).toBe('Single mode');
  expect(programFor(machine, 'om3')!.name).toBe('Multimode');
  expect(programFor({ ...machine, programs: machine.programs.slice(0, 1) }, 'om3')).toBeNull();
  expect(heaterProgramFor(machine, 'ribbon')!.seconds).toBe(40);
  expect(heaterProgramFor({ ...machine, heaterPrograms: [] }, 'ribbon')).toBeNull();
});

test.each([
  [
    'two programs of one name',
    { ...machine, programs: [machine.programs[0]!, machine.programs[0]!] },
    'same name',
  ],
  [
    'a program for nothing',
    { ...machine, programs: [{ ...machine.programs[0]!, fiberTypes: [] }] },
    'at least one fiber type',
  ],
  ['a rule below its range', { ...machine, rules: { ...machine.rules, splices125: 0 } }, 'At least 1'],
  ['a cleaver without positions', { ...cleaver, positions: 0 }, 'At least 1'],
  ['a label of nothing', { ...cleaver, label: '  ' }, ''],
])('refuses %s', (_, item, message) => {
  const { error } = gearSchema.safeParse(item);
  expect(error!.issues[0]!.message).toContain(message);
});

test('every rule reads as a row', () => {
  expect(Object.keys(ruleWords)).toEqual(Object.keys(machine.rules));
});
