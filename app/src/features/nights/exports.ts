import type { ProjectDefinition } from '@cordel/core';
import type { NightsAnswer } from '../../data/nights/nightsService';
import { csvText } from '../../shell/csv';
import { saveText } from '../../shell/download';
import { dayOf, clockTime } from '../../ui/times';
import { correctedNow } from '../../data/clock';
import { calendarText } from './calendar';
import { closureName, crewName, nightName } from './words';

const fileName = (definition: ProjectDefinition, ending: string) =>
  `${definition.project.name.replace(/[^\p{L}\p{N}]+/gu, '-')}-nights.${ending}`;

/** The plan as a calendar that other programs take in (RFC 5545): a night of a crew is an appointment, a holding test that can be read another. */
export async function saveCalendar(definition: ProjectDefinition, answer: NightsAnswer): Promise<void> {
  const { default: ical } = await import('ical-generator');
  saveText(
    calendarText(ical, definition, answer, correctedNow()),
    fileName(definition, 'ics'),
    'text/calendar',
  );
}

/** The plan as a table: a row for each closure of each crew's night. */
export async function saveTable(definition: ProjectDefinition, answer: NightsAnswer): Promise<void> {
  saveText(await csvText(planRows(definition, answer)), fileName(definition, 'csv'), 'text/csv');
}

export function planRows(definition: ProjectDefinition, { planned, left }: NightsAnswer): string[][] {
  const zone = definition.project.timeZone;
  return [
    [
      'Night',
      'Crew',
      'Order',
      'Closure',
      'Part',
      'Begins',
      'Ends',
      'Ends with the reserve',
      'In time, %',
      'Back by',
      'Holding test from',
      'Pinned',
    ],
    ...planned.flatMap((night) =>
      night.stops.map((stop, index) => [
        dayOf(night.opens, zone),
        crewName(definition, night.crewId),
        String(index + 1),
        closureName(definition, stop.closureId),
        stop.part?.words ?? '',
        clockTime(stop.begins, zone),
        clockTime(stop.ends, zone),
        clockTime(stop.endsAtLatest, zone),
        String(Math.round(stop.chance * 100)),
        stop.backBy === null ? '' : clockTime(stop.backBy, zone),
        stop.holdingFrom === null
          ? ''
          : `${nightName({ opens: stop.holdingFrom }, zone)} ${clockTime(stop.holdingFrom, zone)}`,
        stop.pinned ? 'yes' : '',
      ]),
    ),
    ...left.map(({ closureId, part }) => [
      'no place',
      '',
      '',
      closureName(definition, closureId),
      part ?? '',
      '',
      '',
      '',
      '',
      '',
      '',
      '',
    ]),
  ];
}
