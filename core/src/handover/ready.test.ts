import { attempt, factAfter, limits, measuredLoss, plan, spliceAt } from '../../test/example';
import { hourOf, machine, wentOn } from '../../test/gear';
import { sealFacts } from '../../test/seal';
import { compareFacts, type Fact, type OwnerAnswer } from '../facts';
import { passedOverBook } from '../gear/passedOver';
import { sealState } from '../seal/sealState';
import { buildLedger } from '../splice/record/ledger';
import { readyLines, type ReadyInput } from './ready';

/** All 24 splices hold, with a mean far below the limits. */
const made = Array.from({ length: 24 }, (_, index) => attempt(index, 0.02));

function lines(facts: readonly Fact[], more: Partial<ReadyInput> = {}) {
  const sorted = [...facts].sort(compareFacts);
  return readyLines({
    ledger: buildLedger(plan, sorted, more.limits ?? limits),
    facts: sorted,
    seal: { sealed: true, tickedOnly: false, state: sealState(sorted) },
    book: passedOverBook([]),
    limits,
    unread: 0,
    ...more,
  });
}
const against = (...given: Parameters<typeof lines>) =>
  lines(...given)
    .filter(({ stands }) => stands === 'against')
    .map(({ code, place }) => [code, place.at]);
const told = (...given: Parameters<typeof lines>) =>
  lines(...given)
    .filter(({ stands }) => stands === 'told')
    .map(({ code, place }) => [code, place]);

test('against a closure that is spliced, below its limits and sealed nothing stands; that losses are estimates is told', () => {
  expect(against(made)).toEqual([]);
  expect(told(made)).toEqual([['estimates', { at: 'closure' }]]);
});

const benchOfFirst = { at: 'bench', tray: spliceAt(0).tray, slot: spliceAt(0).slot };
const redone = [attempt(0, 0.3), attempt(0, 0.31), attempt(0, 0.32)] as const;
const allowed: OwnerAnswer = {
  ...factAfter(redone[2]),
  v: 3,
  kind: 'owner-answer',
  body: { attemptId: redone[2].id, answer: 'allow', note: '' },
};

test.each<[string, readonly Fact[], Partial<ReadyInput>, string, string]>([
  ['an open splice', made.slice(1), {}, 'open', 'bench'],
  ['one to be redone', [attempt(0, 0.3), ...made.slice(1)], {}, 'redo', 'bench'],
  ['one that waits for the owner', [...redone, ...made.slice(1)], {}, 'owner', 'calls'],
  ['pressure in it', [...made, sealFacts().pump()], {}, 'seal', 'seal'],
  ['no seal', made, { seal: { sealed: false, tickedOnly: false, state: sealState([]) } }, 'seal', 'seal'],
  [
    'an owner who wants measured losses',
    made,
    { limits: { ...limits, measured: true } },
    'estimates',
    'bench',
  ],
  [
    'splices that are not in the plan any more',
    [...made, attempt(0, 0.02, { subject: { ...made[0]!.subject, left: made[5]!.subject.left } })],
    {},
    'unplanned',
    'closure',
  ],
])('against it stands, alone, %s, and the line leads there', (_, facts, more, code, place) =>
  expect(against(facts, more)).toEqual([[code, place]]),
);

test('a mean over its limit stands against tray and closure', () =>
  expect(against(Array.from({ length: 24 }, (_, index) => attempt(index, 0.09)))).toEqual([
    ['mean', 'tray'],
    ['mean', 'tray'],
    ['mean', 'closure'],
  ]));

test('what the owner should know of is told: allowed, simulated, passed over with its gear, written by a newer Cordel, only ticked', () => {
  const gear = { machine: { id: machine.id, label: machine.label } };
  const passed = attempt(1, 0.02, { gear, madeAt: hourOf(3) });
  const facts = [...redone, allowed, passed, attempt(2, 0.02, { simulated: true }), ...made.slice(3)];
  const more: Partial<ReadyInput> = {
    book: passedOverBook([wentOn(2, 'calibration', ['session'])]),
    unread: 2,
    seal: { sealed: false, tickedOnly: true, state: sealState([]) },
  };
  expect(against(facts, more)).toEqual([]);
  expect(told(facts, more)).toEqual([
    ['ticked-only', { at: 'seal' }],
    ['allowed', benchOfFirst],
    ['passed-over', { at: 'gear', gearId: machine.id }],
    ['simulated', { at: 'closure' }],
    ['estimates', { at: 'closure' }],
    ['unread', { at: 'closure' }],
  ]);
});

test('an owner who wants measured losses has what is left counted, until every fiber is measured', () => {
  const wanted = { limits: { ...limits, measured: true } };
  const measured = made.map((one) => measuredLoss(one, { fromLeft: 0.03, fromRight: 0.01 }));
  const some = lines([...made, ...measured.slice(0, 4)], wanted).filter(({ code }) => code === 'estimates');
  expect(some.map(({ words, place }) => [words, place])).toEqual([
    [
      'The owner wants measured losses: 20 of 24 fibers are not measured.',
      { at: 'bench', tray: spliceAt(4).tray, slot: spliceAt(4).slot },
    ],
  ]);
  expect(lines([...made, ...measured], wanted)).toEqual([]);
  const high = made.map((one) => measuredLoss(one, { fromLeft: 0.09, fromRight: 0.07 }));
  expect(lines([...made, ...high], wanted).map(({ words }) => words)).toContain(
    'Closure: measured mean 0.080 dB is over 0.050 dB.',
  );
});
