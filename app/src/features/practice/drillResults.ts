import { drillCables } from '@cordel/core/practice';
import { z } from 'zod';
import { storedValue } from '../../data/stored';

const resultSchema = z.object({
  /** ms since 1970 */
  at: z.number(),
  cables: z.enum(drillCables),
  scheme: z.string(),
  right: z.number(),
  of: z.number(),
  seconds: z.number().nullable(),
});
export type DrillResult = z.infer<typeof resultSchema>;

/** Rounds that are remembered, the latest first. */
const most = 20;

/** What came of the rounds on this device. */
export const drillResults = storedValue<DrillResult[]>('drill-results', z.array(resultSchema), []);

export function rememberDrill(result: DrillResult): void {
  drillResults.set([result, ...drillResults.get()].slice(0, most));
}

/** How somebody practised the last time. */
export const drillChoice = storedValue(
  'drill-choice',
  z.object({ cables: z.enum(drillCables), scheme: z.string() }),
  { cables: 'loose' as const, scheme: 'tia-598-d' } as {
    cables: (typeof drillCables)[number];
    scheme: string;
  },
);
