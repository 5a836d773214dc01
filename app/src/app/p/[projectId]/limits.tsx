import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../ui/later';

const LimitsScreen = later(
  'the page',
  async () => (await import('../../../features/fetchedLater')).LimitsScreen,
);

export default function LimitsRoute() {
  return <LimitsScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
