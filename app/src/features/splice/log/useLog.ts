import type { LogMapping, LogMatching, LogRow, LogSplice, MatchBy, MatchTarget } from '@cordel/core/machine';
import { useCallback, useEffect, useRef, useState } from 'react';
import {
  openLogReader,
  toldBy,
  type LogPreview,
  type LogRead,
  type LogReader,
} from '../../../data/machine/logReader';

/** A log that was opened, and what is known of it so far. */
export interface OpenLog {
  readonly name: string;
  /** null: nobody knows how to read it, or it is a memory that came over a link. */
  readonly mapping: LogMapping | null;
  readonly fromLink: boolean;
  /** It is read as this machine's log was before. */
  readonly kept: boolean;
  readonly encodingCertain: boolean;
  readonly preview: LogPreview | null;
  readonly read: LogRead | null;
  readonly matched: { readonly matching: LogMatching; readonly log: readonly LogSplice[] } | null;
}

export type LogBusy = { readonly words: string; readonly part: number | null } | null;

/** Larger files are no log of a machine. Bytes */
const largest = 64 * 1024 * 1024;

/** Reads a log step by step in a worker: opened, looked at, read, compared. Whatever is under way can be called off. */
export function useLog() {
  const reader = useRef<LogReader | null>(null);
  const round = useRef(0);
  const [log, setLog] = useState<OpenLog | null>(null);
  const [busy, setBusy] = useState<LogBusy>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => () => reader.current?.end(), []);

  /** Does one thing; what was called off meanwhile changes nothing. */
  const during = useCallback(async (words: string, work: (still: () => boolean) => Promise<void>) => {
    round.current += 1;
    const own = round.current;
    const still = () => own === round.current;
    setBusy({ words, part: null });
    setTrouble(null);
    try {
      await work(still);
    } catch (error) {
      if (still()) setTrouble((error as Error).message);
    }
    if (still()) setBusy(null);
  }, []);

  const fresh = () => {
    reader.current?.end();
    reader.current = openLogReader();
    return reader.current.service;
  };

  return {
    log,
    busy,
    trouble,
    open: (file: File, kept: LogMapping | null, zone: string) =>
      during('Opens the log', async (still) => {
        if (file.size > largest) throw new Error('This file is larger than 64 MB. Pick the machine’s log.');
        const service = fresh();
        const opened = await service.open(await file.arrayBuffer(), kept, zone);
        const preview = opened.mapping && (await service.preview(opened.mapping, null));
        if (!still()) return;
        if (!opened.mapping)
          setTrouble(
            'No losses are found in this file. Pick the log of a splicing machine: a table as CSV, TSV, JSON lines or with fixed columns.',
          );
        setLog({
          name: file.name,
          mapping: opened.mapping,
          fromLink: false,
          kept: opened.kept,
          encodingCertain: opened.certain,
          preview,
          read: null,
          matched: null,
        });
      }),
    /** The memory of a linked machine. */
    take: (name: string, rows: () => Promise<readonly LogRow[]>) =>
      during('Reads the machine’s memory', async (still) => {
        const service = fresh();
        const read = await service.take(await rows());
        if (still())
          setLog({
            name,
            mapping: null,
            fromLink: true,
            kept: false,
            encodingCertain: true,
            preview: null,
            read,
            matched: null,
          });
      }),
    change: (mapping: LogMapping, firstDay: string | null) =>
      during('Looks at it', async (still) => {
        const preview = await reader.current!.service.preview(mapping, firstDay);
        if (still()) setLog((before) => before && { ...before, mapping, preview, read: null, matched: null });
      }),
    read: (mapping: LogMapping, firstDay: string | null) =>
      during('Reads the log', async (still) => {
        const read = await reader.current!.service.read(
          mapping,
          firstDay,
          toldBy((part: number) => {
            if (still()) setBusy({ words: 'Reads the log', part });
          }),
        );
        if (still()) setLog((before) => before && { ...before, read, matched: null });
      }),
    match: (targets: readonly MatchTarget[], by: MatchBy, from: string | null) =>
      during('Compares', async (still) => {
        const matched = await reader.current!.service.match(targets, { by, from });
        if (still()) setLog((before) => before && { ...before, matched });
      }),
    /** Ends what is under way, and puts the log away. */
    cancel: () => {
      round.current += 1;
      reader.current?.end();
      reader.current = null;
      setBusy(null);
      setTrouble(null);
      setLog(null);
    },
  };
}
