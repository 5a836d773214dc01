import type { Cable } from '../../line/cable';
import { fiberName } from '../../line/fiberNumber';
import { routeSites, siteOf, type Site } from '../../line/project';
import { sheathMarks } from '../../prepare/seals/sheathMarks';
import type { Fact } from '../../facts';
import type { FiberEnd } from '../../plan/fiberEnd';
import type { ClosureLedger } from '../../splice/record/ledger';
import { highestMeasured } from '../../splice/record/measured';
import { highestLoss } from '../../splice/record/reading';
import type { Mark } from '../../splice/record/verdict';
import type { ProjectDefinition } from '../projectFile';
import { fiberDistances, indexOf, readingError, type FiberDistance } from './distance';

/** A splice as it is looked for. */
export interface FindEntry {
  readonly closureId: string;
  readonly siteId: string;
  readonly site: string;
  readonly tray: number;
  readonly slot: number;
  /** "96 Ponte 46 BR VI" */
  readonly left: string;
  readonly right: string;
  readonly circuit: string | null;
  readonly mark: Mark;
  /** dB, estimated. */
  readonly worst: number | null;
  /** The highest that was measured, dB. */
  readonly measured: number | null;
}

/** Everything of a project that can be found, ready to be looked through. */
export interface FindIndex {
  readonly definition: ProjectDefinition;
  /** The worst first. */
  readonly entries: readonly FindEntry[];
  /** What is in each, in lower case, each word after a space. */
  readonly texts: readonly string[];
  readonly marks: ReadonlyMap<string, ReadonlyMap<string, number>>;
}

/** @param books the ledgers and facts of the closures, by closure */
export function findIndex(
  definition: ProjectDefinition,
  books: ReadonlyMap<string, { readonly ledger: ClosureLedger; readonly facts: readonly Fact[] }>,
): FindIndex {
  const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
  const all: { entry: FindEntry; text: string }[] = [];
  for (const closure of definition.closures) {
    const ledger = books.get(closure.id)?.ledger;
    if (!ledger) continue;
    const site = siteOf(definition.sites, closure.siteId);
    for (const { tray, splices } of ledger.trays)
      for (const { splice, verdict, readings, measured } of splices) {
        const entry: FindEntry = {
          closureId: closure.id,
          siteId: site.id,
          site: site.name,
          tray,
          slot: splice.slot,
          left: endText(splice.left, cables),
          right: endText(splice.right, cables),
          circuit: splice.circuit ?? null,
          mark: verdict.mark,
          worst: highestLoss(readings),
          measured: highestMeasured(measured),
        };
        const words = [
          // Written in one, so that a bare number means a fiber.
          ...[site.name, `tray_${tray} t${tray}`, `slot_${splice.slot}`, entry.circuit ?? ''],
          ...[wordsOf(splice.left, cables), wordsOf(splice.right, cables), verdict.mark],
        ];
        all.push({ entry, text: ` ${plain(words.join(' '))} ` });
      }
  }
  all.sort((a, b) => (b.entry.worst ?? -1) - (a.entry.worst ?? -1));
  return {
    definition,
    entries: all.map(({ entry }) => entry),
    texts: all.map(({ text }) => text),
    marks: sheathMarks(definition, (id) => books.get(id)?.facts ?? []),
  };
}

const plain = (text: string) =>
  text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/\s+/g, ' ');

/** "96 Ponte 46 BR VI", of a ribbon "144 Moinho 1–12 BL". */
function endText(ends: readonly FiberEnd[], cables: ReadonlyMap<string, Cable>): string {
  const [first] = ends;
  const cable = cables.get(first!.cableId);
  if (!cable) return `${first!.fiber}`;
  const name = fiberName(cable, first!.fiber);
  return ends.length === 1
    ? `${cable.label} ${first!.fiber} ${name.unitColor.code} ${name.fiberColor.code}`
    : `${cable.label} ${first!.fiber}–${ends.at(-1)!.fiber} ${name.unitColor.code}`;
}

/** All by which somebody may look for these ends: label, numbers, colors as codes and as words. */
function wordsOf(ends: readonly FiberEnd[], cables: ReadonlyMap<string, Cable>): string {
  const cable = cables.get(ends[0]!.cableId);
  if (!cable) return ends.map(({ fiber }) => String(fiber)).join(' ');
  const words = [cable.label];
  for (const { fiber } of ends) {
    const { unitColor, fiberColor, unit, unitKind } = fiberName(cable, fiber);
    if (fiber === ends[0]!.fiber)
      words.push(`${unitKind}_${unit} ${unitKind === 'ribbon' ? 'r' : 't'}${unit}`);
    words.push(String(fiber), `${unitColor.code} ${fiberColor.code} ${unitColor.name} ${fiberColor.name}`);
  }
  return words.join(' ');
}

