import { compareFacts, isSpliceFact, spliceIdOf, type Fact } from '../facts';
import { spliceHistory } from '../splice/record/history';
import { Judge, type JudgeContext } from './judge';
import { happenedOf, seriesOf, triedOf, type SeriesContext } from './series/seriesOf';

/**
 * A judge that is given facts as they come. What comes in the order of time is told to it at once; for anything else (a correction, a fact that comes late) all is told
 * anew, so that what it says depends on the set of facts alone.
 */
export class JudgeKeeper {
  private facts = new Map<string, Fact>();
  private tries = new Map<string, number>();
  private last: Fact | null = null;
  private kept: Judge;

  constructor(private readonly context: SeriesContext & JudgeContext) {
    this.kept = new Judge(context);
  }

  get judge(): Judge {
    return this.kept;
  }

  /** Facts that are known already are passed over. */
  take(facts: Iterable<Fact>): void {
    const fresh = [...facts].filter(({ id }) => !this.facts.has(id)).sort(compareFacts);
    const before = this.facts.size;
    let inOrder = before > 0;
    for (const fact of fresh) {
      this.facts.set(fact.id, fact);
      inOrder &&= fact.kind !== 'correction' && (!this.last || compareFacts(fact, this.last) > 0);
      if (inOrder) this.tell(fact);
      if (!this.last || compareFacts(fact, this.last) > 0) this.last = fact;
    }
    if (fresh.length > 0 && !inOrder) this.tellAll();
  }

  private tell(fact: Fact): void {
    if (fact.kind === 'attempt') {
      const key = spliceKey(fact);
      const nth = (this.tries.get(key) ?? 0) + 1;
      this.tries.set(key, nth);
      const [attempt] = spliceHistory([fact]).attempts;
      const tried = triedOf(attempt!, nth, this.context);
      if (tried) this.kept.tell({ tried });
    } else {
      const event = happenedOf(fact);
      if (event) this.kept.tell({ event });
    }
  }

  private tellAll(): void {
    this.kept = new Judge(this.context);
    this.tries = new Map();
    for (const one of seriesOf(this.facts.values(), this.context)) this.kept.tell(one);
    // A try that was taken back is not counted as one.
    const withdrawn = new Set<string>();
    const latest = new Map<string, string>();
    for (const fact of this.facts.values())
      if (fact.kind === 'correction') {
        const { attemptId, result } = fact.body;
        const known = latest.get(attemptId);
        if (known && known > `${fact.madeAt} ${fact.id}`) continue;
        latest.set(attemptId, `${fact.madeAt} ${fact.id}`);
        if (result) withdrawn.delete(attemptId);
        else withdrawn.add(attemptId);
      }
    for (const fact of this.facts.values())
      if (fact.kind === 'attempt' && !withdrawn.has(fact.id)) {
        const key = spliceKey(fact);
        this.tries.set(key, (this.tries.get(key) ?? 0) + 1);
      }
  }
}

function spliceKey(fact: Fact): string {
  if (!isSpliceFact(fact)) return '';
  return `${fact.subject.closureId} ${spliceIdOf(fact)}`;
}
