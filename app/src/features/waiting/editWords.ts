import { formatLoss, siteOf, type Closure, type ProjectDefinition, shownNumber } from '@cordel/core';
import type { DocumentEdit, FieldConflict } from '@cordel/core/edits';
import { gearWords } from '@cordel/core/gear';
import { writeOrder } from '@cordel/core/order';
import { lengthFields, limitFields } from '../../shell/fieldWords';
import type { StoredEdit } from '../../sync/editList';
import { dayAndTime } from '../../ui/times';

/** "Plan and table of U3 changed": what was edited, and how. */
export function editWords(edit: StoredEdit, definition: ProjectDefinition | undefined): string {
  // What cannot be read.
  if (edit.mine === undefined) return 'A change that cannot be read';
  const verb = edit.mine === null ? 'deleted' : edit.base === null ? 'made' : 'changed';
  return `${documentWords(edit, definition)} ${verb}`;
}

/** "Plan and table of U3": what a document is of. */
export function documentWords(edit: StoredEdit, definition: ProjectDefinition | undefined): string {
  switch (edit.kind) {
    case 'project':
      return `Project ${edit.mine?.project.name ?? ''}`;
    case 'settings':
      return 'Settings and limits';
    case 'line':
      return 'Sites and cables';
    case 'closure':
      return `Closure ${siteName(edit.mine ?? edit.base, definition)}`.trim();
    case 'model':
      return `Closure model ${(edit.mine ?? edit.base)?.name ?? ''}`;
    case 'gear': {
      const item = edit.mine ?? edit.base;
      return item ? `${capital(gearWords[item.kind].one)} ${item.label}` : 'Gear';
    }
  }
}

function siteName(closure: Closure | null, definition: ProjectDefinition | undefined): string {
  const site = definition?.sites.find((one) => one.id === closure?.siteId);
  return site?.name ?? '';
}

const capital = (words: string) => words.slice(0, 1).toUpperCase() + words.slice(1);

const names: Readonly<Record<string, string>> = {
  name: 'Name',
  measured: 'Losses as measured',
  position: 'Position',
  label: 'Label',
  units: 'Units shown',
  window: 'Window of the work',
  timeZone: 'Time zone',
  nights: 'Nights',
  crews: 'Crews',
  rules: 'Rules of the closures',
  pins: 'Pins',
  reserve: 'Reserve',
  speed: 'Speed on the way',
  travel: 'Own ways',
  packUp: 'Packing up',
  holding: 'Holding test',
  kept: 'Plan of the nights',
  kind: 'Kind',
  chainage: 'Distance along the route',
  placement: 'Where it is',
  branchFrom: 'Branch leaves at',
  schemeId: 'Color code',
  ownScheme: 'Own color code',
  construction: 'Construction',
  siteIds: 'Sites that it passes',
  fiberType: 'Fiber type',
  modeField: 'Mode field',
  groupIndex: 'Group index',
  diameter: 'Diameter',
  excess: 'Excess fiber',
  sheathMarks: 'Sheath marks',
  live: 'Live fibers',
  plan: 'Cables, trays, order and pins',
  siteId: 'Site',
  model: 'Copied from',
  ports: 'Ports',
  parts: 'Kit parts',
  testPressure: 'Test pressure',
  sealing: 'How it is sealed',
  sleeveLength: 'Sleeve length',
  spareSlots: 'Slots left free',
  about: 'About it',
  trays: 'Trays',
  singleSlots: 'Single sleeves on a tray',
  ribbonSlots: 'Ribbon sleeves on a tray',
  coils: 'Coils in the tray',
  basketTurns: 'Turns in the slack basket',
  programs: 'Programs',
  heaterPrograms: 'Heater programs',
  heaters: 'Sleeves in the heater at once',
  coolSeconds: 'Cooling',
  cleaveLength: 'Cleave length, 250 μm coating',
  tightLength: 'Cleave length, 900 μm buffer',
  ribbonLength: 'Cleave length, ribbons',
  calibrationArcs: 'Arcs of one try at a calibration',
  log: 'How its log is read',
  positions: 'Positions on the blade',
  temperature: 'Temperature of its jaws',
  wavelength: 'Wavelength',
  cleaveAngle: 'The machine’s limit, cleave angle',
  offset: 'The machine’s limit, axis offset',
  gap: 'The machine’s limit, gap',
  cleaves: 'A position is due after',
  ...Object.fromEntries(limitFields.map(({ name, label }) => [name, label])),
  ...Object.fromEntries(lengthFields),
};

/** Units in which numbers are stored. */
const unitOf: Readonly<Record<string, string>> = {
  chainage: 'm',
  testPressure: 'kPa',
  sleeveLength: 'mm',
  cleaveLength: 'mm',
  tightLength: 'mm',
  ribbonLength: 'mm',
  diameter: 'mm',
  modeField: 'μm',
  temperature: '°C',
  wavelength: 'nm',
  coolSeconds: 's',
  cleaveAngle: '°',
  offset: 'μm',
  gap: 'μm',
  ...Object.fromEntries(lengthFields.map(([name]) => [name, 'mm'])),
};

