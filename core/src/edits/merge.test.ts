import fc from 'fast-check';
import { straightProject } from '../plan/straightProject';
import { limitsPresets } from '../limits/presets';
import {
  lineOf,
  settingsOf,
  withEdits,
  withoutEdits,
  type LineDocument,
  type SettingsDocument,
} from './documentEdit';
import { mergeDocuments, sameDocument, sameValue, type FieldConflict } from './merge';

let made = 0;
const project = straightProject(
  {
    name: 'Long Creek',
    units: 'mm',
    limits: limitsPresets[0]!.limits,
    from: 'Hub',
    to: 'Mill',
    closure: { name: 'U1', kind: 'dome', chainage: 400, trays: 2, slotsPerTray: 12 },
    left: { label: 'A', tubes: 2, fibersPerTube: 12, schemeId: 'tia-598-d' },
    right: { label: 'B', tubes: 2, fibersPerTube: 12, schemeId: 'tia-598-d' },
  },
  () => `018f0000-0000-7000-8000-${String((made += 1)).padStart(12, '0')}`,
);
const settings = settingsOf(project);
const line = lineOf(project);
const closure = project.closures[0]!;
const limited = (from: SettingsDocument, limits: Partial<SettingsDocument['limits']>): SettingsDocument => ({
  ...from,
  limits: { ...from.limits, ...limits },
});
const paths = (conflicts: readonly FieldConflict[]) => conflicts.map(({ path }) => path.join('/'));

describe('what two people made of one document', () => {
  test('changes of different fields both stand', () => {
    const mine = limited({ ...settings, name: 'Mine' }, { trayMean: 0.04 });
    const theirs = { ...limited(settings, { singleMax: 0.2 }), version: 7 };
    const { merged, conflicts } = mergeDocuments('settings', { base: settings, mine, theirs });
    expect(conflicts).toEqual([]);
    expect(merged).toEqual({
      ...limited(settings, { singleMax: 0.2, trayMean: 0.04 }),
      name: 'Mine',
      version: 7,
    });
  });

  test('the same field changed to different values is told with all three, and decided', () => {
    const mine = limited({ ...settings, name: 'Mine' }, { singleMax: 0.3 });
    const theirs = limited(settings, { singleMax: 0.2 });
    const asked = { base: settings, mine, theirs };
    const { conflicts } = mergeDocuments('settings', asked);
    expect(conflicts).toEqual([
      { path: ['limits', 'singleMax'], base: settings.limits.singleMax, mine: 0.3, theirs: 0.2 },
    ]);
    expect(mergeDocuments('settings', asked, () => 'mine').merged).toEqual(mine);
    expect(mergeDocuments('settings', asked, () => 'theirs').merged).toEqual({ ...theirs, name: 'Mine' });
  });

  test('the same change of both is none', () => {
    const both = { ...settings, name: 'Both' };
    expect(mergeDocuments('settings', { base: settings, mine: both, theirs: both }).conflicts).toEqual([]);
  });

  test('a field that is taken out is a change like any other', () => {
    const withLimit = limited(settings, { offsetMax: 2 });
    const { merged } = mergeDocuments('settings', {
      base: withLimit,
      mine: settings,
      theirs: { ...withLimit, name: 'Theirs' },
    });
    expect(merged).toEqual({ ...settings, name: 'Theirs' });
  });

  test('sites and cables are brought together one by one', () => {
    const [first, ...others] = line.sites;
    const fresh = { ...first!, id: '018f0000-0000-7000-8000-0000000000aa', name: 'New here' };
    const other = { ...fresh, id: '018f0000-0000-7000-8000-0000000000bb', name: 'New there' };
    const mine: LineDocument = { ...line, sites: [{ ...first!, name: 'Renamed' }, ...others, fresh] };
    const theirs: LineDocument = { ...line, sites: [{ ...first!, chainage: 12 }, ...others, other] };
    const { merged, conflicts } = mergeDocuments('line', { base: line, mine, theirs });
    expect(conflicts).toEqual([]);
    expect(merged!.sites).toEqual([{ ...first!, name: 'Renamed', chainage: 12 }, ...others, other, fresh]);
  });

  test('a site that one takes out and the other changes is asked about as a whole', () => {
    const [first, ...others] = line.sites;
    const theirs = { ...line, sites: [{ ...first!, name: 'Renamed' }, ...others] };
    const asked = { base: line, mine: { ...line, sites: others }, theirs };
    expect(paths(mergeDocuments('line', asked).conflicts)).toEqual([`sites/${first!.id}`]);
    expect(mergeDocuments('line', asked, () => 'mine').merged!.sites).toEqual(others);
    expect(mergeDocuments('line', asked, () => 'theirs').merged!.sites).toEqual(theirs.sites);
  });

  test('order, cables, trays and pins of a closure are one thing: two plans are never mixed', () => {
    const mine = { ...closure, trays: [...closure.trays, closure.trays[0]!], testPressure: 20 };
    const theirs = { ...closure, order: [], spareSlots: 2 };
    const asked = { base: closure, mine, theirs };
    expect(paths(mergeDocuments('closure', asked).conflicts)).toEqual(['plan']);
    const { merged } = mergeDocuments('closure', asked, () => 'mine');
    expect(merged).toMatchObject({
      order: closure.order,
      trays: mine.trays,
      spareSlots: 2,
      testPressure: 20,
    });
  });

  test('deleted here and changed there is asked about; deleted here and left there is deleted', () => {
    const theirs = { ...closure, spareSlots: 2, version: 4 };
    const asked = { base: closure, mine: null, theirs };
    expect(mergeDocuments('closure', asked).conflicts).toHaveLength(1);
    expect(mergeDocuments('closure', asked, () => 'mine').merged).toBeNull();
    expect(mergeDocuments('closure', asked, () => 'theirs').merged).toBe(theirs);
    expect(
      mergeDocuments('closure', { base: closure, mine: null, theirs: { ...closure, version: 4 } }),
    ).toEqual({
      merged: null,
      conflicts: [],
    });
  });

  test('what was sent and perhaps stored, its answer lost, is nobody else’s change', () => {
    const sent = { ...settings, name: 'Sent' };
    const mine = { ...settings, name: 'Mine' };
    const theirs = limited(sent, { singleMax: 0.2 });
    const asked = { base: settings, mine, theirs };
    expect(paths(mergeDocuments('settings', asked).conflicts)).toEqual(['name']);
    const { merged, conflicts } = mergeDocuments('settings', { ...asked, sent: [sent] });
    expect(conflicts).toEqual([]);
    expect(merged).toEqual({ ...theirs, name: 'Mine' });
  });

  test('with no common beginning every difference is asked about', () => {
    const mine = { ...settings, name: 'Mine', units: 'in' as const };
    const { conflicts } = mergeDocuments('settings', { base: null, mine, theirs: settings });
    expect(paths(conflicts).sort()).toEqual(['name', 'units']);
  });
});

