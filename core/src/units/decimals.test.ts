import { lossSheet, formatLoss, formatMean, formatMillimeters, parseTape, toldApart } from '../index';
import { attempt, closure, definition } from '../../test/example';
import { plainly } from '../../test/plainly';
import { formatAngle, micrometers } from '../splice/words';
import { shownNumber, writeDecimalsWith } from './decimals';
import { tapeInput } from './tapeLength';

afterEach(() => writeDecimalsWith('.'));

test('numbers are written with the sign of the person', () => {
  const all = () => [
    shownNumber(12),
    shownNumber(-0.5),
    formatLoss(0.03),
    formatLoss(0.145),
    formatMean(0.0341),
    formatAngle(1.6),
    micrometers(2.5),
    plainly(formatMillimeters(12.4, 'mm')),
    ...toldApart(0.1004, 0.1, formatLoss),
  ];
  const plain = all();
  expect(plain).toEqual([
    '12',
    '-0.5',
    '0.03',
    '0.145',
    '0.034',
    '1.6°',
    '2.5 μm',
    '12.4 mm',
    '0.1004',
    '0.1000',
  ]);
  writeDecimalsWith(',');
  expect(all()).toEqual(plain.map((text) => text!.replace('.', ',')));
});

test('what is shown in a field reads back, in both signs; inches keep the point, where a comma groups thousands', () => {
  for (const sign of ['.', ','] as const) {
    writeDecimalsWith(sign);
    for (const [length, units] of [
      [640.25, 'mm'],
      [12.5, 'mm'],
      [59.563, 'in'],
      [57.15, 'in'],
    ] as const)
      expect(parseTape(tapeInput(length, units), units)).toBeCloseTo(length, 1);
    expect(plainly(formatMillimeters(12.4, 'in'))).toBe('0.488 in');
  }
});

test('a loss sheet keeps the point whoever looks at it', () => {
  const sheet = () => lossSheet(definition, [attempt(0, 0.145, { minute: 1, id: closure.id })], [closure.id]);
  const plain = sheet();
  expect(plain.rows[0]).toContain('0.145');
  writeDecimalsWith(',');
  expect(sheet()).toEqual(plain);
});
