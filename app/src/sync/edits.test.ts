import '../../test/indexedDb';
import type { Closure } from '@cordel/core';
import { lineOf, settingsOf, withEdits, type DocumentEdit, type SettingsDocument } from '@cordel/core/edits';
import fc from 'fast-check';
import { times } from '../../../core/test/times';
import { IDBFactory } from 'fake-indexeddb';
import { DocumentServer } from '../../test/documentServer';
import { TestServer } from '../../test/factServer';
import { surroundings } from '../../test/engine';
import { attemptAt, smallJob } from '../../test/job';
import { conflictsOf } from './editList';
import { Engine } from './engine';
import { IndexedStore } from './indexedStore';
import { NotKept } from './store';
import { MemoryStore } from './memoryStore';

const job = smallJob();
const projectId = job.project.id;
const closure = job.closures[0]!;
const settings = settingsOf(job);

/** A device on its own disk, the two servers of facts and documents, and what the server was last heard to have. */
function device(name = 'a', documents = new DocumentServer(), facts = new TestServer()) {
  const heard: { scope: string; edit: DocumentEdit; stored: DocumentEdit['mine'] }[] = [];
  const load = () =>
    new Engine(
      surroundings(new IndexedStore(() => undefined, name), {
        server: facts,
        sendEdit: documents.sendEdit,
        onStored: (scope, edit, stored) => heard.push({ scope, edit, stored }),
      }),
    );
  return { engine: load(), load, documents, facts, heard };
}

const named = (name: string, base: SettingsDocument | null = settings): DocumentEdit => ({
  kind: 'settings',
  documentId: projectId,
  base,
  mine: { ...(base ?? settings), name },
});
const planned = (mine: Closure | null, base: Closure | null = closure): DocumentEdit => ({
  kind: 'closure',
  documentId: closure.id,
  base,
  mine,
});
const nameShown = (engine: Engine) => withEdits(job, engine.edits.of(projectId))!.project.name;

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
});

test('an edit waits on the disk, is shown, survives the page, and is sent when the server answers', async () => {
  const { engine, load, documents, heard } = device();
  documents.put(projectId, settings);
  documents.reachable = false;
  await engine.keepEdit(projectId, named('Kept'));
  await engine.push.run();
  expect([nameShown(engine), engine.push.sending()]).toEqual(['Kept', 'away']);
  engine.stop();
  const again = load();
  await again.ready;
  expect(nameShown(again)).toBe('Kept');
  documents.reachable = true;
  await again.push.tryNow();
  expect(documents.of<SettingsDocument>(projectId)).toMatchObject({ name: 'Kept', version: 2 });
  expect(again.edits.all()).toEqual([]);
  expect(heard.at(-1)).toMatchObject({ scope: projectId, stored: { name: 'Kept', version: 2 } });
  again.stop();
});

test('edits of the same thing one after the other are one; back to what it was, they are none', async () => {
  // No push: what was sent may be on the server.
  const { engine } = device();
  engine.push.stop();
  engine.push.soon = () => undefined;
  await engine.keepEdit(projectId, named('One'));
  await engine.keepEdit(projectId, named('Two', { ...settings, name: 'One' }));
  expect(engine.edits.of(projectId)).toMatchObject([{ base: settings, mine: { name: 'Two' } }]);
  await engine.keepEdit(projectId, named(settings.name, { ...settings, name: 'Two' }));
  expect(engine.edits.of(projectId)).toEqual([]);
  engine.stop();
});

test('taken back after it was sent and its answer lost, it is taken back on the server too', async () => {
  const { engine, documents } = device();
  documents.put(projectId, settings);
  documents.losesAnswers = true;
  await engine.keepEdit(projectId, named('Sent'));
  await engine.push.run();
  expect(documents.of<SettingsDocument>(projectId).name).toBe('Sent');
  await engine.keepEdit(projectId, {
    ...named(settings.name),
    base: { ...settings, name: 'Sent' },
  } as DocumentEdit);
  documents.losesAnswers = false;
  await engine.push.tryNow();
  expect(documents.of<SettingsDocument>(projectId).name).toBe(settings.name);
  expect(engine.edits.all()).toEqual([]);
  engine.stop();
});

