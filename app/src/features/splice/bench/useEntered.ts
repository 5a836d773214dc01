import { useState } from 'react';
import { z } from 'zod';
import { forget, keep, recall } from '../../../data/stored';
import type { Details } from './types';

const noDetails: Details = {
  before: [],
  note: '',
  proofTestFailed: false,
  sleeveForgotten: false,
  sleeveConfirmed: false,
};

interface Entered {
  readonly losses: readonly number[];
  readonly details: Details;
}
const nothing: Entered = { losses: [], details: noDetails };

const seen = z.number().nullable();
const keptSchema = z.object({
  for: z.string(),
  losses: z.array(z.number()).readonly(),
  details: z.object({
    before: z
      .array(
        z
          .object({ cleaveLeft: seen, cleaveRight: seen, offset: seen, gap: seen })
          .nullable()
          .transform((one) => one ?? undefined),
      )
      .readonly(),
    note: z.string(),
    proofTestFailed: z.boolean(),
    sleeveForgotten: z.boolean(),
    sleeveConfirmed: z.boolean(),
  }),
});
const key = 'bench-entered';

function recalled(): { readonly for: string } & Entered {
  const read = keptSchema.safeParse(recall(key));
  return read.success ? read.data : { for: '', ...nothing };
}

/**
 * What was entered for the try that is being made, and is not on record yet: losses of a ribbon's first fibers, what was seen before the arc. It survives the page: a
 * phone that was locked, or a newer Cordel, comes back with it. Of another try it is gone.
 * @param tryId which try: of which splice, after how many records
 */
export function useEntered(tryId: string) {
  const [entered, setEntered] = useState(recalled);
  const now: Entered = entered.for === tryId ? entered : nothing;
  const set = (next: Entered) => {
    setEntered({ for: tryId, ...next });
    try {
      // Most taps are a whole reading: then nothing was kept.
      if (next !== nothing) keep(key, { for: tryId, ...next });
      else if (now !== nothing) forget(key);
    } catch {
      // With no room it lives as long as the page.
    }
  };
  return {
    losses: now.losses,
    details: now.details,
    setLosses: (losses: readonly number[]) => set({ ...now, losses }),
    setDetails: (details: Details) => set({ ...now, details }),
    clear: () => set(nothing),
    /** As it was when this was handed out. */
    putBack: () => set(now),
  };
}
