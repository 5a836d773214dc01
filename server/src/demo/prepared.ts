import {
  factVersion,
  planClosure,
  tickTargets,
  type Cable,
  type Closure,
  type Fact,
  type Measurement,
  type Site,
  type StoredFact,
  type Tick,
  type TickAnswer,
  type TickTarget,
} from '@cordel/core';
import {
  cautionsFor,
  cutSheet,
  itemsFor,
  readAnswer,
  stepsFor,
  usualSchools,
  type Step,
  seatCables,
} from '@cordel/core/prepare';
import { seeded } from './seeded';

export interface Preparing {
  readonly closure: Closure;
  readonly site: Site;
  readonly cables: ReadonlyMap<string, Cable>;
  readonly begins: Date;
  /** ms from the scenario's own night to the one in which it is shown. */
  readonly shift: number;
  readonly by: string;
  /** How much of each cable's marks is made, by cable; 0 where it is not given. */
  readonly made: ReadonlyMap<string, number>;
  /** Items that are missing. */
  readonly missing?: readonly string[];
  /** mm, by cable. */
  readonly diameters?: ReadonlyMap<string, number>;
  /** m, by cable. */
  readonly sheathMarks?: ReadonlyMap<string, number>;
}

type Made = Pick<Tick, 'kind' | 'subject' | 'body'> | Pick<Measurement, 'kind' | 'subject' | 'body'>;

/** What a crew ticked and measured while it prepared the cables of a closure. Made up. */
export function preparedFacts({
  closure,
  site,
  cables,
  begins,
  shift,
  by,
  made,
  missing = [],
  diameters = new Map(),
  sheathMarks = new Map(),
}: Preparing): StoredFact[] {
  const random = seeded(begins.getTime() / 1000 + site.chainage);
  const plan = planClosure(closure, cables);
  const stored: StoredFact[] = [];
  const measured = new Map(diameters);
  const seats = new Map(seatCables(closure, cables, measured).seats.map((seat) => [seat.cable.id, seat]));
  let clock = begins.getTime();
  const keep = (fact: Made, seconds: number) => {
    clock += seconds * 1000;
    const madeAt = new Date(clock + shift);
    stored.push({
      fact: {
        v: factVersion(fact.kind),
        id: random.id(madeAt),
        madeAt: madeAt.toISOString(),
        by,
        device: null,
        ...fact,
      } as Fact,
      receivedAt: new Date(clock + shift + 1000).toISOString(),
    });
  };
  const tick = (
    target: TickTarget,
    seconds: number,
    more: { state?: Tick['body']['state']; mm?: number; answer?: TickAnswer | null } = {},
  ) => {
    const { state = 'done', ...given } = more;
    keep(
      {
        kind: 'tick',
        subject: { ...target.place, closureId: closure.id } as Tick['subject'],
        body: { ...target.what, ...given, state, note: '' } as Tick['body'],
      },
      seconds,
    );
  };
  const measure = (cableId: string, body: Measurement['body'], seconds: number) =>
    keep({ kind: 'measurement', subject: { on: 'cable', closureId: closure.id, cableId }, body }, seconds);

  for (const caution of cautionsFor(site, closure, plan, cables)) tick(tickTargets.caution(caution.id), 5);
  for (const item of itemsFor(closure, plan, cables, usualSchools))
    tick(tickTargets.item(item.id), 2, { state: missing.includes(item.id) ? 'missing' : 'done' });
  for (const [cableId, value] of diameters) measure(cableId, { of: 'diameter', mm: value }, 30);
  for (const [cableId, value] of sheathMarks) measure(cableId, { of: 'sheath-number', m: value }, 20);
  for (const [cableId, share] of made) {
    const cable = cables.get(cableId)!;
    const { marks } = cutSheet(closure, plan, cable, { units: 'mm' });
    const done = new Set(marks.slice(0, Math.round(marks.length * share)).map((mark) => mark.id));
    for (const mark of marks)
      if (done.has(mark.id)) tick(tickTargets.mark(cableId, mark.id), 60, { mm: mark.at });
    const steps = stepsFor(closure, plan, cable, {
      units: 'mm',
      schools: usualSchools,
      seat: seats.get(cableId) ?? null,
    }).flatMap((chapter) => chapter.steps);
    const isMade = (step: Step) => (step.marks ?? []).every((mark) => done.has(mark));
    // Up to the last one that made something: who cut has counted.
    const last =
      share === 1 ? steps.length - 1 : steps.findLastIndex((step) => step.marks?.length && isMade(step));
    for (const step of steps.slice(0, last + 1))
      if (isMade(step))
        tick(tickTargets.step(cableId, step.id), 40, {
          answer: step.check ? readAnswer(step.check, step.check.answer) : null,
        });
  }
  return stored;
}
