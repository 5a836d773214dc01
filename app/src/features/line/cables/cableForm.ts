import {
  metalOf,
  cableSchema,
  colorSchemeSchema,
  constructionSchema,
  ribbonSizes,
  tia598,
  type Cable,
  type Construction,
  type GlassColor,
  metersFromShown,
  millimetersFromShown,
  shownFromMeters,
  shownFromMillimeters,
  type FiberTypeId,
  type Units,
  shownNumber,
} from '@cordel/core';
import { toNumber } from '../../../ui/numberField';

/** A cable as a form holds it: text as it is typed. The core's schemas say what is wrong with it. */
export interface CableForm {
  label: string;
  kind: Construction['kind'];
  /** Tubes, ribbons or fibers, by kind. */
  count: string;
  /** Fibers in each: one number for all, or one for each tube. */
  each: string;
  /** Places of fillers in the stranding. */
  fillers: string;
  groupSize: string;
  ribbonsPerTube: string;
  ribbonSize: string;
  shape: 'flat' | 'round';
  toningWire: boolean;
  messenger: boolean;
  armor: boolean;
  buffer: '250' | '900';
  schemeId: string;
  ownName: string;
  ownSequence: GlassColor[];
  fiberType: FiberTypeId;
  modeField: string;
  groupIndex: string;
  diameter: string;
  excess: string;
  markFirst: string;
  markLast: string;
  siteIds: string[];
  /** One range a line: "133-144 District ring". */
  live: string;
}

export const emptyCable: CableForm = {
  label: '',
  kind: 'stranded-tubes',
  count: '8',
  each: '12',
  fillers: '',
  groupSize: '',
  ribbonsPerTube: '6',
  ribbonSize: '12',
  shape: 'flat',
  toningWire: false,
  messenger: false,
  armor: false,
  buffer: '900',
  schemeId: tia598.id,
  ownName: 'Own color code',
  ownSequence: [...tia598.sequence],
  fiberType: 'g652d',
  modeField: '',
  groupIndex: '',
  diameter: '',
  excess: '2',
  markFirst: '',
  markLast: '',
  siteIds: [],
  live: '',
};

const text = (value: number | undefined) => (value === undefined ? '' : shownNumber(value));

export function formOfCable(cable: Cable, units: Units): CableForm {
  const { construction } = cable;
  const { armor, messenger } = metalOf(construction);
  const form: CableForm = {
    ...emptyCable,
    label: cable.label,
    armor,
    messenger,
    kind: construction.kind,
    schemeId: cable.ownScheme ? 'own' : cable.schemeId,
    ownName: cable.ownScheme?.name ?? emptyCable.ownName,
    ownSequence: [...(cable.ownScheme?.sequence ?? tia598.sequence)],
    fiberType: cable.fiberType ?? 'g652d',
    modeField: text(cable.modeField),
    groupIndex: text(cable.groupIndex),
    diameter: text(cable.diameter === undefined ? undefined : shownFromMillimeters(cable.diameter, units)),
    excess: cable.excess === undefined ? '' : shownNumber(+(cable.excess * 100).toFixed(3)),
    markFirst: text(cable.sheathMarks && shownFromMeters(cable.sheathMarks.first, units)),
    markLast: text(cable.sheathMarks && shownFromMeters(cable.sheathMarks.last, units)),
    siteIds: [...cable.siteIds],
    live: (cable.live ?? []).map(({ from, to, circuit }) => `${from}-${to} ${circuit}`).join('\n'),
  };
  const alike = (values: readonly number[]) =>
    new Set(values).size === 1 ? String(values[0]) : values.join(', ');
  switch (construction.kind) {
    case 'stranded-tubes': {
      const tubes = construction.strands.filter((strand) => strand.kind === 'tube');
      return {
        ...form,
        count: String(tubes.length),
        each: alike(tubes.map((tube) => tube.fibers)),
        groupSize: text(tubes.find((tube) => tube.groupSize)?.groupSize),
        fillers: fillerPlaces(construction.strands),
      };
    }
    case 'stranded-ribbon': {
      const tubes = construction.strands.filter((strand) => strand.kind === 'tube');
      return {
        ...form,
        count: String(tubes.length),
        ribbonsPerTube: alike(tubes.map((tube) => tube.ribbons)),
        ribbonSize: String(tubes[0]!.fibersPerRibbon),
        fillers: fillerPlaces(construction.strands),
      };
    }
    case 'central-ribbon':
      return {
        ...form,
        count: String(construction.ribbons),
        ribbonSize: String(construction.fibersPerRibbon),
      };
    case 'drop':
      return {
        ...form,
        count: String(construction.fibers),
        shape: construction.shape,
        toningWire: construction.toningWire,
      };
    case 'pigtails':
      return {
        ...form,
        count: String(construction.fibers),
        buffer: construction.bufferMicrometers === 250 ? '250' : '900',
      };
  }
}

