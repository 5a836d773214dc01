import { exceeds, type Limits } from '../limits/limits';
import { formatAngle } from './words';

/** What the machine shows of one fiber before the arc; null: not looked at. Degrees and μm. */
export interface BeforeArc {
  readonly cleaveLeft: number | null;
  readonly cleaveRight: number | null;
  readonly offset: number | null;
  readonly gap: number | null;
}

export const nothingSeen: BeforeArc = { cleaveLeft: null, cleaveRight: null, offset: null, gap: null };

interface ArcLimit {
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
  /** In words, with the numbers: what to do first, then why. */
  readonly message: string;
}

/**
 * What to do before the arc. A bad cleave comes first, since new ends are seated anew anyway; then fibers that do not lie right. Of a ribbon a side is
 * recleaved as a whole.
 * @param fibers one for each fiber of the splice
 */
export function adviseBeforeArc(fibers: readonly BeforeArc[], limits: ArcLimits): ArcAdvice {
  const over = (value: (fiber: BeforeArc) => number | null, limit: ArcLimit | null) =>
    fibers.flatMap((fiber, index) => {
      const seen = value(fiber);
      return limit && seen !== null && exceeds(seen, limit.value) ? [{ fiber: index + 1, seen }] : [];
    });
  const ribbon = fibers.length > 1;
  const list = (found: readonly { fiber: number; seen: number }[], format: (value: number) => string) =>
    found.map(({ fiber, seen }) => `${ribbon ? `fiber ${fiber} ` : ''}${format(seen)}`).join(', ');
  const whose = (limit: ArcLimit, format: (value: number) => string) =>
    `over the ${limit.of}’s ${format(limit.value)}`;

  const left = over((fiber) => fiber.cleaveLeft, limits.cleaveAngle);
  const right = over((fiber) => fiber.cleaveRight, limits.cleaveAngle);
  if (left.length + right.length > 0) {
    const side = left.length === 0 ? 'right' : right.length === 0 ? 'left' : 'both';
    const parts = [
      left.length > 0 ? `${side === 'both' ? 'left ' : ''}${list(left, formatAngle)}` : null,
      right.length > 0 ? `${side === 'both' ? 'right ' : ''}${list(right, formatAngle)}` : null,
    ].filter(Boolean);
    return {
      action: `recleave-${side}`,
      fibers: [...new Set([...left, ...right].map((one) => one.fiber))].sort((a, b) => a - b),
      message: `Recleave ${side === 'both' ? 'both sides' : side}: ${parts.join('; ')}, ${whose(limits.cleaveAngle, formatAngle)}.`,
    };
  }
  const offset = over((fiber) => fiber.offset, limits.offset);
  const gap = over((fiber) => fiber.gap, limits.gap);
  if (offset.length + gap.length > 0) {
    const which = [...new Set([...offset, ...gap].map((one) => one.fiber))].sort((a, b) => a - b);
    // With one fiber its name stands in front already.
    const values = (found: typeof offset) =>
      which.length === 1 ? micrometers(found[0]!.seen) : list(found, micrometers);
    const parts = [
      offset.length > 0 ? `offset ${values(offset)}, ${whose(limits.offset!, micrometers)}` : null,
      gap.length > 0 ? `gap ${values(gap)}, ${whose(limits.gap!, micrometers)}` : null,
    ].filter(Boolean);
    return {
      action: 'reseat',
      fibers: which,
      message: `Reseat ${!ribbon ? 'the fiber' : which.length === 1 ? `fiber ${which[0]}` : `fibers ${which.join(', ')}`}: ${parts.join('; ')}. Clean the groove with its brush first.`,
    };
  }
  const seen = fibers.filter(isSeen).length;
  if (seen === 0)
    return { action: 'look', fibers: [], message: 'Cleaves, offset and gap were not looked at yet.' };
  return {
    action: 'fuse',
    fibers: [],
    message:
      seen < fibers.length
        ? `Fuse: the ${seen} of ${fibers.length} fibers that were looked at are within the limits.`
        : 'Fuse: what was looked at is within the limits.',
  };
}

export function isSeen({ cleaveLeft, cleaveRight, offset, gap }: BeforeArc): boolean {
  return cleaveLeft !== null || cleaveRight !== null || offset !== null || gap !== null;
}

/** "2.5 μm" */
export function micrometers(value: number): string {
  return `${Math.round(value * 10) / 10} μm`;
}
