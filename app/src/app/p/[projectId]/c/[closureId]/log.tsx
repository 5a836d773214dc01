import { useLocalSearchParams } from 'expo-router';
import { LogScreen } from '../../../../../features/splice/log/LogScreen';

export default function LogRoute() {
  const { shared, ...ids } = useLocalSearchParams<{
    projectId: string;
    closureId: string;
    shared?: string;
  }>();
  return <LogScreen {...ids} shared={shared !== undefined} />;
}
