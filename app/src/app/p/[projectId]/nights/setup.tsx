import { useLocalSearchParams } from 'expo-router';
import { NightsSetupScreen } from '../../../../features/nights/setup/NightsSetupScreen';

export default function NightsSetupRoute() {
  return <NightsSetupScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
