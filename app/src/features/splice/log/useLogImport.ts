import type { UsedGear } from '@cordel/core';
import type { Machine } from '@cordel/core/gear';
import { entriesOf, unknownMemory, type LogMapping, type LogMatch, type MatchBy } from '@cordel/core/machine';
import { useMemo, useState } from 'react';
import { useGear, useSaveGear } from '../../../data/gear';
import type { ClosureAtHand } from '../../../data/ledger';
import { useLinked } from '../../../data/machine/linked';
import { machinesHere } from '../../../data/machine/machines';
import { forgetShared } from '../../../data/shared';
import { useOrderOfWork } from '../../../data/orderOfWork';
import { engine } from '../../../sync/here';
import { ownTimeZone } from '../../../ui/times';
import { logFacts, type StoredLog } from './logFacts';
import { targetsOf } from './targetsOf';
import { useLog } from './useLog';

const nothing: ReadonlySet<number> = new Set();
const toggled = (set: ReadonlySet<number>, index: number) => {
  const next = new Set(set);
  if (!next.delete(index)) next.add(index);
  return next;
};

/** A log at a closure, from the file to the record: whose it is, how it is matched, what a person decided, what was stored and can be taken back. */
export function useLogImport(projectId: string, { closure, definition, ledger }: ClosureAtHand) {
  const zone = definition.project.timeZone ?? ownTimeZone();
  const gear = useGear().data;
  const saveGear = useSaveGear();
  const linked = useLinked();
  const order = useOrderOfWork(closure.id);
  const { log, busy, trouble, ...reader } = useLog();
  const machines = useMemo(
    () => (gear ?? []).filter((one): one is Machine => one.kind === 'machine'),
    [gear],
  );
  const [machineId, setMachineId] = useState<string | null>(linked?.gearId ?? null);
  const machine = machines.find(({ id }) => id === machineId) ?? null;
  const [by, setBy] = useState<MatchBy>('time');
  const [from, setFrom] = useState<string | null>(null);
  const [firstDay, setFirstDay] = useState('');
  const [partly, setPartly] = useState(false);
  const [left, setLeft] = useState(nothing);
  const [taken, setTaken] = useState(nothing);
  const [simulated, setSimulated] = useState(false);
  const [stored, setStored] = useState<StoredLog | null>(null);
  const [storing, setStoring] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);

  const fromLink = log?.fromLink ?? false;
  const memory =
    fromLink && linked?.simulated ? linked.id : (machine?.id ?? (fromLink ? linked!.id : unknownMemory));
  const day = /^\d{4}-\d{2}-\d{2}$/.test(firstDay) ? firstDay : null;
  const targets = useMemo(
    () => targetsOf(ledger, order, memory, machine?.id ?? null),
    [ledger, order, memory, machine],
  );
  const matched = log?.matched ?? null;
  const entries = useMemo(
    () => (matched ? entriesOf(matched.matching, matched.log, { left, taken }) : null),
    [matched, left, taken],
  );
  const compare = (how: { by?: MatchBy; from?: string | null } = {}) => {
    setLeft(nothing);
    setTaken(nothing);
    void reader.match(targets, how.by ?? by, how.from === undefined ? from : how.from);
  };
  const during = async (words: string, work: () => Promise<unknown>) => {
    setStoring(true);
    setFailed(null);
    try {
      await work();
    } catch (error) {
      setFailed(`${words} ${(error as Error).message}`);
    }
    setStoring(false);
  };
  const begin = () => {
    setStored(null);
    setFailed(null);
    setPartly(false);
    setFrom(null);
  };

  return {
    zone,
    machines,
    machine,
    setMachine: (id: string | null) => {
      setMachineId(id);
      // It is another memory that it is compared with.
      if (matched) reader.cancel();
    },
    linked,
    log,
    busy,
    trouble,
    /** Whether a day has to be given for times that have none. */
    needsDay: log?.mapping?.columns.some(({ holds }) => holds === 'time') === true && log.read?.span === null,
    firstDay,
    day,
    setFirstDay,
    open: (file: File) => {
      begin();
      void reader.open(file, machine?.log ?? null, zone);
    },
    takeMemory: () => {
      begin();
      if (linked) void reader.take(linked.name, () => machinesHere().log(linked.id, 0));
    },
    putAway: reader.cancel,
    change: (mapping: LogMapping) => void reader.change(mapping, day),
    read: () => void reader.read(log!.mapping!, day),
    /** What can be read may be compared: all of the file, or the rest of it where that was chosen. */
    readable: log?.read != null && log.read.count > 0 && (log.read.findingsCount === 0 || partly),
    partly,
    goOnPartly: () => setPartly(true),
    by,
    setBy: (value: MatchBy) => {
      setBy(value);
      if (matched) compare({ by: value });
    },
    from,
    setFrom: (value: string | null) => {
      setFrom(value);
      if (matched) compare({ from: value });
    },
    openSplices: targets.filter(({ open }) => open),
    compare: () => compare(),
    matched,
    left,
    taken,
    leave: (index: number) => setLeft(toggled(left, index)),
    take: (index: number) => setTaken(toggled(taken, index)),
    takeAll: () =>
      setTaken(
        new Set(
          matched!.matching.matches.flatMap(({ what }: LogMatch, index) =>
            what === 'differs' ? [index] : [],
          ),
        ),
      ),
    fromLink,
    simulated: fromLink ? linked!.simulated : simulated,
    setSimulated,
    /** How much would be recorded. */
    toStore: entries ? entries.attempts.length + entries.corrections.length : 0,
    storing,
    stored,
    failed,
    store: () =>
      during('Nothing of it was recorded.', async () => {
        const used: UsedGear | null = machine ? { machine: { id: machine.id, label: machine.label } } : null;
        const made = logFacts(entries!, closure.id, ledger, {
          memory,
          simulated: fromLink ? linked!.simulated : simulated,
          gear: used,
        });
        await engine().take(projectId, made.facts, []);
        const mapping = log!.mapping;
        // Gone before it is said to be kept: whoever looks for it then finds nothing.
        await forgetShared().catch(() => undefined);
        setStored(made);
        reader.cancel();
        // How this machine's log is read is told once.
        if (machine && mapping && JSON.stringify(machine.log) !== JSON.stringify(mapping))
          saveGear.mutate({ base: machine, item: { ...machine, log: mapping } });
      }),
    undo: () =>
      during('It could not be taken back.', async () => {
        await engine().take(projectId, stored!.undo(ledger), []);
        setStored(null);
      }),
  };
}

export type LogImport = ReturnType<typeof useLogImport>;
