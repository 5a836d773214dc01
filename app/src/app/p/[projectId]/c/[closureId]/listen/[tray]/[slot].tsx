import { useLocalSearchParams } from 'expo-router';
import { ListenScreen } from '../../../../../../../features/splice/listen/ListenScreen';

export default function ListenRoute() {
  const { tray, slot, ...ids } = useLocalSearchParams<{
    projectId: string;
    closureId: string;
    tray: string;
    slot: string;
  }>();
  return <ListenScreen {...ids} tray={Number(tray)} slot={Number(slot)} />;
}
