import type { Machine } from '../gear/gear';
import type { ProjectDefinition } from '../handover/projectFile';
import { cordOrder, routeMeters, type Site } from '../line/project';
import { heatingOf, type Heating, type Pace } from '../prepare/time/estimate';
import { Chances, crewSpread, noWork, type Work } from './chance';
import { clockAfter } from './clock';
import type { EquippedCrew, Job, Problem } from './problem';
import { ruleOf, type CarriedMachine, type Crew, type Night, type NightsSetup } from './setup';
import type { ClosureToDo } from './closureToDo';
import { chunksOf, crewWork, partsOf, partWords, type CrewTools } from './work';

/** What the plan of nights is made from. */
export interface NightsInput {
  readonly definition: ProjectDefinition;
  readonly setup: NightsSetup;
  /** Closures, in any order; those with nothing left to do are passed over. */
  readonly toDo: readonly ClosureToDo[];
  readonly pace: Pace;
  readonly machineOf: (gearId: string) => Machine | undefined;
  /** ms since 1970: nights that are over are not planned, one that goes on begins now. null: all of them, from their beginning. */
  readonly now: number | null;
  /** Closures that were worked at tonight, and who is there now, as they are named on the record. */
  readonly begun: ReadonlyMap<string, readonly string[]>;
}

/** Why something is not as somebody set it. */
export interface NightsTrouble {
  readonly code: 'night-over' | 'no-such' | 'round' | 'crew-off' | 'overlap' | 'unplaced' | 'no-way';
  /** What it is about. */
  readonly closureId: string | null;
  readonly nightId: string | null;
  readonly crewId: string | null;
  readonly words: string;
}

/** The problem, with what its numbers stand for. */
export interface NightsProblem {
  readonly problem: Problem;
  /** By number in the problem; a night that goes on begins now. */
  readonly nights: readonly (Night & { readonly begins: number })[];
  /** By number of the crew. */
  readonly crews: readonly Crew[];
  /** As the equipped crews of the problem carry them. */
  readonly machines: readonly (readonly CarriedMachine[])[];
  /** By job: what of the closure it is, in words; null: all that is left. */
  readonly parts: readonly (string | null)[];
  readonly sites: readonly Site[];
  readonly troubles: readonly NightsTrouble[];
}

/**
 * The problem that a project's nights are. Throws nothing on settings that do not go together: they are told, and the problem is made of what does.
 */
