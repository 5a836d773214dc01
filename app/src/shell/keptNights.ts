import type { KeptPlan, ProjectDefinition } from '@cordel/core';
import { weekdayOf } from '../ui/times';

/** A crew's night of the plan that was kept. */
export interface KeptNight {
  /** For a choice and an address. */
  readonly key: string;
  /** "Fri 27 Nov, Noa". */
  readonly label: string;
  readonly nightId: string;
  readonly crewId: string;
  /** In order, each once. */
  readonly closureIds: readonly string[];
  readonly stops: KeptPlan['places'][number]['stops'];
  readonly closes: string;
}

/** The nights of the plan that was kept, as pages that follow it choose among them; none where no plan was. */
export function keptNights({ project }: ProjectDefinition): KeptNight[] {
  const { nights, timeZone } = project;
  return (nights?.kept?.places ?? []).flatMap(({ nightId, crewId, stops }) => {
    const night = nights!.nights.find(({ id }) => id === nightId);
    const crew = nights!.crews.find(({ id }) => id === crewId);
    if (!night || !crew || stops.length === 0) return [];
    return [
      {
        key: `${nightId}.${crewId}`,
        label: `${weekdayOf(night.opens, timeZone)}, ${crew.name}`,
        nightId,
        crewId,
        closureIds: [...new Set(stops.map(({ closureId }) => closureId))],
        stops,
        closes: night.closes,
      },
    ];
  });
}
