import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../ui/later';

const LossesScreen = later(
  'the page',
  async () => (await import('../../../features/fetchedLater')).LossesScreen,
);

export default function LossesRoute() {
  return <LossesScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
