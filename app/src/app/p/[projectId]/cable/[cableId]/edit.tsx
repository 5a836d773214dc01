import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../ui/later';

const CableFormScreen = later(
  'the page',
  async () => (await import('../../../../../features/fetchedLater')).CableFormScreen,
);

export default function CableFormRoute() {
  return <CableFormScreen {...useLocalSearchParams<{ projectId: string; cableId: string }>()} />;
}
