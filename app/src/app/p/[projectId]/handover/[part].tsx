import { useLocalSearchParams } from 'expo-router';
import { HandoverScreen } from '../../../../features/handover/HandoverScreen';

export default function HandoverRoute() {
  return (
    <HandoverScreen {...useLocalSearchParams<{ projectId: string; part: string; closure?: string }>()} />
  );
}
