import { cableA, cableB, closure, id } from '../../../test/example';
import type { Cable } from '../../line/cable';
import type { Closure, Entry } from '../closure';
import type { Port } from './closureModel';
import { portFindings, portsTaken } from './ports';
import { planFindingWords } from '../words';

/** Cables of these diameters (null: not measured), each let in by these wishes. */
function job(ports: Port[], ...wanted: [diameter: number | null, more?: Partial<Entry>][]) {
  const cables = new Map<string, Cable>();
  const entries = wanted.map(([diameter, more], index): Entry => {
    const cable: Cable = { ...cableA, id: id(100 + index), label: `Cable ${index + 1}` };
    cables.set(cable.id, diameter === null ? cable : { ...cable, diameter });
    return { cableId: cable.id, manner: 'cut', ...more };
  });
  const at: Closure = { ...closure, ports, entries };
  return {
    messages: portFindings(at, cables).map((finding) =>
      planFindingWords(finding, 'mm').replace(/\u00a0/g, ' '),
    ),
    used: portsTaken(at, cables)?.map((one) => one.used),
  };
}

const oval: Port = { name: 'Oval', count: 1, from: 10, to: 25, express: true };
const round: Port = { name: 'Round', count: 2, from: 6, to: 18, express: false };

test('a closure whose ports are not known is not judged', () => {
  expect(portFindings({ ...closure, ports: undefined }, new Map([[cableA.id, cableA]]))).toEqual([]);
  expect(portsTaken({ ...closure, ports: undefined }, new Map([[cableB.id, cableB]]))).toBeNull();
});

test('a wide port that takes express cables is kept for those that need it', () => {
  expect(job([oval, round], [12], [12])).toEqual({ messages: [], used: [0, 2] });
  expect(job([oval, round], [12, { manner: 'express' }], [12])).toEqual({ messages: [], used: [1, 1] });
});

test('a thick cable chooses before a thin one, whatever the order they come in', () =>
  expect(job([oval, round], [8], [9], [20]).messages).toEqual([]));

// Trade: a slit grommet is needed for express cable, which cannot be threaded (common practice).
test('a cable that goes through needs a port that opens', () =>
  expect(job([round], [12, { manner: 'window' }]).messages).toEqual([
    'Cable 1 is 12 mm thick, and no port for a cable that goes through takes that (nearest: Round, 6 mm to 18 mm). Use another seal kit or another closure; do not force it.',
  ]));

test('the ends of a range belong to it', () => {
  expect(job([round], [6], [18]).messages).toEqual([]);
  expect(job([round], [5.9]).messages).toHaveLength(1);
});

test('a port chosen by hand is kept, and told when it does not fit or is taken', () => {
  expect(job([oval, round], [12, { port: 'Oval' }]).used).toEqual([1, 0]);
  expect(job([oval, round], [12, { port: 'Oval' }], [13, { port: 'Oval' }]).messages).toEqual([
    'Cable 1 is 12 mm thick, and port Oval does not take it or is taken. Pick another port.',
  ]);
});

test('a cable that nobody measured takes an opening for the count of seals, and is not judged', () =>
  expect(job([round], [null], [8])).toEqual({ messages: [], used: [2] }));
