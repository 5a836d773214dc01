import { useLocalSearchParams } from 'expo-router';
import { LimitsScreen } from '../../../features/limits/LimitsScreen';

export default function LimitsRoute() {
  return <LimitsScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
