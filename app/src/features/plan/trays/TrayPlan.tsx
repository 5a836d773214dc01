import {
  entryKey,
  fiberName,
  fiberUnits,
  trayReasonWords,
  type Cable,
  type Closure,
  type Pin,
} from '@cordel/core';
import { type DraftCheck, type DraftTray } from '@cordel/core/order';
import { memo, useCallback, useState, type ReactElement } from 'react';
import { FlatList, Pressable, StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { CordRow } from '../../../ui/Cord';
import { UnitToken } from '../../../ui/FiberToken';
import { Knot } from '../../../ui/Knot';
import { Sheet } from '../../../ui/Sheet';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { SpokenOnly, Type } from '../../../ui/Type';

interface TrayListProps {
  trays: readonly DraftTray[];
  closure: Closure;
  cables: ReadonlyMap<string, Cable>;
  onPin: (cableId: string, unit: number) => void;
  header: ReactElement | null;
  footer: ReactElement | null;
}

/** All trays of the layout. Typing draws only those anew that changed. */
export function TrayList({ trays, closure, cables, onPin, header, footer }: TrayListProps) {
  const { length } = trays;
  const renderItem = useCallback(
    ({ item, index }: { item: DraftTray; index: number }) => (
      <TrayPlan tray={item} last={index === length - 1} closure={closure} cables={cables} onPin={onPin} />
    ),
    [length, closure, cables, onPin],
  );
  return (
    <FlatList
      data={trays}
      keyExtractor={keyOf}
      initialNumToRender={6}
      windowSize={3}
      maxToRenderPerBatch={4}
      keyboardShouldPersistTaps="handled"
      ListHeaderComponent={header}
      ListFooterComponent={footer}
      renderItem={renderItem}
    />
  );
}

const keyOf = ({ tray }: DraftTray) => String(tray);

interface TrayPlanProps {
  tray: DraftTray;
  last: boolean;
  closure: Closure;
  cables: ReadonlyMap<string, Cable>;
  onPin: (cableId: string, unit: number) => void;
}

/** One tray of the layout: what lies on it, how full it is, and why. */
const TrayPlan = memo(function TrayPlan({ tray, last, closure, cables, onPin }: TrayPlanProps) {
  const { palette } = useCordelTheme();
  const [why, setWhy] = useState(false);
  const keys = new Map(closure.entries.map((entry, index) => [entry.cableId, entryKey(entry, index)]));
  return (
    <CordRow
      above={tray.tray === 1 ? 'none' : 'open'}
      below={last ? 'none' : 'open'}
      knot={<Knot mark="open" size={18} />}
      knotSize={18}
      knotAt={26}
    >
      <View style={[styles.tray, { borderColor: palette.hairline }]}>
        <View style={styles.head}>
          <Type look="heading">Tray {tray.tray}</Type>
          <Type look="small" tone={tray.used > 0 ? 'ink' : 'soft'}>
            {tray.used === 0
              ? `empty, ${tray.slots} slots`
              : `${tray.used} of ${tray.slots} ${tray.kind === 'ribbon' ? 'ribbon' : 'single'} slots`}
          </Type>
        </View>
        {tray.units.length > 0 ? (
          <View style={styles.units}>
            {tray.units.map(({ cableId, unit }) => {
              const cable = cables.get(cableId)!;
              const { kind, tube, first } = fiberUnits(cable.construction)[unit - 1]!;
              const name = fiberName(cable, first);
              const pinned = pinOf(closure, cableId, tube ?? unit);
              return (
                <Pressable
                  key={cableId + unit}
                  role="button"
                  onPress={() => onPin(cableId, tube ?? unit)}
                  style={[styles.unit, { borderColor: pinned ? palette.ink : 'transparent' }]}
                >
                  <Type look="smallStrong">{keys.get(cableId)}</Type>
                  {kind === 'bundle' ? null : (
                    <UnitToken unit={unit} color={name.unitColor} kind={kind} bare />
                  )}
                  {pinned ? <Type look="small">kept</Type> : null}
                  <SpokenOnly text={`, ${kind} ${name.unitColor.name}, choose its tray`} />
                </Pressable>
              );
            })}
          </View>
        ) : null}
        {tray.reasons.length > 0 ? (
          <Pressable role="button" aria-expanded={why} onPress={() => setWhy(!why)} style={styles.why}>
            <Type look="small" style={styles.link}>
              {why ? 'Why here' : 'Why here?'}
            </Type>
          </Pressable>
        ) : null}
        {why
          ? tray.reasons.slice(0, 40).map((reason, index) => (
              <Type key={index} look="small">
                {trayReasonWords(reason)}
              </Type>
            ))
          : null}
      </View>
    </CordRow>
  );
});

function pinOf(closure: Closure, cableId: string, unit: number): Pin | undefined {
  return closure.pins?.find((pin) => pin.cableId === cableId && pin.unit === unit);
}

/** Keeps a tube or ribbon on a tray of one's own choice, or lets it go. */
export function PinSheet({
  at,
  closure,
  onClose,
  onChange,
}: {
  at: { readonly cableId: string; readonly unit: number } | null;
  closure: Closure;
  onClose: () => void;
  onChange: (pins: Pin[] | undefined) => void;
}) {
  const index = closure.entries.findIndex((entry) => entry.cableId === at?.cableId);
  const key = index >= 0 ? entryKey(closure.entries[index]!, index) : '';
  const pinned = at ? pinOf(closure, at.cableId, at.unit) : undefined;
  const others = (closure.pins ?? []).filter((pin) => pin !== pinned);
  const choose = (tray: number | null) => {
    const pins = tray === null || !at ? others : [...others, { ...at, tray }];
    onChange(pins.length > 0 ? pins : undefined);
    onClose();
  };
  return (
    <Sheet title={at ? `${key} ${at.unit}: on which tray?` : ''} open={at !== null} onClose={onClose}>
      <Type>It stays there whatever else changes; the others go around it.</Type>
      <View style={styles.trays}>
        {closure.trays.slice(0, 120).map((_, tray) => (
          <Action
            key={tray}
            label={String(tray + 1)}
            spoken={`Keep it on tray ${tray + 1}`}
            pressed={pinned?.tray === tray + 1}
            onPress={() => choose(tray + 1)}
          />
        ))}
      </View>
      {pinned ? <Action label="Let it go where it fits" onPress={() => choose(null)} /> : null}
    </Sheet>
  );
}

/** Fibers that no line takes, cable by cable. */
export const RestPart = memo(function RestPart({
  check,
  cables,
}: {
  check: DraftCheck;
  cables: ReadonlyMap<string, Cable>;
}) {
  const rest = check.rest.filter((one) => one.ranges.length > 0);
  if (rest.length === 0) return null;
  return (
    <View style={styles.rest}>
      <Type look="heading" role="heading" aria-level={2}>
        Not in the order
      </Type>
      {rest.map(({ key, cableId, through, ranges }) => (
        <Type key={cableId} look="small">
          <Type look="smallStrong">{key}</Type> {cables.get(cableId)?.label}:{' '}
          {ranges
            .slice(0, 12)
            .map(({ from, to }) => (from === to ? from : `${from}–${to}`))
            .join(', ')}
          {ranges.length > 12 ? ' …' : ''} {through ? 'go through' : 'stay dark'}
        </Type>
      ))}
    </View>
  );
});

const styles = StyleSheet.create({
  tray: { paddingVertical: space.small, gap: space.tight, borderBottomWidth: stroke.hair },
  head: {
    flexDirection: 'row',
    alignItems: 'baseline',
    justifyContent: 'space-between',
    flexWrap: 'wrap',
    columnGap: space.small,
  },
  units: { flexDirection: 'row', flexWrap: 'wrap', gap: space.tight },
  unit: {
    minHeight: touch.normal,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.tight,
    paddingHorizontal: space.small,
    borderWidth: stroke.hair,
  },
  why: { minHeight: touch.normal, justifyContent: 'center', alignSelf: 'flex-start' },
  link: { textDecorationLine: 'underline' },
  trays: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  rest: { gap: space.tight, padding: space.large },
});
