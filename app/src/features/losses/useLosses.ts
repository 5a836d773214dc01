import { alongTheRoute, measuredDiameters, prepareState, siteOf, type ProjectDefinition } from '@cordel/core';
import {
  asMeasured,
  choicesOf,
  chosen,
  facets,
  inTime,
  lossRows,
  placeKey,
  placesOf,
  redoList,
  timeline,
  worthMeasuring,
  type Facet,
  type LossFilter,
  type LossRow,
  type RedoList,
  type TimePoint,
} from '@cordel/core/losses';
import { isSealed } from '@cordel/core/seal';
import { useMemo } from 'react';
import { useGear } from '../../data/gear';
import { cablesOf, useLedgers } from '../../data/ledger';
import { useFactsOf } from '../../sync/react';
import { dayOf, type ShownZone } from '../../ui/times';

/** A facet that has something to choose, in words. */
export interface FacetShown {
  readonly facet: Facet;
  readonly title: string;
  readonly choices: readonly { readonly value: string; readonly label: string }[];
}

const titles: Readonly<Record<Facet, string>> = {
  closure: 'Closure',
  tray: 'Tray',
  kind: 'Single or ribbon',
  unit: 'Tube or ribbon',
  position: 'Ribbon position',
  pair: 'Pair of cables',
  machine: 'Machine',
  cleaver: 'Cleaver',
  person: 'Person',
  day: 'Day',
};

/** Days as they are written in a zone. Zones differ by whole quarters of an hour, and a night has many splices in each. */
function daysIn(zone: ShownZone): (madeAt: string | number) => string {
  const known = new Map<number, string>();
  return (madeAt) => {
    const quarter = Math.floor((typeof madeAt === 'number' ? madeAt : Date.parse(madeAt)) / 900_000);
    let day = known.get(quarter);
    if (day === undefined) known.set(quarter, (day = dayOf(madeAt, zone)));
    return day;
  };
}

/** The losses of a project, those that are chosen, and what can be chosen; null until all is there. */
export function useLosses(definition: ProjectDefinition, filter: LossFilter, measured: boolean) {
  const { ledgers, error, retry } = useLedgers(definition);
  const { facts } = useFactsOf(
    definition.project.id,
    definition.closures.map(({ id }) => id),
  );
  // Along the route, each with its book.
  const books = useMemo(() => {
    if (!ledgers || !facts) return null;
    return alongTheRoute(
      definition.sites,
      definition.closures.map((closure, index) => ({
        site: siteOf(definition.sites, closure.siteId),
        closure,
        closureId: closure.id,
        ledger: ledgers.get(closure.id)!,
        facts: facts[index]!,
      })),
    );
  }, [definition, ledgers, facts]);
  const { data: gear } = useGear();
  const zone = definition.project.timeZone;
  const estimated = useMemo(
    () => books && lossRows(books, cablesOf(definition), daysIn(zone)),
    [books, definition, zone],
  );
  const anyMeasured = useMemo(
    () => estimated !== null && estimated.some((row) => row.measured !== null),
    [estimated],
  );
  const rows = useMemo(
    () => (estimated && measured ? asMeasured(estimated) : estimated),
    [estimated, measured],
  );
  const names = useMemo(() => {
    const cables = cablesOf(definition);
    // An address may name what is gone.
    const site = (closureId: string) => {
      const closure = definition.closures.find(({ id }) => id === closureId);
      return closure ? siteOf(definition.sites, closure.siteId).name : 'a closure that is gone';
    };
    const pair = (ids: string) => {
      const [one, two] = ids.split(' ').map((id) => cables.get(id)?.label ?? 'another cable');
      return two === undefined ? `${one} on itself` : `${one} on ${two}`;
    };
    return {
      site,
      closure: site,
      kind: (value: string) => (value === 'single' ? 'Single fibers' : 'Ribbons'),
      tray: (value: string) => `${site(value.split(' ')[0]!)}, tray ${value.split(' ')[1]}`,
      unit: (value: string) => {
        const parts = value.split(' ');
        return `${parts.slice(-2).join(' ')} of ${pair(parts.slice(0, -2).join(' '))}`;
      },
      position: (value: string) => value,
      pair,
      machine: (value: string) => gear?.find(({ id }) => id === value)?.label ?? 'a machine not on the list',
      cleaver: (value: string) => gear?.find(({ id }) => id === value)?.label ?? 'a cleaver not on the list',
      person: (value: string) => value,
      day: (value: string) => value,
    };
  }, [definition, gear]);
  const shown = useMemo((): readonly LossRow[] => (rows ? chosen(rows, filter) : []), [rows, filter]);
  return { definition, books, estimated, rows, anyMeasured, shown, filter, measured, names, error, retry };
}

