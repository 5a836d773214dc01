import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../../../ui/later';

const StepsScreen = later(
  'the page',
  async () => (await import('../../../../../../../features/fetchedLater')).StepsScreen,
);

export default function StepsRoute() {
  return (
    <StepsScreen {...useLocalSearchParams<{ projectId: string; closureId: string; cableId: string }>()} />
  );
}
