import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../../ui/later';

const SealsScreen = later(
  'the page',
  async () => (await import('../../../../../../features/fetchedLater')).SealsScreen,
);

export default function SealsRoute() {
  return <SealsScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