function fillerPlaces(strands: readonly { kind: string }[]): string {
  return strands.flatMap((strand, index) => (strand.kind === 'filler' ? [index + 1] : [])).join(', ');
}

export type FormTroubles = Partial<Record<keyof CableForm, string>>;

/** The construction that the form says, or what is wrong with which field. */
export function constructionOf(form: CableForm): { construction?: Construction; troubles: FormTroubles } {
  const troubles: FormTroubles = {};
  const whole = (field: keyof CableForm, what: string) => {
    const value = toNumber(String(form[field]));
    if (!Number.isInteger(value) || value < 1) troubles[field] = `Give ${what} as a whole number from 1 up.`;
    return value;
  };
  const numbers = (field: keyof CableForm, what: string): number[] => {
    const parts = String(form[field])
      .split(/[,;\s]+/)
      .filter(Boolean)
      .map(toNumber);
    if (parts.some((part) => !Number.isInteger(part) || part < 1))
      troubles[field] = `Give ${what} as whole numbers, like 3, 8.`;
    return parts;
  };
  const perTube = (field: keyof CableForm, count: number, what: string): number[] => {
    const list = numbers(field, what);
    if (troubles[field]) return [];
    if (list.length !== 1 && list.length !== count)
      troubles[field] =
        `Give one number for all ${count} tubes, or ${count} numbers; there are ${list.length}.`;
    return Array.from({ length: count }, (_, index) => list[index] ?? list[0]!);
  };

  const count = whole('count', form.kind === 'drop' || form.kind === 'pigtails' ? 'the fibers' : 'how many');
  if (troubles.count) return { troubles };
  if (count > 1200) return { troubles: { count: 'That is more than any cable has.' } };
  const stranding = <T>(tubes: readonly T[]): (T | { kind: 'filler' })[] | null => {
    const places = form.fillers.trim() === '' ? [] : numbers('fillers', 'the fillers’ places');
    if (troubles.fillers) return null;
    const length = tubes.length + places.length;
    const beyond = places.find((place) => place > length);
    if (beyond !== undefined || new Set(places).size < places.length) {
      troubles.fillers =
        beyond !== undefined
          ? `There are ${length} positions, so no filler at ${beyond}.`
          : 'A position stands there twice.';
      return null;
    }
    const rest = [...tubes];
    return Array.from({ length }, (_, index) =>
      places.includes(index + 1) ? { kind: 'filler' as const } : rest.shift()!,
    );
  };

  const armor = form.armor ? { armor: true } : {};
  const metal = form.messenger ? { ...armor, messenger: true } : armor;
  let draft: unknown;
  switch (form.kind) {
    case 'stranded-tubes': {
      const each = perTube('each', count, 'the fibers');
      const groupSize = form.groupSize.trim() === '' ? null : whole('groupSize', 'the fibers of a group');
      if (troubles.each || troubles.groupSize) return { troubles };
      const strands = stranding(
        each.map((fibers) => ({ kind: 'tube' as const, fibers, ...(groupSize ? { groupSize } : {}) })),
      );
      if (!strands) return { troubles };
      draft = { kind: form.kind, ...metal, strands };
      break;
    }
    case 'stranded-ribbon': {
      const ribbons = perTube('ribbonsPerTube', count, 'the ribbons');
      if (troubles.ribbonsPerTube) return { troubles };
      const fibersPerRibbon = Number(form.ribbonSize);
      const strands = stranding(
        ribbons.map((one) => ({ kind: 'tube' as const, ribbons: one, fibersPerRibbon })),
      );
      if (!strands) return { troubles };
      draft = { kind: form.kind, ...metal, strands };
      break;
    }
    case 'central-ribbon':
      draft = { kind: form.kind, ...metal, ribbons: count, fibersPerRibbon: Number(form.ribbonSize) };
      break;
    case 'drop':
      draft = {
        kind: form.kind,
        shape: form.shape,
        fibers: count,
        toningWire: form.toningWire,
        messenger: form.messenger,
        ...armor,
      };
      break;
    case 'pigtails':
      draft = { kind: form.kind, fibers: count, bufferMicrometers: Number(form.buffer) };
  }
  const parsed = constructionSchema.safeParse(draft);
  if (parsed.success) return { construction: parsed.data, troubles };
  const issue = parsed.error.issues[0]!;
  const last = String(issue.path.at(-1));
  const field: keyof CableForm =
    last === 'fibersPerRibbon'
      ? 'ribbonSize'
      : last === 'groupSize'
        ? 'groupSize'
        : form.kind === 'stranded-tubes' && last === 'fibers'
          ? 'each'
          : last === 'ribbons' && form.kind === 'stranded-ribbon'
            ? 'ribbonsPerTube'
            : 'count';
  return { troubles: { [field]: issue.message } };
}

