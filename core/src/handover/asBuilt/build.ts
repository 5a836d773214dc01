import { endsOfRuns, type FiberEnd } from '../../plan/fiberEnd';
import {
  closureOf as atClosure,
  compareFacts,
  isGearFact,
  knownFact,
  type Fact,
  type GearFact,
  type MeasuredLoss,
  type SpliceFact,
} from '../../facts';
import { passedOver, passedOverBook, type PassedOver } from '../../gear/passedOver';
import type { Cable } from '../../line/cable';
import { fiberCount, fiberName } from '../../line/fiberNumber';
import { fiberOf } from '../../line/fiberType';
import { alongTheRoute, cablesAlong, cordOrder, siteOf } from '../../line/project';
import type { Limits } from '../../limits/limits';
import { connectorNames, type Closure } from '../../plan/closure';
import { planClosure } from '../../plan/trays/closurePlan';
import { lightOf, lightSeenWords } from '../../prepare/steps/connectors';
import { measuredDiameters, prepareState } from '../../prepare/steps/tickTargets';
import { sealStage } from '../../seal/stage';
import type { SealedAt } from '../../seal/finalLook';
import { spliceHistory, type StandingAttempt } from '../../splice/record/history';
import { buildLedger, type ClosureLedger } from '../../splice/record/ledger';
import { measuredValue } from '../../splice/record/measured';
import { highestLoss } from '../../splice/record/reading';
import { rollUp, sumTallies, type RollUp, type Tally } from '../../splice/record/rollUp';
import { judgeSplice, lossLimit, type Verdict } from '../../splice/record/verdict';
import { reasonWords } from '../../splice/words';
import type { ProjectDefinition, StoredFact } from '../projectFile';
import { readyLines } from '../ready';
import type {
  AsBuilt,
  AsBuiltClosure,
  AsBuiltEnd,
  AsBuiltPicture,
  AsBuiltSplice,
  AsBuiltSums,
} from './schema';
import { photosIn, sealOf } from './seal';

export interface AsBuiltInput {
  readonly definition: ProjectDefinition;
  /** All of the project, in any order. */
  readonly facts: readonly StoredFact[];
  /** What happened to the gear elsewhere: a night may begin in another project. */
  readonly gearFacts: readonly GearFact[];
  /** One closure; all where it is not given. */
  readonly closureId?: string | undefined;
  /** Those of the photos that are kept, by the photo's id. */
  readonly pictures?: ReadonlyMap<string, AsBuiltPicture>;
  /** Told as often as another part is done; what it throws ends the work. */
  readonly onProgress?: (done: number, of: number) => void;
}

