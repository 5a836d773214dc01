import { Redirect, useLocalSearchParams } from 'expo-router';
import { places } from '../../../../../../shell/places';

/** The address without a part leads to the overview. */
export default function SealIndex() {
  const { projectId, closureId } = useLocalSearchParams<{ projectId: string; closureId: string }>();
  return <Redirect href={places.seal(projectId, closureId)} />;
}
