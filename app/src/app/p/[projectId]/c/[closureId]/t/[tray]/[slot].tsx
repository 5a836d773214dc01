import { useLocalSearchParams } from 'expo-router';
import { BenchScreen } from '../../../../../../../features/splice/bench/BenchScreen';

export default function BenchRoute() {
  const { tray, slot, ...ids } = useLocalSearchParams<{
    projectId: string;
    closureId: string;
    tray: string;
    slot: string;
  }>();
  return <BenchScreen {...ids} tray={Number(tray)} slot={Number(slot)} />;
}
