import type { Cable } from '../../line/cable';
import { fiberUnits } from '../../line/fiberNumber';
import type { Machine } from '../../gear/gear';
import { goesThrough, type Closure } from '../../plan/closure';
import type { ClosurePlan } from '../../plan/trays/closurePlan';
import { looseSides } from '../../splice/bench/looseSides';
import { jointOf, type SleeveKind } from '../../splice/bench/joint';
import type { PlannedEnd, PlannedSplice } from '../../plan/order/order';
import { fanOutFibers, fanOutKits } from '../cut/fanOut';
import { isOpened, openedUnits } from '../../plan/opened/openedUnits';
import { nothingMeasured, type MeasuredPace } from './measured';

/**
 * How long things take, in seconds. Common practice and from memory, to be replaced by what this crew measures.
 */
export interface Pace {
  /** Going there, setting up, looking round. */
  readonly setUp: number;
  /** Sheath and strength member of a cable that ends here; of one that goes through; of a drop or pigtail. */
  readonly openEnd: number;
  readonly openThrough: number;
  readonly openDrop: number;
  /** A tube taken off and its fibers cleaned; a pair of ribbons in its mesh. */
  readonly tube: number;
  readonly ribbonPair: number;
  /** Sleeve on, strip, clean, cleave, load, fuse, place: what the hands do for one splice. */
  readonly single: number;
  readonly ribbon: number;
  /** What the heater does for one sleeve. */
  readonly singleHeater: number;
  readonly ribbonHeater: number;
  /** Loose fibers into one ribbon, drying included. */
  readonly ribbonize: number;
  readonly seal: number;
  /** Fibers of a tube into fan-out tubing, up to 12; a connector put on one of them. */
  readonly fanOut: number;
  readonly connector: number;
  readonly test: number;
}

export const usualPace: Pace = {
  setUp: 20 * 60,
  openEnd: 20 * 60,
  openThrough: 30 * 60,
  openDrop: 8 * 60,
  tube: 4 * 60,
  ribbonPair: 2 * 60,
  single: 150,
  ribbon: 420,
  singleHeater: 40,
  ribbonHeater: 60,
  ribbonize: 300,
  seal: 25 * 60,
  fanOut: 15 * 60,
  connector: 5 * 60,
  test: 15 * 60,
};

/** One line of the arithmetic. Seconds. */
export interface EstimateLine {
  readonly id: 'set-up' | 'cable' | 'single' | 'ribbon' | 'connector' | 'ribbonize' | 'seal' | 'test';
  readonly what: string;
  readonly seconds: number;
  /** How it was computed, in numbers. */
  readonly how: string;
}

export interface Estimate {
  readonly lines: readonly EstimateLine[];
  readonly seconds: number;
}

/** What heats the sleeves. */
export interface Heating {
  /** Sleeves that the heater takes at once. */
  readonly heaters: number;
  /** s by sleeve. */
  readonly seconds: Readonly<Record<SleeveKind, number>>;
}

/** By the usual times, or by the machine's own programs where it has one for a sleeve. */
export function heatingOf(
  pace: Pace,
  machine: Pick<Machine, 'heaters' | 'heaterPrograms'> | null = null,
): Heating {
  const own = (sleeve: SleeveKind) => machine?.heaterPrograms.find((one) => one.sleeve === sleeve)?.seconds;
  return {
    heaters: machine?.heaters ?? 1,
    seconds: {
      'single-40': own('single-40') ?? pace.singleHeater,
      'single-60': own('single-60') ?? pace.singleHeater,
      connector: own('connector') ?? pace.singleHeater,
      ribbon: own('ribbon') ?? pace.ribbonHeater,
    },
  };
}

/**
 * Time for `count` splices one after the other, seconds: the heater works on one sleeve, or on several at once, while the hands prepare the next, so the slower of
 * the two sets the pace, and the first preparation and the last heating stand alone. A sleeve goes in as soon as there is a place for it.
 */
