import { router } from 'expo-router';
import { places } from '../shell/places';
import { Action } from '../ui/Action';
import { Screen } from '../shell/frame/Screen';
import { Empty } from '../ui/States';

export default function NotFound() {
  return (
    <Screen title="Nothing here" up={{ href: places.shelf, name: 'the shelf' }}>
      <Empty
        title="There is no page at this address"
        text="The link may be mistyped or from another project."
      >
        <Action label="To the shelf" onPress={() => router.replace(places.shelf)} />
      </Empty>
    </Screen>
  );
}
