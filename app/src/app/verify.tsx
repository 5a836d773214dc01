import { useLocalSearchParams } from 'expo-router';
import { VerifyScreen } from '../features/handover/VerifyScreen';

export default function VerifyRoute() {
  const { sha256 } = useLocalSearchParams<{ sha256?: string }>();
  return <VerifyScreen given={sha256 ?? ''} />;
}
