/** This was written in 2026: a clock that shows an earlier year was never set. */
const earliest = Date.UTC(2026, 0, 1);

/** The server's clock, and whether it can be right. */
export interface Clock {
  now(): Date;
  /** ms since 1970; null where it shows a time that cannot be, so that nothing is judged by it. */
  trusted(): number | null;
}

export function clockOf(now: () => Date): Clock {
  return {
    now,
    trusted() {
      const at = now().getTime();
      return at < earliest ? null : at;
    },
  };
}
