import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../ui/later';

const TimeScreen = later('the page', async () => (await import('../../../features/fetchedLater')).TimeScreen);

export default function TimeRoute() {
  return <TimeScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
