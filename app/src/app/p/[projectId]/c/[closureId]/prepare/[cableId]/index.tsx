import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../../../ui/later';

const CutSheetScreen = later(
  'the page',
  async () => (await import('../../../../../../../features/fetchedLater')).CutSheetScreen,
);

export default function CutSheetRoute() {
  return (
    <CutSheetScreen {...useLocalSearchParams<{ projectId: string; closureId: string; cableId: string }>()} />
  );
}
