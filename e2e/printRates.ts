import {
  cleanNights,
  faultyNights,
  ratesOf,
  tableOf,
  thresholds,
  unseenDrift,
  watchedNight,
  type Rates,
  type Scenario,
  type WatchedNight,
} from '@cordel/core/judge';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format, resolveConfig } from 'prettier';

/** Measures how often the judge cries out for nothing, and how soon it finds each fault; writes docs/error-rates.md and the table that causes are named by. */

const nights = Number(process.argv[2] ?? 1000);
const root = process.env.CORDEL_ROOT!;

const work = (scenario: Scenario, firstSeed: number, table?: Parameters<typeof watchedNight>[2]) => {
  const watched: WatchedNight[] = [];
  for (let seed = firstSeed; seed < firstSeed + nights; seed += 1)
    watched.push(watchedNight(scenario, seed, table));
  process.stdout.write('.');
  return watched;
};

// One set of nights makes the table, another one measures how well it names.
const table = tableOf(
  [...faultyNights, unseenDrift].map((scenario) => [scenario, work(scenario, 1)] as const),
);
const measure = (scenario: Scenario) => ({
  scenario,
  rates: ratesOf(scenario, work(scenario, 1_000_000, table)),
});
const clean = cleanNights.map(measure);
const faulty = [...faultyNights, unseenDrift].map(measure);
process.stdout.write('\n');

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
/** 95 % interval of a share (E. B. Wilson, JASA 22, 1927). */
const interval = (share: number) => {
  const [z, n] = [1.96, nights];
  const middle = (share + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z / (1 + (z * z) / n)) * Math.sqrt((share * (1 - share)) / n + (z * z) / (4 * n * n));
  return `${percent(Math.max(0, middle - half))} to ${percent(middle + half)}`;
};
const rules = ({ byRule }: Rates) =>
  [...byRule]
    .filter(([, share]) => share >= 0.001)
    .sort((a, b) => b[1] - a[1])
    .map(([rule, share]) => `${rule} ${percent(share)}`)
    .join(', ') || 'none';

const lines = [
  '# How often the judge is wrong, and how soon it is right',
  '',
  `Written by \`npm run rates\`: ${nights} nights of each kind, worked at the simulated machine by hands that keep to the limits for a feeder, and looked at after every reading as the bench does.`,
  'The rules and what each looks at stand in `core/src/judge/watch`; the nights in `core/src/judge/nights/scenarios.ts`. What the simulated machine does is invented where docs/machine-link.md says so, so these are rates of *that* machine.',
  '',
  '## Nights in which nothing is wrong',
  '',
  'At most 1 in 20 may show any alarm of any rule.',
  '',
  '| Night | Any alarm | 95 % interval | By rule |',
  '| --- | --- | --- | --- |',
  ...clean.map(
    ({ scenario, rates }) =>
      `| ${scenario.name} | ${percent(rates.any)} | ${interval(rates.any)} | ${rules(rates)} |`,
  ),
  '',
  '## Each fault of the simulated machine',
  '',
  'Splices are counted from where the fault begins. "Named right": the likeliest cause (or it or the runner-up) is the right one, five tries after the first alarm.',
  '',
  '| Fault | Splices | Found within 10 | within 40 | Half are found by | Named right | or runner-up | By rule |',
  '| --- | --- | --- | --- | --- | --- | --- | --- |',
  ...faulty.map(
    ({ scenario, rates }) =>
      `| ${scenario.name} | ${scenario.kind === 'single' ? 'single' : 'ribbons of 12'} | ${percent(rates.within(10))} | ${percent(rates.within(40))} | ${rates.median ?? 'not found'} | ${percent(rates.right[1]!.likeliest)} | ${percent(rates.right[1]!.orRunnerUp)} | ${rules(rates)} |`,
  ),
  '',
  '## Thresholds',
  '',
  '| Rule | Trips at | Splices at least |',
  '| --- | --- | --- |',
  ...Object.entries(thresholds).map(([rule, { at, least }]) => `| ${rule} | ${at} | ${least} |`),
  '',
  'For `position` it is the chance of a false alarm at one look, shared over the positions; `conditions` trips at the limits of the machine’s own calibration rules.',
  '',
];
const write = async (file: string, text: string, parser: string) => {
  const config = await resolveConfig(join(root, file));
  writeFileSync(join(root, file), await format(text, { ...config, parser }));
};
void write('docs/error-rates.md', lines.join('\n'), 'markdown');
void write(
  'core/src/judge/watch/causeTable.ts',
  `import type { CauseTable } from './causes';\n\n/** Written by \`npm run rates\`. */\nexport const causeTable: CauseTable = ${JSON.stringify(table)};\n`,
  'typescript',
);
