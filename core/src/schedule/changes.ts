import { minutes } from '../prepare/time/estimate';
import { placeless } from './bound';
import { draftFrom } from './draft';
import { isQuick } from './exact';
import { filled } from './insertion';
import type { Plan, Problem } from './problem';
import { nightsProblem, toolsOf, type NightsInput } from './problemOf';
import { quickPlan } from './solve';
import { mostNights, nightsAfter, ruleOf } from './setup';
import { ribbonized } from './closureToDo';
import { crewWork, lacks, type CrewTools } from './work';

/** A change by which a plan leaves less, or ends sooner. */
export interface Change {
  readonly kind:
    'ribbonize' | 'heater' | 'second-hand' | 'sooner' | 'longer' | 'stay-open' | 'machine' | 'another-night';
  readonly words: string;
  /** Closures that then have a place. */
  readonly gains: readonly string[];
}

/**
 * Closures without a place after a change: of few closures by planning anew. Of many it is looked for a place beside the plan that stands: a plan anew is another one in every corner, and
 * would say nothing of this closure.
 */
function leftAfter(changed: NightsInput, closureId: string, plan: Plan, of: Problem): ReadonlySet<string> {
  const { problem } = nightsProblem(changed);
  const { jobs } = problem;
  const closuresOf = (left: Iterable<number>) => new Set([...left].map((job) => jobs[job]!.closureId));
  if (isQuick(problem)) return closuresOf(quickPlan(problem).left);
  const jobAt = new Map(jobs.map(({ id }, job) => [id, job]));
  const places = plan.places.map((place) => ({
    ...place,
    order: place.order.flatMap((job) => jobAt.get(of.jobs[job]!.id) ?? []),
  }));
  const draft = draftFrom(
    problem,
    problem.nights.map((_, night) => night),
    { ...plan, places },
  );
  const left = closuresOf(draft.left);
  for (const job of draft.left) if (jobs[job]!.closureId !== closureId) draft.left.delete(job);
  filled(problem, draft, { kind: 'all' });
  if (draft.left.size === 0) left.delete(closureId);
  return left;
}

const noPlan: Plan = { places: [], left: [], score: [0, 0, 0, 0, 0, 0, 0] };

/** Longer than that no window is moved, min. */
const mostMoved = 180;

/**
 * The least changes by which a closure that has no place gets one: each is tried. The first ones ask least.
 * @param plan of the whole; a closure that it does not leave needs no change
 * @param name of a closure
 */
