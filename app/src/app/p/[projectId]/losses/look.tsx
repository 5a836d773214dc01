import { useLocalSearchParams } from 'expo-router';
import { LookScreen } from '../../../../features/losses/LookScreen';

export default function LookRoute() {
  const { projectId } = useLocalSearchParams<{ projectId: string }>();
  return <LookScreen projectId={projectId} />;
}