test('taken back while it was being sent, it is shown as taken back in every moment, and stays so', async () => {
  const { engine, documents, heard } = device();
  documents.put(projectId, settings);
  const names: string[] = [];
  const note = () => {
    const server = heard.at(-1)?.stored as SettingsDocument | undefined;
    const definition = { ...job, project: { ...job.project, ...server } };
    names.push(withEdits(definition, engine.edits.of(projectId))!.project.name);
  };
  const push = heard.push.bind(heard);
  heard.push = (...stored) => {
    const length = push(...stored);
    note();
    return length;
  };
  documents.onCame = async () => {
    documents.onCame = () => Promise.resolve();
    await engine.edits.keep(projectId, named(settings.name, { ...settings, name: 'Sent' }), false);
    note();
  };
  await engine.keepEdit(projectId, named('Sent'));
  await engine.push.run();
  note();
  expect(documents.came.length).toBe(2);
  expect(new Set(names)).toEqual(new Set([settings.name]));
  expect(documents.of<SettingsDocument>(projectId).name).toBe(settings.name);
  engine.stop();
});

test('an edit that is made in the moment in which sending ends is sent too', async () => {
  const documents = new DocumentServer();
  documents.put(projectId, settings);
  let meanwhile = () => Promise.resolve();
  const engine: Engine = new Engine(
    surroundings(new IndexedStore(() => undefined), {
      sendEdit: documents.sendEdit,
      alone: (work) => work().finally(meanwhile),
    }),
  );
  meanwhile = () => {
    meanwhile = () => Promise.resolve();
    return engine.keepEdit(projectId, named('Late'));
  };
  await engine.push.run();
  expect(documents.of<SettingsDocument>(projectId).name).toBe('Late');
  engine.stop();
});

test('an edit whose answer was lost is not sent as a second one', async () => {
  const { engine, documents } = device();
  documents.put(projectId, settings);
  documents.losesAnswers = true;
  await engine.keepEdit(projectId, named('Sent'));
  await engine.push.run();
  documents.losesAnswers = false;
  await engine.push.tryNow();
  expect(documents.of<SettingsDocument>(projectId)).toMatchObject({ name: 'Sent', version: 2 });
  expect(engine.edits.all()).toEqual([]);
  engine.stop();
});

test('an edit that needs what stands behind it is sent after it', async () => {
  const { engine, documents } = device();
  documents.put(closure.id, closure);
  documents.put(projectId, lineOf(job));
  documents.reachable = false;
  const line = lineOf(job);
  await engine.keepEdit(projectId, planned({ ...closure, entries: [] }));
  await engine.keepEdit(projectId, {
    kind: 'line',
    documentId: projectId,
    base: line,
    mine: { ...line, cables: [] },
  });
  documents.against = (edit) =>
    edit.kind === 'closure' && documents.of<typeof line>(projectId).cables.length > 0
      ? 'The cable is used.'
      : null;
  documents.reachable = true;
  await engine.push.tryNow();
  expect(documents.came.map((edit) => edit.kind)).toEqual(['closure', 'line', 'closure']);
  expect(engine.edits.all()).toEqual([]);
  engine.stop();
});

test('a refused edit waits for the person, and holds up nothing else of the project', async () => {
  const { engine, documents, facts } = device();
  documents.put(projectId, settings);
  documents.put(closure.id, closure);
  documents.against = (edit) => (edit.kind === 'settings' ? 'Not this name.' : null);
  await engine.keepEdit(projectId, named('Bad'));
  await engine.keepEdit(projectId, planned({ ...closure, spareSlots: 2 }));
  const fact = attemptAt(job, 0, 0.05);
  await engine.append(projectId, fact);
  await engine.push.run();
  expect(engine.edits.all()).toMatchObject([{ refused: 'Not this name.' }]);
  expect(documents.of<Closure>(closure.id).spareSlots).toBe(2);
  expect(facts.ids(projectId)).toEqual([fact.id]);
  // Mended by being saved anew.
  documents.against = () => null;
  await engine.keepEdit(projectId, named('Good'));
  await engine.push.run();
  expect(documents.of<SettingsDocument>(projectId).name).toBe('Good');
  // Dropped, it is as the server has it.
  documents.against = () => 'No.';
  await engine.keepEdit(projectId, named('Worse', documents.of<SettingsDocument>(projectId)));
  await engine.push.run();
  await engine.edits.drop(engine.edits.all()[0]!.id);
  expect(engine.edits.all()).toEqual([]);
  engine.stop();
});

