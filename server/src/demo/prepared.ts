import {
  planClosure,
  type Cable,
  type Closure,
  type Fact,
  type Site,
  type StoredFact,
  type Tick,
  tickNames,
} from '@cordel/core';
import { cautionsFor, cutSheet, itemsFor, stepsFor, usualSchools } from '@cordel/core/prepare';
import { seeded } from './seeded';

export interface Preparing {
  readonly closure: Closure;
  readonly site: Site;
  readonly cables: ReadonlyMap<string, Cable>;
  readonly begins: Date;
  readonly by: string;
  /** How much of each cable's marks is made, by cable; 0 where it is not given. */
  readonly made: ReadonlyMap<string, number>;
  /** Items that are missing. */
  readonly missing?: readonly string[];
  /** mm, by cable. */
  readonly diameters?: ReadonlyMap<string, number>;
  /** m, by cable. */
  readonly sheathMarks?: ReadonlyMap<string, number>;
  readonly sealed?: boolean;
}

/** What a crew ticked and measured while it prepared the cables of a closure. Made up. */
export function preparedFacts({
  closure,
  site,
  cables,
  begins,
  by,
  made,
  missing = [],
  diameters = new Map(),
  sheathMarks = new Map(),
  sealed = false,
}: Preparing): StoredFact[] {
  const random = seeded(begins.getTime() / 1000 + site.chainage);
  const plan = planClosure(closure, cables);
  const stored: StoredFact[] = [];
  let clock = begins.getTime();
  const keep = (
    fact:
      | Pick<Tick, 'kind' | 'about' | 'state' | 'answer' | 'note'>
      | { kind: 'measurement'; about: string; value: number },
    seconds: number,
  ) => {
    clock += seconds * 1000;
    const madeAt = new Date(clock);
    stored.push({
      fact: {
        id: random.id(madeAt),
        closureId: closure.id,
        madeAt: madeAt.toISOString(),
        by,
        ...fact,
      } as Fact,
      receivedAt: new Date(clock + 1000).toISOString(),
    });
  };
  const tick = (about: string, state: Tick['state'] = 'done', answer: Tick['answer'] = null, seconds = 20) =>
    keep({ kind: 'tick', about, state, answer, note: '' }, seconds);

  for (const caution of cautionsFor(site, closure, plan, cables))
    tick(tickNames.caution(caution.id), 'done', null, 5);
  for (const item of itemsFor(closure, plan, cables, usualSchools))
    tick(tickNames.item(item.id), missing.includes(item.id) ? 'missing' : 'done', null, 2);
  for (const [cableId, value] of diameters)
    keep({ kind: 'measurement', about: tickNames.diameter(cableId), value }, 30);
  for (const [cableId, value] of sheathMarks)
    keep({ kind: 'measurement', about: tickNames.sheathMark(cableId), value }, 20);
  for (const [cableId, share] of made) {
    const cable = cables.get(cableId)!;
    const { marks } = cutSheet(closure, plan, cable, { units: 'mm' });
    const done = new Set(marks.slice(0, Math.round(marks.length * share)).map((mark) => mark.id));
    for (const mark of marks)
      if (done.has(mark.id))
        tick(tickNames.mark(cableId, mark.id), 'done', { text: String(mark.at), right: true }, 60);
    for (const step of stepsFor(closure, plan, cable, { units: 'mm', schools: usualSchools }).flatMap(
      (chapter) => chapter.steps,
    ))
      if (
        (step.marks ?? []).every((mark) => done.has(mark)) &&
        (share === 1 || (step.marks ?? []).length > 0)
      )
        tick(
          tickNames.step(cableId, step.id),
          'done',
          step.check ? { text: step.check.answer, right: true } : null,
          40,
        );
  }
  if (sealed) tick(tickNames.sealed, 'done', null, 1800);
  return stored;
}
