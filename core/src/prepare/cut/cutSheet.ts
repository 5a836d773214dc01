import { sayAt } from '../../finding';
import { basketFindings, basketFit, type BasketFit } from './basket';
import { fiberOf } from '../../line/fiberType';
import { metalOf, type Cable } from '../../line/cable';
import type { Units } from '../../line/project';
import { entryKey, goesThrough, type Closure } from '../../plan/closure';
import type { ClosurePlan } from '../../plan/trays/closurePlan';
import { formatTape, mixedUnit } from '../../units/tapeLength';
import { CutMarks, type CutMark } from './cutMark';
import { endMarks } from './cutMarksEnd';
import { throughMarks } from './cutMarksThrough';
import {
  lengthsOf,
  ripcordWindow,
  throughSeal,
  tubeInTray,
  tubePiece,
  type PreparationLengths,
} from './lengths';
import {
  cutIn,
  endsInConnectors,
  isOpened,
  liveIn,
  openedUnits,
  type FiberSpan,
  type Holder,
} from '../../plan/opened/openedUnits';
import { openingThrough, slackFindings, slackOf, stubLength, type UnitSlack } from './slack';
import type { TubeSchool } from './tubeTool';
import type { PrepareFinding } from '../words';

/** What to cut where for one cable in one closure. All lengths in mm. */
export interface CutSheet {
  readonly cableId: string;
  /** The letter by which the order calls the cable here. */
  readonly key: string;
  /** What everything is measured from: the cable's end, or the center of its slack. */
  readonly reference: 'end' | 'center';
  /** Sheath that comes off, from–to. */
  readonly opened: { readonly from: number; readonly to: number };
  /** The stretch that is drawn: every mark lies in it. */
  readonly drawn: { readonly from: number; readonly to: number };
  readonly lengths: PreparationLengths;
  /** In the order in which they are made. Empty when nothing of this cable is opened here, or when the lengths cannot be right. */
  readonly marks: readonly CutMark[];
  readonly units: readonly UnitSlack[];
  readonly whole: readonly Holder[];
  /** Its fibers that the order takes here. */
  readonly taken: readonly FiberSpan[];
  /** How what goes through lies in the closure's slack basket; null where nothing does, or its size is not known. */
  readonly basket: BasketFit | null;
  /** The redos that its shortest tube or ribbon allows; null when nothing is spliced. */
  readonly redos: number | null;
  readonly findings: readonly PrepareFinding[];
}

export interface CutSheetWishes {
  readonly units: Units;
  /** Where the two sides of a cable that goes through lead, for the words. */
  readonly toward?: { readonly low: string; readonly high: string };
  /** How often a splice may have to be done again. */
  readonly redosWanted?: number;
  readonly school?: TubeSchool;
  /** A second ring cut starts the ripcord, and no knife, also where the closure does not ask for it. */
  readonly secondRing?: boolean;
}

/** An opening that is shorter or longer was hardly meant, mm. */
const likelyOpening = { from: 150, to: 12_000 };

/** Works out the cut sheet of a cable from the closure's lengths, the construction, the way it enters, and the plan. */
export function cutSheet(
  closure: Closure,
  plan: ClosurePlan,
  cable: Cable,
  {
    units,
    toward = { low: 'the start', high: 'the end' },
    redosWanted = 2,
    school = 'scorer',
    secondRing = false,
  }: CutSheetWishes,
): CutSheet {
  const index = closure.entries.findIndex((entry) => entry.cableId === cable.id);
  const entry = closure.entries[index] ?? { cableId: cable.id, manner: 'cut' as const };
  const key = entryKey(entry, Math.max(0, index));
  const through = goesThrough(entry.manner);
  // Spliced to nothing, as at the customer: opened for its connectors alone.
  const alone = cable.construction.kind === 'drop' && endsInConnectors(plan, cable.id);
  const asked = lengthsOf(closure);
  const lengths = alone ? { ...asked, strengthMember: 0 } : asked;
  const { opened, whole } = openedUnits(plan, cable, entry.manner);
  const table = alone ? lengths.connectorOpening : tableOpening(cable, closure, lengths);
  const opening = through ? openingThrough(opened, table, lengths) : table;
  // What a knife opened is cut off; where a second ring starts the ripcord, nothing was.
  const knife = !secondRing && byKnife(cable, closure, through) ? Math.min(ripcordWindow, opening) : 0;

  const nothing = !isOpened(plan, closure, cable);
  const findings = nothing ? [] : lengthFindings(opening, lengths, through, key, cable);
  const impossible = findings.some(({ severity }) => severity === 'error');
  const slack: UnitSlack[] =
    // How often a connector can be put on anew depends on its kind: nobody said.
    impossible || alone || cable.construction.kind === 'pigtails'
      ? []
      : opened.map((unit) => ({
          unit,
          slack: slackOf(stubLength(unit, opening, lengths, knife), lengths, unit.ribbonized),
        }));
  if (!impossible && !nothing) {
    findings.push(...liveFindings(cable, key, slack, opening, table, lengths));
    findings.push(...slackFindings(cable, key, slack, opening, table, lengths, redosWanted, units));
  }

  // Of a window all tubes go through; of a cut one the others do.
  const basket =
    through && !nothing && !impossible && (whole.length > 0 || opened.some(({ how }) => how === 'window'))
      ? basketFit(opening, lengths, fiberOf(cable).type.bendRadius)
      : null;
  findings.push(...basketFindings(cable, key, basket, lengths));

  const sheath = through ? { from: -opening / 2, to: opening / 2 } : { from: 0, to: opening };
  const margin = Math.max(lengths.clampMark, hasOutside(cable) ? throughSeal : 0) + 60;
  const drawn = { from: through ? sheath.from - margin : 0, to: sheath.to + margin };
  const marks = new CutMarks(units, (at, to) => placeWords(at, to, through, toward, units), sheath);
  if (!nothing && !impossible) {
    const cut = { cable, closure, opening, table, lengths, opened, whole, school, knife };
    if (through) throughMarks(marks, { ...cut, toward });
    else endMarks(marks, cut);
  }
  return {
    cableId: cable.id,
    key,
    reference: through ? 'center' : 'end',
    opened: sheath,
    drawn,
    lengths,
    marks: marks.list,
    units: slack,
    whole,
    taken: opened.flatMap((unit) => unit.taken),
    basket,
    redos: slack.length === 0 ? null : Math.min(...slack.map((one) => one.slack.redos)),
    findings,
  };
}

