import { spliceHistory, type Attempt, type Reading, type StandingAttempt } from '@cordel/core';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { CordelThemeProvider } from '../../../ui/theme';
import { CorrectionForm } from './CorrectionForm';
import type { Result } from './newFact';

const reading = (loss: number | null, more: Partial<Reading> = {}): Reading => ({
  loss,
  cleaveLeft: null,
  cleaveRight: null,
  ...more,
});

function attempt(readings: Reading[], more: Partial<Attempt['body']> = {}): StandingAttempt {
  const run = (cable: number) => ({
    cableId: `01900000-0000-7000-8000-00000000003${cable}`,
    from: 1,
    to: readings.length,
    side: 'end' as const,
  });
  const fact: Attempt = {
    v: 2,
    id: '01900000-0000-7000-8000-000000000001',
    kind: 'attempt',
    madeAt: '2026-04-15T01:00:00.000Z',
    by: null,
    device: null,
    subject: {
      on: 'splice',
      closureId: '01900000-0000-7000-8000-000000000021',
      left: [run(1)],
      right: [run(2)],
    },
    body: {
      source: 'hand',
      simulated: false,
      readings,
      proofTestFailed: false,
      note: '',
      ...more,
    },
  };
  return spliceHistory([fact]).last!;
}

function correct(standing: StandingAttempt): (Result | null)[] {
  const results: (Result | null)[] = [];
  render(
    <CordelThemeProvider>
      <CorrectionForm attempt={standing} onCancel={() => {}} onCorrect={(result) => results.push(result)} />
    </CordelThemeProvider>,
  );
  return results;
}
const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
const tap = async (name: string) => {
  await act(async () => void fireEvent.click(screen.getByRole('button', { name })));
};

const ribbon = attempt(
  [
    reading(0.02, { cleaveLeft: 0.5, offset: 0.4 }),
    reading(0.03),
    reading(0.01, { cleaveLeft: 0.7, cleaveRight: 0.6, gap: 12 }),
  ],
  { sleeveConfirmed: true },
);
const losses = 'Losses of its 3 fibers, in order (dB)';

test('of a ribbon what nobody touched stays with its fiber', async () => {
  const results = correct(ribbon);
  type(losses, '0.02 0,04 0.01');
  type('Why it is corrected', 'misread');
  await tap('Correct');
  expect(results).toEqual([
    {
      readings: [
        reading(0.02, { cleaveLeft: 0.5, offset: 0.4 }),
        reading(0.04),
        reading(0.01, { cleaveLeft: 0.7, cleaveRight: 0.6, gap: 12 }),
      ],
      proofTestFailed: false,
      sleeveConfirmed: true,
      note: '',
    },
  ]);
});

test.each([
  [losses, '0.02 0.04', 'Give 3 losses with blanks between, and – where there is none; there are 2.'],
  [losses, '0.02 x 0.01', 'The reading is not a finite number. Enter what the machine shows, like 0.03.'],
  [losses, '0.02 – 0.01', 'Give the loss, or mark the proof test failed.'],
  ['Cleave left (°)', '0.5 50 0.7', 'A cleave angle over 45° is not a cleave. Check the decimal point.'],
  ['Gap (μm)', '12', 'Give 3 gaps with blanks between, and – where there is none; there are 1.'],
])('%s “%s” is told, and nothing is recorded', async (label, text, message) => {
  const results = correct(ribbon);
  type(label, text);
  type('Why it is corrected', 'misread');
  await tap('Correct');
  expect(screen.getByText(message)).toBeTruthy();
  expect(results).toEqual([]);
});

test('without a reason nothing is corrected', async () => {
  const results = correct(ribbon);
  await tap('Correct');
  expect(screen.getByText('Say why it is corrected.')).toBeTruthy();
  expect(results).toEqual([]);
});

test('a sleeve that was forgotten was not on', async () => {
  const results = correct(ribbon);
  await tap('Sleeve forgotten');
  type('Why it is corrected', 'found on the table');
  await tap('Correct');
  expect(results[0]).toMatchObject({ sleeveForgotten: true });
  expect(results[0]).not.toHaveProperty('sleeveConfirmed');
});

test('a mechanical connector is corrected by its light, and asks for no loss', async () => {
  const results = correct(attempt([reading(null)], { light: 'dark' }));
  expect(screen.queryByLabelText('Loss (dB)')).toBeNull();
  await act(async () => void fireEvent.click(screen.getByRole('radio', { name: 'Glows' })));
  type('Why it is corrected', 'looked again');
  await tap('Correct');
  expect(results).toEqual([{ readings: [reading(null)], proofTestFailed: false, light: 'glows', note: '' }]);
});

test('a try that never happened is taken back whole', async () => {
  const results = correct(ribbon);
  await tap('It never happened: take it back');
  expect(results).toEqual([null]);
});