export function nightsProblem(input: NightsInput): NightsProblem {
  const { definition, setup, toDo, pace, now, begun } = input;
  const { project } = definition;
  const troubles: NightsTrouble[] = [];
  const sites = cordOrder(definition.sites);
  const siteAt = new Map(sites.map((site, index) => [site.id, index]));
  const closures = new Map(definition.closures.map((closure) => [closure.id, closure]));
  const nameOf = (closureId: string) => {
    const closure = closures.get(closureId);
    return sites.find(({ id }) => id === closure?.siteId)?.name ?? 'a closure that is gone';
  };
  const tell = (trouble: Partial<NightsTrouble> & Pick<NightsTrouble, 'code' | 'words'>) =>
    troubles.push({ closureId: null, nightId: null, crewId: null, ...trouble });

  const nights = [...setup.nights]
    .filter(({ closes }) => now === null || Date.parse(closes) > now)
    .sort((a, b) => Date.parse(a.opens) - Date.parse(b.opens) || (a.id < b.id ? -1 : 1))
    .map((night) => ({ ...night, begins: Math.max(Date.parse(night.opens), now ?? -Infinity) }));
  for (const [index, night] of nights.entries())
    if (index > 0 && Date.parse(night.opens) < Date.parse(nights[index - 1]!.closes))
      tell({
        code: 'overlap',
        nightId: night.id,
        words: 'Two nights overlap: a crew could be in both. Mend one of them, or plan them as one.',
      });
  const nightAt = new Map(nights.map(({ id }, index) => [id, index]));

  const { crews, machines } = equippedCrews(input, nights, siteAt);
  const tools = machines.map((own, index) => toolsOf(input, setup.crews[crews[index]!.crew]!, own));

  const shortest = Math.min(
    ...setup.nights.map(({ opens, closes }) => (Date.parse(closes) - Date.parse(opens)) / 1000),
  );
  const jobs: Job[] = [];
  const parts: (string | null)[] = [];
  const lastOf = new Map<string, number>();
  const firstOf = new Map<string, number>();
  const order = new Map(sites.map(({ id }, index) => [id, index]));
  const sorted = [...toDo].sort(
    (a, b) =>
      (order.get(a.closure.siteId) ?? 0) - (order.get(b.closure.siteId) ?? 0) ||
      (a.closure.id < b.closure.id ? -1 : 1),
  );
  for (const one of sorted) {
    const closureId = one.closure.id;
    const rule = ruleOf(setup, closureId);
    if (rule.leftOut || !hasWork(one, pace)) continue;
    if (one.plan.unplaced.length > 0)
      tell({
        code: 'unplaced',
        closureId,
        words: `${nameOf(closureId)}: ${one.plan.unplaced.length} splices have no slot yet. Their time is counted; mend the plan before the night.`,
      });
    const pin = setup.pins.find((candidate) => candidate.closureId === closureId) ?? null;
    const people = begun.get(closureId);
    const tonight = now !== null && nights[0] !== undefined && Date.parse(nights[0].opens) <= now;
    const goesOn = people !== undefined && tonight && !rule.mayStayOpen;
    const whose = people
      ? setup.crews.findIndex((crew) => crew.people.some((person) => people.includes(person)))
      : -1;
    const pinned = goesOn
      ? { night: 0, crew: whose < 0 ? null : whose }
      : pin && nightAt.has(pin.nightId)
        ? { night: nightAt.get(pin.nightId)!, crew: crewIndex(setup, pin.crewId) }
        : null;
    if (pin && !setup.nights.some(({ id }) => id === pin.nightId))
      tell({
        code: 'no-such',
        closureId,
        words: `${nameOf(closureId)} is pinned to a night that is not in the list any more. Pin it anew.`,
      });
    if (pin?.crewId && crewIndex(setup, pin.crewId) === null)
      tell({
        code: 'no-such',
        closureId,
        words: `${nameOf(closureId)} is pinned to a crew that is not in the list any more. Pin it anew.`,
      });
    if (
      pinned &&
      pinned.crew !== null &&
      !crews.some(({ crew, works }) => crew === pinned.crew && works[pinned.night])
    )
      tell({
        code: 'crew-off',
        closureId,
        nightId: nights[pinned.night]!.id,
        crewId: setup.crews[pinned.crew]!.id,
        words: `${nameOf(closureId)} is pinned to ${setup.crews[pinned.crew]!.name}, who do not work that night.`,
      });
    let only: number | null = null;
    if (rule.onlyNightId !== null) {
      only = nightAt.get(rule.onlyNightId) ?? -1;
      if (only < 0)
        tell({
          code: 'night-over',
          closureId,
          words: `${nameOf(closureId)} may only be cut on a night that is over, or not in the list. Choose another one with the owner.`,
        });
    }
    const chunks = chunksOf(one, pace);
    const bounds = rule.mayStayOpen && !pinned ? partsOf(chunks, shortest) : [];
    const works = tools.map((own) => crewWork(one, pace, own, bounds));
    const count = Math.max(1, bounds.length);
    for (let number = 1; number <= count; number += 1) {
      const setUps = works.map((work, index): Work => {
        const there = people !== undefined && tonight && (whose < 0 || crews[index]!.crew === whose);
        return number === 1 && there ? noWork : (work?.setUp ?? noWork);
      });
      firstOf.set(closureId, firstOf.get(closureId) ?? jobs.length);
      lastOf.set(closureId, jobs.length);
      jobs.push({
        id: bounds.length > 0 ? `${closureId}.${number}` : closureId,
        closureId,
        part: bounds.length > 0 ? { number, of: count } : null,
        site: siteAt.get(one.closure.siteId) ?? 0,
        works: works.map((work) => work?.parts[number - 1] ?? null),
        setUps,
        after: number > 1 ? [jobs.length - 1] : [],
        follows: number > 1 ? jobs.length - 1 : null,
        backBy: nights.map(({ opens, begins }) =>
          rule.backBy === null
            ? null
            : (clockAfter(Date.parse(opens), rule.backBy, project.timeZone) - begins) / 1000,
        ),
        onlyNight: only,
        pin: pinned,
        begun: goesOn && whose >= 0,
      });
      parts.push(bounds.length > 0 ? partWords(chunks, bounds, number) : null);
    }
  }
  // What waits, once all are there.
  for (const [closureId, first] of firstOf) {
    const before = ruleOf(setup, closureId).afterIds.flatMap((other) => {
      if (!closures.has(other))
        tell({
          code: 'no-such',
          closureId,
          words: `${nameOf(closureId)} waits for a closure that is gone. Take that rule away.`,
        });
      return lastOf.get(other) ?? [];
    });
    jobs[first] = { ...jobs[first]!, after: [...new Set([...jobs[first]!.after, ...before])] };
  }
  for (const closureId of inARing(jobs, firstOf, lastOf)) {
    tell({
      code: 'round',
      closureId,
      words: `${nameOf(closureId)} waits for a closure that waits for it, round a corner. Take one of the rules away: until then none of them counts.`,
    });
    const first = firstOf.get(closureId)!;
    jobs[first] = {
      ...jobs[first]!,
      after: jobs[first]!.after.filter((one) => jobs[one]!.closureId === closureId),
    };
  }

  const measured = toDo.some(({ measured: own }) => own.single !== null || own.ribbon !== null);
  return {
    problem: {
      jobs,
      crews,
      nights: nights.map(({ begins, closes }) => (Date.parse(closes) - begins) / 1000),
      travel: travelTimes(definition, sites, setup, tell),
      packUp: { mean: setup.packUp, variance: (0.3 * setup.packUp) ** 2 },
      reserve: setup.reserve,
      underWay: now !== null && nights[0] !== undefined && Date.parse(nights[0].opens) <= now,
      chances: new Chances(measured ? crewSpread.measured : crewSpread.usual),
    },
    nights,
    crews: setup.crews,
    machines,
    parts,
    sites,
    troubles,
  };
}

