import { useLocalSearchParams } from 'expo-router';
import { LineScreen } from '../../../features/line/route/LineScreen';

export default function LineRoute() {
  return <LineScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
