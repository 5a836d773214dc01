import type { Cable } from '../line/cable';
import { fiberCount } from '../line/fiberNumber';
import { alongTheRoute, siteOf } from '../line/project';
import { entryKey } from '../plan/closure';
import { planClosure } from '../plan/trays/closurePlan';
import type { ProjectDefinition } from './projectFile';

/** How labels lie on a sheet, mm. Sizes that are sold everywhere; more are data as well. */
export interface LabelSize {
  readonly id: string;
  readonly name: string;
  readonly page: 'A4' | 'LETTER' | 'roll';
  readonly columns: number;
  readonly rows: number;
  readonly width: number;
  readonly height: number;
  /** From the sheet's edge to the first label, and from one to the next. */
  readonly left: number;
  readonly top: number;
  readonly stepX: number;
  readonly stepY: number;
}

export const labelSizes: readonly LabelSize[] = [
  {
    id: 'a4-24',
    name: 'A4, 24 of 70 × 37 mm',
    page: 'A4',
    columns: 3,
    rows: 8,
    width: 70,
    height: 37,
    left: 0,
    top: 0.5,
    stepX: 70,
    stepY: 37,
  },
  {
    id: 'a4-40',
    name: 'A4, 40 of 52.5 × 29.7 mm',
    page: 'A4',
    columns: 4,
    rows: 10,
    width: 52.5,
    height: 29.7,
    left: 0,
    top: 0,
    stepX: 52.5,
    stepY: 29.7,
  },
  {
    id: 'letter-30',
    name: 'Letter, 30 of 2-5/8 × 1 in',
    page: 'LETTER',
    columns: 3,
    rows: 10,
    width: 66.675,
    height: 25.4,
    left: 4.7625,
    top: 12.7,
    stepX: 69.85,
    stepY: 25.4,
  },
  {
    id: 'roll-50',
    name: 'Roll, 50 × 25 mm, one a page',
    page: 'roll',
    columns: 1,
    rows: 1,
    width: 50,
    height: 25,
    left: 0,
    top: 0,
    stepX: 50,
    stepY: 25,
  },
];

export type LabelKind = 'closure' | 'tray' | 'cable';

/** What stands on a label. */
export interface Label {
  readonly kind: LabelKind;
  readonly site: string;
  /** Large. */
  readonly title: string;
  /** Below it, a line each. */
  readonly lines: readonly string[];
  /** Of the page that its code opens, from the server's address on. */
  readonly path: string;
}

/** Labels of closures, with their trays and their cables, in the order of the cord. */
export function labelsFor(definition: ProjectDefinition, closureId?: string): Label[] {
  const { project, sites, closures } = definition;
  const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
  const chosen = alongTheRoute(
    sites,
    closures
      .filter(({ id }) => closureId === undefined || id === closureId)
      .map((closure) => ({ closure, site: siteOf(sites, closure.siteId) })),
  );
  return chosen.flatMap(({ closure, site }): Label[] => {
    const path = `/p/${project.id}/c/${closure.id}`;
    const entering = closure.entries.flatMap((entry, index) => {
      const cable = cables.get(entry.cableId);
      return cable ? [{ key: entryKey(entry, index), cable }] : [];
    });
    const trays = planClosure(closure, cables).trays.filter(({ splices }) => splices.length > 0);
    return [
      {
        kind: 'closure',
        site: site.name,
        title: site.name,
        lines: [project.name, entering.map(({ key, cable }) => `${key} ${cable.label}`).join(', ')],
        path,
      },
      ...trays.map(({ tray, splices, fibers }): Label => ({
        kind: 'tray',
        site: site.name,
        title: `Tray ${tray}`,
        lines: [
          `${site.name} · ${fibers} ${fibers === 1 ? 'fiber' : 'fibers'}`,
          ...runsOn(
            splices.flatMap(({ left }) => left),
            cables,
          ),
        ],
        path: `${path}/t/${tray}`,
      })),
      ...entering.map(({ key, cable }): Label => ({
        kind: 'cable',
        site: site.name,
        title: `${key} · ${cable.label}`,
        lines: [
          `${site.name} · ${fiberCount(cable.construction)} fibers`,
          towardText(definition, closure.siteId, cable),
        ],
        path: `/p/${project.id}/cable/${cable.id}`,
      })),
    ];
  });
}

/** "96 Moinho 1–24": the fibers of the left side, cable by cable. */
function runsOn(
  ends: readonly { readonly cableId: string; readonly fiber: number }[],
  cables: ReadonlyMap<string, Cable>,
): string[] {
  const byCable = new Map<string, number[]>();
  for (const { cableId, fiber } of ends) byCable.set(cableId, [...(byCable.get(cableId) ?? []), fiber]);
  return [...byCable].map(([cableId, fibers]) => {
    const sorted = [...new Set(fibers)].sort((a, b) => a - b);
    const runs: [number, number][] = [];
    for (const fiber of sorted) {
      const last = runs.at(-1);
      if (last && fiber === last[1] + 1) last[1] = fiber;
      else runs.push([fiber, fiber]);
    }
    const text = runs.map(([from, to]) => (from === to ? String(from) : `${from}–${to}`)).join(', ');
    return `${cables.get(cableId)?.label ?? ''} ${text}`.trim();
  });
}

/** Where a cable leads from here: "from Moinho, to U2". */
function towardText({ sites }: ProjectDefinition, siteId: string, { siteIds }: Cable): string {
  const at = siteIds.indexOf(siteId);
  const name = (id: string | undefined) => (id === undefined ? null : siteOf(sites, id).name);
  const [before, after] = [name(siteIds[at - 1]), name(siteIds[at + 1])];
  return [before ? `from ${before}` : null, after ? `to ${after}` : null].filter(Boolean).join(', ');
}
