import { siteOf } from '@cordel/core';
import {
  helpsFor,
  leastChanges,
  nightsEnough,
  nightsInput,
  nightsProblem,
  openOrStop,
  solveNights,
  toldPlan,
  whyThere,
  type Bound,
  type Change,
  type Help,
  type LookedAt,
  type NightsProblem,
  type NightsRecord,
  type NightsTrouble,
  type OpenOrStop,
  type PlannedNight,
  type Score,
  type Solved,
  type Why,
} from '@cordel/core/schedule';

/** A plan as far as it is made. Times in ms since 1970. */
export interface NightsAnswer {
  readonly planned: readonly PlannedNight[];
  /** What has no place; words of the part where it is one. */
  readonly left: readonly { readonly closureId: string; readonly part: string | null }[];
  readonly score: Score;
  readonly bound: Bound | null;
  readonly proven: boolean;
  /** 0 … 1; 1: it is done. */
  readonly share: number;
  readonly troubles: readonly NightsTrouble[];
  /** The nights that are still to come, in order; one that goes on begins now. */
  readonly nights: readonly {
    readonly id: string;
    readonly opens: number;
    readonly closes: number;
    readonly begins: number;
  }[];
  /** Closures of jobs, by their number: what a reason speaks of. */
  readonly closureOfJob: readonly string[];
  /** Crews, by number of the equipped crew. */
  readonly crewOf: readonly string[];
}

/** What is reckoned once the plan stands. */
export interface NightsReasons {
  /** By number of the job. */
  readonly whys: readonly (readonly [job: number, why: Why])[];
  readonly changes: readonly (readonly [closureId: string, changes: readonly Change[]])[];
  /** Nights more by which all of several closures without a place get one; null: that is not known. */
  readonly enough: number | null;
  /** By crew, in a night that goes on: whether to open what comes next. */
  readonly next: readonly (readonly [crewId: string, next: OpenOrStop & { readonly closureId: string }])[];
  readonly helps: readonly (readonly [crewId: string, helps: readonly Help[]])[];
}

/** What a page asks of the worker that plans. */
export interface NightsService {
  /**
   * Plans, and tells each better plan as it is found; null for the reasons where something else was asked meanwhile.
   */
  plan(record: NightsRecord, onAnswer: (answer: NightsAnswer) => void): Promise<NightsReasons | null>;
  /** Stops at the plan that there is. Its reasons are told as usual. */
  enough(): void;
}

/** ms of planning between two looks at what was asked meanwhile. */
const turn = 30;
/** ms between two answers. */
const pause = 150;

const nextTurn = () => {
  const { port1, port2 } = new MessageChannel();
  return new Promise<void>((resolve) => {
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
};

/** @param rest lets what was asked meanwhile come in */
export function nightsService(
  now: () => number = () => performance.now(),
  rest: () => Promise<void> = nextTurn,
): NightsService {
  let asked = 0;
  let stopped = false;
  const lookedAt: LookedAt = new Map();
  return {
    enough() {
      stopped = true;
    },
    async plan(record, onAnswer) {
      asked += 1;
      stopped = false;
      const own = asked;
      const input = nightsInput(record, lookedAt);
      const made = nightsProblem(input);
      const tell = (solved: Solved) => onAnswer(answerOf(record, made, solved, input));
      const work = solveNights(made.problem);
      let step = work.next();
      let [rested, told] = [now(), -Infinity];
      let best: Solved | null = null;
      while (!step.done) {
        best = step.value;
        if (now() - told > pause) {
          tell(best);
          told = now();
        }
        if (now() - rested > turn) {
          await rest();
          rested = now();
          if (own !== asked) return null;
          if (stopped) break;
        }
        step = work.next();
      }
      const solved: Solved = step.done ? step.value : { ...best!, share: 1 };
      tell(solved);
      await rest();
      return own === asked ? reasonsOf(record, made, solved, input) : null;
    },
  };
}

type Input = ReturnType<typeof nightsInput>;

function answerOf(
  { definition }: NightsRecord,
  made: NightsProblem,
  { plan, bound, proven, share }: Solved,
  input: Input,
): NightsAnswer {
  const { problem, nights, crews, parts, troubles } = made;
  return {
    planned: toldPlan(made, plan, input.setup, input.toDo, definition.project.timeZone),
    left: plan.left.map((job) => ({ closureId: problem.jobs[job]!.closureId, part: parts[job]! })),
    score: plan.score,
    bound,
    proven,
    share,
    troubles,
    nights: nights.map(({ id, opens, closes, begins }) => ({
      id,
      opens: Date.parse(opens),
      closes: Date.parse(closes),
      begins,
    })),
    closureOfJob: problem.jobs.map(({ closureId }) => closureId),
    crewOf: problem.crews.map(({ crew }) => crews[crew]!.id),
  };
}

function reasonsOf(
  { definition, now }: NightsRecord,
  made: NightsProblem,
  { plan }: Solved,
  input: Input,
): NightsReasons {
  const { problem, crews } = made;
  const name = (closureId: string) => {
    const closure = definition.closures.find(({ id }) => id === closureId);
    return closure ? siteOf(definition.sites, closure.siteId).name : closureId;
  };
  const tonight = now !== null && made.nights[0] !== undefined && Date.parse(made.nights[0].opens) <= now;
  const places = tonight ? plan.places.filter(({ night, order }) => night === 0 && order.length > 0) : [];
  const crewId = (crew: number) => crews[problem.crews[crew]!.crew]!.id;
  const left = [...new Set(plan.left.map((job) => problem.jobs[job]!.closureId))];
  return {
    whys: plan.places.flatMap(({ order }) => order.map((job) => [job, whyThere(made, plan, job)] as const)),
    changes: left
      .slice(0, mostChanges)
      .map((closureId) => [closureId, leastChanges(input, plan, closureId, name)] as const),
    enough: left.length > 1 ? nightsEnough(input) : null,
    next: places.flatMap(({ crew, order }) => {
      const before = order.filter((job) => problem.jobs[job]!.begun);
      const next = order.find((job) => !problem.jobs[job]!.begun);
      if (next === undefined) return [];
      const said = openOrStop(problem, crew, before, next);
      return [[crewId(crew), { ...said, closureId: problem.jobs[next]!.closureId }] as const];
    }),
    helps: places.map((place) => [crewId(place.crew), helpsFor(input, place, places, name)] as const),
  };
}

/** Of so many closures without a place it is tried what would help; of more, the first few say it. */
const mostChanges = 4;
