/**
 * An expected problem, told as a value: what is wrong, where, and what to do.
 * `code` is stable and for programs; `message` is for the technician.
 */
export interface Finding {
  readonly code: string;
  readonly severity: 'error' | 'warning';
  /** The place in the user's own terms, e.g. "order line 2" or "tray 3". */
  readonly where: string;
  readonly message: string;
}
