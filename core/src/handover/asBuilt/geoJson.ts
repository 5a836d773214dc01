import type { AsBuilt } from './schema';

/** The parts of GeoJSON (RFC 7946) that are written here. Positions are longitude, then latitude, WGS 84. */
export interface FeatureCollection {
  readonly type: 'FeatureCollection';
  readonly features: readonly {
    readonly type: 'Feature';
    readonly id: string;
    readonly geometry:
      | { readonly type: 'Point'; readonly coordinates: readonly number[] }
      | { readonly type: 'LineString'; readonly coordinates: readonly (readonly number[])[] };
    readonly properties: Readonly<Record<string, unknown>>;
  }[];
}

/**
 * Sites, route and cables where their positions are known: a point for each site, a line for the route, for each of its branches and for each cable, of which at least two sites are
 * known. Empty where none is.
 */
export function geoJson({ project, sites, cables, closures }: AsBuilt): FeatureCollection {
  const closureAt = new Map(closures.map((one) => [one.siteId, one]));
  const place = new Map(
    sites.flatMap(({ id, position }) =>
      position ? [[id, [position.longitude, position.latitude]] as const] : [],
    ),
  );
  return {
    type: 'FeatureCollection',
    features: [
      ...sites.flatMap(({ id, name, kind, chainage, placement }) => {
        const coordinates = place.get(id);
        if (!coordinates) return [];
        const closure = closureAt.get(id);
        return [
          {
            type: 'Feature' as const,
            id,
            geometry: { type: 'Point' as const, coordinates },
            properties: {
              name,
              kind,
              chainage,
              placement,
              ...(closure
                ? { splices: closure.sums.splices, open: closure.sums.open, sealed: closure.seal.sealed }
                : {}),
            },
          },
        ];
      }),
      ...routes(sites).flatMap(({ from, siteIds }) =>
        line(
          from === null ? `${project.id}-route` : `${from}-branch`,
          { name: from === null ? 'Route' : 'Branch', kind: from === null ? 'route' : 'branch' },
          siteIds,
          place,
        ),
      ),
      ...cables.flatMap(({ id, label, fibers, siteIds }) =>
        line(id, { name: label, kind: 'cable', fibers }, siteIds, place),
      ),
    ],
  };
}

type Feature = FeatureCollection['features'][number];

/** A line through those of the sites whose positions are known; straight where it passes others, which are counted. */
function line(
  id: string,
  properties: Readonly<Record<string, unknown>>,
  siteIds: readonly string[],
  place: ReadonlyMap<string, readonly number[]>,
): Feature[] {
  const coordinates = siteIds.flatMap((siteId) => {
    const at = place.get(siteId);
    return at ? [at] : [];
  });
  if (coordinates.length < 2) return [];
  return [
    {
      type: 'Feature',
      id,
      geometry: { type: 'LineString', coordinates },
      properties: { ...properties, unknownSites: siteIds.length - coordinates.length },
    },
  ];
}

/** The route from its begin to its end, then each branch from the site where it leaves. */
function routes(sites: AsBuilt['sites']): { readonly from: string | null; readonly siteIds: string[] }[] {
  const byBegin = new Map<string | null, AsBuilt['sites'][number][]>([[null, []]]);
  for (const site of sites) {
    const own = byBegin.get(site.branchFrom);
    if (own) own.push(site);
    else byBegin.set(site.branchFrom, [site]);
  }
  return [...byBegin].map(([from, own]) => ({
    from,
    siteIds: [
      ...(from === null ? [] : [from]),
      ...own.sort((a, b) => a.chainage - b.chainage).map(({ id }) => id),
    ],
  }));
}