/** A distance that was asked for, and where it leads. */
export interface AskedDistance {
  /** Along the fiber, for its own index, m. */
  readonly meters: number;
  readonly from: Site;
  /** Closures that may be meant, the likeliest first. */
  readonly at: readonly { readonly site: Site; readonly distance: FiberDistance; readonly off: number }[];
  /** The nearest ones, where none may be meant. */
  readonly nearest: readonly {
    readonly site: Site;
    readonly distance: FiberDistance;
    readonly off: number;
  }[];
}

export interface Found {
  /** At most `most`, the worst first; of a distance, by closure, the likeliest closure first. */
  readonly hits: readonly FindEntry[];
  readonly count: number;
  readonly distance: AskedDistance | null;
}

const metersPer: Readonly<Record<string, number>> = { m: 1, km: 1000, ft: 0.3048, kft: 304.8 };
const distancePattern = /(?:^|\s)(\d+(?:[.,]\d+)?)\s*(km|m|kft|ft)(?=\s|$)/i;
const indexPattern = /(?:^|\s)n\s*=?\s*(1[.,]\d+)(?=\s|$)/i;
const fromPattern = /(?:^|\s)from\s+(\S.*)$/i;

/**
 * Looks for splices: by words that all have to be in it (site, tray and slot, cable and fiber, colors, circuit, verdict), and by a distance from a site: "2.43 km from Moinho", "1200 m n 1.468".
 * Where no site is named the route's beginning counts.
 */
export function find(index: FindIndex, query: string, most = 50): Found {
  let rest = query.trim();
  const distance = distancePattern.exec(rest);
  let asked: AskedDistance | null = null;
  if (distance) {
    rest = rest.replace(distancePattern, ' ');
    const given = indexPattern.exec(rest);
    if (given) rest = rest.replace(indexPattern, ' ');
    const [from, behind] = siteNamed(index, fromPattern.exec(rest)?.[1] ?? '');
    rest = `${rest.replace(fromPattern, ' ')} ${behind}`;
    asked = askDistance(
      index,
      Number(distance[1]!.replace(',', '.')) * metersPer[distance[2]!.toLowerCase()]!,
      from,
      given ? Number(given[1]!.replace(',', '.')) : null,
      plain(rest).split(' ').filter(Boolean),
    );
  }
  const words = plain(rest.replace(counted, '$1_$2')).split(' ').filter(Boolean);
  const { entries, texts } = index;
  const places = asked ? new Map(asked.at.map(({ site }, place) => [site.id, place])) : null;
  const hits: FindEntry[] = [];
  let count = 0;
  if (words.length === 0 && !asked) return { hits, count, distance: null };
  for (let at = 0; at < texts.length; at += 1) {
    if (places && !places.has(entries[at]!.siteId)) continue;
    const text = texts[at]!;
    if (!words.every((word) => has(text, word))) continue;
    count += 1;
    if (hits.length < most || places) hits.push(entries[at]!);
  }
  if (places) hits.sort((a, b) => places.get(a.siteId)! - places.get(b.siteId)!);
  return { hits: hits.slice(0, most), count, distance: asked };
}

/** "tray 3", "Slot 8": what a number counts. */
const counted = /\b(tray|slot|tube|ribbon)\s+(\d+)\b/gi;

/** The site that a text begins with, by as many of its words as name one; and the words behind them. */
function siteNamed({ definition: { sites } }: FindIndex, text: string): [Site | null, string] {
  const words = text.split(/\s+/).filter(Boolean);
  for (let count = words.length; count > 0; count -= 1) {
    const wanted = plain(words.slice(0, count).join(' '));
    const site = sites.find(({ name }) => ` ${plain(name)}`.includes(` ${wanted}`));
    if (site) return [site, words.slice(count).join(' ')];
  }
  return [null, text];
}

/** Whether a text has a word: numbers and two-letter codes whole, others by their beginning. */
const has = (text: string, word: string) =>
  text.includes(/\d$|^[a-z]{1,2}$/.test(word) ? ` ${word} ` : ` ${word}`);

function askDistance(
  { definition, marks }: FindIndex,
  shown: number,
  named: Site | null,
  index: number | null,
  words: readonly string[],
): AskedDistance | null {
  const { sites, cables, closures } = definition;
  const from = named ?? routeSites(sites)[0];
  if (!from) return null;
  const meant = cables.filter(({ label }) => {
    const own = plain(label).split(' ');
    return words.length > 0 && own.some((word) => words.includes(word));
  });
  const meters = index === null ? shown : (shown * index) / indexOf(meant.length > 0 ? meant : cables);
  const distances = fiberDistances(from.id, sites, cables, marks, new Set(meant.map(({ id }) => id)));
  const all = closures
    .flatMap(({ siteId }) => {
      const distance = distances.get(siteId);
      return distance && siteId !== from.id
        ? [{ site: siteOf(sites, siteId), distance, off: Math.abs(distance.meters - meters) }]
        : [];
    })
    .sort((a, b) => a.off - b.off);
  const at = all.filter(({ distance, off }) => off <= distance.uncertainty + readingError(meters));
  return { meters, from, at, nearest: at.length > 0 ? [] : all.slice(0, 2) };
}
