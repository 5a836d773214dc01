import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../ui/later';

const TableScreen = later(
  'the page',
  async () => (await import('../../../../../features/fetchedLater')).TableScreen,
);

export default function TableRoute() {
  return <TableScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
