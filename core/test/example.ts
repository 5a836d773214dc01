import {
  factVersion,
  equalTubes,
  limitsPresets,
  planClosure,
  readFact,
  runsOf,
  type Attempt,
  type Cable,
  type Closure,
  type MeasuredLoss,
  type PlacedSplice,
  type SpliceFact,
  type Tick,
  type TickTarget,
  type ProjectDefinition,
} from '../src';

/** A small made-up project for tests: cables A and B of 4 × 6 fibers, one closure with trays of 12, joined straight. */

/** A readable identifier: the number is its tail. */
export function id(number: number): string {
  return `01900000-0000-7000-8000-${String(number).padStart(12, '0')}`;
}

export const cableA: Cable = {
  id: id(1),
  label: 'A',
  schemeId: 'tia-598-d',
  construction: equalTubes(4, 6),
  siteIds: [id(11), id(12)],
};
export const cableB: Cable = { ...cableA, id: id(2), label: 'B', siteIds: [id(12), id(13)] };
export const cables = new Map([cableA, cableB].map((cable) => [cable.id, cable]));

export const closure: Closure = {
  id: id(21),
  siteId: id(12),
  kind: 'dome',
  entries: [
    { cableId: cableA.id, manner: 'cut' },
    { cableId: cableB.id, manner: 'cut' },
  ],
  trays: [{ singleSlots: 12 }, { singleSlots: 12 }],
  order: [
    {
      id: id(31),
      left: { cableId: cableA.id, side: 'end', from: 1, to: 24 },
      right: { cableId: cableB.id, side: 'end', from: 1, to: 24 },
      mode: 'single',
      circuit: null,
    },
  ],
  version: 1,
};

/** 0.10 dB a splice, 0.05 dB mean, 1°, 3 tries. */
export const limits = limitsPresets[0]!.limits;
export const plan = planClosure(closure, cables);

export const definition: ProjectDefinition = {
  project: { id: id(41), name: 'Example', units: 'mm', limits, window: null, version: 1, lineVersion: 1 },
  sites: [
    { id: id(11), name: 'Hub', kind: 'hub', chainage: 0, placement: null },
    { id: id(12), name: 'Joint', kind: 'closure', chainage: 500, placement: 'pole' },
    { id: id(13), name: 'Cabinet', kind: 'cabinet', chainage: 900, placement: null },
  ],
  cables: [cableA, cableB],
  closures: [closure],
};

export const spliceAt = (index: number) => plan.trays.flatMap((tray) => tray.splices)[index]!;

/** Minute `minute` of a made-up night. */
export function timeOf(minute: number): string {
  return new Date(Date.UTC(2026, 3, 15, 1, minute)).toISOString();
}

let made = 1000;

type AttemptParts = Partial<Attempt['body']> & Partial<Pick<Attempt, 'id' | 'madeAt' | 'by' | 'subject'>>;

/** An attempt at splice `index`; each call is a later minute unless one is given. */
export function attempt(
  index: number,
  loss: number | null,
  more: AttemptParts & { cleaveLeft?: number; cleaveRight?: number; minute?: number } = {},
): Attempt {
  const {
    cleaveLeft = null,
    cleaveRight = null,
    minute,
    id: own,
    madeAt,
    by = null,
    subject,
    ...rest
  } = more;
  made += 1;
  return {
    v: factVersion('attempt'),
    id: own ?? id(made),
    kind: 'attempt',
    madeAt: madeAt ?? timeOf(minute ?? made),
    by,
    device: null,
    subject: subject ?? subjectOf(spliceAt(index)),
    body: {
      source: 'hand',
      simulated: false,
      readings: [{ loss, cleaveLeft, cleaveRight }],
      proofTestFailed: loss === null,
      note: '',
      ...rest,
    },
  };
}

/** What a fact about this splice is about. */
export function subjectOf(
  splice: Pick<PlacedSplice, 'left' | 'right'>,
  closureId = closure.id,
): Attempt['subject'] {
  return { on: 'splice', closureId, left: runsOf(splice.left), right: runsOf(splice.right) };
}

/** What every fact about the same splice as `before` starts with, a minute or more after it. */
export function factAfter({ subject }: SpliceFact) {
  made += 1;
  return { v: 2, id: id(made), madeAt: timeOf(made), by: null, device: null, subject };
}

/** The fiber of `of` was measured: 0.04 and 0.06 dB by OTDR, unless said otherwise. */
export function measuredLoss(of: Attempt, more: Partial<MeasuredLoss['body']> = {}): MeasuredLoss {
  return {
    ...factAfter(of),
    v: factVersion('measured-loss'),
    kind: 'measured-loss',
    body: {
      attemptId: of.id,
      position: 1,
      method: 'otdr',
      wavelength: 1550,
      fromLeft: 0.04,
      fromRight: 0.06,
      note: '',
      ...more,
    },
  };
}

/** Whether something is read as a fact of today. */
export function isFact(raw: unknown): boolean {
  return readFact(raw).status === 'known';
}

/** Why something is not a fact. */
export function refusalOf(raw: unknown): string | null {
  const read = readFact(raw);
  return read.status === 'wrong' ? read.message : null;
}

/** A tick of a target at the closure of the example. */
export function tickAt(target: TickTarget, minute: number, state: Tick['body']['state']): Tick {
  return {
    v: 2,
    id: id(5000 + minute),
    kind: 'tick',
    madeAt: timeOf(minute),
    by: 'Iara',
    device: null,
    subject: { ...target.place, closureId: closure.id } as Tick['subject'],
    body: { ...target.what, state, note: '' } as Tick['body'],
  };
}
