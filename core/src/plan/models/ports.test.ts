import fc from 'fast-check';
import { cableA, cableB, closure, id } from '../../../test/example';
import type { Cable } from '../../line/cable';
import type { Closure, Entry } from '../closure';
import type { Port } from './closureModel';
import { builtInModels } from './builtInModels';
import { partsFor, portFindings, seatCables } from './ports';
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
    used: seatCables(at, cables).used?.map((one) => one.openings),
  };
}

const oval: Port = { name: 'Oval', count: 1, from: 10, to: 25, express: true };
const round: Port = { name: 'Round', count: 2, from: 6, to: 18, express: false };

test('a closure whose ports are not known is not judged', () => {
  expect(portFindings({ ...closure, ports: undefined }, new Map([[cableA.id, cableA]]))).toEqual([]);
  expect(seatCables({ ...closure, ports: undefined }, new Map([[cableB.id, cableB]])).used).toBeNull();
});

test('a wide port that takes express cables is kept for those that need it', () => {
  expect(job([oval, round], [12], [12])).toEqual({ messages: [], used: [0, 2] });
  // In and out: it passes the wall twice.
  expect(job([{ ...oval, count: 2 }, round], [12, { manner: 'express' }], [12])).toEqual({
    messages: [],
    used: [2, 1],
  });
  expect(job([oval, round], [12, { manner: 'express' }], [12]).messages).toHaveLength(1);
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

test('a diameter off a tape may lie on the border: 31.4 mm around are 9.995 mm across', () =>
  expect(job([oval], [31.4 / Math.PI]).messages).toEqual([]));

test('ports are given so that all find one, where there is a way', () => {
  // By the narrowest range alone the thick one takes the port that only the thin one fits.
  const [one, other]: Port[] = [
    { name: 'One', count: 1, from: 4, to: 18, express: false },
    { name: 'Other', count: 1, from: 14, to: 30, express: false },
  ];
  expect(job([one!, other!], [16], [10])).toEqual({ messages: [], used: [1, 1] });
});

test('pigtails need no opening', () => {
  const pigtails: Cable = {
    ...cableA,
    construction: { kind: 'pigtails', fibers: 12, bufferMicrometers: 900 },
  };
  const at = { ...closure, ports: [round], entries: [{ cableId: cableA.id, manner: 'cut' as const }] };
  expect(seatCables(at, new Map([[cableA.id, pigtails]]))).toMatchObject({
    seats: [],
    used: [{ openings: 0 }],
  });
});

/** Checked against all ways there are. */
test('as many cables find a port as can', () => {
  const anyPort = fc.record({
    count: fc.integer({ min: 1, max: 3 }),
    from: fc.integer({ min: 1, max: 20 }),
    width: fc.integer({ min: 0, max: 15 }),
    express: fc.boolean(),
  });
  const anyGuest = fc.record({ diameter: fc.integer({ min: 1, max: 30 }), through: fc.boolean() });
  fc.assert(
    fc.property(
      fc.array(anyPort, { minLength: 1, maxLength: 3 }),
      fc.array(anyGuest, { maxLength: 5 }),
      (list, guests) => {
        const ports = list.map(({ count, from, width, express }, index): Port => ({
          name: `P${index}`,
          count,
          from,
          to: from + width,
          express,
        }));
        const most = (at: number, left: readonly number[]): number => {
          const guest = guests[at];
          if (!guest) return 0;
          let best = most(at + 1, left);
          ports.forEach((port, index) => {
            const openings = guest.through ? 2 : 1;
            if (left[index]! < openings || guest.diameter < port.from || guest.diameter > port.to) return;
            if (guest.through && !port.express) return;
            best = Math.max(best, 1 + most(at + 1, left.with(index, left[index]! - openings)));
          });
          return best;
        };
        const cables = new Map<string, Cable>();
        const entries = guests.map(({ diameter, through }, index): Entry => {
          const cable: Cable = { ...cableA, id: id(100 + index), diameter };
          cables.set(cable.id, cable);
          return { cableId: cable.id, manner: through ? 'express' : 'cut' };
        });
        const { seats, used } = seatCables({ ...closure, ports, entries }, cables);
        expect(seats.filter(({ port }) => port !== null)).toHaveLength(
          most(
            0,
            ports.map(({ count }) => count),
          ),
        );
        for (const { port, openings } of used!) expect(openings).toBeLessThanOrEqual(port.count);
      },
    ),
  );
});

test('on the border of two ranges one part is taken, and two spacers are two', () => {
  const port: Port = {
    ...round,
    parts: [
      { part: 'Seal', kind: 'seal', from: 6, to: 18, count: 1 },
      { part: 'Small clip', kind: 'clip', from: 6, to: 12, count: 1 },
      { part: 'Large clip', kind: 'clip', from: 12, to: 18, count: 1 },
      { part: 'Spacer, inner', kind: 'spacer', from: 6, to: 16, count: 1 },
      { part: 'Spacer, outer', kind: 'spacer', from: 6, to: 13, count: 2 },
    ],
  };
  const names = (diameter: number) => partsFor(port, diameter).map(({ part }) => part);
  expect(names(12)).toEqual(['Seal', 'Small clip', 'Spacer, inner', 'Spacer, outer']);
  expect(names(12.03)).toEqual(['Seal', 'Large clip', 'Spacer, inner', 'Spacer, outer']);
  expect(names(11.97)).toEqual(['Seal', 'Small clip', 'Spacer, inner', 'Spacer, outer']);
  expect(names(15)).toEqual(['Seal', 'Large clip', 'Spacer, inner']);
});

/** No built-in table asks for two of a kind anywhere in its range, or for none. */
test('every built-in table has one seal, and no two clips or clamps, for every diameter of its port', () => {
  for (const { name, ports } of builtInModels)
    for (const port of ports) {
      if (!port.parts) continue;
      for (let tenths = Math.ceil(port.from * 10); tenths <= port.to * 10; tenths += 1) {
        const kinds = partsFor(port, tenths / 10).map(({ kind }) => kind);
        const count = (...wanted: string[]) => kinds.filter((kind) => wanted.includes(kind)).length;
        expect([name, tenths, count('seal', 'grommet')]).toEqual([name, tenths, 1]);
        expect([name, tenths, count('clip') <= 1, count('clamp') <= 1]).toEqual([name, tenths, true, true]);
      }
    }
});