/** What was built. The same records and definition give the same document, to the last digit, wherever it is made. */
export function asBuilt({
  definition,
  facts,
  gearFacts,
  closureId,
  pictures = new Map(),
  onProgress,
}: AsBuiltInput): AsBuilt {
  const { project, sites } = definition;
  const chosen = definition.closures.filter((one) => closureId === undefined || one.id === closureId);
  const own = facts.filter(
    ({ fact }) =>
      closureId === undefined || (fact.subject as { closureId?: unknown } | null)?.closureId === closureId,
  );
  const known: Fact[] = [];
  let unread = 0;
  const unreadAt = new Map<string, number>();
  const byClosure = new Map<string, Fact[]>(chosen.map(({ id }) => [id, []]));
  for (const { fact } of own) {
    const one = knownFact(fact);
    if (!one) {
      unread += 1;
      const at = atClosure(fact) ?? '';
      unreadAt.set(at, (unreadAt.get(at) ?? 0) + 1);
    } else {
      known.push(one);
      const { closureId: at } = one.subject as { closureId?: string };
      if (at) byClosure.get(at)?.push(one);
    }
  }
  const everyGear = new Map(
    [...facts.flatMap(({ fact }) => knownFact(fact) ?? []).filter(isGearFact), ...gearFacts].map((fact) => [
      fact.id,
      fact,
    ]),
  );
  const book = passedOverBook(everyGear.values());
  const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
  const inOrder = alongTheRoute(
    sites,
    chosen.map((closure) => ({ closure, site: siteOf(sites, closure.siteId) })),
  );
  const ledgers: ClosureLedger[] = [];
  const closures = inOrder.map(({ closure }, index) => {
    onProgress?.(index, inOrder.length);
    const ofIt = byClosure.get(closure.id)!;
    const ledger = buildLedger(planClosure(closure, cables), ofIt, project.limits);
    ledgers.push(ledger);
    return closureOf(definition, closure, cables, ledger, ofIt, {
      book,
      pictures,
      unread: unreadAt.get(closure.id) ?? 0,
    });
  });
  onProgress?.(inOrder.length, inOrder.length);
  const used = new Set(closures.flatMap(({ machines }) => machines));
  const times = known.map(({ madeAt }) => madeAt).sort();
  const signed = known
    .filter((fact) => fact.kind === 'sign-off')
    .sort(compareFacts)
    .map((fact) => {
      const { subject, body } = fact;
      const of = subject.on === 'closure' ? subject.closureId : null;
      return {
        of:
          of === null
            ? project.name
            : (inOrder.find(({ closure }) => closure.id === of)?.site.name ?? 'A closure that is gone'),
        ...body,
        at: fact.madeAt,
        later: known.filter(
          (other) =>
            other.kind !== 'sign-off' &&
            compareFacts(other, fact) > 0 &&
            (of === null || (other.subject as { closureId?: string }).closureId === of),
        ).length,
      };
    });
  const losses = Float64Array.from(
    closures.flatMap(({ splices }) =>
      splices
        .filter(({ planned }) => planned)
        .flatMap(({ readings }) => readings.flatMap(({ loss }) => loss ?? [])),
    ),
  ).sort();
  return {
    format: 'cordel-as-built',
    formatVersion: 1,
    project: {
      id: project.id,
      name: project.name,
      units: project.units,
      timeZone: project.timeZone ?? null,
      limits: project.limits,
    },
    scope: closureId === undefined ? 'project' : 'closure',
    records: {
      count: known.length,
      lastMadeAt: times.at(-1) ?? null,
      unread,
      simulated: known.filter((fact) => fact.kind === 'attempt' && fact.body.simulated).length,
    },
    losses: closures.some(({ sums }) => sums.measured) ? 'estimated-and-measured' : 'estimated',
    sites: cordOrder(sites).map(({ id, name, kind, chainage, placement, branchFrom, position }) => ({
      id,
      name,
      kind,
      chainage,
      placement,
      branchFrom: branchFrom ?? null,
      position: position ?? null,
    })),
    // Of one closure, those that come into it.
    cables: cablesAlong(
      sites,
      definition.cables.filter(
        ({ id }) =>
          closureId === undefined ||
          chosen.some(({ entries }) => entries.some(({ cableId }) => cableId === id)),
      ),
    ).map((cable) => ({
      id: cable.id,
      label: cable.label,
      construction: cable.construction.kind,
      fibers: fiberCount(cable.construction),
      fiberType: fiberOf(cable).type.name,
      diameter: cable.diameter ?? null,
      siteIds: [...cable.siteIds],
    })),
    closures,
    calibrations: [...everyGear.values()]
      .flatMap((fact) => (fact.kind === 'calibration' && used.has(fact.subject.label) ? [fact] : []))
      .sort((a, b) => (a.madeAt < b.madeAt ? -1 : a.madeAt > b.madeAt ? 1 : a.id < b.id ? -1 : 1))
      .filter(({ madeAt }) => withinNights(madeAt, closures))
      .map(({ subject, madeAt, by, body }) => ({
        gear: subject.label,
        at: madeAt,
        by,
        passed: body.passed,
        note: body.note,
      })),
    signOffs: signed,
    sums: sumsOf(
      rollUp(
        sumTallies(ledgers.flatMap((ledger) => ledger.trays.map(({ tally }) => tally))),
        losses,
        project.limits.closureMean,
        project.limits.measured,
      ),
      losses.length,
      project.limits.closureMean,
    ),
  };
}

/** A calibration counts for what was spliced until the night after it. ms */
const night = 14 * 3600_000;

