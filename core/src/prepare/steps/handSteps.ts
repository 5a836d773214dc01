import type { Cleaver, Machine, Stripper } from '../../gear/gear';
import type { Cable } from '../../line/cable';
import type { Units } from '../../line/project';
import type { PlacedSplice } from '../../plan/trays/trayLayout';
import { sleeveWords, type Joint } from '../../splice/bench/joint';
import { shownNumber } from '../../units/decimals';
import { formatTape } from '../../units/tapeLength';
import type { Step } from './step';
import { wipeWords, type WipeSchool } from './wipe';

/** What the hands do at one splice, with this splice's own numbers. Lengths and habits: common practice. */

/** What a fiber wears: 250 μm coating, or a tight buffer of 900 μm. In a ribbon it is cleaved with the others. */
export type Coating = 250 | 900 | 'ribbon';

export interface HandWork {
  readonly splice: Pick<PlacedSplice, 'kind' | 'left' | 'right' | 'tray' | 'slot'>;
  readonly cables: ReadonlyMap<string, Cable>;
  readonly joint: Joint;
  /** Those of the night; null where none was picked. */
  readonly machine: Machine | null;
  readonly cleaver: Cleaver | null;
  readonly stripper: Stripper | null;
  /** Name of the heater program that is on. */
  readonly heater: string | null;
  /** What the project and the machine take, degrees. */
  readonly cleaveAngle: number;
  readonly wipe: WipeSchool;
  readonly units: Units;
}

/** A step with what it says in one line. */
export interface HandStep extends Step {
  readonly short: string;
}

const sides = ['left', 'right'] as const;

/** Bare glass beyond coating or holder, mm. */
export const bareLength = 38.1;
/** A tight buffer comes off in steps, mm. */
const tightStep = 6.35;
/** Of the heater and the tray where no machine says otherwise, s. */
const usual = {
  heat: { 'single-40': 25, 'single-60': 35, ribbon: 40, connector: 20 },
  cool: 30,
} as const;

export function coatingOf(kind: 'single' | 'ribbon', cable: Cable): Coating {
  if (kind === 'ribbon') return 'ribbon';
  const { construction } = cable;
  return construction.kind === 'pigtails' ? construction.bufferMicrometers : 250;
}

/** How much bare glass this cleaver leaves for a coating, mm; null where its settings do not say. */
export function cleaveLengthFor(cleaver: Cleaver, coating: Coating): number | null {
  switch (coating) {
    case 250:
      return cleaver.cleaveLength;
    case 900:
      return cleaver.tightLength ?? null;
    case 'ribbon':
      return cleaver.ribbonLength ?? cleaver.cleaveLength;
  }
}

/** "strip 38 mm, cleave 10 mm, holder of 12, 60 mm sleeve": for those who know the rest. */
export function handLine(work: HandWork): string {
  const { splice, joint } = work;
  const ribbon = splice.kind === 'ribbon';
  return [
    `strip ${formatTape(bareLength, work.units)}`,
    cleaveShort(work),
    ribbon ? `holder of ${splice.left.length}` : null,
    joint.sleeve === 'connector' || joint.sleeve === null ? null : `${sleeveLength(joint)} mm sleeve`,
  ]
    .filter(Boolean)
    .join(', ');
}

const sleeveLength = (joint: Joint) => (joint.sleeve === 'single-60' ? 60 : 40);

function coatings({ splice, cables }: HandWork) {
  return sides.map((side) => coatingOf(splice.kind, cables.get(splice[side][0]!.cableId)!));
}

/** "cleave 10 mm", "cleave 10 mm left, 18 mm right" */
function cleaveShort(work: HandWork): string | null {
  const { cleaver } = work;
  if (!cleaver) return null;
  const [left, right] = coatings(work).map((coating) => cleaveLengthFor(cleaver, coating));
  if (left === right) return left == null ? null : `cleave ${shownNumber(left)} mm`;
  return `cleave ${shownNumber(left ?? '?')} mm left, ${shownNumber(right ?? '?')} mm right`;
}

const coatingWords = (coating: Coating) =>
  coating === 'ribbon' ? 'a ribbon' : coating === 900 ? 'a 900 μm buffer' : '250 μm coating';

