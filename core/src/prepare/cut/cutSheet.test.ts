import fc from 'fast-check';
import { anyConstruction } from '../../../test/arbitraries';
import { cableOf, joint } from '../../../test/joint';
import { equalTubes, fiberCount, type Closure, type Construction } from '../../index';
import { cutSheet, tubePieces, type CutSheet } from './cutSheet';

const loose: Construction = {
  kind: 'stranded-tubes',
  strands: [1, 1, 0, 1, 1].map((tube) => (tube ? { kind: 'tube', fibers: 12 } : { kind: 'filler' })),
};
const ribbon: Construction = { kind: 'central-ribbon', ribbons: 12, fibersPerRibbon: 12 };
const at = (sheet: CutSheet, id: string) => sheet.marks.find((mark) => mark.id === id)?.at;
const inches = (sheet: CutSheet, id: string) => Math.round((at(sheet, id)! / 25.4) * 100) / 100;

describe('a loose tube cable that ends in a dome', () => {
  const a = cableOf(1, loose);
  const b = cableOf(2, equalTubes(4, 12));
  const { closure, plan } = joint(
    'Dome 96',
    [
      [a, 'cut'],
      [b, 'cut'],
    ],
    'A 1-36 > B 1-36',
  );
  const sheet = cutSheet(closure, plan, a, { units: 'mm' });

  test('has the trade’s lengths (common practice): 64 in opened, 8 in of strength member, 3 in aramid, 4 in ripcord, 4 in test cut', () => {
    expect(sheet.reference).toBe('end');
    expect(inches(sheet, 'ring-cut')).toBe(64);
    expect(inches(sheet, 'strength-member')).toBe(56);
    expect(inches(sheet, 'aramid')).toBe(61);
    expect(inches(sheet, 'ripcord-end')).toBe(60);
    expect(inches(sheet, 'test-cut')).toBe(4);
  });

  test('is made in the order of work', () => {
    expect(sheet.marks.map(({ id }) => id)).toEqual([
      'test-cut',
      'ripcord',
      'ring-cut',
      'aramid',
      'ripcord-end',
      'filler',
      'strength-member',
      'tray',
      'tube-end',
      'whole',
    ]);
  });

  test('says which tubes go to which tray and which stay whole', () => {
    const words = (id: string) => sheet.marks.find((mark) => mark.id === id)!;
    expect(words('tray').why).toContain('Tubes 1 BL, 2 OR into tray 1; Tube 3 GR into tray 2');
    expect(words('whole').title).toBe('Tube 4 BR: stay whole');
    expect(words('ring-cut').place).toBe('1\u00a0626\u00a0mm from the cable end');
    expect(words('filler').title).toBe('Cut the filler away');
  });

  test('is in inches where the project is, the same lengths', () => {
    const inInches = cutSheet(closure, plan, a, { units: 'in' });
    expect(inInches.marks.find(({ id }) => id === 'ring-cut')!.place).toBe('64\u00a0in from the cable end');
    expect(inInches.marks.map((mark) => mark.at)).toEqual(sheet.marks.map((mark) => mark.at));
  });
});

test('a gland takes a mark 90 mm further down the sheath, and 2 m are opened (common practice)', () => {
  const a = cableOf(1, ribbon);
  const { closure, plan } = joint(
    'Inline 144',
    [
      [a, 'cut'],
      [cableOf(2, ribbon), 'cut'],
    ],
    'A R1-R12 > B R1-R12',
  );
  const sheet = cutSheet(closure, plan, a, { units: 'mm' });
  expect(at(sheet, 'ring-cut')).toBe(2000);
  expect(at(sheet, 'clamp')).toBe(2090);
  expect(at(sheet, 'strength-member')).toBe(1910);
  expect(sheet.marks[0]!.id).toBe('clamp');
});

test('a central tube is removed past 2.25 in from the sheath edge (common practice)', () => {
  const a = cableOf(1, ribbon);
  const { closure, plan } = joint(
    'Dome 96',
    [
      [a, 'cut'],
      [cableOf(2, ribbon), 'cut'],
    ],
    'A R1-R12 > B R1-R12',
  );
  const sheet = cutSheet(closure, plan, a, { units: 'in' });
  expect(inches(sheet, 'central-tube')).toBe(61.75);
  expect(sheet.marks.find(({ id }) => id === 'central-tube')!.depth).toContain('never through');
});

