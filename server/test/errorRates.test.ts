import { thresholds } from '@cordel/core/judge';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** The page with the judge's error rates is of the thresholds of today: who changes one runs `npm run rates`. */

const page = readFileSync(join(process.cwd(), 'docs/error-rates.md'), 'utf8');
const rowsOf = (heading: string) =>
  page
    .split(`## ${heading}`)[1]!
    .split('\n## ')[0]!
    .split('\n')
    .filter((line) => line.startsWith('| '))
    .slice(2)
    .map((line) =>
      line
        .split('|')
        .slice(1, -1)
        .map((cell) => cell.trim()),
    );

test('its thresholds are those of the rules', () => {
  expect(rowsOf('Thresholds')).toEqual(
    Object.entries(thresholds).map(([rule, { at, least }]) => [rule, String(at), String(least)]),
  );
});

test('at most 1 in 20 clean nights shows an alarm; a dirty groove and a drift are found in 9 of 10', () => {
  const percent = (cell: string) => Number(cell.replace(' %', ''));
  const clean = rowsOf('Nights in which nothing is wrong');
  expect(clean.length).toBeGreaterThan(3);
  for (const [, any] of clean) expect(percent(any!)).toBeLessThanOrEqual(5);
  const faulty = rowsOf('Each fault of the simulated machine');
  const row = (name: string, splices: string) =>
    faulty.find(([fault, of]) => fault === name && of === splices)!;
  expect(percent(row('dirtyGroove', 'ribbons of 12')[2]!)).toBeGreaterThanOrEqual(90);
  expect(percent(row('arc drift of the demo’s size', 'single')[3]!)).toBeGreaterThanOrEqual(90);
});
