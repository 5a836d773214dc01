import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { TextBox } from '../../../ui/Field';
import { space } from '../../../ui/tokens';
import type { Site } from '@cordel/core';

/** "-22.90512, -43.18213": latitude and longitude as maps show them; '' where the position is not known. */
export function positionText(position: Site['position']): string {
  return position ? `${position.latitude}, ${position.longitude}` : '';
}

/** The other way; undefined: nothing was given; null: it cannot be read. With a decimal comma the two are told apart by a semicolon or a space. */
export function readPosition(text: string): Site['position'] | null {
  const plain = text.trim();
  if (plain === '') return undefined;
  const parts = /^-?\d+,\d+[\s;]+-?\d+,\d+$/.test(plain)
    ? plain.replaceAll(',', '.').split(/[\s;]+/)
    : plain.split(/[\s,;]+/);
  const [latitude, longitude] = parts.map(Number);
  return parts.length === 2 && Number.isFinite(latitude) && Number.isFinite(longitude)
    ? { latitude: latitude!, longitude: longitude! }
    : null;
}

/** Where a site is, typed or taken from the device. */
export function PositionField({
  value,
  trouble,
  onChange,
}: {
  value: string;
  trouble: string | undefined;
  onChange: (text: string) => void;
}) {
  const [refused, setRefused] = useState<string>();
  const here = () => {
    setRefused(undefined);
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => onChange(`${coords.latitude.toFixed(6)}, ${coords.longitude.toFixed(6)}`),
      () => setRefused('This device does not say where it is. Type it, or allow it in the browser.'),
      { enableHighAccuracy: true, timeout: 15_000 },
    );
  };
  return (
    <View style={styles.field}>
      <TextBox
        label="Position"
        value={value}
        onChangeText={onChange}
        hint="Latitude, longitude in degrees, like -22.90512, -43.18213. For the map that is handed over; it can stay empty."
        trouble={trouble ?? refused}
      />
      <Action label="Where this device is" onPress={here} style={styles.start} />
    </View>
  );
}

const styles = StyleSheet.create({ field: { gap: space.small }, start: { alignSelf: 'flex-start' } });
