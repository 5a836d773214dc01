import { useLocalSearchParams } from 'expo-router';
import { CrewSheetScreen } from '../../../../features/nights/sheet/CrewSheetScreen';

export default function CrewSheetRoute() {
  return (
    <CrewSheetScreen {...useLocalSearchParams<{ projectId: string; night?: string; crew?: string }>()} />
  );
}
