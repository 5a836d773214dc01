import type { NightsProblem } from './problemOf';
import { outcomeOf, type Place, type Plan } from './problem';
import { clockAfter, dayMinute } from './clock';
import type { NightsSetup } from './setup';
import type { ClosureToDo } from './closureToDo';

/** A closure in a crew's night. Times in ms since 1970. */
export interface PlannedStop {
  readonly job: number;
  readonly closureId: string;
  readonly part: { readonly number: number; readonly of: number; readonly words: string } | null;
  readonly begins: number;
  /** Sealed and tested, or covered; expected, and with the chance of the reserve. */
  readonly ends: number;
  readonly endsAtLatest: number;
  /** That it is done in time. */
  readonly chance: number;
  /** Its circuits are back by then; null: by the end of the night. */
  readonly backBy: number | null;
  readonly pinned: boolean;
  readonly begun: boolean;
  /** When its holding test can be read: the first time in the owner's hours; null: it has none, or stays open. */
  readonly holdingFrom: number | null;
}

/** One crew in one night. Times in ms since 1970. */
export interface PlannedNight {
  readonly nightId: string;
  readonly crewId: string;
  readonly place: Place;
  /** When it has to set out to be there as the night opens, or now where it goes on; null: that way does not count, or it is there. */
  readonly leaves: number | null;
  readonly opens: number;
  readonly closes: number;
  readonly stops: readonly PlannedStop[];
  /** Packed up. */
  readonly ends: number;
  readonly endsAtLatest: number;
  /** That everything is done in time. */
  readonly chance: number;
  /** s, expected. */
  readonly overtime: number;
  /** s on the way, there and back. */
  readonly travel: number;
  /** What it carries that night, by name. */
  readonly machines: readonly string[];
}

/** A plan in times. */
export function toldPlan(
  { problem, nights, crews, machines, parts }: NightsProblem,
  { places }: Pick<Plan, 'places'>,
  { holding }: Pick<NightsSetup, 'holding'>,
  toDo: readonly ClosureToDo[],
  zone: string | null | undefined,
): PlannedNight[] {
  const pressure = new Map(toDo.map(({ closure }) => [closure.id, closure.testPressure ?? 0]));
  return places
    .filter(({ order }) => order.length > 0)
    .map((place): PlannedNight => {
      const night = nights[place.night]!;
      const equipped = problem.crews[place.crew]!;
      const outcome = outcomeOf(problem, place);
      const at = (seconds: number) => night.begins + seconds * 1000;
      const first = problem.jobs[place.order[0]!]!;
      const way =
        equipped.start === null || first.begun ? null : problem.travel[equipped.start]![first.site]!;
      return {
        nightId: night.id,
        crewId: crews[equipped.crew]!.id,
        place,
        leaves:
          way === null || way === 0
            ? null
            : night.begins - (problem.underWay && place.night === 0 ? 0 : way * 1000),
        opens: Date.parse(night.opens),
        closes: Date.parse(night.closes),
        stops: inOneGo(
          outcome.timed.map(({ job, begins, ends, endsAtLatest, chance }): PlannedStop => {
            const { closureId, part, pin, begun, backBy } = problem.jobs[job]!;
            const due = backBy[place.night] ?? null;
            const sealed = part === null || part.number === part.of;
            return {
              job,
              closureId,
              part: part && { ...part, words: parts[job]! },
              begins: at(begins),
              ends: at(ends),
              endsAtLatest: at(endsAtLatest),
              chance,
              backBy: due === null ? null : at(due),
              pinned: pin !== null && !begun,
              begun,
              holdingFrom:
                holding && sealed && pressure.get(closureId)! > 0
                  ? readFrom(at(ends) + holding.wait * 1000, holding.hours, zone)
                  : null,
            };
          }),
        ),
        ends: at(outcome.ends),
        endsAtLatest: at(outcome.endsAtLatest),
        chance: outcome.chance,
        overtime: outcome.overtime,
        travel: outcome.travel,
        machines: machines[place.crew]!.map(({ name }) => name),
      };
    });
}

/** Parts of a closure that follow each other at once are one stop. */
function inOneGo(stops: readonly PlannedStop[]): PlannedStop[] {
  const joined: PlannedStop[] = [];
  for (const stop of stops) {
    const before = joined.at(-1);
    if (
      !before?.part ||
      !stop.part ||
      before.closureId !== stop.closureId ||
      stop.part.number !== before.part.number + 1
    ) {
      joined.push(stop);
      continue;
    }
    const whole = stop.part.number === stop.part.of && isFirst(before, stops);
    const words = `${before.part.words.replace(/, cover$/, '')}, ${stop.part.words}`;
    joined[joined.length - 1] = {
      ...stop,
      job: before.job,
      begins: before.begins,
      chance: Math.min(before.chance, stop.chance),
      part: whole ? null : { ...stop.part, words },
    };
  }
  return joined;
}

/** Whether a stop, joined or not, begins with the first part of its closure. */
function isFirst({ job }: PlannedStop, stops: readonly PlannedStop[]): boolean {
  return stops.find((stop) => stop.job === job)?.part?.number === 1;
}

/** The first time from this one on within hours of the day; hours that go over midnight are meant so. */
function readFrom(
  time: number,
  hours: { readonly from: number; readonly to: number } | null,
  zone: string | null | undefined,
): number {
  if (!hours || hours.from === hours.to) return time;
  const minute = dayMinute(time, zone);
  const within =
    hours.from < hours.to
      ? minute >= hours.from && minute < hours.to
      : minute >= hours.from || minute < hours.to;
  return within ? time : clockAfter(time, hours.from, zone);
}
