import { cleaveAngleSchema, lossSchema, type StandingAttempt } from '@cordel/core';
import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import { z } from 'zod';
import { Action } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { optionalDecimalField } from '../../ui/numberField';
import { space } from '../../ui/tokens';
import type { Result } from './newFact';

const formSchema = z
  .object({
    loss: optionalDecimalField(lossSchema),
    cleaveLeft: optionalDecimalField(cleaveAngleSchema),
    cleaveRight: optionalDecimalField(cleaveAngleSchema),
    proofTestFailed: z.boolean(),
    note: z.string().trim().max(500, 'Keep it to 500 characters.'),
    reason: z.string().trim().min(1, 'Say why it is corrected.').max(500, 'Keep it to 500 characters.'),
  })
  .refine((form) => form.loss !== null || form.proofTestFailed, {
    message: 'Give the loss, or mark the proof test failed.',
    path: ['loss'],
  });

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
  const { control, handleSubmit } = useForm<z.input<typeof formSchema>, unknown, z.output<typeof formSchema>>(
    {
      resolver: zodResolver(formSchema),
      defaultValues: {
        loss: reading.loss === null ? '' : String(reading.loss),
        cleaveLeft: reading.cleaveLeft === null ? '' : String(reading.cleaveLeft),
        cleaveRight: reading.cleaveRight === null ? '' : String(reading.cleaveRight),
        proofTestFailed: attempt.proofTestFailed,
        note: attempt.note,
        reason: '',
      },
    },
  );
  return (
    <View style={styles.form}>
      <Field control={control} name="loss" label="Loss" unit="dB" keyboard="decimal" />
      <Field control={control} name="cleaveLeft" label="Cleave left" unit="°" keyboard="decimal" />
      <Field control={control} name="cleaveRight" label="Cleave right" unit="°" keyboard="decimal" />
      <Controller
        control={control}
        name="proofTestFailed"
        render={({ field }) => (
          <Action
            label="Proof test failed"
            pressed={field.value}
            onPress={() => field.onChange(!field.value)}
            style={styles.toggle}
          />
        )}
      />
      <Field control={control} name="note" label="Note" />
      <Field control={control} name="reason" label="Why it is corrected" />
      <View style={styles.row}>
        <Action label="Cancel" onPress={onCancel} style={styles.flex} />
        <Action
          kind="now"
          label="Correct"
          style={styles.flex}
          onPress={() =>
            void handleSubmit(({ loss, cleaveLeft, cleaveRight, proofTestFailed, note, reason }) =>
              onCorrect({ readings: [{ loss, cleaveLeft, cleaveRight }], proofTestFailed, note }, reason),
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