export function leastChanges(
  whole: NightsInput,
  plan: Plan,
  closureId: string,
  name: (closureId: string) => string,
): Change[] {
  // What fits nowhere even alone is looked at alone: more room for others does not help it.
  const { problem } = nightsProblem(whole);
  const nowhere = [...placeless(problem)].some((job) => problem.jobs[job]!.closureId === closureId);
  const input = nowhere
    ? { ...whole, toDo: whole.toDo.filter(({ closure }) => closure.id === closureId) }
    : whole;
  const { setup, toDo, pace } = input;
  const left = new Set(plan.left.map((job) => problem.jobs[job]!.closureId));
  const before = nowhere ? new Set([closureId].filter((one) => left.has(one))) : left;
  const own = toDo.find(({ closure }) => closure.id === closureId);
  if (!own || !before.has(closureId)) return [];
  const after = (changed: NightsInput) => leftAfter(changed, closureId, nowhere ? noPlan : plan, problem);
  const changes: Change[] = [];
  const attempt = (
    kind: Change['kind'],
    words: string | ((gains: string[]) => string),
    changed: NightsInput,
  ): boolean => {
    const still = after(changed);
    // One that takes the place of another gains nothing.
    if (still.has(closureId) || still.size >= before.size) return false;
    const gains = [...before].filter((one) => !still.has(one));
    changes.push({ kind, words: typeof words === 'string' ? words : words(gains), gains });
    return true;
  };
  const tools = setup.crews.map((crew) => toolsOf(input, crew, crew.machines));
  const saves = (changedTools: (tool: CrewTools) => CrewTools, todo = own) => {
    const times = tools.flatMap((tool) => {
      const [was, then] = [crewWork(own, pace, tool), crewWork(todo, pace, changedTools(tool))];
      return was && then ? [was.parts[0]!.mean - then.parts[0]!.mean] : [];
    });
    return Math.max(0, ...times);
  };

  if (own.left.singles >= 12) {
    const made = ribbonized(own);
    const less = saves((tool) => tool, made);
    if (less > 0)
      attempt(
        'ribbonize',
        `Make ribbons of the ${own.left.singles} single fibers at ${name(closureId)}: ${minutes(less)} less.`,
        { ...input, toDo: toDo.map((one) => (one === own ? made : one)) },
      );
  }
  const heated = saves((tool) => withHeater(tool));
  if (heated > 60)
    attempt('heater', `One more heater at ${name(closureId)}: ${minutes(heated)} less.`, {
      ...input,
      setup: {
        ...setup,
        crews: setup.crews.map((crew) => ({
          ...crew,
          machines: crew.machines.map((one) => ({
            ...one,
            gearId: null,
            heaters: Math.min(4, heatersOf(input, one) + 1),
          })),
        })),
      },
    });
  const alone = setup.crews.filter(({ people }) => people.length === 1);
  if (alone.length > 0) {
    const gain = saves((tool) => ({ ...tool, people: 2 }));
    attempt('second-hand', `A second pair of hands: ${minutes(gain)} less at ${name(closureId)}.`, {
      ...input,
      setup: {
        ...setup,
        crews: setup.crews.map((crew) =>
          crew.people.length === 1 ? { ...crew, people: [...crew.people, '+'] } : crew,
        ),
      },
    });
  }
  const lacking = tools.map((tool) => lacks(own, tool));
  if (lacking.length > 0 && lacking.every((one) => one !== null)) {
    const kind = lacking[0]!;
    attempt(
      'machine',
      `Nobody carries a machine for ${kind === 'ribbon' ? 'ribbons' : 'single fibers'}: give a crew one.`,
      {
        ...input,
        setup: {
          ...setup,
          crews: setup.crews.map((crew) => ({
            ...crew,
            machines: [...crew.machines, { gearId: null, name: 'One more', splices: kind, heaters: 1 }],
          })),
        },
      },
    );
  }
  for (const kind of ['sooner', 'longer'] as const) {
    let [low, high] = [0, mostMoved];
    if (after(moved(input, kind, high)).has(closureId)) continue;
    while (high - low > 5) {
      const middle = Math.ceil((low + high) / 2 / 5) * 5;
      if (middle >= high) break;
      if (after(moved(input, kind, middle)).has(closureId)) low = middle;
      else high = middle;
    }
    attempt(
      kind,
      kind === 'sooner'
        ? `Begin the nights ${minutes(high * 60)} sooner.`
        : `Let the nights end ${minutes(high * 60)} later.`,
      moved(input, kind, high),
    );
  }
  const rule = ruleOf(setup, closureId);
  if (!rule.mayStayOpen)
    attempt(
      'stay-open',
      `Let ${name(closureId)} stay open under cover over a day, where the owner allows it.`,
      {
        ...input,
        setup: {
          ...setup,
          rules: [
            ...setup.rules.filter((one) => one !== rule && one.closureId !== closureId),
            { ...rule, mayStayOpen: true },
          ],
        },
      },
    );
  if (setup.nights.length > 0) attempt('another-night', 'One more night.', withMoreNights(input, 1));
  return changes;
}

/** More nights than that nobody is told to add. */
const mostMore = 64;

/**
 * How many nights more, each a day after the one before it, are enough for all closures that any night has room for. The plan that shows it is the first one that is found, so that fewer
 * may do.
 * @returns null: there is no night that they could be like, or as many as are tried are not enough
 */
export function nightsEnough(input: NightsInput): number | null {
  const most = Math.min(mostMore, mostNights - input.setup.nights.length);
  if (input.setup.nights.length === 0 || most < 1) return null;
  const enough = (count: number) => {
    const { problem } = nightsProblem(withMoreNights(input, count));
    return quickPlan(problem).left.length <= placeless(problem).size;
  };
  let [low, high] = [0, 1];
  while (!enough(high)) {
    if (high === most) return null;
    [low, high] = [high, Math.min(most, high * 2)];
  }
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return high;
}

function withMoreNights(input: NightsInput, count: number): NightsInput {
  const { nights } = input.setup;
  const more = nightsAfter(nights, count, input.definition.project.timeZone).map((night, index) => ({
    id: `more ${index}`,
    ...night,
  }));
  return { ...input, setup: { ...input.setup, nights: [...nights, ...more] } };
}

function withHeater(tool: CrewTools): CrewTools {
  const more = (heating: CrewTools['single']) =>
    heating && { ...heating, heaters: Math.min(4, heating.heaters + 1) };
  return { ...tool, single: more(tool.single), ribbon: more(tool.ribbon) };
}

function heatersOf(
  { machineOf }: NightsInput,
  machine: { readonly gearId: string | null; readonly heaters: number },
): number {
  return (machine.gearId === null ? undefined : machineOf(machine.gearId))?.heaters ?? machine.heaters;
}

/** All nights begun sooner, or ended later, by so many minutes. */
function moved(input: NightsInput, kind: 'sooner' | 'longer', by: number): NightsInput {
  const shift = (time: string, ms: number) => new Date(Date.parse(time) + ms).toISOString();
  const nights = input.setup.nights.map((night) => ({
    ...night,
    opens: kind === 'sooner' ? shift(night.opens, -by * 60_000) : night.opens,
    closes: kind === 'longer' ? shift(night.closes, by * 60_000) : night.closes,
  }));
  return { ...input, setup: { ...input.setup, nights } };
}
