import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../../ui/later';

const BeforeScreen = later(
  'the page',
  async () => (await import('../../../../../../features/fetchedLater')).BeforeScreen,
);

export default function BeforeRoute() {
  return <BeforeScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
