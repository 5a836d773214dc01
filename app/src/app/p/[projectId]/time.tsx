import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../ui/later';

const TimeScreen = later(
  'the page',
  async () => (await import('../../../features/prepare/pages')).TimeScreen,
);

export default function TimeRoute() {
  return <TimeScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
