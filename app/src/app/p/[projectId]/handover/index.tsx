import { Redirect, useLocalSearchParams } from 'expo-router';
import { places } from '../../../../shell/places';

/** The address without a part leads to what stands against acceptance. */
export default function HandoverIndex() {
  const { projectId } = useLocalSearchParams<{ projectId: string }>();
  return <Redirect href={places.handover(projectId)} />;
}
