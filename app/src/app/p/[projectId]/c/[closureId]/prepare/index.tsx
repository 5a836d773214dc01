import { useLocalSearchParams } from 'expo-router';
import { PrepareScreen } from '../../../../../../features/prepare/PrepareScreen';

export default function PrepareRoute() {
  return <PrepareScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
