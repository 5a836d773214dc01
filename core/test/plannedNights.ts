import { nightsProblem, toolsOf, type NightsInput } from '../src/schedule/problemOf';
import { breaches } from '../src/schedule/problem';
import { ruleOf, type ClosureRule, type Crew } from '../src/schedule/setup';
import { solvedNights } from '../src/schedule/solve';
import { toldPlan } from '../src/schedule/told';
import type { ClosureToDo } from '../src/schedule/closureToDo';
import { nightIds, nightsInput, setup } from './nightsExample';

export const zone = 'America/Sao_Paulo';

export const tools = (crew: Crew) => toolsOf(nightsInput(), crew, crew.machines);

export const rule = (todo: ClosureToDo, more: Partial<ClosureRule>): ClosureRule => ({
  ...ruleOf({ rules: [] }, todo.closure.id),
  ...more,
});

export const withRules = (...rules: ClosureRule[]) => nightsInput({ setup: { ...setup, rules } });

/** The example planned: the plan breaks no rule, whatever it is made from. */
export function planned(input: NightsInput) {
  const made = nightsProblem(input);
  const solved = solvedNights(made.problem);
  expect(breaches(made.problem, solved.plan)).toEqual([]);
  const told = toldPlan(made, solved.plan, input.setup, input.toDo, zone);
  const at = (todo: ClosureToDo) => {
    const night = told.find(({ stops }) => stops.some(({ closureId }) => closureId === todo.closure.id));
    const stop = night?.stops.find(({ closureId }) => closureId === todo.closure.id);
    return night && stop ? { ...stop, night: nightIds.indexOf(night.nightId), crew: night.crewId } : null;
  };
  return { ...solved, made, told, at };
}
