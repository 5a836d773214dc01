import { proxy, wrap, type Remote } from 'comlink';
import type { LogService } from './logService';

export type { LogPreview, LogRead, OpenedLog } from './logService';

export interface LogReader {
  readonly service: Remote<LogService>;
  /** Ends what is under way: the worker is gone, and a reader is opened anew for the next file. */
  readonly end: () => void;
}

/** Reads machines' logs in a worker of its own, which can be ended in the middle. */
export function openLogReader(): LogReader {
  const thread = new Worker('/log.worker.js', { type: 'module' });
  return { service: wrap<LogService>(thread), end: () => thread.terminate() };
}

/** A function that a worker calls. */
export const toldBy = proxy;
