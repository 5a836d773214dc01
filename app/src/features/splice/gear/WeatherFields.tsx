import { conditionsSchema, type Conditions, type Units, shownNumber } from '@cordel/core';
import {
  airFromShown,
  airUnit,
  altitudeAt,
  pressureAt,
  shownAir,
  shownTemperature,
  temperatureFromShown,
  temperatureUnit,
} from '@cordel/core/gear';
import { StyleSheet, View } from 'react-native';
import { setPreferences, usePreferences } from '../../../data/preferences';
import { Action } from '../../../ui/Action';
import { TextBox } from '../../../ui/Field';
import { toNumber } from '../../../ui/numberField';
import { space } from '../../../ui/tokens';

/** 1 ft = 0.3048 m exactly (NIST SP 811). */
const metersPerFoot = 0.3048;

/** What stands in the fields, in the units that are shown. */
export interface WeatherText {
  readonly temperature: string;
  readonly humidity: string;
  /** kPa or inHg, or an altitude in m or ft. */
  readonly pressure: string;
}

type PressureBy = 'altitude' | 'pressure';

const figure = (value: number | null, digits = 0) =>
  value === null ? '' : shownNumber(Number(value.toFixed(digits)));

export function weatherText(weather: Conditions | null, units: Units, by: PressureBy): WeatherText {
  const { temperature = null, humidity = null, pressure = null } = weather ?? {};
  const altitude = pressure === null ? null : altitudeAt(pressure) / (units === 'in' ? metersPerFoot : 1);
  return {
    temperature: figure(temperature === null ? null : shownTemperature(temperature, units), 1),
    humidity: figure(humidity),
    pressure:
      by === 'pressure'
        ? figure(pressure === null ? null : shownAir(pressure, units), units === 'in' ? 2 : 1)
        : figure(altitude === null ? null : Math.round(altitude / 10) * 10),
  };
}

/** The conditions that are written there, or what is wrong with them, by field. An empty field was not looked at. */
export function readWeather(
  text: WeatherText,
  units: Units,
  by: PressureBy,
): { conditions: Conditions | null; troubles: Partial<Record<keyof WeatherText, string>> } {
  const read = (value: string, convert: (value: number) => number) =>
    value.trim() === '' ? null : convert(toNumber(value));
  const result = conditionsSchema.safeParse({
    temperature: read(text.temperature, (value) => temperatureFromShown(value, units)),
    humidity: read(text.humidity, (value) => value),
    pressure: read(text.pressure, (value) =>
      by === 'pressure'
        ? airFromShown(value, units)
        : pressureAt(units === 'in' ? value * metersPerFoot : value),
    ),
  });
  if (result.success) return { conditions: result.data, troubles: {} };
  const troubles = Object.fromEntries(
    result.error.issues.map((issue) => [
      issue.path[0],
      Number.isNaN(toNumber(text[issue.path[0] as keyof WeatherText]))
        ? 'Give a number, or leave it empty.'
        : issue.path[0] === 'pressure' && by === 'altitude'
          ? 'No place on land is at this altitude.'
          : issue.message,
    ]),
  );
  return { conditions: null, troubles };
}

/** Temperature, humidity, and air pressure or the altitude that stands for it. */
export function WeatherFields({
  text,
  units,
  onChange,
  switchable = true,
}: {
  text: WeatherText;
  units: Units;
  /** Whether altitude and air pressure can be switched here. */
  switchable?: boolean;
  onChange: (text: WeatherText) => void;
}) {
  const { pressureBy } = usePreferences();
  const { troubles } = readWeather(text, units, pressureBy);
  const fields: readonly (readonly [keyof WeatherText, string, string])[] = [
    ['temperature', 'Temperature', temperatureUnit(units)],
    ['humidity', 'Humidity', '%'],
    pressureBy === 'pressure'
      ? ['pressure', 'Air pressure', airUnit(units)]
      : ['pressure', 'Altitude', units === 'in' ? 'ft' : 'm'],
  ];
  const other = pressureBy === 'pressure' ? 'altitude' : 'pressure';
  return (
    <View style={styles.fields}>
      {fields.map(([name, label, unit]) => (
        <View key={name} style={styles.field}>
          <TextBox
            bench
            label={label}
            unit={unit}
            keyboard="decimal"
            value={text[name]}
            onChangeText={(value) => onChange({ ...text, [name]: value })}
            trouble={troubles[name]}
          />
        </View>
      ))}
      {switchable ? (
        <Action
          bench
          label={other === 'altitude' ? 'Give the altitude' : 'Give the air pressure'}
          onPress={() => {
            const { conditions } = readWeather(text, units, pressureBy);
            setPreferences({ pressureBy: other });
            onChange({ ...text, pressure: conditions ? weatherText(conditions, units, other).pressure : '' });
          }}
          style={styles.field}
        />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  fields: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: space.small },
  field: { flexGrow: 1, flexBasis: 100 },
});
