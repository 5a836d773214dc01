import { colorAt, schemeOf, type ColorMark, type ColorScheme } from '../../line/colorCode';
import type { Cable } from '../../line/cable';
import { fiberUnits } from '../../line/fiberNumber';
import { holdersNamed, type Holder, type OpenedUnit } from '../../plan/opened/openedUnits';
import { groupStep } from '../cut/lengths';
import type { StepContext } from './chaptersOpen';
import { wipeWords } from './wipe';
import type { Step } from './step';

/**
 * What is counted and looked at before anything is cut, and of each tube and group that is opened: one step each, so that none is taken for done because
 * another was.
 */

/** "Tube 3 GR" */
const named = (holder: Holder) => holdersNamed([holder]);
const inSentence = (holder: Holder) => {
  const name = named(holder);
  return name[0]!.toLowerCase() + name.slice(1);
};

/**
 * Colors to pick from for a position of a code: all of its round, whether the cable has them or not, and its own base color in the other rounds, for which it
 * is taken in bad light.
 * @param count positions that the cable has
 */
function colorChoices(scheme: ColorScheme, position: number, count: number): ColorMark[] {
  const round = scheme.sequence.length;
  const before = position - 1 - ((position - 1) % round);
  const positions = Array.from({ length: round }, (_, index) => before + index + 1);
  for (let other = ((position - 1) % round) + 1; other <= Math.max(count, 2 * round); other += round)
    if (!positions.includes(other)) positions.push(other);
  return positions.map((one) => colorAt(scheme, one));
}

/** How many tubes and how many fillers there are, before the first of them is touched. */
export function countSteps(cable: Cable, through: boolean): Step[] {
  if (!('strands' in cable.construction)) return [];
  const strands: readonly { readonly kind: string }[] = cable.construction.strands;
  const tubes = strands.filter(({ kind }) => kind === 'tube').length;
  const fillers = strands.length - tubes;
  const steps: Step[] = [
    {
      id: 'count-tubes',
      title: 'Count the tubes',
      what: `No tube and no filler is cut yet. Count the tubes as they lie round the rod${fillers > 0 ? ', without the fillers' : ''}.`,
      good: 'The same number twice, once in each direction.',
      mistake: 'Counting after something was cut: then nobody knows what it was.',
      check: {
        ask: 'How many tubes does the cable have?',
        expects: 'count',
        answer: String(tubes),
        wrong: `The plan has ${tubes}. Count again without the fillers. If it is another number, this is not the cable of the plan.`,
      },
    },
  ];
  if (fillers > 0)
    steps.push({
      id: 'count-fillers',
      title: 'Count the fillers',
      what: through
        ? 'Feel along each strand: a filler is solid and does not give between two fingers, a tube does.'
        : 'Look at the ends: a filler is solid all through, a tube is hollow.',
      good: 'Each strand is known for a tube or a filler before a cutter is in the hand.',
      mistake: 'Taking a tube for a filler.',
      check: {
        ask: 'How many fillers lie among the tubes?',
        expects: 'count',
        answer: String(fillers),
        wrong: `The plan has ${fillers}. If you count one more, it may be a tube: find out which before anything is cut. If one less, you took a filler for a tube.`,
      },
    });
  return steps;
}

/** The color of each tube that is opened. */
export function tubeColorSteps(cable: Cable, opened: readonly OpenedUnit[]): Step[] {
  const scheme = schemeOf(cable);
  const holders = opened.map(({ holder }) => holder);
  const count = tubesOf(cable);
  return holders.map(({ number, code }) => ({
    id: `tube-color.${number}`,
    title: `Tube ${number}: its color`,
    what: `Pick tube ${number} out, and look at its color and at its tracer where it has one.`,
    good: 'Number and color said aloud.',
    mistake: 'Counting places of the stranding instead of tubes: a filler takes a place and no number.',
    check: {
      ask: `Which color has tube ${number}?`,
      expects: 'color',
      answer: code,
      choices: colorChoices(scheme, number, count),
      wrong: `By the cable’s color code tube ${number} is ${code}. Look again, in better light, before anything is cut.`,
    },
  }));
}

function tubesOf({ construction }: Cable): number {
  const last = fiberUnits(construction).at(-1)!;
  return last.tube ?? last.unit;
}

