import {
  beginOf,
  cellsOf,
  decodeLog,
  guessEncoding,
  logOfMemory,
  mappingFits,
  matchLog,
  proposeMapping,
  readLog,
  type Encoding,
  type LogFinding,
  type LogMapping,
  type LogMatching,
  type LogRow,
  type LogSplice,
  type MatchBy,
  type MatchTarget,
} from '@cordel/core/machine';

/** So many findings are told; how many there are is told with them. */
const mostFindings = 200;
const shownRows = 10;

export interface OpenedLog {
  /** false: the text may be written in another encoding; a person who sees it can tell. */
  readonly certain: boolean;
  /** null: no mapping could be proposed. */
  readonly mapping: LogMapping | null;
  /** It is read as this machine's log was read before. */
  readonly kept: boolean;
}

export interface LogPreview {
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
  readonly splices: readonly LogSplice[];
  readonly findings: readonly LogFinding[];
}

export interface LogRead {
  readonly count: number;
  readonly findings: readonly LogFinding[];
  readonly findingsCount: number;
  /** Times of the first and the last splice that has one, ms since 1970. */
  readonly span: readonly [number, number] | null;
}

/** What a page asks of the worker that reads logs. */
export interface LogService {
  open(bytes: ArrayBuffer, kept: LogMapping | null, zone: string): OpenedLog;
  /** Proposes anew for an encoding that a person chose. */
  propose(encoding: Encoding, zone: string): LogMapping | null;
  preview(mapping: LogMapping, firstDay: string | null): LogPreview;
  read(mapping: LogMapping, firstDay: string | null, onProgress: (part: number) => void): LogRead;
  /** A linked machine's memory, in place of a file. */
  take(rows: readonly LogRow[]): LogRead;
  match(
    targets: readonly MatchTarget[],
    how: { readonly by: MatchBy; readonly from: string | null },
  ): { readonly matching: LogMatching; readonly log: readonly LogSplice[] };
}

export function logService(): LogService {
  let bytes = new Uint8Array();
  let text = { encoding: '' as Encoding | '', text: '' };
  let log: readonly LogSplice[] = [];
  const textIn = (encoding: Encoding) => {
    if (text.encoding !== encoding) text = { encoding, text: decodeLog(bytes, encoding) };
    return text.text;
  };
  const told = (splices: readonly LogSplice[], findings: readonly LogFinding[]): LogRead => {
    log = splices;
    const times = splices.flatMap(({ at }) => at ?? []);
    return {
      count: splices.length,
      findings: findings.slice(0, mostFindings),
      findingsCount: findings.length,
      span:
        times.length === 0
          ? null
          : [times.reduce((a, b) => Math.min(a, b)), times.reduce((a, b) => Math.max(a, b))],
    };
  };
  return {
    open(given, kept, zone) {
      bytes = new Uint8Array(given);
      text = { encoding: '', text: '' };
      const { encoding, certain } = guessEncoding(bytes);
      const own = kept && { ...kept, encoding: certain ? encoding : kept.encoding };
      if (own && mappingFits(textIn(own.encoding), own)) return { certain: true, mapping: own, kept: true };
      return { certain, mapping: proposeMapping(textIn(encoding), encoding, zone), kept: false };
    },
    propose: (encoding, zone) => proposeMapping(textIn(encoding), encoding, zone),
    preview(mapping, firstDay) {
      const table = cellsOf(beginOf(textIn(mapping.encoding)), mapping);
      const { splices, findings } = readLog(
        { ...table, rows: table.rows.slice(0, 240), broken: [] },
        mapping,
        firstDay,
      );
      return {
        rows: table.rows.slice(0, shownRows),
        splices: splices.slice(0, shownRows),
        findings: findings.slice(0, shownRows),
      };
    },
    read(mapping, firstDay, onProgress) {
      onProgress(0);
      const table = cellsOf(textIn(mapping.encoding), mapping);
      onProgress(0.4);
      const { splices, findings } = readLog(table, mapping, firstDay, (part) => onProgress(0.4 + 0.6 * part));
      return told(splices, findings);
    },
    take: (rows) => told(logOfMemory(rows), []),
    match: (targets, how) => ({ matching: matchLog(log, targets, how), log }),
  };
}