function crewIndex({ crews }: NightsSetup, crewId: string | null): number | null {
  const index = crews.findIndex(({ id }) => id === crewId);
  return index < 0 ? null : index;
}

function hasWork(todo: ClosureToDo, pace: Pace): boolean {
  return chunksOf(todo, pace).some(({ seconds }) => seconds > 0);
}

/** Crews with all ways in which those who share a machine may be equipped. */
function equippedCrews(
  { setup, now, begun }: NightsInput,
  nights: readonly Night[],
  siteAt: ReadonlyMap<string, number>,
): { readonly crews: EquippedCrew[]; readonly machines: CarriedMachine[][] } {
  const carriers = new Map<string, number>();
  for (const { machines } of setup.crews)
    for (const gearId of new Set(machines.flatMap((one) => one.gearId ?? [])))
      carriers.set(gearId, (carriers.get(gearId) ?? 0) + 1);
  const shared = [...carriers].filter(([, count]) => count > 1).map(([gearId]) => gearId);
  const crews: EquippedCrew[] = [];
  const machines: CarriedMachine[][] = [];
  for (const [crew, own] of setup.crews.entries()) {
    const bits = own.machines.map(({ gearId }) => (gearId === null ? -1 : shared.indexOf(gearId)));
    const tonight = now !== null && nights[0] !== undefined && Date.parse(nights[0].opens) <= now;
    const atWork = tonight && [...begun.values()].flat().some((person) => own.people.includes(person));
    const mine = [...new Set(bits.filter((bit) => bit >= 0))];
    for (let choice = 0; choice < 2 ** mine.length; choice += 1) {
      const has = new Set(mine.filter((_, at) => (choice >> at) & 1));
      crews.push({
        crew,
        shared: [...has].reduce((sum, bit) => sum + 2 ** bit, 0),
        // Who is at work already has calibrated.
        calibration: nights.map((_, night) => (night === 0 && atWork ? 0 : own.calibration)),
        start: own.startSiteId === null ? null : (siteAt.get(own.startSiteId) ?? null),
        works: nights.map(({ id }) => !own.offNightIds.includes(id)),
      });
      machines.push(own.machines.filter((_, at) => bits[at]! < 0 || has.has(bits[at]!)));
    }
  }
  return { crews, machines };
}

