import { machine } from '../../test/gear';
import { programWarnings } from './programs';
import { programWarningWords } from './words';

const single = [{ fiberType: 'g652d' as const }, {}];
const on = { program: 'Single mode', heater: '60 mm' };

test('nothing to say where both fit, or nothing is known', () => {
  expect(programWarnings(machine, on, single, 'single-60')).toEqual([]);
  expect(programWarnings(machine, { program: null, heater: null }, single, 'ribbon')).toEqual([]);
  expect(programWarnings(machine, { program: 'Gone', heater: 'Gone' }, single, 'ribbon')).toEqual([]);
  expect(programWarnings(machine, on, single, null)).toEqual([]);
});

// "A 60 mm program left on for a 40 mm sleeve is a classic": common practice.
test('a 60 mm program left on for a 40 mm sleeve', () => {
  const warnings = programWarnings(machine, on, single, 'single-40');
  expect(warnings).toEqual([
    { what: 'heater', on: '60 mm', sleeve: 'single-40', fitting: '40 mm', cladding: 125 },
  ]);
  expect(programWarningWords(warnings[0]!)).toBe(
    'The heater is on “60 mm”, and this splice wears a single sleeve, 40 mm. Switch to “40 mm”.',
  );
});

test('a program for another fiber type, and none that fits', () => {
  const [warning] = programWarnings(machine, on, [{ fiberType: 'g652d' }, { fiberType: 'om3' }], 'single-60');
  expect(warning).toMatchObject({ what: 'program', fitting: 'Multimode' });
  const bare = { ...machine, programs: machine.programs.slice(0, 1) };
  const [none] = programWarnings(bare, on, [{ fiberType: 'om3' }], 'single-60');
  expect(none!.fitting).toBeNull();
  expect(programWarningWords(none!)).toContain('OM3 50/125. The machine has no program for it');
});
