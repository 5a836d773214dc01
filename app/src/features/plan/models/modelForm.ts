import {
  closureModelSchema,
  parseTape,
  sealingSchema,
  sealPartSchema,
  tapeInput,
  type Closure,
  type ClosureLengths,
  type ClosureModel,
  type Port,
  type Sealing,
  type Units,
  usualLengths,
} from '@cordel/core';

import { z, type ZodType } from 'zod';
import { lengthFields } from '../../../shell/fieldWords';
import { decimalField, optionalDecimalField } from '../../../ui/numberField';

const { shape } = closureModelSchema;
const lengthsShape = shape.lengths.shape;
const portShape = shape.ports.element.shape;
const partShape = sealPartSchema.shape;
const kitShape = shape.parts.unwrap().element.shape;

type LengthName = (typeof lengthFields)[number][0];

const optional = new Set<string>(
  Object.keys(lengthsShape).filter(
    (name) => (lengthsShape as Record<string, ZodType>)[name] instanceof z.ZodOptional,
  ),
);

/** A text field that holds a length as it is read off a tape: "640", "25-1/4", "64 in". Stored in mm. */
function tapeField(schema: ZodType<number>, units: Units) {
  return z
    .string()
    .transform((text) => parseTape(text, units) ?? Number.NaN)
    .pipe(schema as unknown as ZodType<number, number>);
}

const sealingShape = sealingSchema.shape;

/** How the closure is sealed; "usual" where its table says nothing. */
const sealingFields = z.object({
  opens: z.enum(['usual', ...sealingShape.opens.unwrap().options]),
  tightening: z.enum(['usual', ...sealingShape.tightening.unwrap().options]),
  grease: z.enum(['usual', 'yes', 'no']),
  order: z
    .string()
    .transform((text) => text.split(/[\s,;]+/).filter((part) => part !== ''))
    .pipe(
      z.array(
        z
          .string()
          .transform(Number)
          .pipe(
            z.int('Numbers of openings, like 1, 5, 3, 7.').min(1, 'Openings are counted from 1.').max(4800),
          ),
      ),
    )
    .pipe(sealingShape.order.unwrap()),
  liters: optionalDecimalField(sealingShape.liters.unwrap()),
});

/** The form holds text as it is typed; the core's schemas say what is wrong with it. */
export function modelFormSchema(units: Units) {
  const lengthOf = (name: LengthName) => {
    const own = lengthsShape[name] as ZodType;
    return tapeField((own instanceof z.ZodOptional ? own.unwrap() : own) as ZodType<number>, units);
  };
  const ordered = {
    message: 'The smallest diameter is above the largest.',
    path: ['from'],
  };
  return z.object({
    name: shape.name,
    kind: shape.kind,
    about: shape.about,
    trays: decimalField(shape.trays),
    singleSlots: decimalField(shape.singleSlots),
    ribbonSlots: decimalField(shape.ribbonSlots),
    testPressure: decimalField(shape.testPressure),
    sealing: sealingFields,
    coils: decimalField(lengthsShape.coils.unwrap()),
    basketTurns: decimalField(lengthsShape.basketTurns.unwrap()),
    lengths: z.object(
      Object.fromEntries(lengthFields.map(([name]) => [name, lengthOf(name)])) as Record<
        LengthName,
        ReturnType<typeof tapeField>
      >,
    ),
    parts: z.array(
      z.object({
        name: kitShape.name,
        count: decimalField(kitShape.count),
        stops: kitShape.stops,
        perCable: z.boolean(),
      }),
    ),
    ports: z
      .array(
        z
          .object({
            name: portShape.name,
            count: decimalField(portShape.count),
            from: tapeField(portShape.from, units),
            to: tapeField(portShape.to, units),
            express: z.boolean(),
            after: z.boolean(),
            parts: z.array(
              z
                .object({
                  part: partShape.part,
                  kind: partShape.kind,
                  from: tapeField(partShape.from, units),
                  to: tapeField(partShape.to, units),
                  count: decimalField(partShape.count),
                  peel: decimalField(partShape.peel.unwrap()),
                  holds: decimalField(partShape.holds.unwrap()),
                  slit: z.boolean(),
                })
                .refine((part) => part.from <= part.to, ordered),
            ),
          })
          .refine((port) => port.from <= port.to, ordered),
      )
      .min(1, 'A closure has at least one port.'),
  });
}
export type ModelFormInput = z.input<ReturnType<typeof modelFormSchema>>;
export type ModelFormOutput = z.output<ReturnType<typeof modelFormSchema>>;

type Table = Pick<ClosureModel, 'ports' | 'lengths' | 'testPressure' | 'parts' | 'sealing'>;

/** A seal part as a new line of a table begins. */
export function newPart(port: {
  readonly from: string;
  readonly to: string;
}): ModelFormInput['ports'][number]['parts'][number] {
  return {
    part: 'Seal',
    kind: 'seal',
    from: port.from,
    to: port.to,
    count: '1',
    peel: '0',
    holds: '1',
    slit: false,
  };
}

type Known = Omit<ClosureModel, 'id' | 'version' | 'testPressure'> & {
  /** null: the table does not say, and the form asks. */
  readonly testPressure: number | null;
};

