import fc from 'fast-check';
import { factVersion, readFact, type Photo } from '../facts';
import { photoKey, photosOf } from './photos';

const closureId = '01900000-0000-7000-8000-000000000001';
const cableId = '01900000-0000-7000-8000-000000000002';
const idOf = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;

function fact(n: number, body: Photo['body'], minute = n): Photo {
  return {
    v: factVersion('photo'),
    id: idOf(n),
    kind: 'photo',
    madeAt: `2026-04-15T06:${String(minute).padStart(2, '0')}:00.000Z`,
    by: null,
    device: null,
    subject: { on: 'closure', closureId },
    body,
  };
}
const taken = (n: number, caption = '') => fact(n, { did: 'taken', of: { what: 'closure' }, caption });

test('a photo is described, taken out and put back, also where a clock says that this was before it was taken', () => {
  const facts = [
    taken(10, 'first'),
    fact(11, { did: 'described', photoId: idOf(10), caption: 'the lid' }, 1),
    fact(12, { did: 'removed', photoId: idOf(10) }, 2),
  ];
  expect(photosOf(facts)).toEqual([expect.objectContaining({ caption: 'the lid', removed: true })]);
  const back = fact(13, { did: 'restored', photoId: idOf(10) }, 3);
  expect(photosOf([...facts, back])[0]!.removed).toBe(false);
});

test('what is said of a photo that is not here is kept for when it comes', () => {
  const removed = fact(20, { did: 'removed', photoId: idOf(10) });
  expect(photosOf([removed])).toEqual([]);
  expect(photosOf([removed, taken(10)])[0]!.removed).toBe(true);
});

test('law: whatever order the facts come in, and however often, the photos are the same', () => {
  const bodies = fc.oneof(
    fc.record({
      did: fc.constant('taken' as const),
      of: fc.constant({ what: 'closure' as const }),
      caption: fc.string(),
    }),
    fc.record({ did: fc.constant('described' as const), photoId: fc.nat(8).map(idOf), caption: fc.string() }),
    fc.record({
      did: fc.constantFrom('removed' as const, 'restored' as const),
      photoId: fc.nat(8).map(idOf),
    }),
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(bodies, fc.nat(5)), { maxLength: 12 }),
      fc.infiniteStream(fc.nat()),
      (list, order) => {
        const facts = list.map(([body, minute], n) => fact(n, body, minute));
        const shuffled = [...facts, ...facts]
          .map((one) => [order.next().value as number, one] as const)
          .sort(([a], [b]) => a - b)
          .map(([, one]) => one);
        expect(photosOf(shuffled)).toEqual(photosOf(facts));
      },
    ),
  );
});

test('photos of different things have different keys', () => {
  const keys = [
    photoKey({ what: 'closure' }),
    photoKey({ what: 'point', point: { what: 'whole', point: 'collar' } }),
    photoKey({ what: 'point', point: { what: 'tray', tray: 1 } }),
    photoKey({ what: 'point', point: { what: 'tightened', seal: { of: 'cable', cableId, face: 'in' } } }),
    photoKey({ what: 'test', seal: { of: 'cable', cableId, face: 'in' } }),
    photoKey({ what: 'test', seal: { of: 'cable', cableId, face: 'out' } }),
    photoKey({ what: 'test', seal: { of: 'body' } }),
  ];
  expect(new Set(keys).size).toBe(keys.length);
});

test('a caption with broken characters or too long is refused with words', () => {
  for (const caption of ['a\0b', '\ud83d', 'x'.repeat(501)])
    expect(readFact(taken(1, caption)).status).toBe('wrong');
  expect(readFact(taken(1, 'tampa 🧰')).status).toBe('known');
});
