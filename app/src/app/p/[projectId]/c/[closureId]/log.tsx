import { useLocalSearchParams } from 'expo-router';
import { LogScreen } from '../../../../../features/splice/log/LogScreen';

export default function LogRoute() {
  return <LogScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
