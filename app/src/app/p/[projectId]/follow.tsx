import { useLocalSearchParams } from 'expo-router';
import { later } from '../../../ui/later';

const FollowScreen = later(
  'the page',
  async () => (await import('../../../features/fetchedLater')).FollowScreen,
);

export default function FollowRoute() {
  return <FollowScreen {...useLocalSearchParams<{ projectId: string }>()} />;
}
