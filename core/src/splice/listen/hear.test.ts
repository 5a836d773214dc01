import fc from 'fast-check';
import { attempt, factAfter, id, limits, plan, spliceAt } from '../../../test/example';
import type { Fact } from '../../facts';
import { alongTheCord } from '../bench/workOrder';
import { buildLedger } from '../record/ledger';
import type { MachineEvent } from '../../machine/link';
import {
  answered,
  beginHearing,
  hear,
  heardUpTo,
  notKept,
  recordedFrom,
  resumeHearing,
  type Hearing,
  type ListeningBench,
  type ResultEvent,
} from './hear';
import { mayTake, questionWords, resultWords } from './words';

const at = '2026-04-14T22:31:05.120Z';
const fiber = (loss: number | null) => ({ loss, cleaveLeft: 0.4, cleaveRight: 0.5, offset: 0.3, gap: 10 });
const state = (number: number, value: Extract<MachineEvent, { kind: 'state' }>['state']): MachineEvent => ({
  number,
  at,
  kind: 'state',
  state: value,
});
const result = (
  number: number,
  splice: number,
  losses: readonly (number | null)[] = [0.03],
): ResultEvent => ({
  number,
  at,
  kind: 'result',
  splice,
  fibers: losses.map(fiber),
  proofTestFailed: false,
  program: null,
});
const bench: ListeningBench = {
  spliceId: 'seven',
  fibers: 1,
  records: 0,
  entering: true,
  byHand: false,
  recordedAt: () => null,
};

/** What follows from a few events, each with the bench as it is then. */
function after(start: Hearing, ...events: readonly (readonly [MachineEvent, ListeningBench?])[]) {
  const taken: ResultEvent[] = [];
  let hearing = start;
  for (const [event, there = bench] of events) {
    const heard = hear(hearing, event, there);
    hearing = heard.hearing;
    if (heard.take) taken.push(heard.take);
  }
  return {
    hearing,
    taken: taken.map(({ splice }) => splice),
    asked: hearing.questions.map(({ why }) => why),
  };
}
const begun = beginHearing(0, 0);

test('a splice that was laid in here and is read here is taken', () => {
  const heard = after(begun, [state(1, 'gap-set')], [state(2, 'arc')], [result(3, 41)], [state(4, 'ready')]);
  expect(heard).toMatchObject({ taken: [41], asked: [] });
});

test('fibers that are seated anew are the same fibers', () => {
  const elsewhere = { ...bench, spliceId: 'nine' };
  const heard = after(
    begun,
    [state(1, 'gap-set')],
    [state(2, 'pause')],
    [state(3, 'gap-set'), elsewhere],
    [result(4, 41)],
  );
  expect(heard.taken).toEqual([41]);
});

test.each<[string, Hearing, readonly (readonly [MachineEvent, ListeningBench?])[]]>([
  ['again', begun, [[state(1, 'gap-set')], [result(2, 41), { ...bench, recordedAt: () => 'six' }]]],
  ['missed', beginHearing(0, 5), [[state(1, 'gap-set')], [result(2, 41)]]],
  ['missed', resumeHearing(after(begun, [state(1, 'gap-set')]).hearing, 2), [[result(2, 41)]]],
  ['unbegun', begun, [[result(1, 41)]]],
  ['unbegun', begun, [[state(1, 'gap-set')], [state(2, 'ready')], [result(3, 41)]]],
  ['unbegun', begun, [[state(1, 'gap-set'), { ...bench, entering: false }], [result(2, 41)]]],
  ['moved', begun, [[state(1, 'gap-set')], [result(2, 41), { ...bench, spliceId: 'nine' }]]],
  ['other-count', begun, [[state(1, 'gap-set')], [result(2, 41, [0.03, 0.02])]]],
  ['taken', begun, [[state(1, 'gap-set')], [result(2, 41), { ...bench, records: 1 }]]],
  ['settled', begun, [[state(1, 'gap-set')], [result(2, 41), { ...bench, entering: false }]]],
  ['by-hand', begun, [[state(1, 'gap-set')], [result(2, 41), { ...bench, byHand: true }]]],
  ['unreadable', begun, [[state(1, 'gap-set')], [result(2, 41, [12])]]],
  ['unreadable', begun, [[state(1, 'gap-set')], [result(2, 41, [null])]]],
])('it asks: %s', (why, start, events) => {
  expect(after(start, ...events)).toMatchObject({ taken: [], asked: [why] });
});

test('a reading that is on record and is heard once more after a drop is left alone', () => {
  const known = { ...bench, recordedAt: () => 'seven' };
  expect(after(beginHearing(0, 3), [result(2, 41), known])).toMatchObject({ taken: [], asked: [] });
});