function withinNights(time: string, closures: readonly AsBuiltClosure[]): boolean {
  const at = Date.parse(time);
  return closures.some(
    ({ from, to }) => from !== null && to !== null && at >= Date.parse(from) - night && at <= Date.parse(to),
  );
}

function sumsOf(total: RollUp, fibersRead: number, meanLimit: number): AsBuiltSums {
  const { count, marks, mean, median, p95, worst, meanOver, measured } = total;
  return {
    splices: count,
    ...marks,
    fibersRead,
    mean,
    median,
    p95,
    worst: worst?.loss ?? null,
    meanLimit,
    meanOver,
    ...(measured ? { measured } : {}),
  };
}

function closureOf(
  definition: ProjectDefinition,
  closure: Closure,
  cables: ReadonlyMap<string, Cable>,
  ledger: ClosureLedger,
  facts: readonly Fact[],
  {
    book,
    pictures,
    unread,
  }: {
    readonly book: PassedOver;
    readonly pictures: ReadonlyMap<string, AsBuiltPicture>;
    /** Records of a newer Cordel. */
    readonly unread: number;
  },
): AsBuiltClosure {
  const { limits } = definition.project;
  const site = siteOf(definition.sites, closure.siteId);
  const state = prepareState(facts);
  const thing: SealedAt = {
    closure,
    cables,
    facts,
    site,
    plan: ledger.plan,
    diameters: measuredDiameters(closure, state),
  };
  const stage = sealStage(thing);
  const splices: AsBuiltSplice[] = [];
  for (const tray of ledger.trays)
    for (const { splice, facts: own, verdict } of tray.splices)
      splices.push(spliceOf({ ...splice, planned: true }, own, verdict, cables, limits, book));
  for (const splice of ledger.plan.unplaced)
    splices.push(
      spliceOf({ ...splice, tray: null, slot: null, planned: true }, [], noVerdict, cables, limits, book),
    );
  for (const [id, own] of ledger.unplanned) {
    const { subject } = own[0]!;
    const left = endsOfRuns(subject.left);
    const kind = left.length > 1 ? 'ribbon' : 'single';
    splices.push(
      spliceOf(
        {
          id,
          kind,
          left,
          right: endsOfRuns(subject.right),
          circuit: null,
          tray: null,
          slot: null,
          planned: false,
        },
        own,
        judgeSplice(spliceHistory(own), kind, limits),
        cables,
        limits,
        book,
      ),
    );
  }
  const named = (pick: (splice: AsBuiltSplice) => string | null) =>
    [...new Set(splices.flatMap((one) => pick(one) ?? []))].sort();
  const times = splices.flatMap(({ madeAt }) => madeAt ?? []).sort();
  const ofTray = (tally: Tally, own: RollUp, limit: number) => sumsOf(own, tally.read, limit);
  return {
    id: closure.id,
    siteId: site.id,
    site: site.name,
    kind: closure.kind,
    model: closure.model ?? null,
    sums: sumsOf(ledger.rollUp, ledger.sortedLosses.length, limits.closureMean),
    trays: ledger.trays
      .filter(({ splices: own }) => own.length > 0)
      .map(({ tray, tally, rollUp: own }) => ({ tray, sums: ofTray(tally, own, limits.trayMean) })),
    splices,
    connectors: ledger.plan.ends.map((end) => {
      const light = lightOf(state, end);
      return {
        end: endOf(end, cables),
        connector: connectorNames[end.connector],
        circuit: end.circuit ?? null,
        light: lightSeenWords[light?.body.seen ?? 'open'],
        at: light?.madeAt ?? null,
        by: light?.by ?? null,
      };
    }),
    seal: sealOf(thing, stage, definition.project.units),
    photos: photosIn(thing, stage, definition.project.units, pictures),
    ready: readyLines({ ledger, facts, seal: stage, book, limits, unread }).map(
      ({ code, stands, words }) => ({
        code,
        stands,
        words,
      }),
    ),
    people: named(({ by }) => by),
    machines: named(({ machine }) => machine),
    cleavers: named(({ cleaver }) => cleaver),
    from: times[0] ?? null,
    to: times.at(-1) ?? null,
  };
}

