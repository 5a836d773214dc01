import {
  cleaveAngleSchema,
  gapSchema,
  lossSchema,
  offsetSchema,
  type Reading,
  type StandingAttempt,
} from '@cordel/core';
import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import { z, type ZodType } from 'zod';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { FormField } from '../../../ui/FormField';
import { toNumber } from '../../../ui/numberField';
import { space } from '../../../ui/tokens';
import { resultOf, type Result, type Why } from './newFact';

/** One value, or one for each fiber of a ribbon with blanks between and – where there is none; nothing where no fiber has one. */
const valuesField = (fibers: number, what: string, schema: ZodType<number>) =>
  z.string().transform((text, context): (number | null)[] => {
    const parts = text.split(/[\s;]+/).filter(Boolean);
    if (parts.length === 0) return Array.from({ length: fibers }, () => null);
    if (parts.length !== fibers) {
      context.addIssue({
        code: 'custom',
        message: `Give ${fibers} ${what} with blanks between, and – where there is none; there are ${parts.length}.`,
      });
      return z.NEVER;
    }
    const values = parts.map((part) => (/^[-–]$/.test(part) ? null : schema.safeParse(toNumber(part))));
    const wrong = values.find((one) => one !== null && !one.success);
    if (wrong) context.addIssue({ code: 'custom', message: wrong.error!.issues[0]!.message });
    return values.map((one) => one?.data ?? null);
  });

const formSchema = (fibers: number) =>
  z
    .object({
      losses: valuesField(fibers, 'losses', lossSchema),
      cleaveLeft: valuesField(fibers, 'angles', cleaveAngleSchema),
      cleaveRight: valuesField(fibers, 'angles', cleaveAngleSchema),
      offset: valuesField(fibers, 'offsets', offsetSchema),
      gap: valuesField(fibers, 'gaps', gapSchema),
      light: z.enum(['', 'dark', 'glows']),
      proofTestFailed: z.boolean(),
      sleeveForgotten: z.boolean(),
      note: z.string().trim().max(500, 'Keep it to 500 characters.'),
      reason: z.string().trim().min(1, 'Say why it is corrected.').max(500, 'Keep it to 500 characters.'),
    })
    .refine(
      (form) => form.losses.every((loss) => loss !== null) || form.proofTestFailed || form.light !== '',
      {
        message: 'Give the loss, or mark the proof test failed.',
        path: ['losses'],
      },
    );
type FormSchema = ReturnType<typeof formSchema>;

/** What stands in the field of a value: nothing where no fiber has one. */
function valuesText(
  readings: readonly Reading[],
  of: (reading: Reading) => number | null | undefined,
): string {
  const values = readings.map((reading) => of(reading) ?? null);
  return values.every((value) => value === null) ? '' : values.map((value) => value ?? '–').join(' ');
}

/** What the form says, with what it does not ask for as it was. */
function corrected(attempt: StandingAttempt, form: z.output<FormSchema>): Result {
  const { losses, cleaveLeft, cleaveRight, offset, gap, light, proofTestFailed, sleeveForgotten, note } =
    form;
  const { sleeveConfirmed } = resultOf(attempt);
  return {
    readings: losses.map((loss, index) => ({
      loss,
      cleaveLeft: cleaveLeft[index]!,
      cleaveRight: cleaveRight[index]!,
      ...(offset[index] === null ? {} : { offset: offset[index]! }),
      ...(gap[index] === null ? {} : { gap: gap[index]! }),
    })),
    proofTestFailed,
    ...(sleeveForgotten ? { sleeveForgotten } : sleeveConfirmed ? { sleeveConfirmed } : {}),
    ...(light === '' ? {} : { light }),
    note,
  };
}

const beforeArc = [
  ['cleaveLeft', 'Cleave left', '°'],
  ['cleaveRight', 'Cleave right', '°'],
  ['offset', 'Axis offset', 'μm'],
  ['gap', 'Gap', 'μm'],
] as const;

/** Writes a reading down anew. The old one stays in the history; the correction is a fact of its own. */
export function CorrectionForm({
  attempt,
  onCorrect,
  onCancel,
}: {
  attempt: StandingAttempt;
  onCorrect: (result: Result | null, why: Why) => void;
  onCancel: () => void;
}) {
  const { readings } = attempt;
  const fibers = readings.length;
  const { control, handleSubmit } = useForm<z.input<FormSchema>, unknown, z.output<FormSchema>>({
    resolver: zodResolver(formSchema(fibers)),
    defaultValues: {
      losses: valuesText(readings, (one) => one.loss),
      cleaveLeft: valuesText(readings, (one) => one.cleaveLeft),
      cleaveRight: valuesText(readings, (one) => one.cleaveRight),
      offset: valuesText(readings, (one) => one.offset),
      gap: valuesText(readings, (one) => one.gap),
      light: attempt.light ?? '',
      proofTestFailed: attempt.proofTestFailed,
      sleeveForgotten: attempt.sleeveForgotten,
      note: attempt.note,
      reason: '',
    },
  });
  return (
    <View style={styles.form}>
      {attempt.light ? (
        <Controller
          control={control}
          name="light"
          render={({ field }) => (
            <Choice
              label="Visible light at the joint"
              value={field.value}
              options={[
                { value: 'dark', label: 'Stays dark' },
                { value: 'glows', label: 'Glows' },
              ]}
              onChange={field.onChange}
            />
          )}
        />
      ) : (
        <>
          <FormField
            control={control}
            name="losses"
            label={fibers === 1 ? 'Loss' : `Losses of its ${fibers} fibers, in order`}
            unit="dB"
            keyboard={fibers === 1 ? 'decimal' : 'text'}
          />
          {beforeArc.map(([name, label, unit]) => (
            <FormField
              key={name}
              control={control}
              name={name}
              label={label}
              unit={unit}
              keyboard={fibers === 1 ? 'decimal' : 'text'}
            />
          ))}
        </>
      )}
      {(
        [
          ['proofTestFailed', 'Proof test failed'],
          ['sleeveForgotten', 'Sleeve forgotten'],
        ] as const
      ).map(([name, label]) => (
        <Controller
          key={name}
          control={control}
          name={name}
          render={({ field }) => (
            <Action
              bench
              label={label}
              pressed={field.value}
              onPress={() => field.onChange(!field.value)}
              style={styles.toggle}
            />
          )}
        />
      ))}
      <FormField control={control} name="note" label="Note" />
      <FormField control={control} name="reason" label="Why it is corrected" />
      <View style={styles.row}>
        <Action bench label="Cancel" onPress={onCancel} style={styles.flex} />
        <Action
          bench
          kind="now"
          label="Correct"
          style={styles.flex}
          onPress={() =>
            void handleSubmit((form) => onCorrect(corrected(attempt, form), { reason: form.reason }))()
          }
        />
      </View>
      <Action
        bench
        label="It never happened: take it back"
        onPress={() => onCorrect(null, { because: 'never-happened' })}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  form: { gap: space.medium, paddingTop: space.small },
  row: { flexDirection: 'row', gap: space.small },
  flex: { flex: 1 },
  toggle: { alignSelf: 'flex-start' },
});