export function formOfModel(model: Known, units: Units): ModelFormInput {
  const length = (value: number) => tapeInput(value, units);
  const lengths = { ...usualLengths, ...model.lengths };
  return {
    name: model.name,
    kind: model.kind,
    about: model.about,
    trays: String(model.trays),
    singleSlots: String(model.singleSlots),
    ribbonSlots: String(model.ribbonSlots),
    testPressure: model.testPressure === null ? '' : String(model.testPressure),
    sealing: {
      opens: model.sealing?.opens ?? 'usual',
      tightening: model.sealing?.tightening ?? 'usual',
      grease: model.sealing?.grease === undefined ? 'usual' : model.sealing.grease ? 'yes' : 'no',
      order: (model.sealing?.order ?? []).join(', '),
      liters: model.sealing?.liters === undefined ? '' : String(model.sealing.liters),
    },
    coils: String(lengths.coils),
    basketTurns: String(lengths.basketTurns),
    lengths: Object.fromEntries(lengthFields.map(([name]) => [name, length(lengths[name])])) as Record<
      LengthName,
      string
    >,
    parts: (model.parts ?? []).map(({ name, count, stops, perCable = false }) => ({
      name,
      count: String(count),
      stops,
      perCable,
    })),
    ports: model.ports.map((port) => ({
      name: port.name,
      count: String(port.count),
      from: length(port.from),
      to: length(port.to),
      express: port.express,
      after: port.goesOn === 'after',
      parts: (port.parts ?? []).map((part) => ({
        part: part.part,
        kind: part.kind,
        from: length(part.from),
        to: length(part.to),
        count: String(part.count),
        peel: String(part.peel ?? 0),
        holds: String(part.holds ?? 1),
        slit: part.slit ?? false,
      })),
    })),
  };
}

/** A closure's own copy of its model, as the form takes it. */
export function tableOfClosure(closure: Closure): Known {
  const [tray] = closure.trays;
  return {
    name: closure.model ?? 'Closure',
    kind: closure.kind,
    about: '',
    trays: closure.trays.length,
    singleSlots: tray!.singleSlots,
    ribbonSlots: tray!.ribbonSlots ?? 0,
    testPressure: closure.testPressure ?? null,
    ...(closure.sealing ? { sealing: closure.sealing } : {}),
    lengths: { ...usualLengths, ...closure.lengths },
    parts: closure.parts ?? [],
    ports: closure.ports ?? [{ name: 'Round', count: 4, from: 6, to: 18, express: false }],
  };
}

/** A field that nobody touched keeps its length to the last digit, however it was shown. mm */
const untouched = 0.02;
function settle(next: number, before: number | undefined): number {
  return before !== undefined && Math.abs(next - before) < untouched ? before : next;
}

/** The form's answer as a table. What was not changed is as it was. */
export function tableOfForm(form: ModelFormOutput, before: Table | null): Table {
  const lengths: Record<string, number> = {};
  const known: Partial<Record<string, number>> = before?.lengths ?? {};
  for (const [name] of lengthFields) {
    const value = settle(form.lengths[name], known[name] ?? usualLengths[name]);
    // What is as usual and was never given stays not given.
    if (optional.has(name) && known[name] === undefined && value === usualLengths[name]) continue;
    lengths[name] = value;
  }
  for (const name of ['coils', 'basketTurns'] as const)
    if (known[name] !== undefined || form[name] !== usualLengths[name]) lengths[name] = form[name];
  const ports = form.ports.map((port, index): Port => {
    const old = before?.ports[index];
    const parts = port.parts.map((part, at) => {
      const was = old?.parts?.[at];
      return {
        part: part.part,
        kind: part.kind,
        from: settle(part.from, was?.from),
        to: settle(part.to, was?.to),
        count: part.count,
        ...(part.peel > 0 || was?.peel !== undefined ? { peel: part.peel } : {}),
        ...(part.slit ? { slit: true } : {}),
        ...(part.holds > 1 ? { holds: part.holds } : {}),
      };
    });
    return {
      name: port.name,
      count: port.count,
      from: settle(port.from, old?.from),
      to: settle(port.to, old?.to),
      express: port.express,
      ...(port.after ? { goesOn: 'after' as const } : {}),
      ...(parts.length > 0 || old?.parts ? { parts } : {}),
    };
  });
  const { opens, tightening, grease, order, liters } = form.sealing;
  const sealing: Sealing = {
    ...(opens === 'usual' ? {} : { opens }),
    ...(tightening === 'usual' ? {} : { tightening }),
    ...(order.length > 0 ? { order } : {}),
    ...(grease === 'usual' ? {} : { grease: grease === 'yes' }),
    ...(liters === null ? {} : { liters }),
  };
  return {
    testPressure: form.testPressure,
    // One that is all as usual takes back what was said before.
    ...(Object.keys(sealing).length > 0 || before?.sealing ? { sealing } : {}),
    lengths: lengths as ClosureLengths,
    ports,
    ...(form.parts.length > 0 || before?.parts
      ? {
          parts: form.parts.map(({ perCable, ...part }) => ({ ...part, ...(perCable ? { perCable } : {}) })),
        }
      : {}),
  };
}
