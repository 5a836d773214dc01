import { useLocalSearchParams } from 'expo-router';
import { FollowScreen } from '../../../features/plan/follow/FollowScreen';

export default function FollowRoute() {
  return <FollowScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
