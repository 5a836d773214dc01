import { exceeds, type Limits } from '../../limits/limits';

/** What the machine shows of one fiber before the arc; null: not looked at. Degrees and μm. */
export interface BeforeArc {
  readonly cleaveLeft: number | null;
  readonly cleaveRight: number | null;
  readonly offset: number | null;
  readonly gap: number | null;
}

export const nothingSeen: BeforeArc = { cleaveLeft: null, cleaveRight: null, offset: null, gap: null };

export interface ArcLimit {
  readonly value: number;
  /** Whose limit it is. */
  readonly of: 'project' | 'machine';
}

/** The limits that bind before the arc; null: there is none. */
export interface ArcLimits {
  readonly cleaveAngle: ArcLimit;
  readonly offset: ArcLimit | null;
  readonly gap: ArcLimit | null;
}

/** The tighter of what the project asks and what the machine takes. */
export function arcLimits(
  limits: Pick<Limits, 'cleaveAngleMax' | 'offsetMax' | 'gapMax'>,
  machine: {
    readonly cleaveAngle: number | null;
    readonly offset: number | null;
    readonly gap: number | null;
  } | null,
): ArcLimits {
  const tighter = (project: number | undefined, own: number | null | undefined): ArcLimit | null => {
    if (project === undefined) return own == null ? null : { value: own, of: 'machine' };
    return own != null && own < project ? { value: own, of: 'machine' } : { value: project, of: 'project' };
  };
  return {
    cleaveAngle: tighter(limits.cleaveAngleMax, machine?.cleaveAngle)!,
    offset: tighter(limits.offsetMax, machine?.offset),
    gap: tighter(limits.gapMax, machine?.gap),
  };
}

export interface ArcAdvice {
  readonly action: 'look' | 'fuse' | 'recleave-left' | 'recleave-right' | 'recleave-both' | 'reseat';
  /** Fibers of the splice, 1 …, that it is about. */
  readonly fibers: readonly number[];
  /** Why, fiber by fiber. */
  readonly over: readonly OverLimit[];
  /** How many of how many fibers were looked at. */
  readonly looked: number;
  readonly count: number;
}

/** A fiber that is over a limit: degrees of a cleave, μm of offset and gap. */
export interface OverLimit {
  readonly fiber: number;
  readonly what: 'cleave-left' | 'cleave-right' | 'offset' | 'gap';
  readonly seen: number;
  readonly limit: ArcLimit;
}

/**
 * What to do before the arc. A bad cleave comes first, since new ends are seated anew anyway; then fibers that do not lie right. Of a ribbon a side is
 * recleaved as a whole.
 * @param fibers one for each fiber of the splice
 */
export function adviseBeforeArc(fibers: readonly BeforeArc[], limits: ArcLimits): ArcAdvice {
  const over = (
    what: OverLimit['what'],
    value: (fiber: BeforeArc) => number | null,
    limit: ArcLimit | null,
  ): OverLimit[] =>
    fibers.flatMap((fiber, index) => {
      const seen = value(fiber);
      return limit && seen !== null && exceeds(seen, limit.value)
        ? [{ fiber: index + 1, what, seen, limit }]
        : [];
    });
  const looked = fibers.filter(isSeen).length;
  const advise = (action: ArcAdvice['action'], because: readonly OverLimit[] = []): ArcAdvice => ({
    action,
    fibers: [...new Set(because.map((one) => one.fiber))].sort((a, b) => a - b),
    over: because,
    looked,
    count: fibers.length,
  });

  const left = over('cleave-left', (fiber) => fiber.cleaveLeft, limits.cleaveAngle);
  const right = over('cleave-right', (fiber) => fiber.cleaveRight, limits.cleaveAngle);
  const cleaves = [...left, ...right];
  if (cleaves.length > 0)
    return advise(
      left.length === 0 ? 'recleave-right' : right.length === 0 ? 'recleave-left' : 'recleave-both',
      cleaves,
    );
  const seat = [
    ...over('offset', (fiber) => fiber.offset, limits.offset),
    ...over('gap', (fiber) => fiber.gap, limits.gap),
  ];
  if (seat.length > 0) return advise('reseat', seat);
  return advise(looked === 0 ? 'look' : 'fuse');
}

export function isSeen({ cleaveLeft, cleaveRight, offset, gap }: BeforeArc): boolean {
  return cleaveLeft !== null || cleaveRight !== null || offset !== null || gap !== null;
}
