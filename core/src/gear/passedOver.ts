import { compareFacts, isGearFact, type Attempt, type DueAbout, type Fact, type GearFact } from '../facts';
import { putsRight } from './due';

/** A night: after it what is due is asked for anew. h */
const night = 14;

/** What somebody chose to splice on without, by gear; for asking about many attempts. */
export type PassedOver = ReadonlyMap<string, readonly GearFact[]>;

/** The gear's own facts in their order, by the piece of gear. */
export function passedOverBook(facts: Iterable<Fact | GearFact>): PassedOver {
  const byGear = new Map<string, GearFact[]>();
  for (const fact of facts) {
    if (!isGearFact(fact)) continue;
    const own = byGear.get(fact.subject.gearId);
    if (own) own.push(fact);
    else byGear.set(fact.subject.gearId, [fact]);
  }
  for (const own of byGear.values()) own.sort(compareFacts);
  return byGear;
}

/** What was due at a piece of gear of an attempt, and passed over that night and not put right, when the attempt was made. */
export function passedOverAt(
  attempt: Attempt,
  book: PassedOver,
): { readonly gearId: string; readonly about: DueAbout }[] {
  const { machine, cleaver } = attempt.body.gear ?? {};
  const from = new Date(Date.parse(attempt.madeAt) - night * 3600_000).toISOString();
  const open = new Map<DueAbout, string>();
  for (const { id } of [machine, cleaver].filter((one) => one !== undefined))
    for (const fact of book.get(id) ?? []) {
      if (fact.madeAt < from || compareFacts(fact, attempt) > 0) continue;
      const right = putsRight(fact);
      if (right) open.delete(right);
      else if (fact.kind === 'went-on') open.set(fact.body.about, id);
    }
  return [...open].map(([about, gearId]) => ({ gearId, about }));
}

/** The same without at which piece. */
export function passedOver(attempt: Attempt, book: PassedOver): DueAbout[] {
  return passedOverAt(attempt, book).map(({ about }) => about);
}