test('two values are the same whatever the order of their fields; a missing field is one that is undefined', () => {
  expect(sameValue({ a: 1, b: [1, { c: 2 }] }, { b: [1, { c: 2, d: undefined }], a: 1 })).toBe(true);
  expect(sameValue([1, 2], [2, 1])).toBe(false);
  expect(sameValue({}, [])).toBe(false);
  expect(sameValue(null, {})).toBe(false);
  expect(sameDocument({ version: 1, name: 'a' }, { version: 2, name: 'a' })).toBe(true);
  expect(sameDocument(null, { version: 2 })).toBe(false);
});

describe('a project as it is shown with edits that wait', () => {
  const edit = <K extends 'line' | 'closure' | 'settings'>(
    kind: K,
    base: object | null,
    mine: object | null,
  ) => ({ kind, documentId: kind === 'closure' ? closure.id : project.project.id, base, mine }) as never;
  const [first, ...others] = line.sites;

  test('what somebody else stored since stands beside it, and a site of theirs is not hidden by an older route', () => {
    const added = { ...first!, id: '018f0000-0000-7000-8000-0000000000cc', name: 'Theirs' };
    const stored = {
      ...project,
      project: { ...project.project, lineVersion: 2 },
      sites: [...line.sites, added],
    };
    const mine = { ...line, sites: [{ ...first!, name: 'Renamed' }, ...others] };
    const shown = withEdits(stored, [edit('line', line, mine)])!;
    expect(shown.sites.map((site) => site.name)).toEqual([
      'Renamed',
      ...others.map((one) => one.name),
      'Theirs',
    ]);
    expect(shown.project.lineVersion).toBe(2);
  });

  test('an edit that does not hold together with what others stored is left out, and the others count', () => {
    const elsewhere = { ...closure, siteId: '018f0000-0000-7000-8000-0000000000dd' };
    const named = { ...settings, name: 'Mine' };
    const shown = withEdits(project, [
      edit('closure', closure, elsewhere),
      edit('settings', settings, named),
    ])!;
    expect(shown.closures).toEqual(project.closures);
    expect(shown.project.name).toBe('Mine');
  });

  test('taken back while it was being sent, it is shown as taken back, also where the server stored it meanwhile', () => {
    const sent = limited(settings, { singleMax: 0.4 });
    const stored = { ...project, project: { ...project.project, ...sent, version: settings.version + 1 } };
    const [waits] = [edit('settings', settings, settings)] as object[];
    expect(withEdits(stored, [{ ...waits, sent: [sent] } as never])!.project.limits).toEqual(settings.limits);
  });

  test('without an edit it is as it was before it, with what others stored since', () => {
    const mine = { ...settings, name: 'Mine' };
    const waits = edit('settings', settings, mine);
    for (const others of [{}, { version: settings.version + 1, units: 'in' as const }]) {
      const stored = { ...project, project: { ...project.project, ...others } };
      const shown = withEdits(stored, [waits])!;
      expect(shown.project.name).toBe('Mine');
      expect(withoutEdits(shown, [waits])).toEqual(stored);
    }
  });

  test('edits that hold together only as a whole count as one', () => {
    const cable = { ...line.cables[0]!, id: '018f0000-0000-7000-8000-0000000000ee', label: 'New' };
    const swapped = {
      ...closure,
      entries: [{ ...closure.entries[0]!, cableId: cable.id }],
      order: [],
    };
    const shown = withEdits(project, [
      edit('closure', closure, swapped),
      edit('line', line, { ...line, cables: [cable] }),
    ])!;
    expect(shown.cables).toEqual([cable]);
    expect(shown.closures[0]!.entries).toEqual(swapped.entries);
  });
});