/** The fibers of one tube that comes off: its binder groups while the binders are on, then all of them clean. */
export function fiberSteps(
  { cable, tape, schools }: StepContext,
  { holder }: OpenedUnit,
): {
  readonly groups: Step[];
  readonly clean: Step;
} {
  const { number, groupSize, fibers } = holder;
  const sizes =
    groupSize === null
      ? []
      : Array.from({ length: Math.ceil(fibers / groupSize) }, (_, index) =>
          Math.min(groupSize, fibers - index * groupSize),
        );
  const scheme = schemeOf(cable);
  const groups: Step[] = [];
  if (sizes.length > 0)
    groups.push({
      id: `groups-show.${number}`,
      title: `${named(holder)}: clean where the binders show`,
      what: `Only the ${tape(101.6)} to ${tape(152.4)} next to the tube, so that the binders can be followed.`,
      good: 'Each binder can be traced into the tube.',
      mistake: 'Cleaning all the way first: the binders come off and the groups look alike.',
    });
  sizes.forEach((size, index) => {
    const group = index + 1;
    // Another place in each tube and group, so that nobody answers out of habit.
    const place = ((number * 5 + group * 3) % size) + 1;
    const color = colorAt(scheme, place);
    groups.push(
      {
        id: `group.${number}.${group}`,
        title: `${named(holder)}: count group ${group}`,
        what: `The fibers of group ${group}, while its binder is on.`,
        good: 'The same number twice.',
        mistake: 'Trusting the binder alone: it is gone after the last wipe.',
        check: {
          ask: `How many fibers has group ${group} of tube ${number}?`,
          expects: 'count',
          answer: String(size),
          wrong: `It has ${size}. A fiber is in the other group or still in the tube: sort it out while the binders are on.`,
        },
      },
      {
        id: `group-color.${number}.${group}`,
        title: `${named(holder)}: colors of group ${group}`,
        what: `Lay the fibers of group ${group} side by side in the order of the color code.`,
        good: 'Every color is there once.',
        mistake: 'Two of one color in a group: one of them belongs to the other.',
        check: {
          ask: `Group ${group} of tube ${number}: which color lies at place ${place}?`,
          expects: 'color',
          answer: color.code,
          choices: Array.from({ length: size }, (_, at) => colorAt(scheme, at + 1)),
          wrong: `${color.code} belongs at place ${place}. One is missing, double or swapped: sort it out while the binders are on.`,
        },
      },
    );
  });
  return {
    groups,
    clean: {
      id: `clean-fibers.${number}`,
      title: `${named(holder)}: clean the fibers`,
      what: `With gel remover, then ${wipeWords[schools.wipe]}, from the tube to the ends.`,
      good: 'Fibers fan out one by one, colors bright.',
      mistake: 'Wiping toward the tube: gel and grit are pushed back in.',
      caution: 'Alcohol burns: nothing that sparks or heats near it.',
      check: {
        ask: `How many fibers has ${inSentence(holder)}?`,
        expects: 'count',
        answer: String(fibers),
        wrong: `It should have ${fibers}. Look for a broken one at the tube’s end before you go on.`,
      },
    },
  };
}

/** Binders tied and the second group cut shorter, once the groups of all tubes are counted. */
export function groupsApart(
  { tape }: StepContext,
  opened: readonly OpenedUnit[],
  marks: readonly string[],
): Step {
  const size = opened.find(({ holder }) => holder.groupSize !== null)!.holder.groupSize!;
  return {
    id: 'groups-apart',
    title: 'Keep the groups apart',
    what: `Half hitches of the first binder, about six turns, round fibers 1 to ${size} of each tube. Cut the second group ${tape(groupStep)} shorter.`,
    good: 'The groups are told apart in two ways at once.',
    mistake: 'Cleaning before they are told apart.',
    marks,
  };
}

/** The ribbons of a stack are known by their printed numbers or by their places in it; the edge color is the same on every one. */
export function ribbonCountSteps(cable: Cable, opened: readonly OpenedUnit[]): Step[] {
  const units = fiberUnits(cable.construction);
  if (cable.construction.kind === 'central-ribbon')
    return [
      {
        id: 'count-ribbons',
        title: 'Count the ribbons',
        what: 'The whole stack, before one is separated from it.',
        good: 'The same number twice, from the top and from the bottom.',
        mistake: 'Going by the edge color: it is the same on every ribbon.',
        check: {
          ask: 'How many ribbons does the cable have?',
          expects: 'count',
          answer: String(units.length),
          wrong: `The plan has ${units.length}. Count again. If it is another number, this is not the cable of the plan.`,
        },
      },
    ];
  return opened.map(({ holder }) => {
    const ribbons = units.filter(({ tube }) => tube === holder.number);
    return {
      id: `count-ribbons.${holder.number}`,
      title: `${named(holder)}: count its ribbons`,
      what: 'The whole stack of this tube, before one is separated from it.',
      good: 'The same number twice, from the top and from the bottom.',
      mistake: 'Going by the edge color: it is the same on every ribbon.',
      check: {
        ask: `How many ribbons has tube ${holder.number}?`,
        expects: 'count',
        answer: String(ribbons.length),
        wrong: `The plan has ${ribbons.length}. Count again before one is separated.`,
      },
    };
  });
}

/** Which ribbon is which, of each that is opened: by the number that is printed on it, or its place where ribbons lie in tubes. */
export function ribbonNumberSteps(cable: Cable, opened: readonly OpenedUnit[]): Step[] {
  const units = fiberUnits(cable.construction);
  return opened.map(({ holder, taken }) => {
    const first = units.find((unit) => unit.first + unit.fibers > taken[0]!.from)!;
    const inTube = first.inTube;
    return {
      id: `ribbon-number.${holder.number}`,
      title: inTube === null ? `Find ribbon ${first.unit}` : `${named(holder)}: find the first ribbon`,
      what:
        inTube === null
          ? `Ribbon ${first.unit} of the stack, by the number printed on it, or by its place where none is printed.`
          : `The first ribbon to be spliced out of tube ${holder.number}, by its place in the tube’s stack.`,
      good: 'Number and place agree.',
      mistake: 'Going by the edge color: it is the same on every ribbon.',
      check: {
        ask:
          inTube === null
            ? 'Which number is printed on the ribbon in your hand?'
            : 'At which place of its stack did it lie, counted from the first?',
        expects: 'count',
        field: inTube === null ? 'Printed number' : 'Place',
        answer: String(inTube ?? first.unit),
        wrong: `It has to be ${inTube === null ? `ribbon ${first.unit}` : `the ribbon at place ${inTube}`}. The stack is turned, or another one is in your hand.`,
      },
    };
  });
}
