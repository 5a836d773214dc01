import { useLocalSearchParams } from 'expo-router';
import { StepsScreen } from '../../../../../../../features/prepare/steps/StepsScreen';

export default function StepsRoute() {
  return (
    <StepsScreen {...useLocalSearchParams<{ projectId: string; closureId: string; cableId: string }>()} />
  );
}
