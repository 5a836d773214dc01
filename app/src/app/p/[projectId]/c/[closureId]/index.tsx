import { useLocalSearchParams } from 'expo-router';
import { ClosureScreen } from '../../../../../features/plan/trays/ClosureScreen';

export default function ClosureRoute() {
  return <ClosureScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
