import { useLocalSearchParams } from 'expo-router';
import { later } from '../../ui/later';

const GearFormScreen = later(
  'the page',
  async () => (await import('../../features/fetchedLater')).GearFormScreen,
);

export default function GearItemRoute() {
  return <GearFormScreen {...useLocalSearchParams<{ gearId: string; kind?: string }>()} />;
}
