import { useLocalSearchParams } from 'expo-router';
import { later } from '../../ui/later';

const ModelScreen = later('the page', async () => (await import('../../features/fetchedLater')).ModelScreen);

export default function ModelRoute() {
  return <ModelScreen {...useLocalSearchParams<{ modelId: string }>()} />;
}