test('what others changed elsewhere in it is brought together; the same field is decided by the person', async () => {
  const { engine, documents } = device();
  documents.put(projectId, settings);
  documents.put(projectId, { ...settings, units: 'in' });
  await engine.keepEdit(projectId, named('Mine'));
  await engine.push.run();
  expect(documents.of<SettingsDocument>(projectId)).toMatchObject({ name: 'Mine', units: 'in', version: 3 });
  const seen = documents.of<SettingsDocument>(projectId);
  documents.put(projectId, { ...seen, name: 'Theirs' });
  await engine.keepEdit(projectId, named('Mine again', seen));
  await engine.push.run();
  const [edit] = engine.edits.all();
  expect(conflictsOf(edit!)).toEqual([
    { path: ['name'], base: 'Mine', mine: 'Mine again', theirs: 'Theirs' },
  ]);
  expect(documents.of<SettingsDocument>(projectId).name).toBe('Theirs');
  await engine.edits.decide(edit!.id, () => 'mine');
  await engine.push.run();
  expect(documents.of<SettingsDocument>(projectId)).toMatchObject({ name: 'Mine again', version: 5 });
  expect(engine.edits.all()).toEqual([]);
  engine.stop();
});

test('a project made with no network is worked in, and goes to the server before what was recorded in it', async () => {
  const { engine, documents, facts } = device();
  documents.reachable = false;
  await engine.keepEdit(projectId, { kind: 'project', documentId: projectId, base: null, mine: job });
  const view = engine.closure(projectId, closure.id);
  await view.reading;
  const fact = attemptAt(job, 0, 0.05);
  expect(await engine.append(projectId, fact)).toBe(true);
  expect(view.known!.facts).toEqual([fact]);
  await engine.push.run();
  expect(facts.ids(projectId)).toEqual([]);
  documents.reachable = true;
  await engine.push.tryNow();
  expect(documents.of(projectId)).toMatchObject({ project: { id: projectId } });
  expect(facts.ids(projectId)).toEqual([fact.id]);
  expect(engine.log.entries()).toEqual([]);
  engine.stop();
});

test('a project that is made here and is on the server already is edited there, and what differs is decided', async () => {
  const { engine, documents } = device();
  const theirs = { ...job, project: { ...job.project, name: 'Handed there' } };
  documents.stored.set(projectId, { version: 1, document: theirs });
  await engine.keepEdit(projectId, { kind: 'project', documentId: projectId, base: null, mine: job });
  await engine.push.run();
  expect(engine.edits.all()).toMatchObject([{ kind: 'settings', theirs: { name: 'Handed there' } }]);
  expect(conflictsOf(engine.edits.all()[0]!)).toMatchObject([{ path: ['name'], mine: 'Test' }]);
  engine.stop();
});

test('edits handed over from another device go on their way from here too, and what both changed is decided', async () => {
  const { engine, documents, facts } = device();
  documents.put(projectId, settings);
  documents.put(closure.id, closure);
  documents.reachable = false;
  await engine.keepEdit(projectId, named('Mine'));
  const fact = attemptAt(job, 0, 0.05);
  const theirs = { ...settings, name: 'Theirs', units: 'in' as const };
  const handed: DocumentEdit[] = [
    { kind: 'settings', documentId: projectId, base: settings, mine: theirs },
    planned({ ...closure, spareSlots: 3 }),
  ];
  expect(await engine.take(projectId, [fact], handed)).toEqual({ records: 1 });
  // Taken once more it changes nothing.
  expect(await engine.take(projectId, [fact], handed)).toEqual({ records: 0 });
  const [own] = engine.edits.of(projectId);
  expect(conflictsOf(own!)).toMatchObject([{ path: ['name'], mine: 'Mine', theirs: 'Theirs' }]);
  documents.reachable = true;
  await engine.push.tryNow();
  expect(facts.ids(projectId)).toEqual([fact.id]);
  expect(documents.of<Closure>(closure.id).spareSlots).toBe(3);
  expect(documents.of<SettingsDocument>(projectId).name).toBe(settings.name);
  await engine.edits.decide(own!.id, () => 'theirs');
  await engine.push.tryNow();
  // The server never had theirs: it gets it from here.
  expect(documents.of<SettingsDocument>(projectId)).toMatchObject({ name: 'Theirs', units: 'in' });
  expect(engine.edits.all()).toEqual([]);
  engine.stop();
});

test('an older copy of a project, taken from a file, changes nothing on a server that has a newer one', async () => {
  const { engine, documents } = device();
  const theirs = {
    ...job,
    project: { ...job.project, name: 'Newer', version: 4 },
    sites: [...job.sites].reverse(),
  };
  documents.stored.set(projectId, { version: 1, document: theirs });
  await engine.keepEdit(projectId, { kind: 'project', documentId: projectId, base: null, mine: job });
  await engine.push.run();
  expect(engine.edits.all()).toEqual([]);
  engine.stop();
});

