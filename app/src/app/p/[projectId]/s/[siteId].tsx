import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../ui/later';

const SiteScreen = later(
  'the page',
  async () => (await import('../../../../features/fetchedLater')).SiteScreen,
);

export default function SiteRoute() {
  return <SiteScreen {...useLocalSearchParams<{ projectId: string; siteId: string }>()} />;
}
