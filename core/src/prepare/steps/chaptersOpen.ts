import { metalOf } from '../../line/cable';
import { fiberUnits } from '../../line/fiberNumber';
import type { Cable } from '../../line/cable';
import type { Closure } from '../../plan/closure';
import { marksOf, type CutSheet } from '../cut/cutSheet';
import { ribbonsInJacket, ringStart, ripcordWindow, tubePiece } from '../cut/lengths';
import { holdersNamed, type OpenedUnit } from '../../plan/opened/openedUnits';
import { tubeTool } from '../cut/tubeTool';
import {
  countSteps,
  fiberSteps,
  groupsApart,
  ribbonCountSteps,
  ribbonNumberSteps,
  tubeColorSteps,
} from './counting';
import { liveStep } from './live';
import type { Chapter, Step } from './step';
import { wipeWords } from './wipe';
import { armorStep, outsideSteps, sealFirst, type FitSeat } from './fitting';
import type { Schools } from './steps';

/** What the chapters of the steps are made from. */
export interface StepContext {
  readonly cable: Cable;
  readonly sheet: CutSheet;
  readonly tape: (length: number) => string;
  readonly schools: Schools;
  readonly closureKind: Closure['kind'];
  readonly seat: FitSeat | null;
}

/** Two orders: the ring is cut and the ripcord pulled up to it, or the ripcord is pulled and the ring cut where it ends. */
export type SheathSchool = 'ring-first' | 'ripcord-first';

