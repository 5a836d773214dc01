import { minutes } from '../prepare/time/estimate';
import { placeless } from './bound';
import { nightsProblem, toolsOf, type NightsInput } from './problemOf';
import { quickPlan } from './solve';
import { ruleOf } from './setup';
import { crewWork, lacks, ribbonized, type CrewTools } from './work';

/** A change by which a plan leaves less, or ends sooner. */
export interface Change {
  readonly kind:
    'ribbonize' | 'heater' | 'second-hand' | 'sooner' | 'longer' | 'stay-open' | 'machine' | 'another-night';
  readonly words: string;
  /** Closures that then have a place. */
  readonly gains: readonly string[];
}

const leftIn = (input: NightsInput): ReadonlySet<string> => {
  const { problem } = nightsProblem(input);
  return new Set(quickPlan(problem).left.map((job) => problem.jobs[job]!.closureId));
};

/** Longer than that no window is moved, min. */
const mostMoved = 180;

/**
 * The least changes by which a closure that has no place gets one: each is tried by planning anew with it. The first ones ask least.
 * @param closureId one that the plan leaves
 * @param name of a closure
 */
export function leastChanges(
  whole: NightsInput,
  closureId: string,
  name: (closureId: string) => string,
): Change[] {
  const all = leftIn(whole);
  // What fits nowhere even alone is looked at alone: more room for others does not help it.
  const { problem } = nightsProblem(whole);
  const nowhere = [...placeless(problem)].some((job) => problem.jobs[job]!.closureId === closureId);
  const input = nowhere
    ? { ...whole, toDo: whole.toDo.filter(({ closure }) => closure.id === closureId) }
    : whole;
  const { setup, toDo, pace } = input;
  const before = nowhere ? new Set([closureId].filter((one) => all.has(one))) : all;
  const own = toDo.find(({ closure }) => closure.id === closureId);
  if (!own || !before.has(closureId)) return [];
  const changes: Change[] = [];
  const attempt = (
    kind: Change['kind'],
    words: string | ((gains: string[]) => string),
    changed: NightsInput,
  ): boolean => {
    const after = leftIn(changed);
    if (after.has(closureId)) return false;
    const gains = [...before].filter((one) => !after.has(one));
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
    if (leftIn(moved(input, kind, high)).has(closureId)) continue;
    while (high - low > 5) {
      const middle = Math.ceil((low + high) / 2 / 5) * 5;
      if (middle >= high) break;
      if (leftIn(moved(input, kind, middle)).has(closureId)) low = middle;
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
  const last = [...setup.nights].sort((a, b) => Date.parse(a.opens) - Date.parse(b.opens)).at(-1);
  if (last) {
    const day = 24 * 3_600_000;
    const later = (time: string) => new Date(Date.parse(time) + day).toISOString();
    attempt('another-night', 'One more night.', {
      ...input,
      setup: {
        ...setup,
        nights: [
          ...setup.nights,
          { id: `${last.id}+`, opens: later(last.opens), closes: later(last.closes) },
        ],
      },
    });
  }
  return changes;
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
