import { useLocalSearchParams } from 'expo-router';
import { SealsScreen } from '../../../../../../features/prepare/seals/SealsScreen';

export default function SealsRoute() {
  return <SealsScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
