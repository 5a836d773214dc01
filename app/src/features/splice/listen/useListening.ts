import { alongTheCord, findSplice, type SpliceState, type UsedGear } from '@cordel/core';
import type { Machine } from '@cordel/core/gear';
import {
  answered,
  beginHearing,
  hear,
  heardUpTo,
  liesInMachine,
  notKept,
  readingsOf,
  recordedFrom,
  resumeHearing,
  type Hearing,
  type ListenQuestion,
  type ResultEvent,
} from '@cordel/core/listen';
import type { MachineEvent, MachineStatus } from '@cordel/core/machine';
import { useEffect, useMemo, useRef, useState } from 'react';
import { getTonight, pickGear, usedGear } from '../../../data/gearTonight';
import type { ClosureAtHand } from '../../../data/ledger';
import { heardOf, keepHeard, type Linked } from '../../../data/machine/linked';
import type { Machines } from '../../../data/machine/machines';
import { useRecordFact } from '../../../sync/react';
import { useLatest } from '../../../ui/useLatest';
import type { AtSplice } from '../bench/useAtSplice';
import { newCalibration } from '../gear/newGearFact';
import { listenTo, type LinkState } from './listenTo';

export interface Heating {
  readonly program: string;
  readonly seconds: number;
  /** ms since 1970, by this device. */
  readonly since: number;
}

export interface Listening {
  readonly link: LinkState | null;
  readonly hearing: Hearing | null;
  /** What lies in the machine is what the bench shows. */
  readonly inside: boolean;
  readonly heating: readonly Heating[];
  /** What the machine said beside readings: a calibration, a program that its gear does not list. */
  readonly said: string | null;
  /** What a person has to say something to; the oldest. */
  readonly question: ListenQuestion | null;
  /** The reading is of this splice; null: it is left out. */
  readonly answer: (spliceId: string | null) => void;
}

