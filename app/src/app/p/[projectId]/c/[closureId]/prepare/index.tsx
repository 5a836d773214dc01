import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../../ui/later';

const PrepareScreen = later(
  'the page',
  async () => (await import('../../../../../../features/fetchedLater')).PrepareScreen,
);

export default function PrepareRoute() {
  return <PrepareScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
