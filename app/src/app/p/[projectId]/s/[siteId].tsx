import { useLocalSearchParams } from 'expo-router';
import { SiteScreen } from '../../../../features/line/route/SiteScreen';

export default function SiteRoute() {
  return <SiteScreen {...useLocalSearchParams<{ projectId: string; siteId: string }>()} />;
}
