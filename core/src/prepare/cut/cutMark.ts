import type { Units } from '../../line/project';
import { formatTape } from '../../units/tapeLength';

export type CutMarkKind =
  | 'outside'
  | 'clamp'
  | 'center'
  | 'test-cut'
  | 'ripcord'
  | 'ring-cut'
  | 'slit'
  | 'aramid'
  | 'filler'
  | 'strength-member'
  | 'central-tube'
  | 'tray'
  | 'tube-end'
  | 'tube-cut'
  | 'window'
  | 'groups'
  | 'fiber-end';

/** One mark of a cut sheet: where, what, with which tool, how deep, and why there. */
export interface CutMark {
  /** Stable while the plan stays: its kind, and side and tubes where there are several. */
  readonly id: string;
  readonly kind: CutMarkKind;
  /** mm from the sheet's reference; toward the low side of the route below 0 where the reference is the center. */
  readonly at: number;
  /** Where it has a length: its other end, mm. */
  readonly to?: number;
  readonly title: string;
  /** Where, in words: "1 626 mm from the cable end". */
  readonly place: string;
  readonly tool: string;
  /** How deep, where something is cut. */
  readonly depth: string | null;
  readonly why: string;
  readonly caution?: string;
  /** Why it must not be made as things stand: somebody has to answer for it first. */
  readonly stop?: string;
  /** Tubes or ribbons that it concerns, by their numbers; empty when it concerns the cable. */
  readonly units: readonly number[];
}

export type CutMarkDraft = Omit<CutMark, 'place' | 'depth' | 'units'> &
  Partial<Pick<CutMark, 'depth' | 'units' | 'place'>>;

/** Gathers marks in the order in which they are made and says where each is in the project's unit. */
export class CutMarks {
  readonly list: CutMark[] = [];

  constructor(
    private readonly show: Units,
    private readonly placeOf: (at: number, to?: number) => string,
    /** What is opened: a mark on tube or fiber that would lie beyond it cannot be made, and is left out. */
    private readonly opened: { readonly from: number; readonly to: number },
  ) {}

  tape(length: number): string {
    return formatTape(length, this.show);
  }

  add({ depth = null, units = [], place, ...mark }: CutMarkDraft): void {
    const { from, to } = this.opened;
    const onSheath = mark.kind === 'outside' || mark.kind === 'clamp';
    if (!onSheath && [mark.at, mark.to ?? mark.at].some((at) => at < from - 1e-9 || at > to + 1e-9)) return;
    const where = place ?? this.placeOf(mark.at, mark.to);
    this.list.push({ ...mark, depth, units, place: where });
  }
}

export const blade = 'Cut-resistant glove on the holding hand; cut away from it.';
