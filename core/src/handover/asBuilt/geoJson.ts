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

/** Sites and cables where their positions are known: a point for each site, a line for each cable of which at least two sites are known. Empty where none is. */
export function geoJson({ sites, cables, closures }: AsBuilt): FeatureCollection {
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
      ...cables.flatMap(({ id, label, fibers, siteIds }) => {
        const coordinates = siteIds.flatMap((siteId) => {
          const at = place.get(siteId);
          return at ? [at] : [];
        });
        return coordinates.length < 2
          ? []
          : [
              {
                type: 'Feature' as const,
                id,
                geometry: { type: 'LineString' as const, coordinates },
                properties: {
                  name: label,
                  fibers,
                  /** Sites that it passes and whose positions are not known: the line is straight there. */
                  unknownSites: siteIds.length - coordinates.length,
                },
              },
            ];
      }),
    ],
  };
}
