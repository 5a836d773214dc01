import { meanOf, type Tried } from '../series/tried';
import type { Strength } from './rule';

/** What a rule saw, in numbers that somebody can check: the splices in question and those beside them. */
export interface Saw {
  /** Mean of what is in question, and of what it is held against; dB or degrees, or shares of splices. null where there is nothing to hold it against. */
  readonly mean: number;
  readonly other: number | null;
  readonly unit: 'dB' | '°' | 'share';
  /** Splices in question. */
  readonly count: number;
  /** Each value in question in the order of time, with its try, for a chart. */
  readonly points: readonly {
    readonly attempt: string;
    readonly at: number;
    readonly value: number;
    readonly mine: boolean;
  }[];
}

/** So many of the last splices stand in the chart. */
const most = 120;

/** @param tried of the night, or of the job where the rule looks at it all; in the order of time */
export function sawOf({ rule, about, count }: Strength, tried: readonly Tried[]): Saw {
  switch (rule) {
    case 'position': {
      const at = Number(about) - 1;
      const ribbons = tried
        .filter(({ kind, losses }) => kind === 'ribbon' && losses.length > at)
        .slice(-count);
      const points = ribbons.flatMap((one) =>
        one.losses.flatMap((loss, position) =>
          loss === null ? [] : [{ attempt: one.attempt, at: one.at, value: loss, mine: position === at }],
        ),
      );
      return summed(points, 'dB', Math.min(count, ribbons.length));
    }
    case 'side': {
      const points = tried.slice(-count).flatMap((one) =>
        (['left', 'right'] as const).flatMap((side) => {
          const value = meanOf(one[side]);
          return value === null ? [] : [{ attempt: one.attempt, at: one.at, value, mine: side === about }];
        }),
      );
      return summed(points, '°', count);
    }
    case 'blade':
    case 'position-of-blade': {
      const own = rule === 'blade' ? tried : tried.filter(({ cleaver }) => cleaver === about);
      return summed(
        since(own, count, (one) => meanOf([...one.left, ...one.right])),
        '°',
        count,
      );
    }
    case 'over':
    case 'breaks':
    case 'cold':
      return summed(
        since(tried, count, (one) => (rule === 'over' ? Number(one.over) : Number(one.broke))),
        'share',
        count,
      );
    case 'pair':
    case 'person':
    case 'machine':
      return summed(
        tried.flatMap((one) => {
          const value = one.nth === 1 ? meanLoss(one) : null;
          return value === null
            ? []
            : [{ attempt: one.attempt, at: one.at, value, mine: one[rule] === about }];
        }),
        'dB',
        count,
      );
    case 'drift':
    case 'shift':
    case 'level':
    case 'conditions':
      return summed(
        since(
          tried.filter(({ nth }) => nth === 1),
          rule === 'drift' ? Math.ceil(count / 2) : count,
          meanLoss,
        ),
        'dB',
        count,
      );
  }
}

type Point = Saw['points'][number];

/** The last ones are in question, those before them are what they are held against. */
function since(tried: readonly Tried[], count: number, value: (one: Tried) => number | null): Point[] {
  const from = tried.length - count;
  return tried.flatMap((one, index) => {
    const of = value(one);
    return of === null ? [] : [{ attempt: one.attempt, at: one.at, value: of, mine: index >= from }];
  });
}

const meanLoss = ({ losses }: Tried) => meanOf(losses);

function summed(points: readonly Point[], unit: Saw['unit'], count: number): Saw {
  const mean = (mine: boolean) => {
    const own = points.filter((point) => point.mine === mine);
    return own.length === 0 ? null : own.reduce((sum, { value }) => sum + value, 0) / own.length;
  };
  return { mean: mean(true) ?? 0, other: mean(false), unit, count, points: points.slice(-most) };
}