const noVerdict: Verdict = { mark: 'open', reasons: [], tries: 0 };

function spliceOf(
  splice: Pick<AsBuiltSplice, 'id' | 'tray' | 'slot' | 'planned'> & {
    readonly kind: 'single' | 'ribbon';
    readonly left: readonly FiberEnd[];
    readonly right: readonly FiberEnd[];
    readonly circuit: string | null;
  },
  facts: readonly SpliceFact[],
  verdict: Verdict,
  cables: ReadonlyMap<string, Cable>,
  limits: Limits,
  book: PassedOver,
): AsBuiltSplice {
  const { attempts, withdrawn, last, answer, measured } = spliceHistory(facts);
  const earlier = [
    ...attempts.slice(0, -1).map((one) => earlierOf(one, false)),
    ...withdrawn.map((one) => earlierOf(one, true)),
  ];
  const gear = last?.fact.body.gear;
  return {
    id: splice.id,
    planned: splice.planned,
    tray: splice.tray,
    slot: splice.slot,
    kind: splice.kind,
    left: splice.left.map((end) => endOf(end, cables)),
    right: splice.right.map((end) => endOf(end, cables)),
    circuit: splice.circuit ?? null,
    mark: verdict.mark,
    reasons: verdict.reasons.map(reasonWords),
    limit: lossLimit(splice.kind, limits),
    tries: verdict.tries,
    readings: (last?.readings ?? []).map(({ loss, cleaveLeft, cleaveRight }, index) => ({
      loss,
      cleaveLeft,
      cleaveRight,
      ...measuredOf(measured[index] ?? null),
    })),
    worst: last ? highestLoss(last.readings) : null,
    proofTest: last ? (last.proofTestFailed ? 'failed' : 'not-failed') : null,
    light: last?.light ?? null,
    simulated: last?.fact.body.simulated ?? false,
    madeAt: last?.fact.madeAt ?? null,
    by: last?.fact.by ?? null,
    machine: gear?.machine?.label ?? null,
    cleaver: gear?.cleaver?.label ?? null,
    passedOver: last ? passedOver(last.fact, book) : [],
    note: last?.note ?? '',
    earlier: earlier.sort((a, b) => (a.madeAt < b.madeAt ? -1 : 1)),
    corrections: [...attempts, ...withdrawn].reduce((sum, { corrections }) => sum + corrections.length, 0),
    owner: answer
      ? {
          answer: answer.body.answer,
          name: answer.body.name ?? null,
          madeAt: answer.madeAt,
          by: answer.by,
          note: answer.body.note,
        }
      : null,
  };
}

function measuredOf(fact: MeasuredLoss | null): Pick<AsBuiltSplice['readings'][number], 'measured'> {
  if (!fact) return {};
  const { fromLeft, fromRight, method, wavelength } = fact.body;
  return {
    measured: {
      loss: measuredValue(fact.body),
      fromLeft,
      fromRight,
      method,
      wavelength,
      at: fact.madeAt,
      by: fact.by,
    },
  };
}

function earlierOf({ fact, readings, note }: StandingAttempt, taken: boolean) {
  return { madeAt: fact.madeAt, by: fact.by, note, worst: highestLoss(readings), withdrawn: taken };
}

function endOf({ cableId, fiber, side }: FiberEnd, cables: ReadonlyMap<string, Cable>): AsBuiltEnd {
  const cable = cables.get(cableId);
  // A splice that left the plan may name a fiber that its cable, edited since, no longer has.
  if (!cable || fiber > fiberCount(cable.construction))
    return { cableId, cable: cable?.label ?? '', fiber, side, unit: null, colors: '' };
  const name = fiberName(cable, fiber);
  return {
    cableId,
    cable: cable.label,
    fiber,
    side,
    unit: name.unit,
    colors: [name.unitColor.code, name.group === null ? null : `group ${name.group}`, name.fiberColor.code]
      .filter(Boolean)
      .join(' '),
  };
}