test('while somebody is asked where one belongs, the next one is asked too', () => {
  const heard = after(begun, [result(1, 41)], [state(2, 'gap-set')], [result(3, 42)]);
  expect(heard).toMatchObject({ taken: [], asked: ['unbegun', 'unbegun'] });
  const told = answered(answered(heard.hearing));
  expect(after(told, [state(4, 'gap-set')], [result(5, 43)]).taken).toEqual([43]);
});

test('who begins anew hears what nobody has answered, and not what was dealt with', () => {
  const heard = after(begun, [state(1, 'gap-set')], [result(2, 41)], [result(3, 42)], [state(4, 'ready')]);
  expect(heard.asked).toEqual(['unbegun']);
  expect(heardUpTo(heard.hearing)).toBe(2);
  expect(heardUpTo(answered(heard.hearing))).toBe(4);
  expect(heardUpTo(notKept(answered(heard.hearing), result(2, 41), 'seven'))).toBe(1);
});

test('whatever happens, each result is taken once, asked once, or on record already; taken only where it was laid in', () => {
  const benchNow = fc.record({
    spliceId: fc.constantFrom('seven', 'nine'),
    records: fc.nat(1),
    entering: fc.boolean(),
    byHand: fc.boolean(),
  });
  const step = fc.tuple(
    fc.constantFrom('gap-set', 'pause', 'arc', 'ready', 'result', 'answer', 'drop', 'repeat'),
    benchNow,
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
      let hearing = begun;
      let number = 0;
      let splice = 0;
      let laidIn: string | null = null;
      let answers = 0;
      const taken = new Set<number>();
      const recorded = new Map<number, string>();
      for (const [what, now] of steps) {
        const there = {
          ...bench,
          ...now,
          recordedAt: (one: ResultEvent) => recorded.get(one.splice) ?? null,
        };
        if (what === 'answer') {
          if (hearing.questions.length > 0) answers += 1;
          hearing = answered(hearing);
          continue;
        }
        if (what === 'drop') {
          hearing = resumeHearing(hearing, number);
          continue;
        }
        const event =
          what === 'result' ? result(++number, ++splice) : what === 'repeat' ? null : state(++number, what);
        const before = hearing;
        const heard = hear(hearing, event ?? state(number, 'ready'), there);
        // What was dealt with changes nothing.
        if (!event) {
          if (number > 0) expect(heard.hearing).toBe(before);
          continue;
        }
        hearing = heard.hearing;
        if (what === 'gap-set' && before.state !== 'pause')
          laidIn = now.entering && before.questions.length === 0 ? now.spliceId : null;
        if (what === 'ready') laidIn = null;
        if (heard.take) {
          expect(laidIn).toBe(now.spliceId);
          expect(now.entering && !now.byHand).toBe(true);
          taken.add(heard.take.splice);
          recorded.set(heard.take.splice, now.spliceId);
        }
        if (what === 'result') laidIn = null;
      }
      expect(taken.size + hearing.questions.length + answers).toBe(splice);
    }),
  );
});

test('where a reading of a memory is on record is told by its number and time, and not once it was taken back', () => {
  const origin = { memory: id(77), splice: 41, at };
  const there = attempt(3, 0.03, { origin });
  const withdrawn = attempt(4, 0.03, { origin: { ...origin, splice: 42 } });
  const back: Fact = {
    ...factAfter(withdrawn),
    kind: 'correction',
    body: { attemptId: withdrawn.id, result: null, because: 'taken-back', reason: '' },
  };
  const ledger = buildLedger(plan, [there, withdrawn, back], limits);
  const recordedAt = recordedFrom(id(77), alongTheCord(ledger));
  expect(recordedAt({ splice: 41, at })).toBe(spliceAt(3).id);
  expect(recordedAt({ splice: 42, at })).toBeNull();
  expect(recordedAt({ splice: 41, at: '2026-04-15T22:31:05.120Z' })).toBeNull();
  expect(recordedFrom(id(78), alongTheCord(ledger))({ splice: 41, at })).toBeNull();
});

test('words of a question say what, where and what was read', () => {
  const question = { result: result(3, 41, [0.03, 0.125]), why: 'moved' as const, spliceId: 'seven' };
  expect(questionWords(question, 'tray 1, slot 7', 'tray 1, slot 9')).toBe(
    'The fibers of the machine’s splice 41 were laid in at tray 1, slot 7, and you stand at tray 1, slot 9.',
  );
  expect(resultWords(question.result)).toBe('0.03 · 0.125 dB');
  expect([mayTake(question, 2), mayTake(question, 1)]).toEqual([true, false]);
  const wrong = { ...question, why: 'unreadable' as const, result: result(3, 41, [0.03, 12, null]) };
  expect(questionWords(wrong, null, 'slot 9')).toBe(
    'The machine’s splice 41 says a loss that is none: fiber 2 12.00 dB, fiber 3 without a loss. Enter it by hand, or leave it out.',
  );
  expect(mayTake(wrong, 3)).toBe(false);
});