export function splicingTime(count: number, hands: number, heater: number, heaters = 1): number {
  if (count === 0) return 0;
  if (hands * heaters >= heater) return count * hands + heater;
  // Every place of the heater is taken anew as soon as it is free; the last sleeve lies in the round of its place.
  const before = count - 1;
  return ((before % heaters) + 1) * hands + (Math.floor(before / heaters) + 1) * heater;
}

export interface WorkLeft {
  /** 1 when nothing of a cable is prepared, 0 when all of it is; by cable. */
  readonly unprepared: ReadonlyMap<string, number>;
  /** Splices that are not settled yet. */
  readonly singles: number;
  readonly ribbons: number;
  /** Singles that end a fiber in a pigtail. */
  readonly pigtails: number;
  /** How many of them wear which sleeve; a mechanical connector wears none. */
  readonly sleeves: Readonly<Partial<Record<SleeveKind, number>>>;
  /** Connectors that are put on fiber ends which no other is joined to. */
  readonly connectors: number;
  /** Fan-out kits that their bare fibers take. */
  readonly fanOuts: number;
  readonly sealed: boolean;
}

/** Of these splices of a closure. */
export function splicesLeft(
  closure: Closure,
  splices: readonly Pick<PlannedSplice, 'kind' | 'left' | 'right'>[],
  cables: ReadonlyMap<string, Cable>,
): Pick<WorkLeft, 'singles' | 'ribbons' | 'pigtails' | 'sleeves'> {
  const sleeves: Partial<Record<SleeveKind, number>> = {};
  let singles = 0;
  let pigtails = 0;
  for (const splice of splices) {
    if (splice.kind === 'single') {
      singles += 1;
      const ends = [splice.left[0]!, splice.right[0]!];
      if (ends.some(({ cableId }) => cables.get(cableId)?.construction.kind === 'pigtails')) pigtails += 1;
    }
    const { sleeve } = jointOf(closure, splice, cables);
    if (sleeve) sleeves[sleeve] = (sleeves[sleeve] ?? 0) + 1;
  }
  return { singles, ribbons: splices.length - singles, pigtails, sleeves };
}

/** Of these ends of a closure. */
export function connectorsLeft(
  ends: readonly PlannedEnd[],
  cables: ReadonlyMap<string, Cable>,
): Pick<WorkLeft, 'connectors' | 'fanOuts'> {
  const put = ends.filter(({ connector }) => connector !== 'own');
  return { connectors: put.length, fanOuts: fanOutKits(put, cables) };
}

/** What is to be done when nothing was done yet. */
export function allWork(closure: Closure, plan: ClosurePlan, cables: ReadonlyMap<string, Cable>): WorkLeft {
  return {
    unprepared: new Map(closure.entries.map((entry) => [entry.cableId, 1])),
    ...splicesLeft(closure, [...plan.splices, ...plan.unplaced], cables),
    ...connectorsLeft(plan.ends, cables),
    sealed: false,
  };
}

/** s that the heater takes for a sleeve of singles or ribbons, on the average of those that are left. */
function meanHeating({ sleeves, singles, ribbons }: WorkLeft, kind: 'single' | 'ribbon', heating: Heating) {
  const count = kind === 'single' ? singles : ribbons;
  const seconds = (Object.keys(sleeves) as SleeveKind[])
    .filter((sleeve) => (sleeve === 'ribbon') === (kind === 'ribbon'))
    .reduce((sum, sleeve) => sum + sleeves[sleeve]! * heating.seconds[sleeve], 0);
  return count === 0 ? 0 : Math.round(seconds / count);
}

