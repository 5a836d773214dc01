import type * as GearTonight from './gearTonight';

/** What was picked for the night, with the time of day in hand. */
const start = Date.UTC(2026, 3, 15, 21, 0, 0);
const hour = 3600 * 1000;
const single = { id: '01962d00-0000-7000-8000-000000000001', label: 'Single 1' };
const cleaver = { id: '01962d00-0000-7000-8000-000000000003', label: 'Cleaver A' };

beforeEach(() => {
  localStorage.clear();
  jest.resetModules();
  jest.useFakeTimers({ now: start });
});
afterEach(() => jest.useRealTimers());

/** As a freshly loaded page finds it. */
const load = (): typeof GearTonight => {
  let loaded!: typeof GearTonight;
  jest.isolateModules(() => {
    loaded = jest.requireActual('./gearTonight');
  });
  return loaded;
};
const night = { machine: single, cleaver, stripper: null, program: 'Single mode', heater: '60 mm' };

test('nothing stands on an attempt before gear was picked, nor where none is on record', () => {
  const { pickGear, usedGear } = load();
  expect(usedGear()).toBeUndefined();
  pickGear({ machine: null, cleaver: null, stripper: null, program: null, heater: null });
  expect(usedGear()).toBeUndefined();
});

test('what was picked stands on every attempt of the night, over a reload, and is asked for anew in the next one', () => {
  load().pickGear(night);
  const expected = { machine: single, cleaver, program: 'Single mode', heater: '60 mm' };
  expect(load().usedGear()).toEqual(expected);
  jest.setSystemTime(start + 13 * hour);
  expect(load().usedGear()).toEqual(expected);
  jest.setSystemTime(start + 15 * hour);
  const { pickGear, usedGear } = load();
  expect(usedGear()).toBeUndefined();
  // The next night begins where the last one was, as far as nobody says otherwise.
  pickGear({ cleaver: null });
  expect(usedGear()).toBeUndefined();
});

test('a change in the night does not begin a new one', () => {
  const { pickGear } = load();
  pickGear(night);
  jest.setSystemTime(start + 10 * hour);
  pickGear({ heater: 'Ribbon' });
  jest.setSystemTime(start + 13 * hour);
  expect(load().usedGear()).toMatchObject({ machine: single, heater: 'Ribbon' });
  jest.setSystemTime(start + 15 * hour);
  expect(load().usedGear()).toBeUndefined();
});

test('programs belong to the machine, and 400 μm is said where it is', () => {
  const { pickGear, usedGear } = load();
  pickGear({ ...night, machine: null });
  expect(usedGear()).toEqual({ cleaver });
  pickGear({ machine: single, cladding: 400 });
  expect(usedGear()).toMatchObject({ cladding: 400 });
});

test('what is kept and cannot be read is as if nothing was picked', () => {
  localStorage.setItem('cordel.gear-tonight', '{"pickedAt":"yesterday","machine":7}');
  expect(load().usedGear()).toBeUndefined();
  localStorage.setItem('cordel.gear-tonight', 'not JSON');
  expect(load().usedGear()).toBeUndefined();
});
