import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../ui/later';

const PlanScreen = later(
  'the page',
  async () => (await import('../../../../../features/fetchedLater')).PlanScreen,
);

export default function PlanRoute() {
  return <PlanScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
