import type { Attempt, Fact } from '@cordel/core';
import { valeDoUmbu } from '../src/demo/valeDoUmbu';

/** The demo's readings come from the simulated machine, and are the same whatever the night. */

const attemptsAt = (now: string) =>
  valeDoUmbu(new Date(now))
    .facts.map(({ fact }) => fact as Fact)
    .filter((fact): fact is Attempt => fact.kind === 'attempt');
const made = attemptsAt('2026-04-15T05:30:00Z');

test('the same readings on any night, by the same hands, all of them simulated', () => {
  const said = (list: readonly Attempt[]) => list.map(({ by, body: { gear: _, ...body } }) => [by, body]);
  expect(said(attemptsAt('2027-01-20T12:00:00Z'))).toEqual(said(made));
  expect(made.every(({ body }) => body.simulated && body.source === 'machine')).toBe(true);
});

test('ordinary ones are distributed as the machine’s are: an exponential offset, and what arc and mode fields add', () => {
  const losses = made.flatMap(({ body }) => body.readings[0]!.loss ?? []).filter((loss) => loss <= 0.1);
  const mean = losses.reduce((sum, loss) => sum + loss, 0) / losses.length;
  // 0.0199 dB for equal fibers, 0.0026 of the camera’s noise, and half a mismatch where the mode fields differ.
  expect(losses.length).toBeGreaterThan(140);
  expect(mean).toBeGreaterThan(0.018);
  expect(mean).toBeLessThan(0.036);
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