/** Listens to the linked machine at the splice one stands on, and records what is certainly of it. */
export function useListening(
  projectId: string,
  { closure, ledger }: ClosureAtHand,
  here: SpliceState,
  { bench, entering, go, gear }: AtSplice,
  machines: Machines,
  linked: Linked | null,
): Listening {
  const recordFact = useRecordFact(projectId);
  const [link, setLink] = useState<LinkState | null>(null);
  const [hearing, setHearing] = useState<Hearing | null>(null);
  const [heating, setHeating] = useState<readonly Heating[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const [elsewhere, setElsewhere] = useState<{ question: ListenQuestion; spliceId: string } | null>(null);
  const newest = useRef<Hearing | null>(null);
  const answering = useRef(false);
  const shown = useShown();
  const item = gear.list.find((one): one is Machine => one.kind === 'machine' && one.id === linked?.gearId);
  const memory = linked && (linked.simulated ? linked.id : (linked.gearId ?? linked.id));
  const recordedAt = useMemo(
    () => (memory ? recordedFrom(memory, alongTheCord(ledger)) : () => null),
    [memory, ledger],
  );

  const change = (next: Hearing) => {
    newest.current = next;
    setHearing(next);
  };
  const keepPlace = () => {
    if (linked && newest.current) keepHeard(linked.id, heardUpTo(newest.current));
  };

  /** What stands on an attempt as its gear. */
  const gearOf = (result: ResultEvent): UsedGear | null => {
    const { machine: _machine, program: _program, heater, ...others } = usedGear() ?? {};
    if (item)
      return {
        ...others,
        machine: { id: item.id, label: item.label },
        ...(result.program ? { program: result.program } : {}),
        ...(heater ? { heater } : {}),
      };
    // Nobody's gear was worn by a machine that is not there.
    return linked?.simulated || Object.keys(others).length === 0 ? null : others;
  };
  const record = (result: ResultEvent) =>
    new Promise<boolean>((settled) => {
      const { splice, at } = result;
      bench.recordRead(
        {
          readings: readingsOf(result)!,
          proofTestFailed: result.proofTestFailed,
          simulated: linked!.simulated,
          origin: { memory: memory!, splice, at },
          gear: gearOf(result),
        },
        settled,
      );
    });

  /** What is set at the machine goes on record with the next reading. */
  const takeOver = (set: Pick<MachineStatus, 'program' | 'heater'>) => {
    if (!item) return;
    const known = (list: readonly { readonly name: string }[], name: string | null) =>
      name === null || list.some((one) => one.name === name);
    const strange = [
      known(item.programs, set.program) ? null : set.program,
      known(item.heaterPrograms, set.heater) ? null : set.heater,
    ].filter((name) => name !== null);
    setSaid(
      strange.length > 0
        ? `The machine is set to “${strange.join('”, “')}”, which the record of ${item.label} does not have. Add it to its gear.`
        : null,
    );
    const before = getTonight();
    const cladding = item.programs.find(({ name }) => name === set.program)?.cladding ?? 125;
    const next = {
      machine: { id: item.id, label: item.label },
      program: set.program,
      heater: set.heater,
      cladding,
    };
    if (before.machine?.id !== item.id || before.program !== set.program || before.heater !== set.heater)
      pickGear(next);
  };

  const onStatus = useLatest((status: MachineStatus, after: number) => {
    const before = newest.current;
    const goesOn = before !== null && before.number <= status.last;
    const begun = beginHearing(after, status.last, status.state);
    change(goesOn ? resumeHearing(before, status.last) : { ...begun, questions: before?.questions ?? [] });
    takeOver(status);
  });

  const onEvent = useLatest(async (event: MachineEvent) => {
    const { hearing: next, take } = hear(newest.current!, event, {
      spliceId: here.splice.id,
      fibers: bench.fibers,
      records: here.facts.length,
      entering,
      byHand: bench.read.length > 0,
      recordedAt,
    });
    change(next);
    if (
      event.kind === 'before' &&
      liesInMachine(next, here.splice.id) &&
      event.fibers.length === bench.fibers
    )
      bench.setDetails({ ...bench.details, before: event.fibers });
    else if (event.kind === 'set') takeOver(event);
    else if (event.kind === 'heater' && event.number > next.missed)
      setHeating((list) =>
        event.did === 'began'
          ? [...list, { program: event.program, seconds: event.seconds, since: Date.now() }]
          : list.slice(1),
      );
    else if (event.kind === 'calibration') {
      // When it was made while nobody listened, its time is the machine's own, which nobody has compared.
      const missed = event.number <= next.missed;
      setSaid(calibrationWords(event.passed, missed && item !== undefined));
      if (item && !missed)
        await recordFact(
          newCalibration(closure.id, { id: item.id, label: item.label }, event.passed, event.conditions),
        );
    }
    if (take && !(await record(take))) change(notKept(newest.current!, take, here.splice.id));
    keepPlace();
    // The next event meets the bench as it stands after this one.
    await shown();
  });

  const linkedId = linked?.id ?? null;
  useEffect(() => {
    if (linkedId === null) return;
    const stop = new AbortController();
    void alone(`cordel.listen.${linkedId}`, stop.signal, setLink, () =>
      listenTo(machines, linkedId, stop.signal, {
        after: heardOf(linkedId),
        onStatus,
        onEvent,
        onLink: setLink,
        pause: (ms) => untilWorthATry(ms, stop.signal),
      }),
    );
    return () => {
      stop.abort();
      newest.current = null;
      setHearing(null);
      setLink(null);
      setHeating([]);
      setSaid(null);
    };
  }, [machines, linkedId, onStatus, onEvent]);

  // Somebody said which of the crews' machines it is: what is set at it is that one's.
  const onItem = useLatest(takeOver);
  const itemId = item?.id ?? null;
  useEffect(() => {
    if (linkedId === null || itemId === null) return;
    // A machine that does not answer tells it when it does.
    machines.status(linkedId).then(onItem, () => undefined);
  }, [machines, linkedId, itemId, onItem]);

  const question = hearing?.questions[0] ?? null;
  const settle = (kept: boolean) => {
    answering.current = false;
    setElsewhere(null);
    if (!kept) return;
    change(answered(newest.current!));
    keepPlace();
  };
  const take = useLatest((asked: ListenQuestion) => void record(asked.result).then(settle));
  const answer = (spliceId: string | null) => {
    if (!question || answering.current) return;
    answering.current = true;
    const state = spliceId === null ? null : findSplice(ledger, spliceId);
    if (!state) settle(true);
    else if (spliceId === here.splice.id) take(question);
    else {
      setElsewhere({ question, spliceId: spliceId! });
      go(state);
    }
  };
  // It is recorded where it belongs, once the bench stands there.
  const there = elsewhere?.spliceId === here.splice.id ? elsewhere : null;
  useEffect(() => {
    if (there) take(there.question);
  }, [there, take]);

  return {
    link,
    hearing,
    inside: hearing !== null && liesInMachine(hearing, here.splice.id),
    heating,
    said,
    question,
    answer,
  };
}

/** Gives what resolves when all that was changed so far is on the screen, or the screen is left. */
function useShown(): () => Promise<void> {
  const [, again] = useState(0);
  const waiting = useRef<(() => void)[]>([]);
  const tell = () => waiting.current.splice(0).forEach((go) => go());
  useEffect(tell);
  useEffect(() => tell, []);
  return () =>
    new Promise((go) => {
      waiting.current.push(go);
      again((count) => count + 1);
    });
}

const anotherPage =
  'Another page of Cordel on this device listens to this machine. Close it, or go on there.';

/** Listens in one page of this device only: two would record each reading twice. Another one begins when this one ends. */
async function alone(
  name: string,
  signal: AbortSignal,
  onLink: (state: LinkState) => void,
  listen: () => Promise<void>,
): Promise<void> {
  // Without locks (an address that is not secure) nobody can tell.
  if (!('locks' in navigator)) return listen();
  const had = await navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
    if (!lock || signal.aborted) return false;
    await listen();
    return true;
  });
  if (had || signal.aborted) return;
  // A screen of this page that was just left lets go in a moment.
  const told = setTimeout(() => onLink({ is: 'dropped', why: anotherPage }), 1000);
  signal.addEventListener('abort', () => clearTimeout(told));
  const begin = () => {
    clearTimeout(told);
    return listen();
  };
  // Rejects where it is called off with the screen.
  await navigator.locks.request(name, { signal }, begin).catch(() => undefined);
}

function calibrationWords(passed: boolean, noteIt: boolean): string {
  if (!passed) return 'The arc calibration failed. Clean or replace the electrodes, and calibrate again.';
  return noteIt
    ? 'The arc was calibrated while nobody listened. Note it under Gear tonight.'
    : 'The arc calibration passed.';
}

/** A network that is back, or a page that is looked at again, does not wait. */
function untilWorthATry(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((go) => {
    const ended = new AbortController();
    const done = () => {
      clearTimeout(timer);
      ended.abort();
      go();
    };
    const timer = setTimeout(done, ms);
    const { signal: once } = ended;
    window.addEventListener('online', done, { signal: once });
    document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && done(), {
      signal: once,
    });
    signal.addEventListener('abort', done, { signal: once });
  });
}
