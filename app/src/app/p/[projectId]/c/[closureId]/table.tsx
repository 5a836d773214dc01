import { useLocalSearchParams } from 'expo-router';
import { TableScreen } from '../../../../../forms';

export default function TableRoute() {
  return <TableScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
