import { adviseBeforeArc, nothingSeen, type ArcAdvice, type BeforeArc } from '@cordel/core/gear';
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { CordelThemeProvider } from '../../../../ui/theme';
import { BeforeArcPanel } from './BeforeArcPanel';

const reseatSeven = adviseBeforeArc(
  Array.from({ length: 12 }, (_, index) => ({ ...nothingSeen, offset: index === 6 ? 4 : 1 })),
  { cleaveAngle: { value: 1, of: 'project' }, offset: { value: 2, of: 'machine' }, gap: null },
);
let cut: number[] = [];
let seen: readonly (BeforeArc | undefined)[] = [];

function Bench({ fibers, advice = reseatSeven }: { fibers: number; advice?: ArcAdvice }) {
  const [before, setBefore] = useState<readonly (BeforeArc | undefined)[]>([]);
  return (
    <CordelThemeProvider>
      <BeforeArcPanel
        before={before}
        fibers={fibers}
        advice={advice}
        onRecleaved={(ends) => cut.push(ends)}
        onChange={(next) => {
          seen = next;
          setBefore(next);
        }}
        onDone={() => {}}
      />
    </CordelThemeProvider>
  );
}
const tap = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

beforeEach(() => {
  seen = [];
  cut = [];
});

test('the first tap sets a usual value, the next ones move it, and one on the value clears it', () => {
  render(<Bench fibers={1} />);
  tap('More, Cleave left');
  expect(seen).toEqual([{ cleaveLeft: 0.5, cleaveRight: null, offset: null, gap: null }]);
  for (let step = 0; step < 3; step += 1) tap('More, Cleave left');
  tap('Less, Axis offset');
  tap('Less, Axis offset');
  tap('More, Gap');
  expect(seen).toEqual([{ cleaveLeft: 0.8, cleaveRight: null, offset: 0.4, gap: 10 }]);
  tap('0.8°, clear Cleave left');
  expect(seen[0]!.cleaveLeft).toBeNull();
});

test('no value goes below 0', () => {
  render(<Bench fibers={1} />);
  for (let step = 0; step < 9; step += 1) tap('Less, Cleave right');
  expect(seen[0]!.cleaveRight).toBe(0);
});

test('of a ribbon each fiber has its own, or all have the same', () => {
  render(<Bench fibers={12} />);
  tap('More, Cleave left');
  tap('Same for all');
  expect(seen).toHaveLength(12);
  expect(seen.every((one) => one?.cleaveLeft === 0.5)).toBe(true);
  tap('The next fiber');
  expect(screen.getByText('Fiber 2 of 12')).toBeTruthy();
  tap('More, Axis offset');
  expect(seen.map((one) => one?.offset)).toEqual([null, 0.5, ...Array.from({ length: 10 }, () => null)]);
  tap('The fiber before');
  expect(screen.getByRole('button', { name: 'The fiber before' }).getAttribute('aria-disabled')).toBe('true');
});

test('the advice stands beside the way back', () => {
  render(<Bench fibers={1} />);
  expect(screen.getByText(/^Reseat fiber 7: offset 4 μm/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Back to the pad' })).toBeTruthy();
});

test('ends that were cleaved again are counted, and what was seen of the old ones is gone', () => {
  const limits = { cleaveAngle: { value: 1, of: 'project' as const }, offset: null, gap: null };
  const left = adviseBeforeArc([{ ...nothingSeen, cleaveLeft: 2 }], limits);
  render(<Bench fibers={12} advice={{ ...left, count: 12 }} />);
  tap('More, Cleave left');
  tap('More, Cleave right');
  tap('More, Axis offset');
  tap('Recleaved left');
  expect(cut).toEqual([12]);
  expect(seen[0]).toEqual({ ...nothingSeen, cleaveRight: 0.5 });
});
