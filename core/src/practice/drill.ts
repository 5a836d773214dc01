import { equalTubes, type Cable, type Construction } from '../line/cable';
import { fiberCount, fiberName, fiberPosition, fiberNumber, unitOf } from '../line/fiberNumber';
import { draws, type Draws } from '../machine/draws';

/** A drill of color codes and positions: which fiber is 157, and which number has the rose one in the violet tube? */

export const drillCables = ['loose', 'groups', 'ribbons', 'all'] as const;
export type DrillCables = (typeof drillCables)[number];

/** A question; its answers are numbers of fibers, of which one is right. */
export interface DrillQuestion {
  readonly cable: Cable;
  /** "where": the number is given and its colors are asked; "number": the other way round. */
  readonly asks: 'where' | 'number';
  /** The right one. */
  readonly number: number;
  /** In the order in which they are shown. */
  readonly choices: readonly number[];
}

export interface DrillAnswer {
  readonly right: boolean;
  readonly ms: number;
}

/** Questions of a round. */
export const drillLength = 20;

const constructions: Readonly<Record<Exclude<DrillCables, 'all'>, readonly Construction[]>> = {
  loose: [equalTubes(8, 12), equalTubes(12, 12), equalTubes(24, 12)],
  groups: [2, 6, 12].map((tubes): Construction => ({
    kind: 'stranded-tubes',
    strands: Array.from({ length: tubes }, () => ({ kind: 'tube', fibers: 24, groupSize: 12 })),
  })),
  ribbons: [
    { kind: 'central-ribbon', ribbons: 12, fibersPerRibbon: 12 },
    { kind: 'central-ribbon', ribbons: 24, fibersPerRibbon: 12 },
  ],
};

/**
 * The `nth` question of a round, from 0; the same seed asks the same.
 * @param schemeId color code that the cables follow
 */
export function drillQuestion(
  seed: number,
  nth: number,
  cables: DrillCables,
  schemeId: string,
): DrillQuestion {
  const own = draws(seed, 'drill', nth);
  const pool = cables === 'all' ? Object.values(constructions).flat() : constructions[cables];
  const construction = pool[below(own, pool.length)]!;
  const cable: Cable = {
    id: '01900000-0000-7000-8000-000000000000',
    label: '',
    schemeId,
    construction,
    siteIds: [],
  };
  const number = 1 + below(own, fiberCount(construction));
  const choices = [number, ...wrongChoices(own, construction, number)];
  return { cable, asks: own.chance(0.5) ? 'where' : 'number', number, choices: shuffled(own, choices) };
}

/** Three others, such as people take for it: the tube beside, the fiber beside, the other group, counted from the other end. */
function wrongChoices(own: Draws, construction: Construction, number: number): number[] {
  const { unit, fiber, group } = fiberPosition(construction, number);
  const { first, fibers, groupSize } = unitOf(construction, number);
  const size = groupSize ?? fibers;
  const likely = [
    number + fibers,
    number - fibers,
    number + 1,
    number - 1,
    // Counted from the other end of the tube, the group or the ribbon.
    first + (group === null ? 0 : (group - 1) * size) + size - fiber,
    group === null ? 0 : group === 1 ? number + size : number - size,
    // Tube and fiber taken for each other.
    swapped(construction, { unit: fiber, group, fiber: unit }),
  ];
  const found: number[] = [];
  for (const one of shuffled(own, likely))
    if (one >= 1 && one <= fiberCount(construction) && one !== number && !found.includes(one))
      found.push(one);
  // In a very small cable there are not as many such.
  for (let one = 1; found.length < 3 && one <= fiberCount(construction); one += 1)
    if (one !== number && !found.includes(one)) found.push(one);
  return found.slice(0, 3);
}

/** 0 where there is none. */
function swapped(construction: Construction, position: Parameters<typeof fiberNumber>[1]): number {
  try {
    return fiberNumber(construction, position);
  } catch {
    return 0;
  }
}

function below(own: Draws, count: number): number {
  return Math.min(count - 1, Math.floor(own.uniform() * count));
}

/** Fisher and Yates 1938. */
function shuffled<T>(own: Draws, list: readonly T[]): T[] {
  const mixed = [...list];
  for (let last = mixed.length - 1; last > 0; last -= 1) {
    const at = below(own, last + 1);
    [mixed[last], mixed[at]] = [mixed[at]!, mixed[last]!];
  }
  return mixed;
}

/** How the right answer is found: "Tube 14 holds 157 to 168. 157 is number 1 in it: blue." */
export function drillWords({ cable, number }: DrillQuestion): string {
  const name = fiberName(cable, number);
  const { first, fibers } = unitOf(cable.construction, number);
  const holder = name.unitKind === 'ribbon' ? 'Ribbon' : 'Tube';
  const group = name.group === null ? '' : `, in group ${name.group}`;
  return `${holder} ${name.unit} is ${name.unitColor.name} and holds ${first} to ${first + fibers - 1}. ${number} is number ${number - first + 1} in it${group}: ${name.fiberColor.name}.`;
}

/** What came of a round: right ones, and the time that half of the answers took, s; null where none was given. */
export function drillScore(answers: readonly DrillAnswer[]): {
  readonly right: number;
  readonly seconds: number | null;
} {
  const times = answers.map(({ ms }) => ms).sort((a, b) => a - b);
  const middle =
    times.length === 0 ? null : (times[(times.length - 1) >> 1]! + times[times.length >> 1]!) / 2;
  return {
    right: answers.filter(({ right }) => right).length,
    seconds: middle === null ? null : Math.round(middle / 100) / 10,
  };
}
