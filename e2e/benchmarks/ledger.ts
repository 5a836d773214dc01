import { addFact, buildLedger, planClosure, type Attempt } from '@cordel/core';
import { makeAttempt, makeProject } from '../../server/test/makeProject';
import { at, report, timed } from './figures';

/** Judging and rolling up a closure of 6 912 splices, beside a plain loop over as many numbers. */
export function benchLedger(): void {
  const { definition, closureId, splices } = makeProject(576);
  const { limits } = definition.project;
  const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
  const plan = planClosure(definition.closures[0]!, cables);
  // Read from text, as they come from the server: nothing in them is shared with the plan.
  const facts: Attempt[] = JSON.parse(
    JSON.stringify(splices.map((splice, index) => makeAttempt(closureId, splice, (index % 13) / 100))),
  );
  const losses = facts.map((fact) => fact.body.readings[0]!.loss!);

  const plain = at(
    0.5,
    timed(200, () =>
      Float64Array.from(losses)
        .sort()
        .reduce((sum, loss) => sum + loss, 0),
    ),
  );
  const all = at(
    0.5,
    timed(100, () => buildLedger(plan, facts, limits)),
  );
  report(
    `Judge ${splices.length} splices from scratch (plain sort and sum: ${plain.toFixed(2)} ms)`,
    `${all.toFixed(2)} ms, ${(all / plain).toFixed(1)} × plain`,
    'under 10 ms',
  );

  let ledger = buildLedger(plan, facts, limits);
  const one = timed(500, () => {
    const splice = splices[Math.floor(Math.random() * splices.length)]!;
    ledger = addFact(ledger, makeAttempt(closureId, splice, 0.05));
  });
  report(
    'Judge one new attempt in it',
    `${at(0.5, one).toFixed(3)} ms, 95 % ${at(0.95, one).toFixed(3)} ms`,
    'under 0.5 ms',
  );
}
