import { closureOf, type Fact, type GearFact, type LightCheck, type SpliceFact } from '../facts';
import type { Cable } from '../line/cable';
import { fiberCount, fiberName } from '../line/fiberNumber';
import { alongTheRoute, siteOf, type Site } from '../line/project';
import type { Limits } from '../limits/limits';
import { planClosure } from '../plan/trays/closurePlan';
import { passedOver, passedOverBook, type PassedOver } from '../gear/passedOver';
import { connectorNames } from '../plan/closure';
import { endsOfRuns, type FiberEnd } from '../plan/fiberEnd';
import type { PlannedEnd } from '../plan/order/order';
import { lightOf, lightSeenWords } from '../prepare/steps/connectors';
import { prepareState } from '../prepare/steps/tickTargets';
import { spliceHistory, type SpliceHistory } from '../splice/record/history';
import { buildLedger } from '../splice/record/ledger';
import { measuredValue, measuredWith } from '../splice/record/measured';
import { lossText } from '../splice/record/reading';
import { judgeSplice, lossLimit } from '../splice/record/verdict';
import { markWords } from '../splice/words';
import type { ProjectDefinition } from './projectFile';

export interface LossSheet {
  readonly header: readonly string[];
  /** Text as it stands in the cells; decimal point, empty where there is nothing. */
  readonly rows: readonly (readonly string[])[];
}

const header = [
  'Site',
  'Distance (m)',
  'Tray',
  'Slot',
  'Left cable',
  'Left tube',
  'Left fiber',
  'Left colors',
  'Right cable',
  'Right tube',
  'Right fiber',
  'Right colors',
  'Circuit',
  'Verdict',
  'Tries',
  'Estimated loss (dB)',
  'Measured loss (dB)',
  'Measured from left (dB)',
  'Measured from right (dB)',
  'Measured with',
  'Limit (dB)',
  'Cleave left (deg)',
  'Cleave right (deg)',
  'Proof test',
  'Made at (UTC)',
  'By',
  'Machine',
  'Cleaver',
  'Passed over',
  'Simulated',
  'Note',
] as const;

/** A cell that begins like this is a formula to a spreadsheet, whatever stands behind, line breaks included; a number below 0 is none. */
export const spreadsheetFormula = /^(?!-\d+(\.\d+)?$)[=+\-@\t\r\n]/;

/**
 * One row per fiber spliced or to be spliced, closure by closure along the route, tray by tray; then those that end in connectors; splices that have facts but are no
 * longer planned come last in their closure. Losses are of the attempt that is in the tray: the machine's estimate, and beside it what was measured.
 * @param gearFacts what happened to the gear elsewhere: a night may begin in another project
 */
export function lossSheet(
  definition: ProjectDefinition,
  facts: readonly Fact[],
  closureIds: readonly string[],
  gearFacts: readonly GearFact[] = [],
): LossSheet {
  const cables = new Map(definition.cables.map((cable) => [cable.id, cable]));
  const { limits } = definition.project;
  const rows: string[][] = [];
  const book = passedOverBook(new Map([...facts, ...gearFacts].map((fact) => [fact.id, fact])).values());
  const closures = alongTheRoute(
    definition.sites,
    definition.closures
      .filter((closure) => closureIds.includes(closure.id))
      .map((closure) => ({ closure, site: siteOf(definition.sites, closure.siteId) })),
  );

  for (const { closure, site } of closures) {
    const own = facts.filter((fact) => closureOf(fact) === closure.id);
    const ledger = buildLedger(planClosure(closure, cables), own, limits);
    for (const tray of ledger.trays)
      for (const { splice, facts: spliceFacts, verdict } of tray.splices) {
        const history = spliceHistory(spliceFacts);
        splice.left.forEach((left, index) =>
          rows.push([
            ...placeCells(site, splice.tray, splice.slot),
            ...endCells(left, cables),
            ...endCells(splice.right[index]!, cables),
            splice.circuit ?? '',
            markWords[verdict.mark],
            ...attemptCells(history, verdict.tries, index, lossLimit(splice.kind, limits), book),
          ]),
        );
      }
    const state = prepareState(own);
    for (const end of ledger.plan.ends) rows.push(connectorRow(end, lightOf(state, end), site, cables));
    for (const spliceFacts of ledger.unplanned.values())
      rows.push(...unplannedRows(spliceFacts, site, cables, limits, book));
  }
  return { header, rows };
}