/** What a crew splices with: of several heaters the one that is through first. */
export function toolsOf(
  { machineOf, pace }: Pick<NightsInput, 'machineOf' | 'pace'>,
  { people }: Pick<Crew, 'people'>,
  machines: readonly CarriedMachine[],
): CrewTools {
  const of = (kind: 'single' | 'ribbon') =>
    machines.filter(({ splices }) => splices === kind || splices === 'both');
  const heating = (kind: 'single' | 'ribbon'): Heating | null => {
    const own = of(kind).map(({ gearId, heaters }) => {
      const machine = gearId === null ? undefined : machineOf(gearId);
      return machine ? heatingOf(pace, machine) : { ...heatingOf(pace), heaters };
    });
    const rate = ({ heaters, seconds }: Heating) =>
      heaters / seconds[kind === 'ribbon' ? 'ribbon' : 'single-60'];
    return own.reduce<Heating | null>((best, one) => (!best || rate(one) > rate(best) ? one : best), null);
  };
  const [single, ribbon] = [of('single'), of('ribbon')];
  return {
    people: people.length,
    single: heating('single'),
    ribbon: heating('ribbon'),
    singleMachines: single.length,
    ribbonMachines: ribbon.length,
    sameMachine:
      machines.length === 1 || (single.length === 1 && ribbon.length === 1 && single[0] === ribbon[0]),
  };
}

/** s between all sites: somebody's own where they gave one, else along the route. */
function travelTimes(
  { sites: all }: ProjectDefinition,
  sites: readonly Site[],
  { travel, speed }: NightsSetup,
  tell: (trouble: Pick<NightsTrouble, 'code' | 'words'>) => void,
): number[][] {
  const own = new Map(
    travel.flatMap(({ fromSiteId, toSiteId, seconds }) => [
      [`${fromSiteId} ${toSiteId}`, seconds],
      [`${toSiteId} ${fromSiteId}`, seconds],
    ]),
  );
  let lost: string | null = null;
  const table = sites.map(() => sites.map(() => 0));
  for (const [row, from] of sites.entries())
    for (const [column, to] of sites.entries()) {
      if (column <= row) continue;
      let seconds = own.get(`${from.id} ${to.id}`);
      if (seconds === undefined) {
        const meters = routeMeters(all, from, to);
        if (Number.isNaN(meters)) lost ??= `${from.name} and ${to.name}`;
        seconds = Number.isNaN(meters) ? 30 * 60 : meters / speed;
      }
      table[row]![column] = table[column]![row] = seconds;
    }
  if (lost)
    tell({
      code: 'no-way',
      words: `${lost} are on no route together: 30 min are counted between them. Give the time by hand.`,
    });
  return table;
}

/** Closures that wait for each other in a ring. */
function inARing(
  jobs: readonly Job[],
  firstOf: ReadonlyMap<string, number>,
  lastOf: ReadonlyMap<string, number>,
): string[] {
  const rings: string[] = [];
  for (const [closureId, last] of lastOf) {
    const seen = new Set<number>();
    const open = [...jobs[firstOf.get(closureId)!]!.after];
    while (open.length > 0) {
      const one = open.pop()!;
      if (seen.has(one)) continue;
      seen.add(one);
      open.push(...jobs[one]!.after);
    }
    if (seen.has(last)) rings.push(closureId);
  }
  return rings;
}
