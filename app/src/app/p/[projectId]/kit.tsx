import { useLocalSearchParams } from 'expo-router';
import { KitScreen } from '../../../features/kit/KitScreen';

export default function KitRoute() {
  return <KitScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
