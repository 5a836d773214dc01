import { cleaveAngleSchema, lossSchema, type StandingAttempt } from '@cordel/core';
import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import { z } from 'zod';
import { Action } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { optionalDecimalField, toNumber } from '../../ui/numberField';
import { space } from '../../ui/tokens';
import type { Result } from './newFact';

/** One loss, or one for each fiber of a ribbon with blanks between; nothing where it broke before it was read. */
const lossesField = (fibers: number) =>
  z.string().transform((text, context): (number | null)[] => {
    const parts = text.split(/[\s;]+/).filter(Boolean);
    if (parts.length === 0) return Array.from({ length: fibers }, () => null);
    if (parts.length !== fibers) {
      context.addIssue({
        code: 'custom',
        message: `Give ${fibers} losses with blanks between; there are ${parts.length}.`,
      });
      return z.NEVER;
    }
    const losses = parts.map((part) => lossSchema.safeParse(toNumber(part)));
    const wrong = losses.find((one) => !one.success);
    if (wrong) context.addIssue({ code: 'custom', message: wrong.error!.issues[0]!.message });
    return losses.map((one) => one.data ?? null);
  });

const formSchema = (fibers: number) =>
  z
    .object({
      losses: lossesField(fibers),
      cleaveLeft: optionalDecimalField(cleaveAngleSchema),
      cleaveRight: optionalDecimalField(cleaveAngleSchema),
      proofTestFailed: z.boolean(),
      sleeveForgotten: z.boolean(),
      note: z.string().trim().max(500, 'Keep it to 500 characters.'),
      reason: z.string().trim().min(1, 'Say why it is corrected.').max(500, 'Keep it to 500 characters.'),
    })
    .refine((form) => form.losses.every((loss) => loss !== null) || form.proofTestFailed, {
      message: 'Give the loss, or mark the proof test failed.',
      path: ['losses'],
    });
type FormSchema = ReturnType<typeof formSchema>;

/** Writes a reading down anew. The old one stays in the history; the correction is a fact of its own. */
export function CorrectionForm({
  attempt,
  onCorrect,
  onCancel,
}: {
  attempt: StandingAttempt;
  onCorrect: (result: Result | null, reason: string) => void;
  onCancel: () => void;
}) {
  const reading = attempt.readings[0]!;
  const fibers = attempt.readings.length;
  const { control, handleSubmit } = useForm<z.input<FormSchema>, unknown, z.output<FormSchema>>({
    resolver: zodResolver(formSchema(fibers)),
    defaultValues: {
      losses: attempt.readings
        .map((one) => one.loss ?? '')
        .join(' ')
        .trim(),
      cleaveLeft: reading.cleaveLeft === null ? '' : String(reading.cleaveLeft),
      cleaveRight: reading.cleaveRight === null ? '' : String(reading.cleaveRight),
      proofTestFailed: attempt.proofTestFailed,
      sleeveForgotten: attempt.sleeveForgotten,
      note: attempt.note,
      reason: '',
    },
  });
  return (
    <View style={styles.form}>
      <Field
        control={control}
        name="losses"
        label={fibers === 1 ? 'Loss' : `Losses of its ${fibers} fibers, in order`}
        unit="dB"
        keyboard={fibers === 1 ? 'decimal' : 'text'}
      />
      <Field control={control} name="cleaveLeft" label="Cleave left" unit="°" keyboard="decimal" />
      <Field control={control} name="cleaveRight" label="Cleave right" unit="°" keyboard="decimal" />
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
              label={label}
              pressed={field.value}
              onPress={() => field.onChange(!field.value)}
              style={styles.toggle}
            />
          )}
        />
      ))}
      <Field control={control} name="note" label="Note" />
      <Field control={control} name="reason" label="Why it is corrected" />
      <View style={styles.row}>
        <Action label="Cancel" onPress={onCancel} style={styles.flex} />
        <Action
          kind="now"
          label="Correct"
          style={styles.flex}
          onPress={() =>
            void handleSubmit(
              ({ losses, cleaveLeft, cleaveRight, proofTestFailed, sleeveForgotten, note, reason }) =>
                onCorrect(
                  {
                    readings: losses.map((loss) => ({ loss, cleaveLeft, cleaveRight })),
                    proofTestFailed,
                    ...(sleeveForgotten ? { sleeveForgotten } : {}),
                    note,
                  },
                  reason,
                ),
            )()
          }
        />
      </View>
      <Action label="It never happened: take it back" onPress={() => onCorrect(null, 'Taken back later')} />
    </View>
  );
}

const styles = StyleSheet.create({
  form: { gap: space.medium, paddingTop: space.small },
  row: { flexDirection: 'row', gap: space.small },
  flex: { flex: 1 },
  toggle: { alignSelf: 'flex-start' },
});