describe('a cable that goes through', () => {
  const a = cableOf(1, loose, { through: true });
  const b = cableOf(2, equalTubes(2, 12));
  const { lengths } = joint('Dome 96', [[a, 'express']], '').closure as {
    lengths: NonNullable<Closure['lengths']>;
  };
  const through = (order: string, manner: 'express' | 'window' = 'express', more: Partial<Closure> = {}) => {
    const { closure, plan } = joint(
      'Dome 96',
      [
        [a, manner],
        [b, 'branch'],
      ],
      order,
      more,
    );
    return cutSheet(closure, plan, a, { units: 'mm', toward: { low: 'Moinho', high: 'Ladeira' } });
  };

  test('has two ring cuts 64 in apart, measured from the center of its slack, and 8 in of strength member each side', () => {
    const sheet = through('A- T2 > B T1');
    expect(sheet.reference).toBe('center');
    expect(at(sheet, 'ring-cut.high')! - at(sheet, 'ring-cut.low')!).toBeCloseTo(64 * 25.4, 9);
    expect(at(sheet, 'strength-member.low')! - at(sheet, 'ring-cut.low')!).toBeCloseTo(8 * 25.4, 9);
    expect(at(sheet, 'ring-cut.high')! - at(sheet, 'strength-member.high')!).toBeCloseTo(8 * 25.4, 9);
  });

  test('has its tube cut at the far edge, so that the stub is as long as it can be', () => {
    expect(at(through('A- T2 > B T1'), 'tube-cut.low')).toBeGreaterThan(700);
    expect(at(through('A+ T2 > B T1'), 'tube-cut.high')).toBeLessThan(-700);
    const both = through('A- T2 > B T1\nA+ T2 > B T2');
    expect(at(both, 'tube-cut.both')).toBe(0);
    expect(both.marks.map(({ id }) => id)).toEqual(
      expect.arrayContaining(['tray.both.low', 'tray.both.high']),
    );
  });

  test('keeps the others whole and says where the stub comes from', () => {
    const sheet = through('A- T2 > B T1');
    expect(sheet.whole.map(({ number }) => number)).toEqual([1, 3, 4]);
    expect(sheet.marks.find(({ id }) => id === 'tube-cut.low')!.why).toBe(
      'Its fibers are spliced from Moinho, so it is cut at the far edge, toward Ladeira: the stub is as long as it can be.',
    );
  });

  test('has a window where the tube lies in its tray, never before 15 in inside the edge (common practice)', () => {
    const sheet = through('A- 13-16 > B 1-4', 'window');
    const window = sheet.marks.find((mark) => mark.kind === 'window')!;
    // 640 mm to the tray, and 30 mm into it.
    expect(window.at - sheet.opened.from).toBeCloseTo(670, 9);
    expect(sheet.opened.to - window.to!).toBeCloseTo(670, 9);
    const near = through('A- 13-16 > B 1-4', 'window', { lengths: { ...lengths, tubeToTray: 200 } });
    expect((near.marks.find((mark) => mark.kind === 'window')!.at - near.opened.from) / 25.4).toBeCloseTo(
      15,
      9,
    );
    expect(window.why).toContain('only the 4 fibers');
    expect(sheet.marks.some(({ kind }) => kind === 'tube-cut')).toBe(false);
  });

  test('is opened so far that every stub is as long as at a cable’s end, and says so', () => {
    const both = through('A- T2 > B T1\nA+ T2 > B T2');
    expect(both.opened.to - both.opened.from).toBeCloseTo(2 * 64 * 25.4, 9);
    expect(both.marks.find(({ id }) => id === 'ring-cut.low')!.why.replaceAll('\u00a0', ' ')).toContain(
      'The two ring cuts are 3 251 mm apart. The closure’s table has 1 626 mm; so far every stub is as long as at a cable’s end.',
    );
    const window = through('A- 13-16 > B 1-4', 'window');
    expect(window.opened.to - window.opened.from).toBeCloseTo(64 * 25.4 + 670, 9);
    for (const sheet of [both, window, through('A- T2 > B T1')]) {
      expect(sheet.units[0]!.slack.free).toBeCloseTo(64 * 25.4 - 670, 9);
      expect(sheet.findings).toEqual([]);
    }
  });

  test('is left closed when nothing of it is spliced', () => {
    const sheet = through('B 1 > B 2');
    expect(sheet.marks).toEqual([]);
    expect(sheet.findings).toEqual([]);
  });
});

