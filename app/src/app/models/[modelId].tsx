import { useLocalSearchParams } from 'expo-router';
import { ModelScreen } from '../../forms';

export default function ModelRoute() {
  return <ModelScreen {...useLocalSearchParams<{ modelId: string }>()} />;
}
