import { builtInModels } from './builtInModels';
import { catalogueFileSchema, closureModelSchema, closureOfModel } from './closureModel';

const model = (name: string) => builtInModels.find((one) => one.name === name)!;

test('the built-in models are sound, of every kind, each once', () => {
  for (const one of builtInModels) expect(closureModelSchema.parse(one)).toEqual(one);
  expect(new Set(builtInModels.map((one) => one.kind)).size).toBe(5);
  expect(new Set(builtInModels.map((one) => one.id)).size).toBe(builtInModels.length);
  const file = { format: 'cordel-catalogue', formatVersion: 1, models: builtInModels };
  expect(catalogueFileSchema.parse(JSON.parse(JSON.stringify(file)))).toEqual(file);
});

// Common practice, no published source: 64 in, 8 in and 2.25 in for a dome; 2 m and 90 mm for glands; 70 in and 3 in for a terminal;
// 20 in, 1.5 in and 6 in for a drop joint; 102 in and all flush for ribbons to a rack. 1 in = 25.4 mm exactly.
test.each([
  ['Dome 96', [64, 8, 2.25]],
  ['Express terminal 24', [70, 3, null]],
  ['Drop joint 4', [20, 1.5, 6]],
  ['Rack module 144', [102, 0, null]],
])('the lengths of %s are those of the trade', (name, inches) => {
  const { sheathOpening, strengthMember, tube } = model(name).lengths;
  [sheathOpening, strengthMember, tube].forEach((length, index) => {
    const wanted = inches[index];
    if (wanted != null) expect(Math.abs(length - wanted * 25.4)).toBeLessThanOrEqual(0.5);
  });
});

// 5 psi are 34.474 kPa and 4 psi 27.579 kPa (NIST SP 811); never more than 5 psi (common practice).
test('no model is tested above 5 psi, and none can be', () => {
  for (const { testPressure } of builtInModels) expect(testPressure).toBeLessThanOrEqual(34.5);
  const { error } = closureModelSchema.safeParse({ ...model('Dome 96'), testPressure: 35 });
  expect(error!.issues[0]!.message).toBe('Never more than 34.5 kPa (5 psi).');
});

test('a port’s range has its smaller end first', () => {
  const [port] = model('Dome 96').ports;
  const { error } = closureModelSchema.safeParse({ ...model('Dome 96'), ports: [{ ...port, from: 30 }] });
  expect(error!.issues.map((issue) => issue.path.join('.'))).toEqual(['ports.0.from']);
});

test('a closure copies what it needs, so that an edited model does not change it', () => {
  const copied = closureOfModel(model('Inline 144'));
  expect(copied.trays).toHaveLength(6);
  expect(copied.trays[0]).toEqual({ singleSlots: 24, ribbonSlots: 12 });
  expect(copied.model).toBe('Inline 144');
});
