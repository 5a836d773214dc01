import { useLocalSearchParams } from 'expo-router';
import { MeasureScreen } from '../../../../../../forms';

export default function MeasureRoute() {
  const { tray, slot, fiber, ...ids } = useLocalSearchParams<{
    projectId: string;
    closureId: string;
    tray: string;
    slot?: string;
    fiber?: string;
  }>();
  return (
    <MeasureScreen
      {...ids}
      tray={Number(tray)}
      slot={slot === undefined ? null : Number(slot)}
      position={fiber === undefined ? null : Number(fiber)}
    />
  );
}
