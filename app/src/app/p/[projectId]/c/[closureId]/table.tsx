import { useLocalSearchParams } from 'expo-router';
import { TableScreen } from '../../../../../features/plan/models/TableScreen';

export default function TableRoute() {
  return <TableScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
