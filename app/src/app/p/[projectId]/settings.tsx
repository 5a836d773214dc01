import { useLocalSearchParams } from 'expo-router';
import { SettingsScreen } from '../../../features/line/route/SettingsScreen';

export default function SettingsRoute() {
  return <SettingsScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
