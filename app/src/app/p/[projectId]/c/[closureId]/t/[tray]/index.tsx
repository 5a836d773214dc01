import { useLocalSearchParams } from 'expo-router';
import { TrayScreen } from '../../../../../../../features/splice/record/TrayScreen';

export default function TrayRoute() {
  const { tray, ...ids } = useLocalSearchParams<{ projectId: string; closureId: string; tray: string }>();
  return <TrayScreen {...ids} tray={Number(tray)} />;
}