/** "Site U4: name": which field two people set differently. */
export function fieldWords(
  kind: DocumentEdit['kind'],
  conflict: FieldConflict,
  definition: ProjectDefinition | undefined,
): string {
  const { path } = conflict;
  const last = path.at(-1);
  if (last === undefined) return 'All of it';
  if (kind === 'line' && path.length > 1) {
    const thing = thingWords(path[0]!, path[1]!, conflict, definition);
    return path.length === 2 ? thing : `${thing}: ${(names[last] ?? last).toLowerCase()}`;
  }
  return names[last] ?? last;
}

function thingWords(
  list: string,
  id: string,
  { mine, theirs }: FieldConflict,
  definition: ProjectDefinition | undefined,
): string {
  const site = list === 'sites';
  const known = site
    ? definition?.sites.find((one) => one.id === id)?.name
    : definition?.cables.find((one) => one.id === id)?.label;
  const here = (mine ?? theirs) as { name?: string; label?: string } | undefined;
  return `${site ? 'Site' : 'Cable'} ${known ?? here?.name ?? here?.label ?? ''}`.trim();
}

/** A value as a person reads it; whole things in a few lines. */
export function valueWords(
  kind: DocumentEdit['kind'],
  { path }: FieldConflict,
  value: unknown,
  definition: ProjectDefinition | undefined,
): string {
  if (path.length === 0) return value === undefined ? 'Deleted' : 'As it was changed';
  if (value === undefined || value === null)
    return kind === 'line' && path.length === 2 ? 'Taken out' : 'Not set';
  const last = path.at(-1)!;
  if (kind === 'line' && path.length === 2) return 'Kept, as it was changed';
  const limit = kind === 'settings' ? limitFields.find(({ name }) => name === last) : undefined;
  if (limit)
    return limit.unit === 'dB'
      ? `${formatLoss(value as number)} dB`
      : [shownNumber(value as number), limit.unit].filter(Boolean).join(' ');
  if (path[0] === 'nights') return nightsWords(last, value);
  if (last === 'window') {
    const { opens, closes } = value as { opens: string; closes: string };
    const zone = definition?.project.timeZone;
    return `${dayAndTime(opens, zone)} to ${dayAndTime(closes, zone)}`;
  }
  if (last === 'plan')
    return planWords(value as Pick<Closure, 'entries' | 'trays' | 'order' | 'pins'>, definition);
  if (last === 'siteId' && definition) return siteOf(definition.sites, value as string).name;
  if (last === 'siteIds')
    return (value as string[])
      .map((id) => definition?.sites.find((site) => site.id === id)?.name ?? 'a site that is not here')
      .join(', ');
  const unit = typeof value === 'number' ? unitOf[last] : undefined;
  return unit ? `${shownNumber(value as number)} ${unit}` : plain(value);
}

/** A part of what the nights are planned from. */
function nightsWords(field: string, value: unknown): string {
  const counted = (one: string, many: string) => {
    const { length } = value as unknown[];
    return `${length} ${length === 1 ? one : many}`;
  };
  switch (field) {
    case 'nights':
      return Array.isArray(value) ? counted('night', 'nights') : 'As they were planned';
    case 'crews':
      return (value as { name: string }[]).map(({ name }) => name).join(', ') || 'Nobody';
    case 'rules':
      return counted('closure has rules', 'closures have rules');
    case 'pins':
      return counted('closure is pinned', 'closures are pinned');
    case 'travel':
      return counted('way', 'ways');
    case 'reserve':
      return `${shownNumber((value as number) * 100)} %`;
    case 'speed':
      return `${shownNumber((value as number) * 3.6)} km/h`;
    case 'packUp':
      return `${shownNumber((value as number) / 60)} min`;
    case 'holding':
      return `after ${shownNumber((value as { wait: number }).wait / 3600)} h`;
    default:
      return 'As it was kept';
  }
}

function planWords(
  {
    entries = [],
    trays = [],
    order = [],
    pins = [],
  }: Partial<Pick<Closure, 'entries' | 'trays' | 'order' | 'pins'>>,
  definition: ProjectDefinition | undefined,
): string {
  const cables = entries.map(
    ({ cableId, manner }) =>
      `${definition?.cables.find((one) => one.id === cableId)?.label ?? 'a cable that is not here'} (${manner})`,
  );
  return [
    cables.join(', ') || 'no cables',
    [
      `${trays.length} ${trays.length === 1 ? 'tray' : 'trays'}`,
      pins.length > 0 ? `${pins.length} pinned` : null,
    ]
      .filter(Boolean)
      .join(', '),
    writeOrder({ entries, order }) || 'no order',
  ].join('\n');
}

/** Numbers and words as they are; lists by their names. */
function plain(value: unknown): string {
  if (Array.isArray(value))
    return value.length === 0
      ? 'none'
      : value.map((one: unknown) => plain(one)).join(value.some(isThing) ? '\n' : ', ');
  if (isThing(value))
    return Object.entries(value)
      .filter(([name, one]) => name !== 'id' && one !== undefined && one !== null)
      .map(([name, one]) =>
        name === 'name' || name === 'label'
          ? plain(one)
          : `${names[name]?.toLowerCase() ?? name} ${plain(one)}`,
      )
      .join(', ');
  if (typeof value === 'number') return shownNumber(value);
  return typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value as string);
}

const isThing = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
