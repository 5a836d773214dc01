import { minutes } from '../prepare/time/estimate';
import { outcomeOf, type Place, type Problem } from './problem';
import { nightsProblem, type NightsInput } from './problemOf';
import { carryingOnly, ribbonized } from './closureToDo';

/** What would help a crew's night that runs short. */
export interface Help {
  readonly kind: 'put-off' | 'hand-over' | 'without-circuit' | 'ribbonize' | 'second-crew' | 'heater';
  /** The closure that it is about. */
  readonly closureId: string;
  /** Another crew that is called. */
  readonly crewId: string | null;
  /** s that the night then ends sooner, expected. */
  readonly saves: number;
  /** That everything is done in time then. */
  readonly chance: number;
  readonly words: string;
}

/** s. */
const worthSaying = 600;

/**
 * What helps a crew's night that runs short, tried one by one on the night as it is: the best first. Only what raises the chance by a point or more, or saves ten minutes: where it is too late
 * to be in time, less late is better.
 * @param tonight what all crews do in that night; its own is one of it
 * @param name of a closure
 */
export function helpsFor(
  input: NightsInput,
  place: Place,
  tonight: readonly Place[],
  name: (closureId: string) => string,
): Help[] {
  const { setup, toDo } = input;
  const made = nightsProblem(input);
  const { problem } = made;
  const now = outcomeOf(problem, place);
  const helps: Help[] = [];
  if (now.chance >= problem.reserve) return helps;
  const add = (
    help: Omit<Help, 'saves' | 'chance' | 'words'>,
    changed: { ends: number; chance: number },
    words: (saves: string) => string,
  ) => {
    const saves = now.ends - changed.ends;
    if (saves < (changed.chance < now.chance + 0.01 ? worthSaying : 60)) return;
    helps.push({ ...help, saves, chance: changed.chance, words: words(minutes(saves)) });
  };
  /** The same night in a changed world; null where its jobs are others then. */
  const tried = (changed: NightsInput) => {
    const other = nightsProblem(changed).problem;
    const same = place.order.every(
      (job) => other.jobs[job]?.id === problem.jobs[job]!.id && other.jobs[job]!.works[place.crew],
    );
    return same ? outcomeOf(other, place) : null;
  };
  const crew = problem.crews[place.crew]!.crew;
  const own = setup.crews[crew]!;
  const last = place.order.at(-1);
  if (last !== undefined && place.order.length > 1 && !problem.jobs[last]!.begun) {
    const { closureId } = problem.jobs[last]!;
    const sooner = outcomeOf(problem, { ...place, order: place.order.slice(0, -1) });
    const taker = takerOf(problem, place, tonight, last);
    if (taker !== null) {
      const { id, name: who } = setup.crews[problem.crews[taker]!.crew]!;
      const how = problem.crews[taker]!.works[0]
        ? `${who} can take ${name(closureId)} tonight`
        : `Call ${who} in, off tonight, to take ${name(closureId)}`;
      add({ kind: 'hand-over', closureId, crewId: id }, sooner, (saves) => `${how}: ${saves} sooner.`);
    }
    add(
      { kind: 'put-off', closureId, crewId: null },
      sooner,
      (saves) => `Leave ${name(closureId)} for another night: ${saves} sooner.`,
    );
  }
  for (const job of place.order) {
    const { closureId } = problem.jobs[job]!;
    const todo = toDo.find(({ closure }) => closure.id === closureId)!;
    const needed = carryingOnly(todo);
    if (needed) {
      const changed = tried({ ...input, toDo: toDo.map((one) => (one === todo ? needed.todo : one)) });
      if (changed)
        add(
          { kind: 'without-circuit', closureId, crewId: null },
          changed,
          (saves) =>
            `Leave the ${needed.without} splices at ${name(closureId)} that carry no circuit for another night, when it is opened once more: ${saves} sooner.`,
        );
    }
    if (todo.left.singles >= 12) {
      const changed = tried({ ...input, toDo: toDo.map((one) => (one === todo ? ribbonized(todo) : one)) });
      if (changed)
        add(
          { kind: 'ribbonize', closureId, crewId: null },
          changed,
          (saves) =>
            `Make ribbons of the ${todo.left.singles} single fibers that are left at ${name(closureId)}: ${saves} sooner.`,
        );
    }
  }
  const { closureId } = problem.jobs[place.order[0]!]!;
  if (own.people.length === 1) {
    const changed = tried({
      ...input,
      setup: {
        ...setup,
        crews: setup.crews.map((one) => (one === own ? { ...one, people: [...one.people, '+'] } : one)),
      },
    });
    const other = setup.crews.find((one) => one !== own);
    if (changed)
      add(
        { kind: 'second-crew', closureId, crewId: other?.id ?? null },
        changed,
        (saves) => `${other ? `Call ${other.name}` : 'Call a second hand'}: with two at it ${saves} sooner.`,
      );
  }
  const heated = tried({
    ...input,
    setup: {
      ...setup,
      crews: setup.crews.map((one) =>
        one === own
          ? {
              ...one,
              machines: one.machines.map((machine) => ({
                ...machine,
                gearId: null,
                heaters: Math.min(4, machine.heaters + 1),
              })),
            }
          : one,
      ),
    },
  });
  if (heated)
    add(
      { kind: 'heater', closureId, crewId: null },
      heated,
      (saves) => `One more heater at each machine: ${saves} sooner.`,
    );
  return helps.sort((a, b) => b.chance - a.chance || b.saves - a.saves);
}

/** Another crew, also one that is off tonight, that does a job of this one in time after all it has to do itself; of several the surest. null: there is none. */
function takerOf(problem: Problem, place: Place, tonight: readonly Place[], job: number): number | null {
  const { crews, jobs, reserve } = problem;
  const groupOf = (crew: number) => crews[crew]!.crew;
  let best: { readonly crew: number; readonly chance: number } | null = null;
  for (const [crew, { shared }] of crews.entries()) {
    if (groupOf(crew) === groupOf(place.crew) || !jobs[job]!.works[crew]) continue;
    const own = tonight.find((one) => groupOf(one.crew) === groupOf(crew));
    if (own && own.crew !== crew) continue;
    const others = tonight.filter((one) => groupOf(one.crew) !== groupOf(crew));
    if (others.some((one) => (crews[one.crew]!.shared & shared) !== 0)) continue;
    const order = own?.order ?? [];
    if (!jobs[job]!.after.every((one) => order.includes(one))) continue;
    const { chance } = outcomeOf(problem, { night: place.night, crew, order: [...order, job] });
    if (chance >= reserve && (!best || chance > best.chance)) best = { crew, chance };
  }
  return best?.crew ?? null;
}
