import type { ProjectDefinition } from '@cordel/core';
import { minutes } from '@cordel/core/prepare';
import type { NightsAnswer } from '../../data/nights/nightsService';
import { clockTime } from '../../ui/times';
import type icalGenerator from 'ical-generator';
import { v7 } from 'uuid';
import { closureName, crewName, percent } from './words';

/**
 * The plan as iCalendar (RFC 5545). Times are written in UTC: whoever reads them shows their own.
 * @param ical the library, which is fetched when a calendar is first asked for
 * @param now ms since 1970
 */
export function calendarText(
  ical: typeof icalGenerator,
  definition: ProjectDefinition,
  { planned }: NightsAnswer,
  now: number,
): string {
  // The library makes an identifier before it takes ours; a page that did not come over https has no such function.
  if (typeof crypto.randomUUID !== 'function')
    Object.defineProperty(crypto, 'randomUUID', { value: () => v7() });
  const { project } = definition;
  const zone = project.timeZone;
  const calendar = ical({
    name: `Nights of ${project.name}`,
    prodId: { company: 'Cordel', product: 'Cordel', language: 'EN' },
  });
  for (const night of planned) {
    const crew = project.nights?.crews.find(({ id }) => id === night.crewId);
    const names = night.stops.map(({ closureId }) => closureName(definition, closureId));
    calendar.createEvent({
      id: `${night.nightId}.${night.crewId}@cordel`,
      stamp: new Date(now),
      start: new Date(night.leaves ?? night.stops[0]!.begins),
      end: new Date(night.ends),
      summary: `${crewName(definition, night.crewId)}: ${[...new Set(names)].join(', ')}`,
      location: [...new Set(names)].join(', '),
      description: [
        ...night.stops.map(
          (stop) =>
            `${clockTime(stop.begins, zone)} to ${clockTime(stop.ends, zone)} ${closureName(definition, stop.closureId)}${stop.part ? ` (${stop.part.words})` : ''}${stop.backBy === null ? '' : `, circuits back by ${clockTime(stop.backBy, zone)}`}`,
        ),
        `The night closes at ${clockTime(night.closes, zone)}; ${percent(night.chance)} in time; ${minutes(night.travel)} on the way.`,
        crew?.contacts ?? '',
      ]
        .filter(Boolean)
        .join('\n'),
    });
    for (const stop of night.stops)
      if (stop.holdingFrom !== null)
        calendar.createEvent({
          id: `${stop.closureId}.holding@cordel`,
          stamp: new Date(now),
          start: new Date(stop.holdingFrom),
          end: new Date(stop.holdingFrom + 30 * 60_000),
          summary: `Read the holding test of ${closureName(definition, stop.closureId)}`,
          location: closureName(definition, stop.closureId),
        });
  }
  return calendar.toString();
}
