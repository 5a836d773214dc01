import { useLocalSearchParams } from 'expo-router';
import { GearFormScreen } from '../../features/gear/GearFormScreen';

export default function GearItemRoute() {
  return <GearFormScreen {...useLocalSearchParams<{ gearId: string; kind?: string }>()} />;
}
