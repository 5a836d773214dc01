import { lossRefusal } from '@cordel/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { FullPad, HundredthsPad, typeInto } from './Pad';
import { CordelThemeProvider } from './theme';

const show = (element: React.ReactNode) => render(<CordelThemeProvider>{element}</CordelThemeProvider>);

test('each of the ten keys enters its whole reading with one tap', () => {
  const readings: number[] = [];
  show(<HundredthsPad onReading={(loss) => readings.push(loss)} keyHints={false} />);
  for (let key = 0; key < 10; key += 1) fireEvent.click(screen.getByRole('button', { name: `0.0${key} dB` }));
  expect(readings).toEqual([0, 0.01, 0.02, 0.03, 0.04, 0.05, 0.06, 0.07, 0.08, 0.09]);
});

test('the full pad enters what was typed, and refuses with the reason', () => {
  const readings: number[] = [];
  show(<FullPad onReading={(loss) => readings.push(loss)} onClose={() => {}} refusal={lossRefusal} />);
  const tap = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
  tap('1');
  tap('4');
  tap('5');
  tap('Enter 0.145 dB');
  expect(readings).toEqual([0.145]);
  for (let index = 0; index < 5; index += 1) tap('Delete');
  tap('9');
  tap('9');
  expect(screen.getByRole('alert').textContent).toMatch(/over 10 dB/);
  tap('Enter 99 dB');
  expect(readings).toEqual([0.145]);
});

test.each([
  ['0.', '1', '0.1'],
  ['0.145', '6', '0.145'],
  ['0', '7', '7'],
  ['0.1', '.', '0.1'],
  ['7', '.', '7.'],
  ['0.1', '<', '0.'],
  ['7', '<', '0'],
])('%s and the key %s make %s', (before, key, after) => expect(typeInto(before, key)).toBe(after));
