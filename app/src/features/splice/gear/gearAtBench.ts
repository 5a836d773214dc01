import { jointOf, type Cable, type Closure, type DueAbout, type PlacedSplice } from '@cordel/core';
import {
  cleaverStanding,
  machineStanding,
  programWarnings,
  type Cleaver,
  type CleaverStanding,
  type Due,
  type Gear,
  type GearBook,
  type Machine,
  type MachineStanding,
  type ProgramWarning,
} from '@cordel/core/gear';
import type { Tonight } from '../../../data/gearTonight';

/** The gear that is in use at a splice, and what is to be said about it. */
export interface GearAtBench {
  readonly machine: { readonly item: Machine; readonly standing: MachineStanding } | null;
  readonly cleaver: { readonly item: Cleaver; readonly standing: CleaverStanding } | null;
  /** What to ask before the next splice: all that is due about one thing. */
  readonly ask: {
    readonly about: DueAbout;
    readonly gear: Machine | Cleaver;
    readonly due: readonly Due[];
  } | null;
  readonly warnings: readonly ProgramWarning[];
}

/** @param now UTC */
export function gearAtBench(
  gear: readonly Gear[],
  tonight: Tonight,
  book: GearBook,
  now: string,
  closure: Closure,
  splice: PlacedSplice,
  cables: ReadonlyMap<string, Cable>,
): GearAtBench {
  const machine = gear.find(
    (one): one is Machine => one.kind === 'machine' && one.id === tonight.machine?.id,
  );
  const cleaver = gear.find(
    (one): one is Cleaver => one.kind === 'cleaver' && one.id === tonight.cleaver?.id,
  );
  const joint = jointOf(closure, splice, cables);
  // A mechanical connector needs no arc.
  const fused = joint.kind !== 'mechanical';
  const atMachine = machine ? { item: machine, standing: machineStanding(machine, book, now) } : null;
  const atCleaver = cleaver ? { item: cleaver, standing: cleaverStanding(cleaver, book, now) } : null;
  const asks = [
    ...(atMachine && fused ? atMachine.standing.asks.map((due) => ({ due, gear: atMachine.item })) : []),
    ...(atCleaver ? atCleaver.standing.asks.map((due) => ({ due, gear: atCleaver.item })) : []),
  ];
  // New electrodes ask for a calibration, so they come first.
  const about = (['electrodes', 'calibration', 'blade'] as const).find((one) =>
    asks.some(({ due }) => due.about === one),
  );
  const own = asks.filter(({ due }) => due.about === about);
  return {
    machine: atMachine,
    cleaver: atCleaver,
    ask: about ? { about, gear: own[0]!.gear, due: own.map(({ due }) => due) } : null,
    warnings:
      machine && fused
        ? programWarnings(
            machine,
            tonight,
            [splice.left[0]!, splice.right[0]!].map((end) => cables.get(end.cableId)!),
            joint.sleeve,
          )
        : [],
  };
}
