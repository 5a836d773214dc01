import { closureOf, formatLoss, knownFact, siteOf, type Fact, type ProjectDefinition } from '@cordel/core';
import type { Entry } from '../../sync/read';

const kinds: { readonly [kind in Fact['kind']]: string } = {
  attempt: 'Reading',
  correction: 'Correction',
  'owner-answer': 'Owner’s answer',
  'measured-loss': 'Measured loss',
  tick: 'Tick',
  measurement: 'Measurement',
  'light-check': 'Light check',
  calibration: 'Arc calibration',
  'gear-event': 'Gear',
  recleave: 'Cleaved again',
  weather: 'Weather',
  'went-on': 'Went on all the same',
  'seal-check': 'Point of the seal',
  'flash-test': 'Flash test',
  'holding-test': 'Holding test',
  reopening: 'Opened again',
  'pattern-answer': 'Answer to what was seen in a series',
  photo: 'Photo',
  'sign-off': 'Sign-off',
};

/** "Reading 0.03 dB", "Tick": what was recorded. */
export function recordWords({ fact }: Entry): string {
  if (!fact) return 'A record that cannot be read';
  const known = knownFact(fact);
  if (!known) return 'A record of a newer Cordel';
  if (known.kind !== 'attempt') return kinds[known.kind];
  const { readings, light } = known.body;
  const losses = readings.map(({ loss }) => (loss === null ? 'none' : formatLoss(loss)));
  return light
    ? `Light ${light === 'glows' ? 'glows' : 'does not show'}`
    : `${kinds.attempt} ${losses.join(', ')} dB`;
}

/** "U1, Long Creek": where it was recorded, as far as this device knows the project. */
export function placeWords({ fact, projectId }: Entry, definition: ProjectDefinition | undefined): string {
  if (projectId === '') return '';
  if (!definition) return 'A project that is not on this device';
  const closure = definition.closures.find((one) => fact && one.id === closureOf(fact));
  const { name } = definition.project;
  return closure ? `${siteOf(definition.sites, closure.siteId).name}, ${name}` : name;
}
