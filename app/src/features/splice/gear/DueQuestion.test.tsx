import type { Fact } from '@cordel/core';
import { cleaverStanding, machineStanding, newGear, type Cleaver, type Machine } from '@cordel/core/gear';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { CordelThemeProvider } from '../../../ui/theme';
import { DueQuestion } from './DueQuestion';
import type { GearAtBench } from './gearAtBench';

const machine = newGear('machine', '01962d00-0000-7000-8000-000000000001', 'Single 1') as Machine;
const cleaver = newGear('cleaver', '01962d00-0000-7000-8000-000000000003', 'Cleaver A') as Cleaver;
const now = '2026-04-15T21:00:00.000Z';
const closureId = '01900000-0000-7000-8000-000000000021';
const empty = { uses: [], facts: [], withdrawn: [], corrected: [] };
const singleMode = { fiberType: 'g652d' } as never;
const multimode = { fiberType: 'om3' } as never;

beforeEach(() => {
  localStorage.clear();
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

/** Asks, and collects the facts of the answers. */
function ask(
  about: 'calibration' | 'electrodes' | 'blade',
  { position = 1, failed = 0, cable = singleMode } = {},
): Fact[] {
  const facts: Fact[] = [];
  const onMachine = about !== 'blade';
  const atBench: GearAtBench = {
    machine: { item: machine, standing: { ...machineStanding(machine, empty, now), failed } },
    cleaver: { item: cleaver, standing: { ...cleaverStanding(cleaver, empty, now), position } },
    ask: {
      about,
      gear: onMachine ? machine : cleaver,
      due: [
        onMachine
          ? {
              about,
              rule: 'splices125',
              params: { counts: { 125: 312, 400: 0 }, limits: { 125: 300, 400: 50 } },
            }
          : { about, rule: 'cleaves', params: { cleaves: 3000, position, positions: 16, limit: 3000 } },
      ],
    },
    warnings: [],
  };
  render(
    <CordelThemeProvider>
      <DueQuestion
        ask={atBench.ask!}
        atBench={atBench}
        closureId={closureId}
        cables={[cable]}
        units="mm"
        onFact={(fact) => facts.push(fact)}
      />
    </CordelThemeProvider>,
  );
  return facts;
}
const tap = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const wait = () => act(() => jest.advanceTimersByTime(700));
const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });

test('its keys lie still for a moment, so that a thumb on its way to the pad hits none of them', () => {
  const facts = ask('calibration');
  tap('It passed');
  expect(facts).toEqual([]);
  wait();
  tap('It passed');
  expect(facts).toMatchObject([
    { kind: 'calibration', body: { passed: true }, subject: { closureId, label: 'Single 1' } },
  ]);
});

test('a second tap does not answer twice', () => {
  const facts = ask('calibration');
  wait();
  tap('It failed');
  tap('It failed');
  expect(facts).toHaveLength(1);
});

test('the conditions go with the result, and a number that is none is not taken', () => {
  const facts = ask('calibration');
  wait();
  type('Temperature (°C)', 'mild');
  tap('It passed');
  expect(facts).toEqual([]);
  expect(screen.getByText('Give a number, or leave it empty.')).toBeTruthy();
  type('Temperature (°C)', '11,5');
  type('Humidity (%)', '82');
  tap('It failed');
  expect(facts).toMatchObject([
    { body: { passed: false, conditions: { temperature: 11.5, humidity: 82, pressure: null } } },
  ]);
});

test('a failed one asks for new ends, and a multimode cable for single-mode fiber', () => {
  ask('calibration', { failed: 2, cable: multimode });
  expect(screen.getByText(/It failed 2 times\. Prepare new ends on both sides/)).toBeTruthy();
  expect(
    screen.getByText('With single-mode fiber on both sides, although this cable is multimode.'),
  ).toBeTruthy();
});

test('going on without it names the rules that had tripped, and goes on record', () => {
  const facts = ask('calibration');
  wait();
  tap(/^Splice on without it/);
  expect(facts).toMatchObject([{ kind: 'went-on', body: { about: 'calibration', rules: ['splices125'] } }]);
});

test('a blade is turned, or replaced; on its last position only replaced', () => {
  const facts = ask('blade', { position: 15 });
  wait();
  expect(screen.getByRole('button', { name: 'New blade' })).toBeTruthy();
  tap('Turned to position 16');
  expect(facts).toMatchObject([
    { kind: 'gear-event', body: { event: 'blade-turned' }, subject: { label: 'Cleaver A' } },
  ]);
});

test('after the last position there is no next', () => {
  const facts = ask('blade', { position: 16 });
  wait();
  expect(screen.queryByRole('button', { name: /^Turned/ })).toBeNull();
  tap('New blade');
  expect(facts).toMatchObject([{ body: { event: 'blade-replaced' } }]);
});

test('electrodes are replaced with the machine off', () => {
  const facts = ask('electrodes');
  wait();
  expect(screen.getByText(/Switch the machine off and unplug it first/)).toBeTruthy();
  tap('Electrodes replaced');
  expect(facts).toMatchObject([{ body: { event: 'electrodes-replaced' } }]);
});