/** The time that the rest of a closure takes, with its arithmetic. */
export function estimateClosure(
  closure: Closure,
  plan: ClosurePlan,
  cables: ReadonlyMap<string, Cable>,
  left: WorkLeft,
  pace: Pace,
  heating: Heating = heatingOf(pace),
  measured: MeasuredPace = nothingMeasured,
): Estimate {
  const lines: EstimateLine[] = [];
  const add = (id: EstimateLine['id'], what: string, seconds: number, how: string) => {
    if (seconds > 0) lines.push({ id, what, seconds, how });
  };
  const openedHere = (cableId: string) => {
    const cable = cables.get(cableId);
    return cable !== undefined && isOpened(plan, closure, cable);
  };
  const unprepared = closure.entries.filter((entry) => (left.unprepared.get(entry.cableId) ?? 1) > 0);
  const opening = unprepared.some((entry) => openedHere(entry.cableId));
  if (opening || left.singles + left.ribbons + left.connectors > 0)
    add('set-up', 'Set up', pace.setUp, minutes(pace.setUp));
  for (const entry of unprepared) {
    const cable = cables.get(entry.cableId);
    if (!cable || !isOpened(plan, closure, cable)) continue;
    const share = left.unprepared.get(cable.id) ?? 1;
    const { kind } = cable.construction;
    const small = kind === 'drop' || kind === 'pigtails';
    const open = small ? pace.openDrop : goesThrough(entry.manner) ? pace.openThrough : pace.openEnd;
    const { opened } = openedUnits(plan, cable, entry.manner);
    const ribbons = fiberUnits(cable.construction)[0]!.kind === 'ribbon';
    const units = small ? 0 : opened.length;
    const pairs = Math.ceil(units / 2);
    const inside = ribbons && kind === 'central-ribbon' ? pairs * pace.ribbonPair : units * pace.tube;
    add(
      'cable',
      `Prepare ${cable.label}`,
      share * (open + inside),
      [
        minutes(open),
        units === 0
          ? null
          : kind === 'central-ribbon'
            ? `${pairs} ${pairs === 1 ? 'pair' : 'pairs'} × ${minutes(pace.ribbonPair)}`
            : `${units} ${units === 1 ? 'tube' : 'tubes'} × ${minutes(pace.tube)}`,
        share < 1 ? `${Math.round(share * 100)} % left` : null,
      ]
        .filter(Boolean)
        .join(' + ')
        .replace(/ \+ (\d+ % left)$/, ', $1'),
    );
  }
  const loose = ribbonizedSides(plan, cables);
  const all = allWork(closure, plan, cables).ribbons;
  if (loose > 0 && left.ribbons > 0) {
    const share = Math.ceil((loose * left.ribbons) / all);
    add(
      'ribbonize',
      'Make ribbons of loose fibers',
      share * pace.ribbonize,
      `${share} × ${minutes(pace.ribbonize)}`,
    );
  }
  const splice = (id: 'single' | 'ribbon', count: number, hands: number) => {
    if (count === 0) return;
    const what = `${count} ${id === 'single' ? 'single splices' : count === 1 ? 'ribbon' : 'ribbons'}`;
    const own = measured[id];
    const people = measured.atWork.length;
    const shared = people > 1 ? `, ${people} people at it` : '';
    if (own !== null) {
      const seconds = (count * own) / Math.max(1, people);
      add(id, what, seconds, `${count} × ${minutes(own)}${shared}, as measured here`);
      return;
    }
    const heater = meanHeating(left, id, heating);
    // Each has a machine and its heater.
    const each = Math.ceil(count / Math.max(1, people));
    const place = heater / heating.heaters;
    const pacing = place > hands ? 'the heater sets the pace' : 'the heater works alongside';
    add(
      id,
      what,
      splicingTime(each, hands, heater, heating.heaters),
      `${each} × ${minutes(Math.max(hands, place))} (${pacing}${heating.heaters > 1 ? `, ${heating.heaters} sleeves at once` : ''}) + ${minutes(place > hands ? hands : heater)}${shared}`,
    );
  };
  splice('single', left.singles, pace.single);
  splice('ribbon', left.ribbons, pace.ribbon);
  add(
    'connector',
    left.connectors === 1 ? '1 connector' : `${left.connectors} connectors`,
    left.connectors * pace.connector + left.fanOuts * pace.fanOut,
    [
      left.fanOuts > 0 ? `${left.fanOuts} × ${minutes(pace.fanOut)} to fan out` : null,
      `${left.connectors} × ${minutes(pace.connector)}`,
    ]
      .filter(Boolean)
      .join(' + '),
  );
  if (!left.sealed) {
    add('seal', 'Seal', pace.seal, minutes(pace.seal));
    if ((closure.testPressure ?? 0) > 0) add('test', 'Flash test', pace.test, minutes(pace.test));
  }
  return { lines, seconds: lines.reduce((sum, line) => sum + line.seconds, 0) };
}