export type Losses = ReturnType<typeof useLosses>;

/** What can be chosen, with how many fibers each choice would leave. */
export function useChoices({ rows, filter, names }: Losses): readonly FacetShown[] {
  return useMemo(
    () =>
      rows
        ? facets.flatMap((facet) => {
            const all = choicesOf(rows, filter, facet);
            // One alone is no choice.
            if (all.length < 2) return [];
            return [
              {
                facet,
                title: titles[facet],
                choices: [
                  { value: '', label: 'All' },
                  ...all.map(({ value, count }) => ({ value, label: `${names[facet](value)} · ${count}` })),
                ],
              },
            ];
          })
        : [],
    [rows, filter, names],
  );
}

/** Every fiber of the closures that are looked at, in its place. */
export function usePlaces({ books, filter, shown, measured }: Losses) {
  return useMemo(
    () =>
      placesOf(
        (books ?? []).filter(({ closureId }) => filter.closure === undefined || closureId === filter.closure),
        Object.keys(filter).length === 0
          ? null
          : new Set(
              shown.map(({ closureId, spliceId, position }) => placeKey(closureId, spliceId, position)),
            ),
        measured,
      ),
    [books, filter, shown, measured],
  );
}

/** Every try of what is chosen in the order of time, those that were made again too, and where a try lies. */
export function useTime({ definition, books, filter, estimated, names }: Losses) {
  const zone = definition.project.timeZone;
  const told = useMemo(() => timeline(books ?? []), [books]);
  const time = useMemo(() => {
    const { closure, tray, unit, pair, kind, person, machine, cleaver, day, position } = filter;
    const place = Object.fromEntries(
      Object.entries({ closure, tray, unit }).filter(([, value]) => value !== undefined),
    );
    // Where a splice lies is known of what lies there now; the rest of each try itself.
    const there =
      Object.keys(place).length === 0 || !estimated
        ? null
        : new Set(chosen(estimated, place).map((row) => `${row.closureId} ${row.spliceId}`));
    const dayIn = daysIn(zone);
    return inTime(
      told,
      (one) =>
        (there === null || there.has(`${one.closureId} ${one.splice}`)) &&
        (pair === undefined || one.pair === pair) &&
        (kind === undefined || one.kind === kind) &&
        (person === undefined || one.person === person) &&
        (machine === undefined || one.machine === machine) &&
        (cleaver === undefined || one.cleaver === cleaver) &&
        (position === undefined || one.kind === 'ribbon') &&
        (day === undefined || dayIn(one.at) === day),
      position === undefined ? null : Number(position),
    );
  }, [told, filter, estimated, zone]);
  const placeOf = useMemo(() => {
    let slots: Map<string, string> | null = null;
    return ({ closureId, splice }: TimePoint) => {
      slots ??= new Map(
        estimated?.map((row) => [`${row.closureId} ${row.spliceId}`, `, tray ${row.tray}, slot ${row.slot}`]),
      );
      return `${names.site(closureId)}${slots.get(`${closureId} ${splice}`) ?? ''}`;
    };
  }, [estimated, names]);
  return { time, placeOf };
}

export function useWorth({ estimated, filter }: Losses) {
  return useMemo(
    () => (estimated ? worthMeasuring(estimated, chosen(estimated, filter)) : []),
    [estimated, filter],
  );
}

/** What is to be made again, in the order of least reopening. */
export function useTomorrow({ definition, books }: Losses): RedoList {
  return useMemo(() => {
    const cables = cablesOf(definition);
    return redoList(
      (books ?? [])
        .filter(({ ledger }) => ledger.rollUp.marks.redo > 0)
        .map(({ closure, closureId, ledger, facts }) => {
          const diameters = measuredDiameters(closure, prepareState(facts));
          return {
            closureId,
            ledger,
            sealed: isSealed({ closure, cables, plan: ledger.plan, facts, diameters }),
          };
        }),
    );
  }, [definition, books]);
}
