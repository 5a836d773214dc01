import {
  colorAt,
  fiberCount,
  fiberName,
  fibersByColor,
  fiberUnits,
  schemeOf,
  type Cable,
  type FiberName,
} from '@cordel/core';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { FiberToken, GlassCapsule, HolderTokens, spokenFiber } from '../../../ui/FiberToken';
import { TextBox } from '../../../ui/Field';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { SpokenOnly, Type } from '../../../ui/Type';

/** Number to colors, and colors to number. */
export function CableFinder({ cable, onFound }: { cable: Cable; onFound: (name: FiberName) => void }) {
  const count = fiberCount(cable.construction);
  const [number, setNumber] = useState('');
  const [unitCode, setUnitCode] = useState<string | null>(null);
  const [fiberCode, setFiberCode] = useState<string | null>(null);
  const scheme = schemeOf(cable);
  const units = fiberUnits(cable.construction);

  const wanted = Number(number);
  const valid = Number.isInteger(wanted) && wanted >= 1 && wanted <= count;
  const name = number.trim() !== '' && valid ? fiberName(cable, wanted) : null;
  const mostFibers = Math.max(...units.map((unit) => unit.groupSize ?? unit.fibers));
  const unitColors = [
    ...new Map(
      units.map((unit) => {
        const color = colorAt(scheme, unit.inTube ?? unit.unit);
        return [color.code, color];
      }),
    ).values(),
  ];
  const found =
    fiberCode !== null
      ? fibersByColor(cable, {
          ...(unitCode && units[0]!.kind !== 'bundle' ? { unit: unitCode } : {}),
          fiber: fiberCode,
        })
      : [];
  return (
    <View style={styles.finder}>
      <Type look="heading" role="heading" aria-level={2}>
        Which fiber is this?
      </Type>
      <TextBox
        label={`Number, 1 to ${count}`}
        keyboard="numeric"
        value={number}
        onChangeText={setNumber}
        trouble={
          number.trim() !== '' && !valid
            ? `The cable has fibers 1 to ${count}. Give one of these numbers.`
            : undefined
        }
      />
      {name ? <Found name={name} onFound={onFound} /> : null}
      <Type look="smallStrong">Or by its colors</Type>
      {units[0]!.kind !== 'bundle' ? (
        <Swatches
          label={units[0]!.kind === 'tube' ? 'Tube' : 'Ribbon'}
          colors={unitColors.slice(0, 36)}
          chosen={unitCode}
          onChoose={setUnitCode}
        />
      ) : null}
      <Swatches
        label="Fiber"
        colors={Array.from({ length: mostFibers }, (_, index) => colorAt(scheme, index + 1))}
        chosen={fiberCode}
        onChoose={setFiberCode}
      />
      {found.slice(0, 24).map((one) => (
        <Found key={one.number} name={one} onFound={onFound} />
      ))}
      {fiberCode !== null && found.length === 0 ? (
        <Type>No fiber of this cable has these colors.</Type>
      ) : null}
      {found.length > 24 ? (
        <Type look="small" tone="soft">
          And {found.length - 24} more. Pick the tube’s color too.
        </Type>
      ) : null}
    </View>
  );
}

function Found({ name, onFound }: { name: FiberName; onFound: (name: FiberName) => void }) {
  const { palette } = useCordelTheme();
  return (
    <Pressable
      role="button"
      onPress={() => onFound(name)}
      style={[styles.found, { borderColor: palette.ink, backgroundColor: palette.sheet }]}
    >
      <Type look="reading">{name.number}</Type>
      <HolderTokens name={name} />
      <FiberToken name={name} />
      <SpokenOnly text={`, show ${spokenFiber(name)}`} />
    </Pressable>
  );
}

function Swatches({
  label,
  colors,
  chosen,
  onChoose,
}: {
  label: string;
  colors: readonly ReturnType<typeof colorAt>[];
  chosen: string | null;
  onChoose: (code: string | null) => void;
}) {
  const { palette } = useCordelTheme();
  return (
    <View role="group" aria-label={`${label} color`} style={styles.group}>
      <Type look="small" tone="soft">
        {label}
      </Type>
      <View style={styles.units}>
        {colors.map((color) => (
          <Pressable
            key={color.code}
            role="button"
            aria-pressed={color.code === chosen}
            aria-label={`${label} ${color.code}, ${color.name}`}
            onPress={() => onChoose(color.code === chosen ? null : color.code)}
            style={[styles.swatch, { borderColor: color.code === chosen ? palette.ink : 'transparent' }]}
          >
            <GlassCapsule color={color} size="tube" />
            <Type look="small">{color.code}</Type>
          </Pressable>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.tight },
  units: { flexDirection: 'row', flexWrap: 'wrap', gap: space.tight },
  finder: { padding: space.large, gap: space.medium },
  found: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    columnGap: space.large,
    rowGap: space.tight,
    minHeight: touch.normal,
    borderWidth: stroke.rule,
    padding: space.small,
  },
  swatch: {
    minHeight: touch.normal,
    minWidth: touch.normal,
    alignItems: 'center',
    justifyContent: 'center',
    borderWidth: stroke.rule,
    paddingHorizontal: space.tight,
  },
});