describe('laws', () => {
  const loss = fc.constantFrom(0.05, 0.1, 0.15, 0.2);
  const edited: fc.Arbitrary<SettingsDocument> = fc
    .record({
      name: fc.constantFrom('one', 'two', settings.name),
      singleMax: loss,
      trayMean: loss,
      offsetMax: fc.option(loss, { nil: undefined }),
    })
    .map(({ name, offsetMax, ...limits }) =>
      limited({ ...settings, name }, { ...limits, ...(offsetMax === undefined ? {} : { offsetMax }) }),
    );
  const flat = ({ name, limits }: SettingsDocument): Record<string, unknown> => ({ name, ...limits });

  test('each field is as the one who changed it made it; where both did, as was chosen', () => {
    fc.assert(
      fc.property(
        edited,
        edited,
        edited,
        fc.constantFrom('mine' as const, 'theirs' as const),
        (base, mine, theirs, side) => {
          const { merged, conflicts } = mergeDocuments('settings', { base, mine, theirs }, () => side);
          const [was, own, other, is] = [flat(base), flat(mine), flat(theirs), flat(merged!)];
          for (const name of ['name', 'singleMax', 'trayMean', 'offsetMax']) {
            const expected =
              own[name] === was[name]
                ? other[name]
                : other[name] === was[name]
                  ? own[name]
                  : (side === 'mine' ? own : other)[name];
            expect(is[name]).toEqual(expected);
            const both = own[name] !== was[name] && other[name] !== was[name] && own[name] !== other[name];
            expect(conflicts.some(({ path }) => path.at(-1) === name)).toBe(both);
          }
        },
      ),
    );
  });

  test('who decides and meets the same again has nothing more to decide', () => {
    fc.assert(
      fc.property(edited, edited, edited, (base, mine, theirs) => {
        const { merged } = mergeDocuments('settings', { base, mine, theirs }, () => 'mine');
        const again = mergeDocuments('settings', { base: theirs, mine: merged, theirs });
        expect(again.conflicts).toEqual([]);
        expect(sameDocument(again.merged, merged)).toBe(true);
      }),
    );
  });
});
