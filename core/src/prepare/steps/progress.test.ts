import { attempt, cables, closure, limits, plan, tickAt } from '../../../test/example';
import { buildLedger, type Fact } from '../../index';
import { cutSheet } from '../cut/cutSheet';
import { marksProgress, movedSince, workLeft } from './progress';
import { prepareState, tickTargets, type TickTarget } from './tickTargets';

const cable = cables.get(closure.entries[0]!.cableId)!;
const sheet = cutSheet(closure, plan, cable, { units: 'mm' });
const ticked = (target: TickTarget, minute: number, mm: number | null = null): Fact => ({
  ...tickAt(target, minute, 'done'),
  ...(target.what.what === 'mark'
    ? { body: { ...target.what, what: 'mark', mm, state: 'done', note: '' } }
    : {}),
});

test('marks that are made are counted, and what is left of the cable shrinks with them', () => {
  const half = sheet.marks.slice(0, sheet.marks.length / 2);
  const facts = half.map((mark, index) => ticked(tickTargets.mark(cable.id, mark.id), index));
  expect(marksProgress(sheet, prepareState(facts))).toEqual({ done: half.length, total: sheet.marks.length });
  const left = workLeft(closure, plan, cables, buildLedger(plan, [], limits), facts);
  expect(left.unprepared.get(cable.id)).toBeCloseTo(1 - half.length / sheet.marks.length, 12);
  expect(left).toMatchObject({ singles: 24, ribbons: 0, sealed: false });
});

test('splices that hold are done, those to redo are not; a ticked seal is done', () => {
  const facts = [attempt(0, 0.02), attempt(1, 0.5), ticked(tickTargets.sealed, 300)];
  const left = workLeft(closure, plan, cables, buildLedger(plan, facts, limits), facts);
  expect(left).toMatchObject({ singles: 23, sealed: true });
});

test('a mark that was made at another measure is told', () => {
  const ring = sheet.marks.find(({ id: mark }) => mark === 'ring-cut')!;
  const about = tickTargets.mark(cable.id, ring.id);
  expect(movedSince(sheet, ring.id, prepareState([ticked(about, 1, ring.at)]))).toBeNull();
  expect(movedSince(sheet, ring.id, prepareState([ticked(about, 1, 1500)]))).toBe(1500);
  expect(movedSince(sheet, ring.id, prepareState([ticked(about, 1)]))).toBeNull();
});