/**
 * Traffic in what is cut here, with what would avoid it: by a window only the fibers of the order are cut. Compared by the redos that the slack allows
 * and by the live fibers that are cut.
 */
function liveFindings(
  cable: Cable,
  key: string,
  units: readonly UnitSlack[],
  opening: number,
  table: number,
  lengths: PreparationLengths,
): PrepareFinding[] {
  const findings: PrepareFinding[] = [];
  for (const { unit, slack } of units) {
    const live = liveIn(cable, cutIn(unit));
    if (live.length === 0) continue;
    const { holder, sides, taken, cutToo, ribbonized } = unit;
    const byWindow = { how: 'window' as const, sides };
    const farther = openingThrough([byWindow], table, lengths);
    const window = slackOf(stubLength(byWindow, farther, lengths), lengths, ribbonized);
    sayAt(findings, { kind: 'cable', key })('live-in-cut', {
      holder,
      live,
      cut: { live: fibersIn(live), redos: slack.redos, free: slack.free, opening },
      window:
        cutToo.length === 0
          ? null
          : {
              live: fibersIn(liveIn(cable, taken)),
              redos: window.redos,
              free: window.free,
              opening: farther,
            },
    });
  }
  return findings;
}

const fibersIn = (spans: readonly FiberSpan[]) => spans.reduce((sum, { from, to }) => sum + to - from + 1, 0);

/** Marks of a sheet whose id is, or begins with, one of these, in their order. */
export function marksOf(sheet: CutSheet, ...starts: string[]): string[] {
  return sheet.marks
    .map(({ id }) => id)
    .filter((id) => starts.some((start) => id === start || id.startsWith(`${start}.`)));
}

/** The length of the closure's table that the opening follows from, mm: a drop has its own, except in a joint that is made for drops. */
function tableOpening(cable: Cable, closure: Pick<Closure, 'kind'>, lengths: PreparationLengths): number {
  return cable.construction.kind === 'drop' && closure.kind !== 'drop'
    ? lengths.dropOpening
    : lengths.sheathOpening;
}

/** In which pieces the tube of a stub comes off, mm, from the tube that stays to the end. Together with the tube that stays they are the stub. */
export function tubePieces(stub: number, lengths: PreparationLengths): { kept: number; pieces: number[] } {
  const kept = Math.min(stub, lengths.tubeToTray + tubeInTray);
  const pieces: number[] = [];
  for (let left = stub - kept; left > 1e-9; left -= tubePiece) pieces.push(Math.min(left, tubePiece));
  return { kept, pieces };
}

/** Whether the first part of a ripcord is laid open with a knife. */
function byKnife({ construction }: Cable, closure: Pick<Closure, 'kind'>, through: boolean): boolean {
  return (
    !through && closure.kind !== 'rack' && construction.kind !== 'drop' && construction.kind !== 'pigtails'
  );
}

function hasOutside({ construction }: Cable): boolean {
  const { messenger, toningWire } = metalOf(construction);
  return messenger || toningWire;
}

function placeWords(
  at: number,
  to: number | undefined,
  through: boolean,
  toward: { readonly low: string; readonly high: string },
  units: Units,
): string {
  const tape = (length: number) => formatTape(Math.abs(length), units);
  const side = (length: number) =>
    length === 0 ? 'the center' : `${tape(length)} toward ${length < 0 ? toward.low : toward.high}`;
  if (to === undefined) {
    if (at === 0) return through ? 'at the center' : 'at the cable end';
    return through ? `${side(at)}` : `${tape(at)} from the cable end`;
  }
  if (through) return `from ${side(at)} to ${side(to)}`;
  return at === 0
    ? `from the cable end to ${tape(to)}`
    : `from ${tape(at)} to ${tape(to)}, from the cable end`;
}

/** Lengths that cannot be right, each with what to do. */
function lengthFindings(
  opening: number,
  lengths: PreparationLengths,
  through: boolean,
  key: string,
  cable: Cable,
): PrepareFinding[] {
  const findings: PrepareFinding[] = [];
  const say = sayAt(findings, { kind: 'cable', key });
  for (const name of Object.keys(lengths) as (keyof PreparationLengths)[])
    if (!Number.isFinite(lengths[name]) || lengths[name] < 0) say('length', { name });
  if (findings.length > 0) return findings;

  if (opening === 0) {
    say('opening', { opening });
    return findings;
  }
  const mixed = mixedUnit(opening, (value) => value >= likelyOpening.from && value <= likelyOpening.to);
  if (mixed) say('opening-unit', { opening, mixed });
  else if (opening < likelyOpening.from || opening > likelyOpening.to) say('opening', { opening }, 'warning');

  if (cable.construction.kind === 'pigtails') return findings;
  for (const [of, left] of [
    ['strength member', lengths.strengthMember],
    ['tube', lengths.tube],
  ] as const)
    if ((through ? 2 : 1) * left > opening) say('stub', { opening, of, left, bothSides: through });
  return findings;
}
