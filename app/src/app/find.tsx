import { useLocalSearchParams } from 'expo-router';
import { FindScreen } from '../features/handover/FindScreen';

export default function FindRoute() {
  return <FindScreen {...useLocalSearchParams<{ project?: string; q?: string }>()} />;
}
