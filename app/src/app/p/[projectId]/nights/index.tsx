import { useLocalSearchParams } from 'expo-router';
import { NightsScreen } from '../../../../features/nights/NightsScreen';

/** The night that is looked at stands in the address. */
export default function NightsRoute() {
  return <NightsScreen {...useLocalSearchParams<{ projectId: string; night?: string }>()} />;
}
