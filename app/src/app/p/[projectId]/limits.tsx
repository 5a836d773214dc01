import { useLocalSearchParams } from 'expo-router';
import { LimitsScreen } from '../../../forms';

export default function LimitsRoute() {
  return <LimitsScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