/** Sheath and strength members, for all but drops and pigtails. Order of work: common practice. */
export function openChapter(context: StepContext): Chapter {
  const { cable, sheet, tape, closureKind, schools } = context;
  const { lengths, opened } = sheet;
  const length = opened.to - opened.from;
  const through = sheet.reference === 'center';
  const fillers =
    'strands' in cable.construction
      ? cable.construction.strands.filter((strand) => strand.kind === 'filler').length
      : 0;
  const stranded = 'strands' in cable.construction;
  const secondRing = schools.secondRing || closureKind === 'rack';
  const first = sealFirst(context);
  const steps: Step[] = [
    ...outsideSteps(context),
    ...(first ? [first] : []),
    {
      id: 'measure',
      title: through ? 'Find the center and mark' : 'Measure and mark',
      what: through
        ? `Flag the center of the slack. Mark both ring cuts ${tape(length / 2)} from it${lengths.clampMark > 0 ? ` and the clamp marks ${tape(lengths.clampMark)} further` : ''}.`
        : `Cut the end square. Mark the ring cut ${tape(length)} from it${lengths.clampMark > 0 ? ` and the gland or clamp mark ${tape(lengths.clampMark)} further` : ''}.`,
      good: 'Marks all round the sheath, read off the tape twice.',
      mistake: 'Measuring from a crushed end, or from the other edge of the tape.',
      marks: marksOf(sheet, 'center', 'clamp'),
    },
    {
      id: 'test-cut',
      title: 'Test cut',
      what: `At ${tape(lengths.testCut)} ${through ? 'inside the first ring cut' : 'from the end'}: turn the blade in little by little until the sheath parts.`,
      good: 'The sheath parts when it is bent, and nothing under it is scratched.',
      mistake: 'Setting the blade at the ring cut itself: the first try goes too deep.',
      caution: 'Cut-resistant glove on the holding hand; cut away from it.',
      marks: marksOf(sheet, 'test-cut'),
    },
    {
      id: 'sheath',
      title: through
        ? 'Ring cuts, and open between them'
        : schools.sheath === 'ring-first'
          ? 'Ring cut and ripcord'
          : 'Ripcord and ring cut',
      what: through
        ? 'Both ring cuts with the blade as it is. Open the sheath between them with slitter or ripcords and take it off in halves.'
        : `${ripcordFree(secondRing, tape)} ${
            schools.sheath === 'ring-first' || closureKind === 'rack'
              ? 'Ring cut at the mark, then pull each ripcord along the cable up to it and stop.'
              : 'Pull each ripcord along the cable to the mark, and ring cut where it ends.'
          } Slide the sheath off.${secondRing ? '' : ' What was opened by knife is cut off.'}`,
      good: 'A clean edge, no binder tape nicked.',
      mistake: 'Pulling the ripcord away from the cable instead of along it: it tears.',
      caution: 'Knife and ripcord cut hands: glove on, nobody in front of the blade.',
      marks: marksOf(sheet, 'ripcord', 'ring-cut', 'slit'),
    },
    ...(metalOf(cable.construction).armor ? [armorStep(through)] : []),
    ...countSteps(cable, through),
    ...(stranded
      ? [
          {
            id: 'unwind',
            title: 'Unwind the tubes from the rod',
            what: `Over the whole opening, turn by turn, from ${through ? 'the middle to both sides' : 'the end to the sheath edge'}; tie them aside.`,
            good: 'The rod lies alone, and no tube is kinked.',
            mistake: 'Cutting the rod while tubes still lie round it: the cutter takes one along.',
            ...(through
              ? { caution: 'Tubes that go through may be live: lift them off, do not bend them.' }
              : {}),
          },
        ]
      : []),
    {
      id: 'yarn',
      title: fillers > 0 ? 'Yarn, tape and fillers' : 'Yarn and tape',
      what: `${lengths.aramid > 0 ? `Leave ${tape(lengths.aramid)} of aramid to anchor the cable` : 'Cut all of the aramid'}${through ? '' : lengths.ripcord > 0 ? `, and ${tape(lengths.ripcord)} of ripcord` : ', and the ripcord flush'}.${through ? ' Binder tape off over the whole opening.' : ' Binder tape off up to the sheath edge.'}${fillers > 0 ? ` Cut ${fillers === 1 ? 'the filler' : `the ${fillers} fillers`} away at the sheath edge.` : ''}`,
      good: 'Nothing loose hangs over the edge.',
      mistake:
        fillers > 0
          ? 'Taking a tube for a filler: nick it first and look.'
          : 'Leaving tape that hides a tube.',
      marks: marksOf(sheet, 'aramid', 'ripcord-end', 'filler'),
    },
    {
      id: 'strength-member',
      title: 'Strength member',
      what:
        lengths.strengthMember > 0
          ? `Cut it so that ${tape(lengths.strengthMember)} stay${through ? ' on both sides' : ''}. ${schools.rod === 'marked' ? 'It is cut once more where the bracket marks it.' : 'What stands past the bracket is trimmed when it is clamped.'}`
          : `Cut it flush at the sheath edge${through ? ' on both sides' : ''}.`,
      ...(lengths.strengthMember > 0
        ? {
            good: 'Long enough to reach its bracket.',
            mistake: 'Cutting it short: nothing is left to hold the cable.',
          }
        : {
            good: 'Nothing of it stands past the edge.',
            mistake: 'Leaving a spike that rubs on the ribbons.',
          }),
      caution: 'Rod ends fly and splinter: safety glasses and gloves.',
      marks: marksOf(sheet, 'strength-member'),
    },
  ];
  if (sheet.units.length === 0)
    steps.push({
      id: 'store-dark',
      title: 'Cap and store',
      what: 'Nothing of this cable is spliced here. Cap its tubes or ribbons and coil them in the slack storage, whole.',
      good: 'Capped, tied, and labeled with the cable’s name.',
      mistake: 'Leaving ends open: gel runs out and water in.',
      marks: marksOf(sheet, 'whole'),
    });
  return { id: 'open', title: 'Open the cable', steps };
}

/** How the ripcords are laid free at the end: by a second ring cut, or by knife. */
function ripcordFree(secondRing: boolean, tape: (length: number) => string): string {
  return secondRing
    ? `Second ring cut ${tape(ringStart)} from the end; pull that piece off, so that the ripcords stand free.`
    : `Lay the ripcords open over the first ${tape(ripcordWindow)} by knife, on both sides.`;
}

