import { id, limits } from '../../test/example';
import { projectDefinitionSchema, referenceProblems } from '../handover/projectFile';
import { planClosure } from './trays/closurePlan';
import { straightProject, straightProjectSchema, type StraightProject } from './straightProject';

const input: StraightProject = {
  name: 'Small job',
  units: 'mm',
  timeZone: 'Europe/Lisbon',
  limits,
  from: 'Hub',
  to: 'Cabinet',
  closure: { name: 'Joint', kind: 'dome', chainage: 120, trays: 4, slotsPerTray: 24 },
  left: { label: 'A', tubes: 8, fibersPerTube: 12, schemeId: 'tia-598-d' },
  right: { label: 'B', tubes: 4, fibersPerTube: 12, schemeId: 'tia-598-d' },
};

test('makes a sound project that joins as many fibers as the smaller cable has', () => {
  let next = 100;
  const definition = straightProject(straightProjectSchema.parse(input), () => id(next++));
  expect(projectDefinitionSchema.parse(definition)).toEqual(definition);
  expect(referenceProblems(definition)).toEqual([]);
  const plan = planClosure(
    definition.closures[0]!,
    new Map(definition.cables.map((cable) => [cable.id, cable])),
  );
  expect(plan.findings).toEqual([]);
  expect(plan.splices).toHaveLength(48);
});

test.each([
  [{ ...input, name: ' ' }, 'Give it a name.'],
  [{ ...input, left: { ...input.left, tubes: 0 } }, 'At least 1 tube.'],
  [{ ...input, left: { ...input.left, fibersPerTube: 25 } }, 'At most 24 fibers in a tube.'],
  [{ ...input, closure: { ...input.closure, chainage: Number.NaN } }, 'Give the distance as a number.'],
])('says what is wrong with the input', (bad, message) => {
  expect(straightProjectSchema.safeParse(bad).error!.issues[0]!.message).toBe(message);
});
