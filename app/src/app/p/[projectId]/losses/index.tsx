import { useLocalSearchParams } from 'expo-router';
import { LossesScreen } from '../../../../features/handover/LossesScreen';

export default function LossesRoute() {
  return <LossesScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
