import { useLocalSearchParams } from 'expo-router';
import { CutSheetScreen } from '../../../../../../../features/prepare/cut/CutSheetScreen';

export default function CutSheetRoute() {
  return (
    <CutSheetScreen {...useLocalSearchParams<{ projectId: string; closureId: string; cableId: string }>()} />
  );
}
