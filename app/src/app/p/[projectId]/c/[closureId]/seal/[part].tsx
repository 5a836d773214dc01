import { useLocalSearchParams } from 'expo-router';
import { SealScreen } from '../../../../../../features/seal/SealScreen';

export default function SealRoute() {
  return <SealScreen {...useLocalSearchParams<{ projectId: string; closureId: string; part: string }>()} />;
}
