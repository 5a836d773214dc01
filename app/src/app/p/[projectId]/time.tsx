import { useLocalSearchParams } from 'expo-router';
import { TimeScreen } from '../../../features/prepare/time/TimeScreen';

export default function TimeRoute() {
  return <TimeScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
