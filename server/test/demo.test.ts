import type { Attempt, Fact } from '@cordel/core';
import { Judge, seriesOf } from '@cordel/core/judge';
import { valeDoUmbu } from '../src/demo/valeDoUmbu';

/** The demo's readings come from the simulated machine, and are the same whatever the night. */

const attemptsAt = (now: string) =>
  valeDoUmbu(new Date(now))
    .facts.map(({ fact }) => fact as Fact)
    .filter((fact): fact is Attempt => fact.kind === 'attempt');
const all = attemptsAt('2026-04-15T05:30:00Z');
const made = all.filter(({ body }) => body.readings.length === 1);
const ribbons = all.filter(({ body }) => body.readings.length === 12);

test('the same readings on any night, by the same hands, all of them simulated', () => {
  const said = (list: readonly Attempt[]) => list.map(({ by, body: { gear: _, ...body } }) => [by, body]);
  expect(said(attemptsAt('2027-01-20T12:00:00Z'))).toEqual(said(all));
  expect(all.every(({ body }) => body.simulated && body.source === 'machine')).toBe(true);
});

test('ordinary ones are distributed as the machine’s are: an exponential offset, and what arc and mode fields add', () => {
  const losses = made.flatMap(({ body }) => body.readings[0]!.loss ?? []).filter((loss) => loss <= 0.1);
  const mean = losses.reduce((sum, loss) => sum + loss, 0) / losses.length;
  // 0.0199 dB for equal fibers, 0.0026 of the camera’s noise, half a mismatch (0.0099) where the mode fields differ, and half of what the arc costs after midnight (0.015).
  expect(losses.length).toBeGreaterThan(140);
  expect(mean).toBeGreaterThan(0.018);
  expect(mean).toBeLessThan(0.044);
  for (const loss of losses) expect(Math.round(loss * 100) / 100).toBe(loss);
});

test('what goes wrong goes wrong as the scenario says: dust, a holder, a nick', () => {
  const noted = made.filter(({ body }) => body.proofTestFailed);
  expect(noted.map(({ body }) => body.note)).toEqual(['Broke in the proof test.']);
  expect(made.filter(({ body }) => body.readings[0]!.cleaveLeft === 1.7)).toHaveLength(1);
  expect(
    made.filter(({ body }) => (body.readings[0]!.loss ?? 0) > 0.1).map(({ body }) => body.readings[0]!.loss),
  ).toEqual([0.14, 0.14, 0.13, 0.14, 0.12, 0.14, 0.13, 0.14, 0.12, 0.16, 0.15, 0.13, 0.13]);
});

test('in U2’s ribbons one groove is dirty: nothing is over a limit, and the judge sees it', () => {
  expect(ribbons).toHaveLength(8);
  for (const { body } of ribbons)
    expect(Math.max(...body.readings.map(({ loss }) => loss!))).toBeLessThanOrEqual(0.12);
  const { definition, facts } = valeDoUmbu(new Date('2026-04-15T05:30:00Z'));
  const { limits } = definition.project;
  const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
  const judge = new Judge({ limits });
  for (const told of seriesOf(
    facts.map(({ fact }) => fact as Fact),
    { cables, limits },
  ))
    judge.tell(told);
  const said = (fact: Attempt) => judge.said(fact.body.gear!.machine!.id, Date.parse(fact.madeAt));
  expect(said(ribbons.at(-1)!)).toMatchObject({
    strength: { rule: 'position', about: '7' },
    cause: 'groove',
  });
  // At the single fibers the weather changed since the calibration, and the losses went up.
  expect(said(made.at(-1)!)).toMatchObject({ strength: { rule: 'conditions' }, cause: 'arc' });
});

test('after it got cold the losses are higher: the arc drifted', () => {
  const u2 = made.slice(-60).filter(({ body }) => (body.readings[0]!.loss ?? 1) <= 0.1);
  const mean = (list: readonly Attempt[]) =>
    list.reduce((sum, { body }) => sum + body.readings[0]!.loss!, 0) / list.length;
  const late = u2.slice(-17);
  expect(mean(late)).toBeGreaterThan(mean(u2.slice(0, -17)) + 0.005);
});
