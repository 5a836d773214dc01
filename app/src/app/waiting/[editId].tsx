import { useLocalSearchParams } from 'expo-router';
import { DecideScreen } from '../../features/waiting/DecideScreen';

export default function DecideRoute() {
  return <DecideScreen {...useLocalSearchParams<{ editId: string }>()} />;
}
