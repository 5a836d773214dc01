import { useLocalSearchParams } from 'expo-router';
import { CableScreen } from '../../../../../features/line/cables/CableScreen';

export default function CableRoute() {
  return <CableScreen {...useLocalSearchParams<{ projectId: string; cableId: string }>()} />;
}
