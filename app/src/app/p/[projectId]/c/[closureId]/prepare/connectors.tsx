import { useLocalSearchParams } from 'expo-router';
import { ConnectorsScreen } from '../../../../../../features/prepare/connectors/ConnectorsScreen';

export default function ConnectorsRoute() {
  return <ConnectorsScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
