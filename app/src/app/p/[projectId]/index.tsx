import { useLocalSearchParams } from 'expo-router';
import { LineScreen } from '../../../features/line/LineScreen';

export default function LineRoute() {
  return <LineScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
