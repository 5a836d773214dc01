import { formatLoss, measuredValue, seenLossSchema, type MeasuredLoss } from '@cordel/core';
import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import { z } from 'zod';
import { Action } from '../../../ui/Action';
import { FormField } from '../../../ui/FormField';
import { optionalDecimalField } from '../../../ui/numberField';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

const formSchema = z
  .object({ fromLeft: optionalDecimalField(seenLossSchema), fromRight: optionalDecimalField(seenLossSchema) })
  .refine(({ fromLeft, fromRight }) => fromLeft !== null || fromRight !== null, {
    path: ['fromLeft'],
    message: 'Enter what was measured, like 0.04.',
  });
type Seen = z.output<typeof formSchema>;

/** Both directions of one fiber, and what follows from them while they are typed. */
export function MeasureForm({
  fact,
  method,
  cables,
  focus,
  onSave,
  onTakeBack,
}: {
  /** What was measured before; null: nothing. */
  fact: MeasuredLoss | null;
  method: MeasuredLoss['body']['method'];
  /** Labels, left and right. */
  cables: readonly [string, string];
  /** The hands are at the keys already. */
  focus: boolean;
  onSave: (seen: Seen) => void;
  onTakeBack: () => void;
}) {
  const text = (value: number | null | undefined) => (value == null ? '' : formatLoss(value));
  const { control, handleSubmit, setFocus } = useForm<z.input<typeof formSchema>, unknown, Seen>({
    resolver: zodResolver(formSchema),
    defaultValues: { fromLeft: text(fact?.body.fromLeft), fromRight: text(fact?.body.fromRight) },
  });
  const typed = useWatch({ control });
  useEffect(() => {
    if (focus) setFocus('fromLeft');
  }, [focus, setFocus]);
  const read = formSchema.safeParse(typed);
  const value = read.success ? measuredValue({ method, ...read.data }) : null;
  const save = () => void handleSubmit(onSave)();
  return (
    <View style={styles.form}>
      <View style={styles.fields}>
        <View style={styles.field}>
          <FormField
            control={control}
            name="fromLeft"
            label={`From the left, ${cables[0]}`}
            unit="dB"
            keyboard="text"
            onSubmit={() => setFocus('fromRight')}
          />
        </View>
        <View style={styles.field}>
          <FormField
            control={control}
            name="fromRight"
            label={`From the right, ${cables[1]}`}
            unit="dB"
            keyboard="text"
            onSubmit={save}
          />
        </View>
      </View>
      <Type look="strong" aria-live="polite">
        {value !== null
          ? `Measured: ${formatLoss(value)} dB`
          : read.success
            ? 'One direction by OTDR gives no loss: the two fibers scatter differently. Measure from the other end too.'
            : 'The loss is the average of both directions.'}
      </Type>
      <View style={styles.row}>
        {fact ? <Action bench label="Take it back" onPress={onTakeBack} /> : null}
        <Action bench kind="now" label="Save, next fiber" onPress={save} style={styles.grow} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { gap: space.medium },
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  field: { flexGrow: 1, flexBasis: 160 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  grow: { flexGrow: 1 },
});
