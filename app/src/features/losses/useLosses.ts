import { alongTheRoute, measuredDiameters, prepareState, siteOf, type ProjectDefinition } from '@cordel/core';
import {
  choicesOf,
  chosen,
  facets,
  lossRows,
  redoList,
  type Facet,
  type LossFilter,
  type LossRow,
} from '@cordel/core/losses';
import { isSealed } from '@cordel/core/seal';
import { useMemo } from 'react';
import { useGear } from '../../data/gear';
import { cablesOf, useLedgers } from '../../data/ledger';
import { useFactsOf } from '../../sync/react';
import { dayOf } from '../../ui/times';

/** A facet that has something to choose, in words. */
export interface FacetShown {
  readonly facet: Facet;
  readonly title: string;
  readonly choices: readonly { readonly value: string; readonly label: string }[];
}

const titles: Readonly<Record<Facet, string>> = {
  closure: 'Closure',
  tray: 'Tray',
  unit: 'Tube or ribbon',
  position: 'Ribbon position',
  pair: 'Pair of cables',
  machine: 'Machine',
  person: 'Person',
  day: 'Day',
};

/** The losses of a project, those that are chosen, and what can be chosen; null until all is there. */
export function useLosses(definition: ProjectDefinition, filter: LossFilter) {
  const { ledgers, error, retry } = useLedgers(definition);
  const { facts } = useFactsOf(
    definition.project.id,
    definition.closures.map(({ id }) => id),
  );
  // Along the route, each with its book and whether it is sealed.
  const books = useMemo(() => {
    if (!ledgers || !facts) return null;
    const cables = cablesOf(definition);
    return alongTheRoute(
      definition.sites,
      definition.closures.map((closure, index) => {
        const ledger = ledgers.get(closure.id)!;
        const own = facts[index]!;
        const diameters = measuredDiameters(closure, prepareState(own));
        const sealed = isSealed({ closure, cables, plan: ledger.plan, facts: own, diameters });
        return { site: siteOf(definition.sites, closure.siteId), closureId: closure.id, ledger, sealed };
      }),
    );
  }, [definition, ledgers, facts]);
  const { data: gear } = useGear();
  const zone = definition.project.timeZone;
  const rows = useMemo(
    () => books && lossRows(books, cablesOf(definition), (madeAt) => dayOf(madeAt, zone)),
    [books, definition, zone],
  );
  const tomorrow = useMemo(() => books && redoList(books), [books]);
  const names = useMemo(() => {
    const cables = cablesOf(definition);
    const site = (closureId: string) => {
      const closure = definition.closures.find(({ id }) => id === closureId)!;
      return siteOf(definition.sites, closure.siteId).name;
    };
    const pair = (ids: string) => {
      const [one, two] = ids.split(' ').map((id) => cables.get(id)?.label ?? 'another cable');
      return two === undefined ? `${one} on itself` : `${one} on ${two}`;
    };
    return {
      site,
      closure: site,
      tray: (value: string) => `${site(value.split(' ')[0]!)}, tray ${value.split(' ')[1]}`,
      unit: (value: string) => {
        const parts = value.split(' ');
        return `${parts.slice(-2).join(' ')} of ${pair(parts.slice(0, -2).join(' '))}`;
      },
      position: (value: string) => value,
      pair,
      machine: (value: string) => gear?.find(({ id }) => id === value)?.label ?? 'a machine not on the list',
      person: (value: string) => value,
      day: (value: string) => value,
    };
  }, [definition, gear]);
  const shown = useMemo((): readonly LossRow[] => (rows ? chosen(rows, filter) : []), [rows, filter]);
  const choices = useMemo(
    (): readonly FacetShown[] =>
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
  return { rows, shown, choices, tomorrow, names, error, retry };
}

export type Losses = ReturnType<typeof useLosses>;