/** "On the left, 250 μm coating: …; on the right, …", once where both sides are alike. */
function bySide(work: HandWork, words: (coating: Coating) => string): string {
  const [left, right] = coatings(work) as [Coating, Coating];
  if (left === right) return words(left);
  return `Left, ${coatingWords(left)}: ${words(left)} Right, ${coatingWords(right)}: ${words(right)}`;
}

/** From the sleeve to the tray. Of a mechanical connector there are none: it has steps of its own. */
export function handSteps(work: HandWork): readonly HandStep[] {
  const { splice, joint, machine, cleaver, stripper, wipe, units, cleaveAngle } = work;
  const { sleeve } = joint;
  if (joint.kind === 'mechanical' || sleeve === null) return [];
  const ribbon = splice.kind === 'ribbon';
  const count = splice.left.length;
  const tape = (length: number) => formatTape(length, units);
  const strip = (coating: Coating) =>
    coating === 'ribbon'
      ? `${tape(bareLength)} stand out past the holder. Close the stripper${stripper?.temperature ? ` at ${shownNumber(stripper.temperature)} °C` : ''}, wait a moment, draw it off straight and slowly.`
      : coating === 900
        ? `the buffer over ${tape(bareLength)}, in steps of about ${tape(tightStep)}.`
        : `the coating over ${tape(bareLength)}, with one straight pull.`;
  const cleave = (coating: Coating) => {
    const own = cleaver ? cleaveLengthFor(cleaver, coating) : null;
    if (own !== null) return `${shownNumber(own)} mm of bare glass.`;
    const known = cleaver ? `${cleaver.label} has no length for it` : 'No cleaver is picked for tonight';
    return `${known}: as its groove for this coating asks${coating === 900 ? ' (18 mm on many)' : ' (10, 16, 18 or 20 mm are in use)'}.`;
  };
  const program =
    machine?.heaterPrograms.find((one) => one.name === work.heater && one.sleeve === sleeve) ??
    machine?.heaterPrograms.find((one) => one.sleeve === sleeve);
  const heat = program?.seconds ?? usual.heat[sleeve];
  const cool = machine?.coolSeconds ?? usual.cool;
  const steps: HandStep[] = [
    {
      id: 'hand-sleeve',
      title: 'Sleeve on first',
      short: sleeveWords[sleeve],
      what: `A ${sleeveWords[sleeve]}, over one of the two ${ribbon ? 'ribbons' : 'fibers'}, before anything is stripped.${ribbon ? ' Its steel rod lies along one side of the ribbon.' : ''}`,
      good: 'It hangs on the fiber, well behind the holder.',
      mistake: 'A good splice, and the sleeve on the table.',
    },
    {
      id: 'hand-strip',
      title: ribbon ? `Into the holder of ${count}, and strip` : 'Strip',
      short: ribbon ? `${tape(bareLength)} past the holder` : bySideShort(work, tape),
      what: ribbon
        ? `Clean the stripper of what the last ribbon left, jaws and blades. The ribbon flat in the holder for ${count} fibers, the same edge up on both sides. ${strip('ribbon')}`
        : sentence(bySide(work, strip)),
      good: ribbon ? 'All fibers bare over the same length, none bent.' : 'Bare glass without a scratch.',
      mistake: ribbon
        ? 'Pulling before the jaws have warmed the matrix: it tears off in shreds and scratches.'
        : 'Cold jaws shrink the coating and break fiber: warm the stripper in your hand or pocket.',
      caution: 'Shards into the container. Safety glasses on.',
    },
    {
      id: 'hand-clean',
      title: 'Clean',
      short: wipe === 'dry' ? 'dry wipe, alcohol' : 'moist wipe, then dry',
      what: `With ${wipeWords[wipe]}, from the coating to the end, until the glass squeaks.${ribbon ? ' Flick the ends, so that no two fibers stick together.' : ''}`,
      good: 'It squeaks, and nothing is on it.',
      mistake: 'Wiping a second time with the same spot of the wipe.',
      caution: 'Alcohol stays away from arc and heater.',
    },
    {
      id: 'hand-cleave',
      title: ribbon ? 'Cleave all at once' : 'Cleave',
      short: cleaveShort(work)?.replace('cleave ', '') ?? 'no length is known',
      what: `Blade carriage to the front, then lay the fiber in${ribbon ? '' : ' its own groove'}. ${sentence(bySide(work, cleave))}`,
      good: `Every end at most ${cleaveAngle}° off, as the machine shows it.`,
      mistake: 'Touching or wiping the end after the cleave.',
      caution: 'What is cut off is a splinter: into the container, never into a bin.',
    },
    {
      id: 'hand-grooves',
      title: 'Look at the grooves',
      short: 'brush them out',
      what: `Look at ${ribbon ? `all ${count} grooves on both sides` : 'both grooves'}; brush them out along the groove, with the brush for it.`,
      good: 'No dust in the light of the lid.',
      mistake: ribbon
        ? 'One dirty groove: the same fiber of every ribbon reads high.'
        : 'A dirty groove lifts the fiber: the offset reads high.',
      caution: 'High voltage: never touch the electrodes.',
    },
    {
      id: 'hand-load',
      title: 'Lay them in',
      short: 'tips a little off the electrodes',
      what: `Tips close to the electrodes, not past the line between them.${ribbon ? ' Fiber 1 meets fiber 1, where the plan does not turn the ribbon.' : ''} Each fiber in its groove, clamps down gently.`,
      good: 'The machine finds both ends, and moves them little.',
      mistake: 'Pushed past the middle: the tip touches an electrode.',
    },
    {
      id: 'hand-lid',
      title: 'Lift it out',
      short: 'sleeve up to the lid first',
      what: 'After the arc bring the sleeve up to the lid before the lid opens, so that bare glass is never moved. Let the machine pull; then lift both sides with slight tension and slide the sleeve over the middle.',
      good: 'The splice stays straight, and coating lies in the sleeve at both ends.',
      mistake: 'Opening first and looking for the sleeve then.',
    },
    {
      id: 'hand-heat',
      title: 'Heat',
      short: `${program ? `“${program.name}”, ` : ''}${heat} s`,
      what: `${program ? `Program “${program.name}”. ` : ''}${ribbon ? 'Steel rod down. ' : ''}Sleeve centered over the joint, slight tension until the lid is shut.`,
      good: 'Shrunk evenly, no bubble.',
      mistake: 'The program of another sleeve: soft in the middle, or burnt.',
      caution: 'The sleeve comes out hot: by its ends, onto the cooling tray.',
      timer: { label: 'Heater', seconds: heat },
    },
    {
      id: 'hand-cool',
      title: 'Cool',
      short: `${cool} s on the tray`,
      what: 'On the cooling tray, before anybody bends or places it.',
      good: 'It can be held in the bare hand.',
      mistake: 'Into its slot while it is soft: it sets bent.',
      timer: { label: 'Cooling', seconds: cool },
    },
    {
      id: 'hand-place',
      title: 'Into its slot',
      short: `tray ${splice.tray}, slot ${splice.slot}`,
      what: `Tray ${splice.tray}, slot ${splice.slot}.${ribbon ? ' In a holder of three the rod stands upright.' : ''} Where the deck comes off the tray, turn it once as its arrow shows and clip it in. Lay the slack in wide loops.`,
      good: 'It sits by itself, and no loop is tighter than the tray’s guides.',
      mistake: 'Pressing it in by the middle.',
    },
  ];
  // A connector brings its own parts, heat and housing.
  const own = ['hand-sleeve', 'hand-heat', 'hand-cool', 'hand-place'];
  return joint.kind === 'fusion-connector' ? steps.filter(({ id }) => !own.includes(id)) : steps;
}

function bySideShort(work: HandWork, tape: (length: number) => string): string {
  const [left, right] = coatings(work);
  const tight = [left === 900 ? 'left' : null, right === 900 ? 'right' : null].filter(Boolean);
  if (tight.length === 0) return tape(bareLength);
  const where = tight.length === 2 ? '' : ` ${tight[0]}`;
  return `${tape(bareLength)}, steps of ${tape(tightStep)}${where}`;
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
