import { spliceIdOf, type Attempt, type Fact } from '../../facts';
import { quantileSorted } from '../../statistics/quantile';

/** How fast a closure is spliced. */
export interface MeasuredPace {
  /** Seconds a splice by one pair of hands, redos included; null while there are too few. Of several people at once: such that as many of this pace do what they do together. */
  readonly single: number | null;
  readonly ribbon: number | null;
  /** Who splices now, each with the splice of their last try. */
  readonly atWork: readonly { readonly spliceId: string }[];
}

export const nothingMeasured: MeasuredPace = { single: null, ribbon: null, atWork: [] };

/** A longer pause was not splicing, seconds. */
const pause = 20 * 60;
/** Fewer intervals say nothing about a pace. */
const fewest = 8;

/**
 * The pace of a closure so far: the median time from one attempt to the next of the same person, times the tries that a splice took. Pauses are left out. While
 * people are at work it is theirs, else that of all who were.
 * @param now UTC
 */
export function measuredPace(facts: Iterable<Fact>, now: string): MeasuredPace {
  const attempts: Attempt[] = [];
  const withdrawn = new Set<string>();
  for (const fact of facts) {
    if (fact.kind === 'attempt') attempts.push(fact);
    else if (fact.kind === 'correction' && fact.body.result === null) withdrawn.add(fact.body.attemptId);
  }
  const byPerson = new Map<string, Attempt[]>();
  for (const attempt of attempts) {
    if (withdrawn.has(attempt.id)) continue;
    // Who gave no name is known by the device.
    const who = attempt.by ?? attempt.device ?? '';
    const own = byPerson.get(who);
    if (own) own.push(attempt);
    else byPerson.set(who, [attempt]);
  }
  const people = [...byPerson.values()].map((own) =>
    own.sort((a, b) => (a.madeAt < b.madeAt ? -1 : a.madeAt > b.madeAt ? 1 : 0)),
  );
  const since = Date.parse(now) - pause * 1000;
  const atWork = people.filter((own) => Date.parse(own.at(-1)!.madeAt) > since);
  const whose = atWork.length > 0 ? atWork : people;
  return {
    single: paceOf(whose, people, false),
    ribbon: paceOf(whose, people, true),
    atWork: atWork.map((own) => ({ spliceId: spliceIdOf(own.at(-1)!) })),
  };
}

type Times = readonly Attempt[];

/** Of these people together; who did too little of it is taken to be as fast as everybody was. */
function paceOf(whose: readonly Times[], all: readonly Times[], ribbons: boolean): number | null {
  const ofKind = (times: Times) => times.filter((attempt) => attempt.body.readings.length > 1 === ribbons);
  const everybody = secondsOf(all.map(ofKind));
  if (everybody === null) return null;
  const rate = whose.reduce((sum, own) => sum + 1 / (secondsOf([ofKind(own)]) ?? everybody), 0);
  return whose.length / rate;
}

/** Seconds a splice; null while there are too few. @param people the tries of each in their order */
function secondsOf(people: readonly Times[]): number | null {
  const intervals = people.flatMap((own) =>
    own.flatMap((attempt, index) => {
      if (index === 0) return [];
      const interval = (Date.parse(attempt.madeAt) - Date.parse(own[index - 1]!.madeAt)) / 1000;
      return interval > 0 && interval <= pause ? [interval] : [];
    }),
  );
  if (intervals.length < fewest) return null;
  const tries = people.flat();
  return (
    quantileSorted(
      intervals.sort((a, b) => a - b),
      0.5,
    )! *
    (tries.length / new Set(tries.map(spliceIdOf)).size)
  );
}

/**
 * How much the time from one try to the next varies, as standard deviation over mean, over everybody; null while there are too few. Pauses are left out.
 */
export function measuredVariation(facts: Iterable<Fact>): number | null {
  const byPerson = new Map<string, number[]>();
  for (const fact of facts) {
    if (fact.kind !== 'attempt') continue;
    const who = `${fact.by ?? fact.device ?? ''} ${fact.body.readings.length > 1}`;
    const own = byPerson.get(who);
    if (own) own.push(Date.parse(fact.madeAt));
    else byPerson.set(who, [Date.parse(fact.madeAt)]);
  }
  let [count, squares] = [0, 0];
  for (const times of byPerson.values()) {
    const intervals = times
      .sort((a, b) => a - b)
      .flatMap((time, index) => (index === 0 ? [] : [(time - times[index - 1]!) / 1000]))
      .filter((interval) => interval > 0 && interval <= pause);
    if (intervals.length < fewest) continue;
    const mean = intervals.reduce((sum, one) => sum + one, 0) / intervals.length;
    // Each against the mean of its own, so that people of different pace do not count as variation.
    for (const interval of intervals) squares += (interval / mean - 1) ** 2;
    count += intervals.length - 1;
  }
  return count === 0 ? null : Math.sqrt(squares / count);
}
