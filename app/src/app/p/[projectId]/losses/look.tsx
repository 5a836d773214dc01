import { facets, type LossFilter } from '@cordel/core/losses';
import { useLocalSearchParams } from 'expo-router';
import { LookScreen } from '../../../../features/losses/LookScreen';

/** What is looked at stands in the address, so that it can be kept, handed on and gone back to. */
export default function LookRoute() {
  const { projectId, of, ...params } = useLocalSearchParams<{ projectId: string; of?: string }>();
  const filter: LossFilter = Object.fromEntries(
    facets.flatMap((facet) => {
      const value = (params as Readonly<Record<string, unknown>>)[facet];
      return typeof value === 'string' && value !== '' ? [[facet, value]] : [];
    }),
  );
  return <LookScreen projectId={projectId} filter={filter} measured={of === 'measured'} />;
}