test('a device with no room says so, and nothing is changed', async () => {
  const store = new MemoryStore(new NotKept('full'));
  const engine = new Engine(surroundings(store));
  await expect(engine.keepEdit(projectId, named('Kept'))).rejects.toThrow(NotKept);
  expect(engine.edits.all()).toEqual([]);
  engine.stop();
});

test('an edit that this Cordel cannot read is neither sent nor lost', async () => {
  const { engine, load, documents } = device();
  documents.reachable = false;
  await engine.keepEdit(projectId, named('Kept'));
  engine.stop();
  const disk = new IndexedStore(() => undefined, 'a');
  await disk.changeEdits(projectId, (there) => [{ ...there[0]!, mine: { odd: true } } as never]);
  documents.reachable = true;
  const again = load();
  await again.ready;
  await again.push.run();
  expect(documents.came).toEqual([]);
  expect(again.edits.all()).toMatchObject([{ refused: expect.stringContaining('cannot read this change') }]);
  expect(again.edits.of(projectId)).toEqual([]);
  await again.edits.drop(again.edits.all()[0]!.id);
  expect(await disk.edits()).toEqual([]);
  again.stop();
});

/**
 * Two devices edit one document, in whatever order they edit, send, lose answers, restart and decide: in the end both show what the server has, nothing waits, and a
 * field that only one of them edited is as that one left it.
 */
const fields = { a: 'singleMax', b: 'trayMean' } as const;
const steps = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('edit' as const),
      shared: fc.boolean(),
      value: fc.integer({ min: 1, max: 5 }),
    }),
  },
  {
    weight: 3,
    arbitrary: fc.record({
      do: fc.constant('send' as const),
      fate: fc.constantFrom('well' as const, 'unreachable' as const, 'answer lost' as const),
    }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('restart' as const) }) },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constant('decide' as const),
      side: fc.constantFrom('mine' as const, 'theirs' as const),
    }),
  },
);
const moves = fc.array(fc.tuple(steps, fc.constantFrom('a' as const, 'b' as const)), { maxLength: 30 });

test('any order of edits, sends, lost answers and restarts on two devices ends the same everywhere', async () => {
  await fc.assert(
    fc.asyncProperty(moves, async (list) => {
      globalThis.indexedDB = new IDBFactory();
      const documents = new DocumentServer();
      documents.put(projectId, settings);
      const devices = { a: device('a', documents), b: device('b', documents) };
      const known = (name: 'a' | 'b') => {
        const { heard } = devices[name];
        const last = heard.at(-1)?.stored as SettingsDocument | undefined;
        return { ...job, project: { ...job.project, ...(last ?? { ...settings, version: 1 }) } };
      };
      const shown = (name: 'a' | 'b') =>
        settingsOf(withEdits(known(name), devices[name].engine.edits.of(projectId))!);
      const own: { [name in 'a' | 'b']: number } = {
        a: settings.limits[fields.a],
        b: settings.limits[fields.b],
      };
      const decide = async (name: 'a' | 'b', side: 'mine' | 'theirs') => {
        const { edits } = devices[name].engine;
        for (const edit of edits.of(projectId)) if (edit.theirs) await edits.decide(edit.id, () => side);
      };
      for (const [step, name] of list) {
        const at = devices[name];
        if (step.do === 'edit') {
          const base = shown(name);
          const value = step.value / 10;
          const mine = step.shared
            ? { ...base, name: `${name} ${step.value}` }
            : { ...base, limits: { ...base.limits, [fields[name]]: value } };
          if (!step.shared) own[name] = value;
          await at.engine.keepEdit(projectId, { kind: 'settings', documentId: projectId, base, mine });
        } else if (step.do === 'send') {
          documents.reachable = step.fate !== 'unreachable';
          documents.losesAnswers = step.fate === 'answer lost';
          await at.engine.push.tryNow();
          documents.reachable = true;
          documents.losesAnswers = false;
        } else if (step.do === 'restart') {
          at.engine.stop();
          at.engine = at.load();
          await at.engine.ready;
        } else await decide(name, step.side);
      }
      for (let round = 0; round < 4; round += 1)
        for (const name of ['a', 'b'] as const) {
          await decide(name, 'mine');
          await devices[name].engine.push.tryNow();
        }
      const end = documents.of<SettingsDocument>(projectId);
      for (const name of ['a', 'b'] as const) {
        expect(devices[name].engine.edits.all()).toEqual([]);
        expect(end.limits[fields[name]]).toBe(own[name]);
        devices[name].engine.stop();
      }
    }),
    { numRuns: times(60, 2000) },
  );
}, 120_000);
