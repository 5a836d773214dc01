import type { SpliceState, TrayState } from '@cordel/core';
import type { Href } from 'expo-router';
import type { ComponentType } from 'react';
import { useClosure, type ClosureAtHand } from '../../../data/ledger';
import { Screen } from '../../../shell/frame/Screen';
import { places } from '../../../shell/places';
import { Empty, Failed, Loading } from '../../../ui/States';
import { useStanding } from './useStanding';

/** A splice as an address names it. */
export interface SlotAddress {
  readonly projectId: string;
  readonly closureId: string;
  readonly tray: number;
  readonly slot: number;
}

/** What is shown at a splice gets. */
export interface AtSlotProps {
  projectId: string;
  atHand: ClosureAtHand;
  tray: TrayState;
  here: SpliceState;
  /** Moves to another splice. */
  onGo: (state: SpliceState) => void;
}

/** What stands at the slot that the address names, and what is said where nothing does. */
export function AtSlot({
  address,
  title,
  up,
  At,
}: {
  address: SlotAddress;
  /** Of the page, until its closure is at hand. */
  title: string;
  /** Where the cord leads upward meanwhile. */
  up: (place: { readonly tray: number; readonly slot: number }) => { href: Href; name: string };
  At: ComponentType<AtSlotProps>;
}) {
  const { projectId, closureId } = address;
  const { tray, slot, go } = useStanding(address);
  const { atHand, error, retry } = useClosure(projectId, closureId);
  if (!atHand)
    return (
      <Screen title={title} up={up({ tray, slot })}>
        {error ? <Failed error={error} onRetry={retry} /> : <Loading what="the closure" />}
      </Screen>
    );
  const trayState = atHand.ledger.trays[tray - 1];
  const here = trayState?.splices.find((state) => state.splice.slot === slot);
  if (!trayState || !here)
    return (
      <Screen title={title} up={{ href: places.closure(projectId, closureId), name: 'the closure' }}>
        <Empty
          title={`Nothing planned at tray ${tray}, slot ${slot}`}
          text="The order has no splice there. Go up the cord and pick one of the planned ones."
        />
      </Screen>
    );
  return <At projectId={projectId} atHand={atHand} tray={trayState} here={here} onGo={go} />;
}
