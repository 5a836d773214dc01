import { useLocalSearchParams } from 'expo-router';
import { PlanScreen } from '../../../../../features/plan/order/PlanScreen';

export default function PlanRoute() {
  return <PlanScreen {...useLocalSearchParams<{ projectId: string; closureId: string }>()} />;
}