function ribbonizedSides(plan: ClosurePlan, cables: ReadonlyMap<string, Cable>): number {
  let sides = 0;
  for (const { kind, left, right } of [...plan.splices, ...plan.unplaced])
    sides += looseSides({ kind, left, right }, cables).length;
  return sides;
}

/**
 * What it would save to make ribbons of the loose fibers, seconds; negative when it would cost time. Twelve singles become one ribbon, and both
 * sides are glued first.
 */
export function ribbonizingSaves(
  singles: number,
  pace: Pace,
  { heaters, seconds }: Heating = heatingOf(pace),
): { readonly ribbons: number; readonly seconds: number } {
  const ribbons = Math.ceil(singles / 12);
  const now = splicingTime(singles, pace.single, seconds['single-60'], heaters);
  const then = splicingTime(ribbons, pace.ribbon, seconds.ribbon, heaters) + 2 * ribbons * pace.ribbonize;
  return { ribbons, seconds: now - then };
}

/** Two ways to give loose fibers connectors: by time in seconds, and by parts. */
export interface ConnectorEnds {
  readonly pigtails: { readonly seconds: number; readonly pigtails: number; readonly sleeves: number };
  readonly fanOut: { readonly seconds: number; readonly kits: number; readonly connectors: number };
}

/** Pigtails spliced on, or every fiber fanned out into a tube and a connector put on it (common practice: pigtails are quicker and cheaper). */
export function connectorEnds(
  fibers: number,
  pace: Pace,
  { heaters, seconds }: Heating = heatingOf(pace),
): ConnectorEnds {
  const kits = Math.ceil(fibers / fanOutFibers);
  return {
    pigtails: {
      seconds: splicingTime(fibers, pace.single, seconds['single-60'], heaters),
      pigtails: fibers,
      sleeves: fibers,
    },
    fanOut: { seconds: kits * pace.fanOut + fibers * pace.connector, kits, connectors: fibers },
  };
}

/** Against the window: when it ends, and what is spare (negative: over). Times in UTC. */
export function againstWindow(
  seconds: number,
  now: string,
  window: { readonly opens: string; readonly closes: string } | null,
): { readonly begins: string; readonly ends: string; readonly spare: number | null } {
  const at = Date.parse(now);
  const opens = window ? Date.parse(window.opens) : at;
  const closes = window ? Date.parse(window.closes) : null;
  // A night that is still to come, or over, is reckoned from its beginning.
  const begins = closes !== null && (at < opens || at >= closes) ? opens : at;
  const ends = begins + seconds * 1000;
  return {
    begins: new Date(begins).toISOString(),
    ends: new Date(ends).toISOString(),
    spare: closes === null ? null : (closes - ends) / 1000,
  };
}

/** "2 h 05 min", "40 min", "35 s". */
export function minutes(seconds: number): string {
  const sign = seconds < 0 ? '−' : '';
  const length = Math.abs(seconds);
  if (length < 60) return `${sign}${Math.round(length)} s`;
  if (length < 600 && length % 60 !== 0) {
    const whole = Math.round(length);
    return `${sign}${Math.floor(whole / 60)} min ${String(whole % 60).padStart(2, '0')} s`;
  }
  const total = Math.round(length / 60);
  if (total < 60) return `${sign}${total} min`;
  return `${sign}${Math.floor(total / 60)} h ${String(total % 60).padStart(2, '0')} min`;
}
