import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../../../../../ui/later';

const CutSheetScreen = later(
  'the page',
  async () => (await import('../../../../../../../features/prepare/pages')).CutSheetScreen,
);

export default function CutSheetRoute() {
  return (
    <CutSheetScreen {...useLocalSearchParams<{ projectId: string; closureId: string; cableId: string }>()} />
  );
}
