import { colorSchemes, limitsPresets, metersFromShown } from '@cordel/core';
import { straightProject, straightProjectSchema } from '@cordel/core/straightProject';
import { zodResolver } from '@hookform/resolvers/zod';
import { router } from 'expo-router';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { z } from 'zod';
import { unitOptions } from '../unitOptions';
import { useCreateProject } from '../../../data/projects';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { FormField } from '../../../ui/FormField';
import { decimalField } from '../../../ui/numberField';
import { Screen } from '../../../shell/frame/Screen';
import { ownTimeZone } from '../../../ui/times';
import { gutter, space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { places } from '../../../shell/places';

const { closure, left } = straightProjectSchema.shape;

/** The form holds text as it is typed; the core's schemas say what is wrong with it. */
const cableForm = z.object({
  label: left.shape.label,
  tubes: decimalField(left.shape.tubes),
  fibersPerTube: decimalField(left.shape.fibersPerTube),
  schemeId: left.shape.schemeId,
});
const formSchema = z.object({
  name: straightProjectSchema.shape.name,
  units: straightProjectSchema.shape.units,
  preset: z.string(),
  from: straightProjectSchema.shape.from,
  to: straightProjectSchema.shape.to,
  closure: z.object({
    name: closure.shape.name,
    kind: closure.shape.kind,
    chainage: decimalField(closure.shape.chainage),
    trays: decimalField(closure.shape.trays),
    slotsPerTray: decimalField(closure.shape.slotsPerTray),
  }),
  left: cableForm,
  right: cableForm,
});
type FormInput = z.input<typeof formSchema>;

const start: FormInput = {
  name: '',
  units: 'mm',
  preset: limitsPresets[0]!.id,
  from: '',
  to: '',
  closure: { name: '', kind: 'dome', chainage: '0', trays: '4', slotsPerTray: '24' },
  left: { label: 'A', tubes: '8', fibersPerTube: '12', schemeId: colorSchemes[0]!.id },
  right: { label: 'B', tubes: '8', fibersPerTube: '12', schemeId: colorSchemes[0]!.id },
};

/** Two loose tube cables, a closure with trays, fiber 1 to fiber 1: the smallest job that can be spliced. */
export function NewProjectScreen() {
  const create = useCreateProject();
  const { control, handleSubmit } = useForm<FormInput, unknown, z.output<typeof formSchema>>({
    resolver: zodResolver(formSchema),
    defaultValues: start,
  });

  const units = useWatch({ control, name: 'units' });

  const submit = handleSubmit(({ preset, ...form }) => {
    const { limits } = limitsPresets.find((one) => one.id === preset)!;
    const closure = { ...form.closure, chainage: metersFromShown(form.closure.chainage, form.units) };
    const definition = straightProject(
      straightProjectSchema.parse({ ...form, closure, limits, timeZone: ownTimeZone() }),
      v7,
    );
    create.mutate(definition, {
      onSuccess: () => router.replace(places.closure(definition.project.id, definition.closures[0]!.id)),
    });
  });

  return (
    <Screen
      title="New project"
      subtitle="Two loose tube cables, joined in one closure"
      up={{ href: places.shelf, name: 'the shelf' }}
      foot={
        <View style={styles.foot}>
          {create.error ? (
            <Type tone="accent" role="alert">
              {create.error.message}
            </Type>
          ) : null}
          <Action
            bench
            kind="now"
            label={create.isPending ? 'Making it …' : 'Make the project'}
            disabled={create.isPending}
            onPress={() => void submit()}
          />
        </View>
      }
    >
      <ScrollView contentContainerStyle={styles.form}>
        <FormField control={control} name="name" label="Project name" />
        <Controller
          control={control}
          name="units"
          render={({ field }) => (
            <Choice label="Units shown" value={field.value} onChange={field.onChange} options={unitOptions} />
          )}
        />
        <Controller
          control={control}
          name="preset"
          render={({ field }) => (
            <View style={styles.group}>
              <Choice
                label="Limits"
                value={field.value}
                onChange={field.onChange}
                options={limitsPresets.map((preset) => ({ value: preset.id, label: preset.name }))}
              />
              <Type look="small" tone="soft">
                {limitsPresets.find((preset) => preset.id === field.value)?.about} They can be changed later.
              </Type>
            </View>
          )}
        />
        <Group title="The route">
          <FormField
            control={control}
            name="from"
            label="Cable A comes from"
            hint="A hub, a cabinet, the closure before"
          />
          <FormField control={control} name="to" label="Cable B goes to" />
        </Group>
        <Group title="The closure">
          <FormField control={control} name="closure.name" label="Closure name" />
          <Controller
            control={control}
            name="closure.kind"
            render={({ field }) => (
              <Choice
                label="Kind"
                value={field.value}
                onChange={field.onChange}
                options={[
                  { value: 'dome', label: 'Dome' },
                  { value: 'inline', label: 'Inline' },
                ]}
              />
            )}
          />
          <FormField
            control={control}
            name="closure.chainage"
            label="Distance along the route"
            unit={units === 'mm' ? 'm' : 'ft'}
            keyboard="decimal"
          />
          <Pair>
            <FormField control={control} name="closure.trays" label="Trays" keyboard="numeric" />
            <FormField
              control={control}
              name="closure.slotsPerTray"
              label="Slots in a tray"
              keyboard="numeric"
            />
          </Pair>
        </Group>
        {(
          [
            ['left', 'Cable A'],
            ['right', 'Cable B'],
          ] as const
        ).map(([side, named]) => (
          <Group key={side} title={named}>
            <FormField control={control} name={`${side}.label`} label={`${named}, label`} />
            <Pair>
              <FormField
                control={control}
                name={`${side}.tubes`}
                label={`${named}, tubes`}
                keyboard="numeric"
              />
              <FormField
                control={control}
                name={`${side}.fibersPerTube`}
                label={`${named}, fibers in a tube`}
                keyboard="numeric"
              />
            </Pair>
            <Controller
              control={control}
              name={`${side}.schemeId`}
              render={({ field }) => (
                <Choice
                  label={`${named}, color code`}
                  value={field.value}
                  onChange={field.onChange}
                  options={colorSchemes.map((scheme) => ({ value: scheme.id, label: scheme.name }))}
                />
              )}
            />
          </Group>
        ))}
        <Preview control={control} />
      </ScrollView>
    </Screen>
  );
}

/** What the numbers come to, while they are typed. */
function Preview({
  control,
}: {
  control: ReturnType<typeof useForm<FormInput, unknown, z.output<typeof formSchema>>>['control'];
}) {
  const values = useWatch({ control });
  const count = (cable: { tubes?: string | undefined; fibersPerTube?: string | undefined } | undefined) =>
    Number(cable?.tubes) * Number(cable?.fibersPerTube);
  const [a, b] = [count(values.left), count(values.right)];
  const slots = Number(values.closure?.trays) * Number(values.closure?.slotsPerTray);
  const splices = Math.min(a, b);
  if (!(splices > 0) || !(slots > 0)) return null;
  const dark = Math.max(a, b) - splices;
  return (
    <View role="status">
      <Type look="strong">
        {splices} splices, fiber 1 to fiber 1, in {slots} slots.
      </Type>
      {dark > 0 ? <Type>{dark} fibers of the larger cable stay dark.</Type> : null}
      {splices > slots ? (
        <Type tone="accent">{splices - slots} splices have no slot. Add trays or slots.</Type>
      ) : null}
    </View>
  );
}

function Group({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <View role="group" aria-label={title} style={styles.group}>
      <Type look="heading" role="heading" aria-level={2}>
        {title}
      </Type>
      {children}
    </View>
  );
}

function Pair({ children }: { children: [React.ReactNode, React.ReactNode] }) {
  return (
    <View style={styles.pair}>
      {children.map((child, index) => (
        <View key={index} style={styles.half}>
          {child}
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 640 },
  group: { gap: space.medium },
  pair: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  half: { flex: 1, minWidth: 120 },
  foot: { padding: space.small, paddingLeft: gutter.width, gap: space.small, maxWidth: 640 },
});
