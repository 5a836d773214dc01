import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../ui/later';

const CableScreen = later(
  'the page',
  async () => (await import('../../../../../features/fetchedLater')).CableScreen,
);

export default function CableRoute() {
  return <CableScreen {...useLocalSearchParams<{ projectId: string; cableId: string }>()} />;
}
