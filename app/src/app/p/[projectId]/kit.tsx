import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../ui/later';

const KitScreen = later('the page', async () => (await import('../../../features/fetchedLater')).KitScreen);

export default function KitRoute() {
  return <KitScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
