import type { Cable, Fact, Limits } from '@cordel/core';
import type { CalibrationRules } from '@cordel/core/gear';
import { JudgeKeeper, type LiveNight, type OddsRecord } from '@cordel/core/judge';

export interface JudgedJob {
  readonly limits: Limits;
  readonly cables: readonly Cable[];
  /** Calibration rules by machine. */
  readonly rules: readonly (readonly [machine: string, rules: CalibrationRules])[];
}

/** What is known of a job by now. */
export interface Judged {
  readonly record: OddsRecord;
  readonly nights: readonly LiveNight[];
}

/** What a page asks of the worker that judges. */
export interface JudgeService {
  /** Another job, or the same one with other limits: all before it is forgotten. */
  begin(job: JudgedJob): void;
  take(facts: readonly Fact[]): Judged;
}

export function judgeService(): JudgeService {
  let keeper: JudgeKeeper | null = null;
  return {
    begin({ limits, cables, rules }) {
      const byMachine = new Map(rules);
      keeper = new JudgeKeeper({
        limits,
        cables: new Map(cables.map((cable) => [cable.id, cable])),
        rulesOf: (machine) => byMachine.get(machine),
      });
    },
    take(facts) {
      keeper!.take(facts);
      const { record } = keeper!.judge;
      return {
        record: { first: new Map(record.first), states: new Map(record.states) },
        nights: keeper!.judge.lastNights(),
      };
    },
  };
}