/** Loose tubes, with binder groups where there are some. */
export function tubeChapter(context: StepContext): Chapter {
  const { sheet, tape, schools, cable } = context;
  const { lengths, units } = sheet;
  const through = sheet.reference === 'center';
  const opened = units.map(({ unit }) => unit);
  const { tool, depth } = tubeTool(schools.tube, schools.scorer);
  const windows = opened.filter(({ how }) => how === 'window');
  const cut = opened.filter(({ how }) => how !== 'window' && how !== 'end');
  const off = opened.filter(({ how }) => how !== 'window');
  const live = liveStep(sheet, tape);
  const after = live ? { after: live.id } : {};
  const steps: Step[] = [
    {
      id: 'degrease',
      title: 'Degrease tubes and hands',
      what: 'Gel remover on the tubes over the whole opening, then a dry wipe. Gloves changed.',
      good: 'A tube squeaks under the fingers and its color shows.',
      mistake: 'Scoring a greasy tube: the tool slides and cuts deeper on one side.',
    },
    findTubes(through, holdersNamed(opened.map(({ holder }) => holder)), marksOf(sheet, 'whole')),
    ...tubeColorSteps(cable, opened),
    {
      id: 'tray-marks',
      title: `Mark ${entryWords(opened)}`,
      what: `${tape(lengths.tubeToTray)} from the sheath edge on every tube. ${opened.some(onTray) ? 'Felt and two ties go there.' : 'There it goes into the fan-out.'}`,
      good: 'All marks side by side when the tubes are held together.',
      mistake: 'Marking after the tube is off: nothing is left to mark.',
      marks: marksOf(sheet, 'tray'),
    },
    ...(live ? [live] : []),
    ...windows.map(({ holder, used }, index): Step => ({
      id: `window.${holder.number}`,
      title: `${holdersNamed([holder])}: open the window`,
      what: `Shave the upper wall from ${tape(lengths.windowInset)} inside the edge, take out the fibers of the order, cut them at the far end.`,
      good: 'The other fibers lie untouched in the tube.',
      mistake: 'Lifting fibers with a hook: they break inside the tube.',
      caution: 'The fibers that stay may be live. Never look into an end.',
      check: {
        ask: `How many fibers did you take out of tube ${holder.number}?`,
        expects: 'count',
        answer: String(used),
        wrong: `The order takes ${used}. Count again and check the colors before any of them is cut.`,
      },
      ...after,
      marks: index === 0 ? marksOf(sheet, 'window') : [],
    })),
  ];
  if (cut.length > 0)
    steps.push({
      id: 'cut-tubes',
      title: 'Cut the tubes',
      what: `${holdersNamed(cut.map(({ holder }) => holder))}, ${cut.length === 1 ? '' : 'each '}where the cut sheet marks it.`,
      good: 'The stub is as long as the sheet says.',
      mistake: 'Cutting at the near edge: most of the slack is thrown away.',
      caution: 'Cannot be taken back. Read number and color aloud first; ask if a circuit on it is live.',
      check: {
        ask: 'How many tubes are you about to cut?',
        expects: 'count',
        answer: String(cut.length),
        wrong: `The order opens ${cut.length}. Do not cut before the number agrees.`,
      },
      ...after,
      marks: marksOf(sheet, 'tube-cut'),
    });
  if (off.length > 0)
    steps.push({
      id: 'score',
      title: 'Take the tubes off',
      what: `${tool}: ${depth}. Pull them off in pieces of at most ${tape(tubePiece)}.`,
      good: 'The tube snaps clean and the fibers come out unmarked.',
      mistake:
        schools.tube === 'scorer'
          ? 'Cutting through instead of scoring: a nicked fiber breaks weeks later.'
          : 'The next larger or smaller hole: the stripper crushes or slips.',
      marks: marksOf(sheet, 'tube-end'),
    });
  const fibers = off.map((unit) => fiberSteps(context, unit));
  steps.push(...fibers.flatMap(({ groups }) => groups));
  if (off.some(({ holder }) => holder.groupSize !== null))
    steps.push(groupsApart(context, off, marksOf(sheet, 'groups')));
  steps.push(...fibers.map(({ clean }) => clean), ...fanOutSteps(opened));
  return { id: 'tubes', title: 'Tubes and fibers', steps };
}

