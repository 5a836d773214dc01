import { nightIds } from '@cordel/core/nightNames';
import { Redirect, useLocalSearchParams } from 'expo-router';
import { NightScreen } from '../../features/practice/nights/NightScreen';
import { places } from '../../shell/places';

export default function NightRoute() {
  const { night } = useLocalSearchParams<{ night: string }>();
  const id = nightIds.find((one) => one === night);
  return id === undefined ? <Redirect href={places.practice} /> : <NightScreen key={id} id={id} />;
}
