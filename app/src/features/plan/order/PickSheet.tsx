import {
  entryKey,
  fiberName,
  fiberUnits,
  goesThrough,
  type Cable,
  type Closure,
  type FiberUnit,
} from '@cordel/core';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { CrossSection } from '../../../ui/CrossSection';
import { Choice } from '../../../ui/Field';
import { UnitToken } from '../../../ui/FiberToken';
import { Sheet } from '../../../ui/Sheet';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

interface Side {
  /** "A", or "A+" for one face of a cable that goes through. */
  readonly called: string;
  readonly units: readonly number[];
}

const modes = [
  { value: 'single', label: 'Single' },
  { value: 'ribbon', label: 'Ribbon' },
  { value: 'ribbonized', label: 'Ribbonized' },
  { value: 'reversed', label: 'Ribbon, reversed' },
] as const;

/** Order lines by tapping tubes: what is tapped on one cable meets what is tapped on the other, first to first. */
export function PickSheet({
  open,
  onClose,
  closure,
  cables,
  onAdd,
}: {
  open: boolean;
  onClose: () => void;
  closure: Closure;
  cables: ReadonlyMap<string, Cable>;
  onAdd: (lines: string[]) => void;
}) {
  const called = closure.entries.flatMap((entry, index) => {
    const cable = cables.get(entry.cableId);
    const key = entryKey(entry, index);
    return cable
      ? (goesThrough(entry.manner) ? [`${key}-`, `${key}+`] : [key]).map((name) => ({ name, cable }))
      : [];
  });
  const [left, setLeft] = useState<Side>({ called: called[0]?.name ?? '', units: [] });
  const [right, setRight] = useState<Side>({ called: called[1]?.name ?? '', units: [] });
  const [mode, setMode] = useState<(typeof modes)[number]['value']>('single');
  const cableOf = (side: Side) => called.find((one) => one.name === side.called)?.cable;
  const lines = linesOf(left, cableOf(left), right, cableOf(right), mode);
  return (
    <Sheet title="Pick on the cables" open={open} onClose={onClose}>
      <SidePick label="From" options={called} side={left} cable={cableOf(left)} onChange={setLeft} />
      <SidePick label="To" options={called} side={right} cable={cableOf(right)} onChange={setRight} />
      <Choice label="Mode" options={modes} value={mode} onChange={setMode} />
      {left.units.length !== right.units.length ? (
        <Type look="small">
          {left.units.length} picked on one side and {right.units.length} on the other. Pick as many on both.
        </Type>
      ) : null}
      <Action
        bench
        kind="now"
        label={lines.length === 0 ? 'Tap tubes on both cables' : `Add ${lines.join(', ')}`}
        disabled={lines.length === 0}
        onPress={() => {
          onAdd(lines);
          setLeft({ ...left, units: [] });
          setRight({ ...right, units: [] });
        }}
      />
    </Sheet>
  );
}

function SidePick({
  label,
  options,
  side,
  cable,
  onChange,
}: {
  label: string;
  options: readonly { name: string; cable: Cable }[];
  side: Side;
  cable: Cable | undefined;
  onChange: (side: Side) => void;
}) {
  const { palette } = useCordelTheme();
  const [page, setPage] = useState(0);
  const toggle = (unit: number) =>
    onChange({
      ...side,
      units: side.units.includes(unit) ? side.units.filter((one) => one !== unit) : [...side.units, unit],
    });
  const units = cable ? fiberUnits(cable.construction) : [];
  const perPage = 24;
  return (
    <View style={styles.side}>
      <Choice
        label={label}
        options={options.map(({ name, cable: one }) => ({ value: name, label: `${name} ${one.label}` }))}
        value={side.called}
        onChange={(called) => {
          setPage(0);
          onChange({ called, units: [] });
        }}
      />
      {cable ? (
        <View style={styles.picture}>
          <CrossSection cable={cable} chosen={side.units.at(-1) ?? null} onChoose={toggle} size={150} />
          <View style={styles.units}>
            {units.slice(page * perPage, (page + 1) * perPage).map((unit) => {
              const name = fiberName(cable, unit.first);
              const at = side.units.indexOf(unit.unit);
              return (
                <Pressable
                  key={unit.unit}
                  role="checkbox"
                  aria-checked={at >= 0}
                  aria-label={[
                    label,
                    unit.kind === 'bundle'
                      ? `all ${unit.fibers}`
                      : `${unit.kind} ${unit.unit} ${name.unitColor.code}`,
                    at >= 0 ? `✓${at + 1}` : null,
                    unit.kind === 'bundle' ? null : name.unitColor.name,
                  ]
                    .filter(Boolean)
                    .join(' ')}
                  onPress={() => toggle(unit.unit)}
                  style={[styles.unit, { borderColor: at >= 0 ? palette.ink : palette.hairline }]}
                >
                  {unit.kind === 'bundle' ? (
                    <Type look="smallStrong">all {unit.fibers}</Type>
                  ) : (
                    <UnitToken unit={unit.unit} color={name.unitColor} kind={unit.kind} bare />
                  )}
                  {at >= 0 ? <Type look="smallStrong">✓{at + 1}</Type> : null}
                </Pressable>
              );
            })}
            {units.length > perPage ? (
              <Action
                label={`More of ${units.length}`}
                onPress={() => setPage((page + 1) % Math.ceil(units.length / perPage))}
              />
            ) : null}
          </View>
        </View>
      ) : null}
    </View>
  );
}

/** One line for each pair; runs of neighbours on both sides become one line. */
function linesOf(
  left: Side,
  leftCable: Cable | undefined,
  right: Side,
  rightCable: Cable | undefined,
  mode: (typeof modes)[number]['value'],
): string[] {
  if (!leftCable || !rightCable || left.units.length !== right.units.length) return [];
  const runs: { left: [number, number]; right: [number, number] }[] = [];
  left.units.forEach((unit, index) => {
    const other = right.units[index]!;
    const last = runs.at(-1);
    if (last && last.left[1] + 1 === unit && last.right[1] + 1 === other) {
      last.left[1] = unit;
      last.right[1] = other;
    } else runs.push({ left: [unit, unit], right: [other, other] });
  });
  const words = { single: '', ribbon: ' ribbon', ribbonized: ' ribbonized', reversed: ' ribbon reversed' }[
    mode
  ];
  return runs.map(
    (run) =>
      `${left.called} ${unitRange(leftCable, run.left)} > ${right.called} ${unitRange(rightCable, run.right)}${
        mode === 'single' && (isRibbon(leftCable) || isRibbon(rightCable)) ? ' single' : words
      }`,
  );
}

const isRibbon = (cable: Cable) => fiberUnits(cable.construction)[0]!.kind === 'ribbon';

function unitRange(cable: Cable, [from, to]: readonly [number, number]): string {
  const units: readonly FiberUnit[] = fiberUnits(cable.construction);
  const { kind, fibers } = units[from - 1]!;
  if (kind === 'bundle') return `1-${fibers}`;
  const letter = kind === 'tube' ? 'T' : 'R';
  return from === to ? `${letter}${from}` : `${letter}${from}-${letter}${to}`;
}

const styles = StyleSheet.create({
  side: { gap: space.small },
  picture: { flexDirection: 'row', gap: space.medium },
  units: { flex: 1, flexDirection: 'row', flexWrap: 'wrap', gap: space.tight, alignContent: 'flex-start' },
  unit: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.tight,
    minHeight: touch.normal,
    borderWidth: stroke.rule,
    paddingHorizontal: space.small,
  },
});