/** Whether something of it lies on a tray: not all of it wears connectors. */
const onTray = ({ used, inConnectors }: OpenedUnit) => inConnectors < used;

function entryWords(opened: readonly OpenedUnit[]): string {
  if (opened.every(onTray)) return 'the tray’s entry';
  return opened.some(onTray) ? 'the entries of tray and fan-out' : 'the fan-out’s entry';
}

/** Bare fibers get a tube each before they wear connectors (common practice). */
function fanOutSteps(opened: readonly OpenedUnit[]): Step[] {
  const units = opened.filter(({ inConnectors }) => inConnectors > 0);
  if (units.length === 0) return [];
  const fibers = units.reduce((sum, { inConnectors }) => sum + inConnectors, 0);
  const ribbons = units.some(({ holder }) => holder.ribbons);
  return [
    {
      id: 'fan-out',
      title: 'Fan the fibers out',
      what: `${holdersNamed(units.map(({ holder }) => holder))}: ${ribbons ? 'take the ribbons apart, then ' : ''}${fibers === 1 ? 'the fiber that wears a connector goes into a tube of the fan-out' : `the ${fibers} fibers that wear connectors go into a tube of the fan-out each, in color order`}. Close it and tie it down.`,
      good: 'Each tube is marked with the number of its fiber, and the fiber slides in it.',
      mistake: 'Pushing a fiber that does not slide: it is bent inside the fan-out.',
    },
  ];
}

function findTubes(through: boolean, named: string, marks: readonly string[]): Step {
  return {
    id: 'find-tubes',
    title: through ? 'Pick out the tubes to be opened' : 'Lay the tubes out',
    what: through
      ? `${named}. Tie all others together and put them in the slack storage.`
      : `In color order: ${named}.`,
    good: through
      ? 'Only tubes that are opened lie on the bench.'
      : 'Number and color of each tube said aloud.',
    mistake: 'Counting places of the stranding instead of tubes: a filler takes a place and no number.',
    ...(through ? { caution: 'A tube that goes through may carry traffic. Once cut it stays cut.' } : {}),
    marks,
  };
}

/** Ribbons out of a central tube or out of stranded tubes. */
export function ribbonChapter({ sheet, tape, cable, schools, closureKind }: StepContext): Chapter {
  const { lengths, units } = sheet;
  const through = sheet.reference === 'center';
  const opened = units.map(({ unit }) => unit);
  const named = holdersNamed(opened.map(({ holder }) => holder));
  const central = cable.construction.kind === 'central-ribbon';
  const live = liveStep(sheet, tape);
  const open: Step = {
    id: 'ribbon-tube',
    title: central ? 'Central tube' : 'Ribbon tubes',
    what: central
      ? `Score it ${tape(lengths.tube)} past the sheath edge and snap it by bending both ways.${through ? ' Shave it open between the two scores; it comes off sideways.' : ''}`
      : `Score each tube ${tape(lengths.tubeToTray)} from the sheath edge and snap it.`,
    good: 'The ribbons lie flat, edges unmarked.',
    mistake: 'Scoring through: the ribbons lie right under the wall.',
    marks: marksOf(sheet, 'central-tube', 'tube-end'),
  };
  const unwrap: Step = {
    id: 'ribbon-unwrap',
    title: 'Unwrap and clean',
    what: `Take off wrap and gel; wipe each ribbon with ${wipeWords[schools.wipe]}. ${named}.`,
    good: 'Each ribbon can be read: its printed number, and the color of its edge fiber on the right side.',
    mistake: 'Pulling on one ribbon: the stack shifts and the order is lost.',
    marks: central ? marksOf(sheet, 'whole') : [],
  };
  const cut: Step[] = through
    ? [
        ...(live ? [live] : []),
        {
          id: 'cut-ribbons',
          title: central ? 'Cut the ribbons' : 'Cut or open the tubes',
          what: `${named}, ${units.length === 1 ? '' : 'each '}where the cut sheet marks it. Everything else is tied together and stored first.`,
          good: 'The stub is as long as the sheet says.',
          mistake: 'Cutting at the near edge: most of the slack is thrown away.',
          caution:
            'Cannot be taken back. Read number and color aloud first; ask if a circuit on it is live. Never look into an end.',
          check: {
            ask: `How many ${central ? 'ribbons' : 'tubes'} are you about to cut or open?`,
            expects: 'count',
            answer: String(units.length),
            wrong: `The order opens ${units.length}. Do not cut before the number agrees.`,
          },
          ...(live ? { after: live.id } : {}),
          marks: marksOf(sheet, 'tube-cut', 'window'),
        },
      ]
    : [];
  const counted = ribbonCountSteps(cable, opened);
  const numbered = ribbonNumberSteps(cable, opened);
  return {
    id: 'ribbons',
    title: 'Ribbons',
    steps: [
      ...(central
        ? [open, unwrap, ...counted, ...numbered, ...cut]
        : [
            findTubes(through, named, marksOf(sheet, 'whole')),
            ...tubeColorSteps(cable, opened),
            ...cut,
            open,
            ...counted,
            unwrap,
            ...numbered,
          ]),
      ...(closureKind === 'rack' && opened.some(onTray)
        ? [moduleStep(fiberUnits(cable.construction).length)]
        : []),
      ...(opened.some(onTray) ? ribbonsToTrays(sheet, tape, closureKind) : []),
      ...fanOutSteps(opened).map((step) =>
        opened.some(onTray) ? step : { ...step, marks: marksOf(sheet, 'tray') },
      ),
    ],
  };
}

