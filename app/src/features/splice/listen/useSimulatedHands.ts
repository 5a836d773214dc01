import { fiberOf, type Cable, type FiberEnd, type SpliceState } from '@cordel/core';
import type { StandInCommand } from '@cordel/core/machine';
import { useEffect, useRef, useState } from 'react';
import type { Linked, Practice } from '../../../data/machine/linked';
import type { Machines } from '../../../data/machine/machines';
import type { AtSplice } from '../bench/useAtSplice';
import type { Listening } from './useListening';

/** What hands take at a simulated machine for each thing they do, ms: long enough to see what happens. */
const handsMs = 1500;
/** So often ends are cleaved or seated again before one fuses all the same. */
const mostAgain = 4;

/** What the hands do next at a machine that is simulated, as the bench says; null: they wait. */
export function nextCommand(
  { hearing, question, inside }: Pick<Listening, 'hearing' | 'question' | 'inside'>,
  { entering, joint, advice, question: asked }: Pick<AtSplice, 'entering' | 'joint' | 'advice' | 'question'>,
  { splice }: SpliceState,
  cables: ReadonlyMap<string, Cable>,
  again: number,
): StandInCommand | null {
  // Somebody has to say something first.
  if (question || !hearing) return null;
  switch (hearing.state) {
    case 'ready': {
      if (!entering || asked || joint.kind === 'mechanical') return null;
      const end = (one: FiberEnd) => ({
        key: `${one.cableId}.${one.fiber}.${one.side}`,
        modeField: fiberOf(cables.get(one.cableId)!).modeField ?? multimodeStandIn,
      });
      const fibers = splice.left.map((left, index) => ({
        left: end(left),
        right: end(splice.right[index]!),
      }));
      return { do: 'load', splice: splice.id, fibers };
    }
    case 'pause':
      if (!inside) return { do: 'take-out' };
      if (again >= mostAgain) return { do: 'fuse' };
      switch (advice.action) {
        case 'recleave-left':
          return { do: 'recleave', side: 'left' };
        case 'recleave-right':
          return { do: 'recleave', side: 'right' };
        case 'recleave-both':
          return { do: 'recleave', side: 'both' };
        case 'reseat':
          return { do: 'reseat' };
        default:
          return { do: 'fuse' };
      }
    case 'done':
      return { do: 'take-out' };
    default:
      return null;
  }
}

/** The stand-in's physics are those of single mode; between two multimode ends only the offset counts then, μm. */
const multimodeStandIn = 9.2;

/** A step of the hands, on a key. */
export function commandWords(command: StandInCommand): string {
  switch (command.do) {
    case 'load':
      return 'Lay in';
    case 'recleave':
      return command.side === 'both' ? 'Recleave both' : `Recleave ${command.side}`;
    case 'reseat':
      return 'Reseat';
    case 'fuse':
      return 'Fuse';
    case 'take-out':
      return 'Take out';
    case 'calibrate':
      return 'Calibrate';
    case 'heat':
      return 'Heat';
    case 'set':
      return 'Set';
    case 'replace-electrodes':
      return 'New electrodes';
    case 'next-blade-position':
      return 'Turn the blade';
  }
}

/** Does at a simulated machine what the bench says. Gives why something could not be done, in words, or null. */
export function useSimulatedHands(
  machines: Machines,
  linked: Linked | null,
  { speed, byItself }: Practice,
  listening: Listening,
  at: AtSplice,
  here: SpliceState,
): { trouble: string | null; command: (command: StandInCommand) => void; next: StandInCommand | null } {
  const [trouble, setTrouble] = useState<string | null>(null);
  const [again, setAgain] = useState({ splice: '', count: 0 });
  const machineId = linked?.simulated && listening.link?.is === 'listening' ? linked.id : null;
  const { hearing } = listening;
  const count = again.splice === here.splice.id ? again.count : 0;
  const next = machineId ? nextCommand(listening, at, here, at.cables, count) : null;
  const command = (what: StandInCommand) => {
    if (!machineId) return;
    if (what.do === 'recleave' || what.do === 'reseat')
      setAgain({ splice: here.splice.id, count: count + 1 });
    else if (what.do === 'fuse') setAgain({ splice: '', count: 0 });
    const did = machines.command(machineId, what);
    did.then(setTrouble, (error: Error) => setTrouble(error.message));
    // The sleeve goes into the heater while the next pair is made ready.
    if (what.do === 'take-out' && at.joint.sleeve !== null)
      void did.then(() => machines.command(machineId, { do: 'heat' })).catch(() => undefined);
  };
  const newest = useRef({ command, next });
  useEffect(() => {
    newest.current = { command, next };
  });
  // Once for each thing that happened at the machine, and when the bench has gone on.
  const moment = next && byItself ? `${machineId} ${hearing!.number} ${here.splice.id} ${next.do}` : null;
  useEffect(() => {
    if (moment === null) return;
    const timer = setTimeout(() => {
      const { command: go, next: what } = newest.current;
      if (what) go(what);
    }, handsMs / speed);
    return () => clearTimeout(timer);
  }, [moment, speed]);
  return { trouble, command, next };
}
