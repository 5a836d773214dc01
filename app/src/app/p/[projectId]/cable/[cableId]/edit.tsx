import { useLocalSearchParams } from 'expo-router';
import { CableFormScreen } from '../../../../../features/line/cables/CableFormScreen';

export default function CableFormRoute() {
  return <CableFormScreen {...useLocalSearchParams<{ projectId: string; cableId: string }>()} />;
}
