import type { BenchGear } from '../../gear/useGearAtBench';
import { questionAt } from './questionAt';
import type { Asked } from './useTicksAsked';

const quiet: BenchGear = { list: [], pick: false, atBench: null };
const due = { ...quiet, atBench: { ask: { about: 'blade' } } } as unknown as BenchGear;
const noTicks: Asked = { ribbonize: null, polarity: null };
const polarity: Asked = { ribbonize: null, polarity: () => {} };
const loose: Asked = { ...polarity, ribbonize: { side: 'left', onDone: () => {} } };

test.each<[string, BenchGear, Asked, ReturnType<typeof questionAt>]>([
  ['nothing is open', quiet, noTicks, null],
  ['gear is picked before anything can be due', { ...due, pick: true }, loose, 'pick'],
  ['what is due comes before the fibers', due, loose, 'due'],
  ['loose fibers are a ribbon before it can lie anyhow', quiet, loose, 'ribbonize'],
  ['how the ribbons lie', quiet, polarity, 'polarity'],
])('%s', (_, gear, asked, question) => {
  expect(questionAt(gear, asked)).toBe(question);
});
