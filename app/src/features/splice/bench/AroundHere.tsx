import type { SpliceState, TrayState } from '@cordel/core';
import { useMemo } from 'react';
import { View } from 'react-native';
import { cablesOf, type ClosureAtHand } from '../../../data/ledger';
import { CordRow } from '../../../ui/Cord';
import { Knot } from '../../../ui/Knot';
import { useWide } from '../../../ui/theme';
import { SpliceRow, stretchAfter } from '../record/SpliceRow';

/** The stretch of cord one stands on. On a wide screen the ledger beside it shows the whole, so only the card is left. */
export function AroundHere({
  atHand,
  tray,
  here,
  others,
  rows,
  onOpen,
  children,
}: {
  atHand: ClosureAtHand;
  tray: TrayState;
  here: SpliceState;
  /** Splices shown above and below it. */
  rows: number;
  /** Who else stands at which splice. */
  others: ReadonlyMap<string, string>;
  onOpen: (spliceId: string) => void;
  children: React.ReactNode;
}) {
  const wide = useWide();
  const at = tray.splices.indexOf(here);
  const knot = useMemo(() => <Knot mark={here.verdict.mark} size={26} />, [here.verdict.mark]);
  // Keyed by its distance from where one stands: a step along the cord changes the words of the rows instead of making new ones.
  const row = (away: number) => {
    const index = at + away;
    const state = tray.splices[index];
    if (!state) return null;
    return (
      <SpliceRow
        key={away}
        state={state}
        cables={cablesOf(atHand.definition)}
        limits={atHand.ledger.limits}
        above={index === 0 ? 'done' : stretchAfter(tray.splices[index - 1])}
        below={index === tray.splices.length - 1 ? 'none' : stretchAfter(state)}
        other={others.get(state.splice.id)}
        onPress={onOpen}
      />
    );
  };
  if (wide) return children;
  const steps = Array.from({ length: rows }, (_, index) => index + 1);
  return (
    <View>
      {[...steps].reverse().map((step) => row(-step))}
      <CordRow
        above={at === 0 ? 'done' : stretchAfter(tray.splices[at - 1])}
        below={at === tray.splices.length - 1 ? 'none' : stretchAfter(here)}
        knot={knot}
        knotSize={26}
      >
        {children}
      </CordRow>
      {steps.map((step) => row(step))}
    </View>
  );
}
