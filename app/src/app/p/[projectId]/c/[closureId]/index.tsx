import { useLocalSearchParams } from 'expo-router';
import { ClosureScreen } from '../../../../../features/plan/ClosureScreen';

export default function ClosureRoute() {
  return <ClosureScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