test('toning wire and messenger come off first and past the seal; a drop has its own opening', () => {
  const drop = cableOf(1, { kind: 'drop', shape: 'flat', fibers: 2, toningWire: true, messenger: true });
  const { closure, plan } = joint(
    'Express terminal 24',
    [
      [cableOf(2, equalTubes(1, 12)), 'cut'],
      [drop, 'drop'],
    ],
    'A 1-2 > B 1-2',
  );
  const sheet = cutSheet(closure, plan, drop, { units: 'mm' });
  expect(sheet.marks.slice(0, 2).map(({ id }) => id)).toEqual(['messenger', 'toning-wire']);
  expect(sheet.marks[0]!.to).toBeGreaterThan(sheet.opened.to);
  expect(sheet.opened.to).toBe(914.4);
  expect(sheet.marks.find(({ id }) => id === 'ring-cut')!.depth).toBe('until the rods show');
});

test('binder groups are kept apart in two ways: half hitches, and the second one 1 in shorter (common practice)', () => {
  const grouped = cableOf(1, {
    kind: 'stranded-tubes',
    strands: [{ kind: 'tube', fibers: 24, groupSize: 12 }],
  });
  const { closure, plan } = joint(
    'Dome 96',
    [
      [grouped, 'cut'],
      [cableOf(2, equalTubes(2, 12)), 'cut'],
    ],
    'A 1-24 > B 1-24',
  );
  const mark = cutSheet(closure, plan, grouped, { units: 'in' }).marks.find(({ kind }) => kind === 'groups')!;
  // The 3 in that the knife opened are off by then.
  expect(mark.at).toBeCloseTo(3 * 25.4 + 25.4, 9);
  expect(mark.why).toContain('six half hitches');
});

describe('lengths that cannot be right', () => {
  const a = cableOf(1, loose);
  const sheetWith = (lengths: Partial<NonNullable<Closure['lengths']>>) => {
    const { closure, plan } = joint(
      'Dome 96',
      [
        [a, 'cut'],
        [cableOf(2, loose), 'cut'],
      ],
      'A 1-12 > B 1-12',
    );
    return cutSheet({ ...closure, lengths: { ...closure.lengths!, ...lengths } }, plan, a, { units: 'mm' });
  };
  test.each([
    ['an opening of 0', { sheathOpening: 0 }, 'opening'],
    ['NaN', { strengthMember: NaN }, 'length'],
    ['inches taken for mm', { sheathOpening: 64 }, 'opening-unit'],
    ['mm taken for inches', { sheathOpening: 1625.6 * 25.4 }, 'opening-unit'],
    ['an opening shorter than the stub', { sheathOpening: 200, strengthMember: 203 }, 'stub'],
    ['an opening shorter than the tube', { sheathOpening: 160, strengthMember: 10, tube: 170 }, 'stub'],
  ])('%s is told, and no mark is made', (_, lengths, code) => {
    const sheet = sheetWith(lengths);
    expect(sheet.findings.map((finding) => finding.code)).toContain(code);
    expect(sheet.marks).toEqual([]);
  });
});

const anyJoint = fc
  .record({
    construction: anyConstruction,
    manner: fc.constantFrom('cut' as const, 'branch' as const, 'express' as const, 'window' as const),
    from: fc.nat(),
    size: fc.integer({ min: 1, max: 60 }),
    side: fc.constantFrom('-', '+'),
    opening: fc.double({ min: 500, max: 6000, noNaN: true }),
    clampMark: fc.constantFrom(0, 90),
  })
  .map(({ construction, manner, from, size, side, opening, clampMark }) => {
    const count = fiberCount(construction);
    const first = (from % count) + 1;
    const last = Math.min(count, first + size - 1);
    const through = manner === 'express' || manner === 'window';
    const a = cableOf(1, construction, { through });
    const b = cableOf(2, equalTubes(60, 12));
    const { closure, plan } = joint(
      'Dome 288',
      [
        [a, manner],
        [b, 'branch'],
      ],
      `A${through ? side : ''} ${first}-${last} > B 1-${last - first + 1}`,
    );
    const own = {
      ...closure,
      lengths: { ...closure.lengths!, sheathOpening: opening, dropOpening: opening, clampMark },
    };
    return { closure: own, plan, cable: a };
  });