/**
 * The cable that the form says, or what is wrong with which field.
 * @param before the cable that the form was opened with
 */
export function cableOfForm(
  form: CableForm,
  id: string,
  units: Units,
  before: Cable | null = null,
): { cable?: Cable; troubles: FormTroubles } {
  const { construction, troubles } = constructionOf(form);
  const optional = (field: keyof CableForm, scale = 1): number | undefined => {
    const raw = String(form[field]).trim();
    if (raw === '') return undefined;
    const value = toNumber(raw);
    if (Number.isNaN(value)) troubles[field] = 'Give a number, or leave it empty.';
    return value * scale;
  };
  const first = optional('markFirst');
  const last = optional('markLast');
  if ((first === undefined) !== (last === undefined))
    troubles[first === undefined ? 'markFirst' : 'markLast'] = 'Give the marks at both ends, or none.';
  const live = [];
  for (const [index, line] of form.live.split('\n').entries()) {
    if (line.trim() === '') continue;
    const match = /^\s*(\d+)\s*(?:[-–]\s*(\d+))?\s+(\S.*)$/.exec(line);
    if (!match) {
      troubles.live = `Line ${index + 1}: write fibers and circuit, like 133-144 District ring.`;
      continue;
    }
    live.push({ from: Number(match[1]), to: Number(match[2] ?? match[1]), circuit: match[3]!.trim() });
  }
  const excess = optional('excess', 0.01);
  const own =
    form.schemeId === 'own'
      ? colorSchemeSchema.safeParse({
          id: 'own',
          name: form.ownName,
          source: 'made by hand',
          sequence: form.ownSequence,
          tracer: 'black',
          tracerOn: { black: 'yellow' },
        })
      : null;
  if (own && !own.success) {
    const issue = own.error.issues[0]!;
    troubles[issue.path[0] === 'name' ? 'ownName' : 'ownSequence'] = issue.message;
  }
  const modeField = optional('modeField');
  const groupIndex = optional('groupIndex');
  const diameter = optional('diameter');
  if (form.siteIds.length === 0) troubles.siteIds = 'Pick the sites it runs through.';
  if (Object.keys(troubles).length > 0 || !construction) return { troubles };

  // What nobody touched keeps its length to the last digit: what is shown is rounded.
  const asShown = before ? formOfCable(before, units) : null;
  const kept = (field: 'diameter' | 'markFirst' | 'markLast', was: number | undefined, typed: number) =>
    was !== undefined && asShown?.[field] === form[field] ? was : typed;
  const parsed = cableSchema.safeParse({
    id,
    label: form.label,
    schemeId: form.schemeId === 'own' ? tia598.id : form.schemeId,
    construction,
    siteIds: form.siteIds,
    ...(own?.success ? { ownScheme: own.data } : {}),
    fiberType: form.fiberType,
    ...(modeField === undefined ? {} : { modeField }),
    ...(groupIndex === undefined ? {} : { groupIndex }),
    ...(diameter === undefined
      ? {}
      : { diameter: kept('diameter', before?.diameter, millimetersFromShown(diameter, units)) }),
    ...(excess === undefined ? {} : { excess: +excess.toFixed(6) }),
    ...(first === undefined || last === undefined
      ? {}
      : {
          sheathMarks: {
            first: kept('markFirst', before?.sheathMarks?.first, metersFromShown(first, units)),
            last: kept('markLast', before?.sheathMarks?.last, metersFromShown(last, units)),
          },
        }),
    ...(live.length > 0 ? { live } : {}),
  });
  if (parsed.success) return { cable: parsed.data, troubles };
  for (const issue of parsed.error.issues) {
    const field = String(issue.path[0]);
    const known: keyof CableForm =
      field === 'sheathMarks' ? 'markFirst' : field in form ? (field as keyof CableForm) : 'label';
    troubles[known] ??= issue.message;
  }
  return { troubles };
}

export const ribbonSizeOptions = ribbonSizes.map((size) => ({ value: String(size), label: String(size) }));
