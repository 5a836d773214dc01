import type { ClosureModel } from '@cordel/core';
import { Controller, type Control } from 'react-hook-form';
import { View } from 'react-native';
import { Choice } from '../../../ui/Field';
import { FormField } from '../../../ui/FormField';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { ModelFormInput, ModelFormOutput } from './modelForm';

type Form = Control<ModelFormInput, unknown, ModelFormOutput>;

const choices = [
  {
    name: 'opens',
    label: 'Its seals are held by',
    options: [
      { value: 'usual', label: 'What is usual for its kind' },
      { value: 'caps', label: 'Caps' },
      { value: 'glands', label: 'Gland nuts' },
      { value: 'screws', label: 'Compression screws' },
      { value: 'gel', label: 'Its gel shell' },
    ],
  },
  {
    name: 'tightening',
    label: 'They are tightened',
    options: [
      { value: 'usual', label: 'As usual' },
      { value: 'across', label: 'Across' },
      { value: 'around', label: 'One beside the other' },
    ],
  },
  {
    name: 'grease',
    label: 'Gasket',
    options: [
      { value: 'usual', label: 'Not known' },
      { value: 'yes', label: 'Greased' },
      { value: 'no', label: 'Dry' },
    ],
  },
] as const;

/** How a closure is closed and tested, as its maker says. */
export function SealingFields({ control, kind }: { control: Form; kind: ClosureModel['kind'] }) {
  return (
    <View role="group" aria-label="Seal and test" style={{ gap: space.large }}>
      <Type look="heading" role="heading" aria-level={2}>
        Seal and test
      </Type>
      <FormField
        control={control}
        name="testPressure"
        label="Test pressure"
        unit="kPa"
        keyboard="decimal"
        hint="0 where no flash test is made. Never above 34.5 kPa (5 psi); the maker’s instruction comes first."
      />
      {kind === 'rack' ? null : (
        <>
          {choices.map(({ name, label, options }) => (
            <Controller
              key={name}
              control={control}
              name={`sealing.${name}`}
              render={({ field }) => (
                <Choice label={label} options={options} value={field.value} onChange={field.onChange} />
              )}
            />
          ))}
          <FormField
            control={control}
            name="sealing.order"
            label="The maker’s own order"
            hint="Numbers of the openings, in the order of the ports: 1, 5, 3, 7. Empty: as above."
          />
          <FormField
            control={control}
            name="sealing.liters"
            label="Gas in the closed closure"
            unit="l"
            keyboard="decimal"
            hint="For the leak rate of a holding test; it can stay empty."
          />
        </>
      )}
    </View>
  );
}
