import { builtInModels } from '@cordel/core/builtInModels';
import { closureModelSchema, closureOfModel, type Closure } from '@cordel/core';
import { formOfModel, modelFormSchema, tableOfClosure, tableOfForm } from './modelForm';

const tableOf = ({ ports, lengths, parts, testPressure }: (typeof builtInModels)[number]) => ({
  ports,
  lengths,
  testPressure,
  ...(parts ? { parts } : {}),
});

describe.each(['mm', 'in'] as const)('in %s', (units) => {
  test.each(builtInModels.map((model) => [model.name, model] as const))(
    'the table of %s that nobody touched is the same to the last digit',
    (_, model) => {
      const form = modelFormSchema(units).parse(formOfModel(model, units));
      expect(tableOfForm(form, model)).toEqual(tableOf(model));
      expect(closureModelSchema.safeParse({ ...model, ...tableOfForm(form, model) }).success).toBe(true);
    },
  );
});

const [dome] = builtInModels;
const asForm = () => formOfModel(dome!, 'in');

test('a length is taken in sixteenths, or in another unit that is named', () => {
  const typed = asForm();
  const form = modelFormSchema('in').parse({
    ...typed,
    lengths: { ...typed.lengths, sheathOpening: '70-1/2', strengthMember: '90 mm' },
  });
  const { lengths } = tableOfForm(form, dome!);
  expect(lengths.sheathOpening).toBeCloseTo(1790.7, 9);
  expect(lengths.strengthMember).toBe(90);
  expect(lengths.tube).toBe(dome!.lengths.tube);
});

test.each([
  ['no length', { sheathOpening: 'far' }, 'lengths.sheathOpening'],
  ['an empty one', { tube: '' }, 'lengths.tube'],
  ['one that is too long', { sheathOpening: '2000' }, 'lengths.sheathOpening'],
])('%s is refused at its field', (_, lengths, path) => {
  const typed = asForm();
  const result = modelFormSchema('in').safeParse({ ...typed, lengths: { ...typed.lengths, ...lengths } });
  expect(result.error!.issues.map((issue) => issue.path.join('.'))).toEqual([path]);
});

test('a port and a part whose smallest diameter is above the largest are refused', () => {
  const typed = asForm();
  const [port] = typed.ports;
  const wrong = { ...port!, from: '2', to: '1', parts: [{ ...port!.parts[0]!, from: '2', to: '1' }] };
  const result = modelFormSchema('in').safeParse({ ...typed, ports: [wrong] });
  expect(result.error!.issues.map((issue) => issue.path.join('.')).sort()).toEqual([
    'ports.0.from',
    'ports.0.parts.0.from',
  ]);
});

test('a closure without a table of its own gets the usual one to begin with', () => {
  const closure: Closure = {
    id: '01900000-0000-7000-8000-000000000001',
    siteId: '01900000-0000-7000-8000-000000000002',
    ...closureOfModel(dome!),
    ports: undefined,
    lengths: undefined,
    entries: [],
    order: [],
    version: 1,
  };
  const form = modelFormSchema('mm').parse(formOfModel(tableOfClosure(closure), 'mm'));
  const table = tableOfForm(form, null);
  expect(table.lengths).toMatchObject({ sheathOpening: 1625.6, strengthMember: 203.2 });
  expect(table.ports).toHaveLength(1);
});
