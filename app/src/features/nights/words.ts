import type { ProjectDefinition } from '@cordel/core';
import { minutes } from '@cordel/core/prepare';
import type { PlannedNight, Why, WhyNot } from '@cordel/core/schedule';
import type { NightsAnswer } from '../../data/nights/nightsService';
import { clockTime, weekdayOf, type ShownZone } from '../../ui/times';

/** "96 %"; never 100 or 0, which nobody knows. */
export function percent(chance: number): string {
  return `${Math.min(99, Math.max(1, Math.round(chance * 100)))} %`;
}

/** A closure by the name of its site. */
export function closureName({ closures, sites }: ProjectDefinition, closureId: string): string {
  const closure = closures.find(({ id }) => id === closureId);
  return sites.find(({ id }) => id === closure?.siteId)?.name ?? 'a closure that is gone';
}

export function crewName({ project }: ProjectDefinition, crewId: string): string {
  return project.nights?.crews.find(({ id }) => id === crewId)?.name ?? 'a crew that is gone';
}

/** "22:10 to 00:24". */
export function spanOf(
  { begins, ends }: { readonly begins: number; readonly ends: number },
  zone: ShownZone,
): string {
  // The name of the zone, where it is said, once.
  return `${clockTime(begins, zone).slice(0, 5)} to ${clockTime(ends, zone)}`;
}

/** Whole minutes from one time to another, as clocks show them: seconds that no clock shows do not count. */
export const clockMinutes = (from: number, to: number): number =>
  Math.floor(to / 60_000) - Math.floor(from / 60_000);

/** "35 min spare", "24 min after the night ends": by when all of it is done with the chance of the reserve. */
export function spareWords({ ends, closes }: Pick<PlannedNight, 'ends' | 'closes'>): string {
  const spare = clockMinutes(ends, closes) * 60;
  return spare >= 0 ? `${minutes(spare)} spare` : `${minutes(-spare)} over`;
}

/** "Fri 27 Nov". A night is named by the day on which it opens. */
export function nightName({ opens }: { readonly opens: number | string }, zone: ShownZone): string {
  return weekdayOf(opens, zone);
}

/** Why a closure is where it is, a sentence for each night before. */
export function whyWords(
  why: Why,
  answer: NightsAnswer,
  definition: ProjectDefinition,
  chance: number,
): string[] {
  const beforeWords = why.before.map((one) => whyNotWords(one, answer, definition));
  switch (why.kind) {
    case 'pinned':
      return ['Pinned here by somebody: the plan keeps it.'];
    case 'begun':
      return ['Begun tonight: it is sealed and tested before anybody leaves.'];
    case 'only-night':
      return ['Its circuits may only be cut on this night.'];
    case 'first':
      return [`It fits on the first night: ${percent(chance)} that it is done in time.`];
    case 'later':
      return beforeWords;
  }
}

function whyNotWords(
  { night, because }: WhyNot,
  answer: NightsAnswer,
  definition: ProjectDefinition,
): string {
  const zone = definition.project.timeZone;
  const at = answer.nights[night]!;
  const day = nightName(at, zone);
  const crew = (equipped: number) => crewName(definition, answer.crewOf[equipped]!);
  switch (because.kind) {
    case 'machines':
      return `Not on ${day}: nobody who works then has the machine for it.`;
    case 'nobody':
      return `Not on ${day}: nobody works then.`;
    case 'only-night':
      return `Not on ${day}: its circuits may only be cut on another night.`;
    case 'waits':
      return `Not on ${day}: it waits for ${closureName(definition, answer.closureOfJob[because.job]!)}, which is sealed no sooner.`;
    case 'late': {
      const ends = clockTime(at.begins + because.ends * 1000, zone);
      const late = because.backBy ? 'its circuits would be back too late' : 'too late for the night';
      return `Not on ${day}: with ${crew(because.crew)} the night would end at ${ends}, ${late} (${percent(because.chance)} in time).`;
    }
    case 'dearer': {
      const costs = [
        because.overtime > 0 ? `${because.overtime} min more overtime to be expected` : null,
        because.travel > 0 ? `${because.travel} min more on the way` : null,
        because.crews > 0 ? 'one more crew out' : null,
      ].filter(Boolean);
      return costs.length > 0
        ? `On ${day} it would fit with ${crew(because.crew)}, with ${costs.join(' and ')}.`
        : `On ${day} it would fit with ${crew(because.crew)} as well, and nothing would be better.`;
    }
  }
}
