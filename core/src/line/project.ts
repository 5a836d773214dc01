import { z } from 'zod';
import { idSchema, nameSchema, timeSchema, versionSchema } from '../schemas';
import { limitsSchema } from '../limits/limits';
import { nightsSetupSchema } from '../schedule/setup';
import { timeZoneSchema } from './timeZone';

export const unitsSchema = z.enum(['mm', 'in']);
export type Units = z.infer<typeof unitsSchema>;

/** What a person may edit about a project as a whole. */
export const projectSettingsSchema = z.strictObject({
  name: nameSchema,
  /** Units shown; everything is stored in SI. */
  units: unitsSchema,
  limits: limitsSchema,
  /** The time in which the work is allowed, in UTC, where there is one. */
  window: z
    .strictObject({ opens: timeSchema, closes: timeSchema })
    .refine(({ opens, closes }) => Date.parse(opens) < Date.parse(closes), {
      path: ['closes'],
      message: 'The window closes before it opens. Mend one of the two.',
    })
    .nullable(),
  /** In which times of the project are shown. null or missing, as in what Cordel 0.1 wrote: each device's own. */
  timeZone: timeZoneSchema.nullable().optional(),
  /** What its nights are planned from. Missing: nobody planned any. */
  nights: nightsSetupSchema.optional(),
});
export type ProjectSettings = z.infer<typeof projectSettingsSchema>;

export const projectSchema = projectSettingsSchema.extend({
  id: idSchema,
  version: versionSchema,
  /** Of its sites and cables, which are edited on their own. Files of Cordel 0.1 have none. */
  lineVersion: versionSchema.default(1),
});
export type Project = z.infer<typeof projectSchema>;

export const siteKindSchema = z.enum(['hub', 'closure', 'cabinet', 'terminal']);
export const placementSchema = z.enum(['manhole', 'handhole', 'aerial', 'pole', 'indoors']);

/** Where a site is, WGS 84, degrees. */
export const positionSchema = z.strictObject({
  latitude: z.number('Give the latitude in degrees.').min(-90, 'At least −90°.').max(90, 'At most 90°.'),
  longitude: z
    .number('Give the longitude in degrees.')
    .min(-180, 'At least −180°.')
    .max(180, 'At most 180°.'),
});
export type Position = z.infer<typeof positionSchema>;

export const siteSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: siteKindSchema,
  /** Meters along the route, or along the branch from where it leaves. */
  chainage: z.number().min(0, 'Distance along the route starts at 0.').max(1_000_000),
  placement: placementSchema.nullable(),
  /** The site at which a branch leaves the route, for a site that lies on the branch. */
  branchFrom: idSchema.optional(),
  position: positionSchema.optional(),
});
export type Site = z.infer<typeof siteSchema>;

/** The site of this id. Throws when there is none: a sound project has it. */
export function siteOf(sites: readonly Site[], id: string): Site {
  const site = sites.find((candidate) => candidate.id === id);
  if (!site) throw new Error(`Unknown site ${id}`);
  return site;
}

/** The sites of the route itself, by their distance. */
export function routeSites(sites: readonly Site[]): Site[] {
  return sites.filter((site) => site.branchFrom === undefined).sort(byChainage);
}

/** The sites of the branch that leaves at a site, by their distance along it. */
export function branchSites(sites: readonly Site[], from: string): Site[] {
  return sites.filter((site) => site.branchFrom === from).sort(byChainage);
}

/** All sites in the order in which the cord passes them: a branch's right after the site at which it leaves. */
export function cordOrder(sites: readonly Site[]): Site[] {
  return routeSites(sites).flatMap((site) => [site, ...branchSites(sites, site.id)]);
}

/** Puts what stands at sites in the order in which the cord passes them. */
export function alongTheRoute<T extends { readonly site: Site }>(
  sites: readonly Site[],
  list: readonly T[],
): T[] {
  const place = new Map(cordOrder(sites).map((site, index) => [site.id, index]));
  const at = ({ site }: T) => place.get(site.id) ?? sites.length;
  return [...list].sort((a, b) => at(a) - at(b));
}

/**
 * Meters of route between two sites: along the line that they share, and from a branch both legs, down to where it leaves and on from there. NaN when they are on no
 * route together.
 */
export function routeMeters(sites: readonly Site[], from: Site, to: Site): number {
  const byId = new Map(sites.map((site) => [site.id, site]));
  // From each line that a site hangs on: how far it is to it, and where it comes in.
  const linesOf = (start: Site) => {
    const lines = new Map<string | undefined, { readonly meters: number; readonly at: number }>();
    let meters = 0;
    for (let site: Site | undefined = start; site && !lines.has(site.branchFrom);) {
      lines.set(site.branchFrom, { meters, at: site.chainage });
      meters += site.chainage;
      site = site.branchFrom === undefined ? undefined : byId.get(site.branchFrom);
    }
    return lines;
  };
  const others = linesOf(to);
  for (const [line, own] of linesOf(from)) {
    const other = others.get(line);
    if (other) return own.meters + Math.abs(other.at - own.at) + other.meters;
  }
  return NaN;
}

/** Cables in the order in which the cord meets their beginnings; those that run on the farthest first. */
export function cablesAlong<C extends { readonly label: string; readonly siteIds: readonly string[] }>(
  sites: readonly Site[],
  cables: readonly C[],
): C[] {
  const place = new Map(cordOrder(sites).map((site, index) => [site.id, index]));
  const at = (id: string | undefined) => place.get(id ?? '') ?? sites.length;
  return [...cables].sort(
    (a, b) =>
      at(a.siteIds[0]) - at(b.siteIds[0]) ||
      at(b.siteIds.at(-1)) - at(a.siteIds.at(-1)) ||
      (a.label < b.label ? -1 : 1),
  );
}

function byChainage(a: Site, b: Site): number {
  return a.chainage - b.chainage;
}