function ribbonsToTrays(
  sheet: CutSheet,
  tape: StepContext['tape'],
  closureKind: StepContext['closureKind'],
): Step[] {
  const { lengths } = sheet;
  return [
    closureKind === 'rack'
      ? {
          id: 'ribbon-pairs',
          title: 'Pair, tape and mesh',
          what: 'Pairs in order: 1 and 2, 3 and 4 … Tape the ends, cut to an arrow head, and feed each pair through its mesh.',
          good: 'No ribbon crosses or twists from the cable to the chassis.',
          mistake: 'A pair fed with one ribbon turned over: 1 meets 12.',
        }
      : {
          id: 'ribbon-pairs',
          title: 'Coil, and into the transport tube',
          what: 'Coil the ribbons in the transition tray, in their order; from there they go up to the splice tray in a transport tube, tied at both ends.',
          good: 'No ribbon crosses or twists from the cable to the tray.',
          mistake: 'A ribbon turned over on the way: 1 meets 12.',
        },
    {
      id: 'ribbon-tray',
      title: 'Lead them to the tray',
      what: `Mark the tray’s entry ${tape(lengths.tubeToTray)} from the sheath edge. Felt and two ties, not tight.`,
      good: 'Ribbons slide when the tie is touched.',
      mistake: 'A tie pulled tight: the loss shows only on the trace.',
      marks: marksOf(sheet, 'tray'),
    },
  ];
}

/** How ribbons enter a splice module: as they are, in mesh, or through a breakout (common practice). */
function moduleStep(ribbons: number): Step {
  const few = ribbons <= ribbonsInJacket;
  return {
    id: 'ribbon-module',
    title: few ? 'Into the module: jacket or mesh' : 'Into the module: breakout or tubing',
    what: few
      ? `${ribbons === 1 ? 'One ribbon goes' : `${ribbons} ribbons go`} in as ${ribbons === 1 ? 'it is' : 'they are'}, where a flat jacket is round ${ribbons === 1 ? 'it' : 'them'}. Bare, ${ribbons === 1 ? 'it goes' : 'they go'} in mesh; a flat furcation tube gets a short piece of mesh and build-up tubing where it is tied.`
      : `${ribbons} ribbons are more than its opening takes in a jacket (${ribbonsInJacket}): a breakout kit, or furcation tubing for each group of them.`,
    good: 'No tie presses on a bare ribbon.',
    mistake: 'A tie over bare ribbon in mesh: it breaks there.',
  };
}
