import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../ui/later';

const SettingsScreen = later(
  'the page',
  async () => (await import('../../../features/fetchedLater')).SettingsScreen,
);

export default function SettingsRoute() {
  return <SettingsScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
