import { cableA, cableB, cables, closure, id } from '../../../test/example';
import type { OrderLine } from '../closure';
import { endsOfOldSpliceId, spliceId } from '../fiberEnd';
import { expandOrder } from './order';

const line = (left: [string, number, number], right: [string, number, number]): OrderLine => ({
  ...closure.order[0]!,
  left: { cableId: left[0], side: 'end', from: left[1], to: left[2] },
  right: { cableId: right[0], side: 'end', from: right[1], to: right[2] },
});
const expand = (...order: OrderLine[]) => expandOrder({ ...closure, order }, cables);

test('joins ranges first to first', () => {
  const { splices, findings } = expand(line([cableA.id, 5, 8], [cableB.id, 1, 4]));
  expect(findings).toEqual([]);
  expect(splices.map((splice) => [splice.left[0]!.fiber, splice.right[0]!.fiber])).toEqual([
    [5, 1],
    [6, 2],
    [7, 3],
    [8, 4],
  ]);
});

test('a splice is the same whichever side is called left, and its id names its ends', () => {
  const [one] = expand(line([cableA.id, 3, 3], [cableB.id, 7, 7])).splices;
  const [other] = expand(line([cableB.id, 7, 7], [cableA.id, 3, 3])).splices;
  expect(one!.id).toBe(other!.id);
  expect(one!.id).toBe(`${cableA.id}.3.end~${cableB.id}.7.end`);
});

test('single fibers in reversed order are joined from the other end of the range, ribbons each in its place', () => {
  const joined = (one: OrderLine) =>
    expand(one).splices.map(({ left, right }) => [left[0]!.fiber, right[0]!.fiber]);
  const four = line([cableA.id, 5, 8], [cableB.id, 1, 4]);
  expect(joined({ ...four, polarity: 'reversed' })).toEqual([
    [5, 4],
    [6, 3],
    [7, 2],
    [8, 1],
  ]);
  const twice = [four, { ...line([cableA.id, 9, 12], [cableB.id, 3, 6]), polarity: 'reversed' as const }];
  expect(expand(...twice).findings.map(({ code, params }) => [code, params])).toEqual([
    ['end-used-twice', { label: cableB.label, from: 3, to: 4, lines: [1, 2] }],
  ]);
  const ribbons = { ...line([cableA.id, 1, 24], [cableB.id, 1, 24]), mode: 'ribbonized' as const };
  expect(joined({ ...ribbons, polarity: 'reversed' })).toEqual([
    [1, 12],
    [13, 24],
  ]);
});

test('a splice in reversed order is the same whichever side of the order is written first', () => {
  for (const mode of ['single', 'ribbonized'] as const) {
    const reversed = { mode, polarity: 'reversed' as const };
    const ids = (one: OrderLine) =>
      expand({ ...one, ...reversed })
        .splices.map((splice) => splice.id)
        .sort();
    expect(ids(line([cableA.id, 13, 24], [cableB.id, 1, 12]))).toEqual(
      ids(line([cableB.id, 1, 12], [cableA.id, 13, 24])),
    );
  }
});

test('reads no ends out of something else', () => {
  for (const text of [
    '',
    '~',
    'x.1.end~y.1.end',
    `${cableA.id}.1.end`,
    `${cableA.id}.0.end~${cableB.id}.1.end`,
  ])
    expect(endsOfOldSpliceId(text)).toBeNull();
});

test('an end at another closure side is another splice', () => {
  const at = (side: 'low' | 'high') =>
    spliceId([{ cableId: cableA.id, fiber: 1, side }], [{ cableId: cableB.id, fiber: 1, side: 'end' }]);
  expect(at('low')).not.toBe(at('high'));
});

test.each([
  [
    'an end used twice',
    [line([cableA.id, 1, 4], [cableB.id, 1, 4]), line([cableA.id, 4, 5], [cableB.id, 5, 6])],
    'end-used-twice',
    5,
  ],
  ['a fiber that does not exist', [line([cableA.id, 20, 25], [cableB.id, 1, 6])], 'range', 0],
  ['a range that runs backwards', [line([cableA.id, 4, 1], [cableB.id, 1, 4])], 'runs-backwards', 0],
  ['sides of different length', [line([cableA.id, 1, 4], [cableB.id, 1, 3])], 'range-lengths-differ', 0],
  ['a cable that is not there', [line([id(99), 1, 4], [cableB.id, 1, 4])], 'no-such-cable', 0],
  ['a fiber joined to itself', [line([cableA.id, 1, 1], [cableA.id, 1, 1])], 'end-used-twice', 0],
])('tells of %s and leaves only that out', (_, order, code, left) => {
  const { splices, findings } = expand(...order);
  expect(findings.map((finding) => finding.code)).toEqual([code]);
  expect(findings[0]!.where.kind).toBe('order-line');
  expect(splices).toHaveLength(left);
});