test('every mark lies on the cable, each has one name, and nothing is cut beyond the sheath edges', () => {
  fc.assert(
    fc.property(anyJoint, ({ closure, plan, cable }) => {
      const sheet = cutSheet(closure, plan, cable, { units: 'mm' });
      expect(new Set(sheet.marks.map(({ id }) => id)).size).toBe(sheet.marks.length);
      for (const mark of sheet.marks)
        for (const place of [mark.at, mark.to ?? mark.at]) {
          expect(place).toBeGreaterThanOrEqual(sheet.drawn.from);
          expect(place).toBeLessThanOrEqual(sheet.drawn.to);
          if (['outside', 'clamp'].includes(mark.kind)) continue;
          expect(place).toBeGreaterThanOrEqual(sheet.opened.from - 1e-9);
          expect(place).toBeLessThanOrEqual(sheet.opened.to + 1e-9);
        }
    }),
  );
});

test('a sheet without an error has all its marks: the sheath is cut before what lies in it, tubes are marked before they come off', () => {
  fc.assert(
    fc.property(anyJoint, ({ closure, plan, cable }) => {
      const sheet = cutSheet(closure, plan, cable, { units: 'mm' });
      if (sheet.marks.length === 0 || sheet.findings.some(({ severity }) => severity === 'error')) return;
      const place = (kind: string) => sheet.marks.findIndex((mark) => mark.kind === kind);
      const before = (a: string, b: string) => {
        if (place(a) >= 0 && place(b) >= 0) expect(place(a)).toBeLessThan(place(b));
      };
      before('clamp', 'ring-cut');
      before('test-cut', 'ring-cut');
      before('ring-cut', 'strength-member');
      before('strength-member', 'tray');
      before('tray', 'tube-end');
      before('tray', 'tube-cut');
      if (sheet.units.length > 0) expect(place('tray')).toBeGreaterThanOrEqual(0);
    }),
  );
});

test('the tube that stays and the pieces that come off are the stub, none longer than 24 in', () => {
  fc.assert(
    fc.property(anyJoint, ({ closure, plan, cable }) => {
      const sheet = cutSheet(closure, plan, cable, { units: 'mm' });
      for (const { slack } of sheet.units) {
        const { kept, pieces } = tubePieces(slack.stub, sheet.lengths);
        expect(kept + pieces.reduce((sum, piece) => sum + piece, 0)).toBeCloseTo(slack.stub, 6);
        for (const piece of pieces) expect(piece).toBeLessThanOrEqual(609.6 + 1e-9);
      }
    }),
  );
});

test('a longer opening never gives less slack, nor fewer redos', () => {
  fc.assert(
    fc.property(anyJoint, fc.double({ min: 0, max: 3000, noNaN: true }), ({ closure, plan, cable }, more) => {
      const { lengths } = closure;
      const longer = {
        ...closure,
        lengths: {
          ...lengths,
          sheathOpening: lengths.sheathOpening + more,
          dropOpening: lengths.dropOpening + more,
        },
      };
      const now = cutSheet(closure, plan, cable, { units: 'mm' });
      const then = cutSheet(longer, plan, cable, { units: 'mm' });
      if (now.findings.some(({ code }) => ['stub', 'opening', 'opening-unit'].includes(code))) return;
      now.units.forEach(({ slack }, index) => {
        expect(then.units[index]!.slack.free).toBeGreaterThanOrEqual(slack.free - 1e-9);
        expect(then.units[index]!.slack.redos).toBeGreaterThanOrEqual(slack.redos);
      });
    }),
  );
});

test('what is advised settles what it is about, the wanted redos reckoned in, and is never nothing', () => {
  const anyWish = fc.record({
    redosWanted: fc.integer({ min: 0, max: 6 }),
    units: fc.constantFrom('mm' as const, 'in' as const),
  });
  fc.assert(
    fc.property(anyJoint, anyWish, ({ closure, plan, cable }, wishes) => {
      const { findings } = cutSheet(closure, plan, cable, wishes);
      for (const finding of findings) {
        if (finding.code !== 'too-short' && finding.code !== 'few-redos') continue;
        const { table, opening } = finding.code === 'too-short' ? finding.params.wanted : finding.params.open;
        expect(opening).toBeGreaterThan(finding.params.opening + 1);
        const lengths = { ...closure.lengths, sheathOpening: table, dropOpening: table };
        const after = cutSheet({ ...closure, lengths }, plan, cable, wishes);
        expect(after.opened.to - after.opened.from).toBeCloseTo(opening, 6);
        expect(after.findings.filter(({ code }) => code === 'too-short' || code === 'few-redos')).toEqual([]);
      }
    }),
  );
});
