import { attempt } from '../../test/example';
import { calibration, hourOf, machine, wentOn } from '../../test/gear';
import { passedOver, passedOverBook } from './passedOver';

const gear = { machine: { id: machine.id, label: machine.label } };
const at = (hours: number) => attempt(0, 0.04, { gear, madeAt: hourOf(hours) });
const over = (
  hours: number,
  ...facts: Parameters<typeof passedOverBook>[0] extends Iterable<infer F> ? F[] : never
) => passedOver(at(hours), passedOverBook(facts));

test('what was passed over stands on the splices after it, that night', () => {
  const facts = [wentOn(2, 'calibration', ['session'])];
  expect(over(1, ...facts)).toEqual([]);
  expect(over(3, ...facts)).toEqual(['calibration']);
  expect(over(20, ...facts)).toEqual([]);
});

test('until it is put right, whatever order the facts arrive in', () => {
  const facts = [calibration(4), wentOn(2, 'calibration', ['session']), calibration(3, false)];
  expect(over(3.5, ...facts)).toEqual(['calibration']);
  expect(over(5, ...facts)).toEqual([]);
});

test('of a splice without gear nothing is known', () =>
  expect(passedOver(attempt(0, 0.04), passedOverBook([wentOn(2, 'calibration', ['session'])]))).toEqual([]));