/** A fiber end that wears a connector: nothing is read of it but whether light gets through. */
function connectorRow(
  end: PlannedEnd,
  light: LightCheck | null,
  site: Site,
  cables: ReadonlyMap<string, Cable>,
): string[] {
  return [
    ...placeCells(site, null, null),
    ...endCells(end, cables),
    ...[connectorNames[end.connector], '', '', ''],
    end.circuit ?? '',
    capital(lightSeenWords[light?.body.seen ?? 'open']),
    ...['', '', ...nothingMeasured, '', '', '', ''],
    ...[light?.madeAt ?? '', light?.by ?? ''],
    ...['', '', '', '', light?.body.note ?? ''],
  ];
}

function unplannedRows(
  facts: readonly SpliceFact[],
  site: Site,
  cables: ReadonlyMap<string, Cable>,
  limits: Limits,
  book: PassedOver,
): string[][] {
  const history = spliceHistory(facts);
  const { subject } = facts[0]!;
  const [left, right] = [endsOfRuns(subject.left), endsOfRuns(subject.right)];
  const kind = left.length > 1 ? 'ribbon' : 'single';
  const verdict = judgeSplice(history, kind, limits);
  return left.map((end, index) => [
    ...placeCells(site, null, null),
    ...endCells(end, cables),
    ...endCells(right[index]!, cables),
    '',
    `Not planned (${markWords[verdict.mark]})`,
    ...attemptCells(history, verdict.tries, index, lossLimit(kind, limits), book),
  ]);
}

function placeCells(site: Site, tray: number | null, slot: number | null): string[] {
  return [site.name, String(site.chainage), cell(tray), cell(slot)];
}

function endCells(end: FiberEnd, cables: ReadonlyMap<string, Cable>): string[] {
  const cable = cables.get(end.cableId);
  // A splice that left the plan may name a fiber that its cable, edited since, no longer has.
  if (!cable || end.fiber > fiberCount(cable.construction))
    return [cable?.label ?? '', '', String(end.fiber), ''];
  const name = fiberName(cable, end.fiber);
  const group = name.group === null ? '' : ` group ${name.group}`;
  return [
    cable.label,
    String(name.unit),
    String(end.fiber),
    `${name.unitColor.code}${group} ${name.fiberColor.code}`,
  ];
}

function attemptCells(
  { last: attempt, measured }: SpliceHistory,
  tries: number,
  fiber: number,
  limit: number,
  book: PassedOver,
): string[] {
  if (!attempt) return ['0', '', ...nothingMeasured, lossText(limit), '', '', '', '', '', '', '', '', '', ''];
  const reading = attempt.readings[fiber];
  const seen = measured[fiber]?.body;
  return [
    String(tries),
    reading?.loss == null ? '' : lossText(reading.loss),
    ...(seen
      ? [lossCell(measuredValue(seen)), lossCell(seen.fromLeft), lossCell(seen.fromRight), measuredWith(seen)]
      : nothingMeasured),
    lossText(limit),
    cell(reading?.cleaveLeft ?? null),
    cell(reading?.cleaveRight ?? null),
    attempt.proofTestFailed ? 'failed' : '',
    attempt.fact.madeAt,
    attempt.fact.by ?? '',
    attempt.fact.body.gear?.machine?.label ?? '',
    attempt.fact.body.gear?.cleaver?.label ?? '',
    passedOver(attempt.fact, book)
      .map((about) => `${about} due`)
      .join(', '),
    attempt.fact.body.simulated ? 'yes' : '',
    attempt.note,
  ];
}

const nothingMeasured = ['', '', '', ''] as const;

function lossCell(value: number | null): string {
  return value === null ? '' : lossText(value);
}

function cell(value: number | null): string {
  return value === null ? '' : String(value);
}

const capital = (words: string) => words[0]!.toUpperCase() + words.slice(1);
