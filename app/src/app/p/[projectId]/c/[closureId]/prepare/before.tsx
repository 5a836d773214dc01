import { useLocalSearchParams } from 'expo-router';
import { BeforeScreen } from '../../../../../../features/prepare/steps/BeforeScreen';

export default function BeforeRoute() {
  return <BeforeScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
