import { useLocalSearchParams } from 'expo-router';
import { ModelScreen } from '../../features/plan/models/ModelScreen';

export default function ModelRoute() {
  return <ModelScreen {...useLocalSearchParams<{ modelId: string }>()} />;
}
