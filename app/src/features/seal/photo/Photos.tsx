import type { PhotoOf } from '@cordel/core';
import { photoKey, photoWords, type StandingPhoto } from '@cordel/core/seal';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import type { AtHand } from '../../../shell/steps/AtClosure';
import { whoAndWhen } from '../../../shell/steps/tickWords';
import { useEntries } from '../../../sync/react';
import { Action } from '../../../ui/Action';
import { TextBox } from '../../../ui/Field';
import { Sheet } from '../../../ui/Sheet';
import { dayOf } from '../../../ui/times';
import { space, touch } from '../../../ui/tokens';
import { Trouble } from '../../../ui/Trouble';
import { SpokenOnly, Type } from '../../../ui/Type';
import type { Sealing } from '../useSeal';
import { AddPhotos } from './AddPhotos';
import { Picture } from './Picture';

interface PhotosProps {
  atHand: AtHand;
  seal: Sealing;
  of: PhotoOf;
  /** What they show. */
  title: string;
  /** With those of everything else at this closure. */
  all?: boolean;
}

/** The photos of a point of the seal, of a seal under test, or of a closure: to look at, to add, to take out. */
export function Photos({ atHand, seal, of, title, all = false }: PhotosProps) {
  const { units } = atHand.definition.project;
  const [opened, setOpened] = useState<string | null>(null);
  const [removed, setRemoved] = useState<string | null>(null);
  const standing = seal.photos.filter(
    (photo) => !photo.removed && (all || photoKey(photo.of) === photoKey(of)),
  );
  const shows = (photo: StandingPhoto) => photoWords(photo.of, seal.thing, seal.stage, units);
  const at = standing.find(({ id }) => id === opened);
  return (
    <View role="group" aria-label={`Photos: ${title}`} style={styles.whole}>
      {standing.length > 0 ? (
        <View style={styles.grid}>
          {standing.map((photo, index) => {
            const words = [all ? shows(photo) : null, photo.caption].filter(Boolean).join(': ');
            return (
              <Pressable key={photo.id} role="button" onPress={() => setOpened(photo.id)} style={styles.cell}>
                <SpokenOnly text={`Photo ${index + 1} of ${standing.length}${words ? ', ' : ''}`} />
                <Picture projectId={atHand.projectId} id={photo.id} alt="" size="small" />
                {words ? (
                  <Type look="small" numberOfLines={2} style={styles.caption}>
                    {words}
                  </Type>
                ) : null}
              </Pressable>
            );
          })}
        </View>
      ) : null}
      <AddPhotos seal={seal} of={of} title={title} />
      {removed !== null && seal.photos.some((photo) => photo.id === removed && photo.removed) ? (
        <View role="status" style={styles.undo}>
          <Type look="small">The photo is out of the record.</Type>
          <Action
            label="Put it back"
            onPress={() => void seal.photo({ did: 'restored', photoId: removed })}
          />
        </View>
      ) : null}
      {at ? (
        <PhotoSheet
          key={at.id}
          atHand={atHand}
          seal={seal}
          photo={at}
          shows={shows(at)}
          onClose={() => setOpened(null)}
          onRemove={() => {
            setOpened(null);
            setRemoved(at.id);
            void seal.photo({ did: 'removed', photoId: at.id });
          }}
        />
      ) : null}
    </View>
  );
}

/** One photo, large, with its words. */
function PhotoSheet({
  atHand: { projectId, definition },
  seal,
  photo,
  shows,
  onClose,
  onRemove,
}: {
  atHand: AtHand;
  seal: Sealing;
  photo: StandingPhoto;
  shows: string;
  onClose: () => void;
  onRemove: () => void;
}) {
  const { timeZone } = definition.project;
  const [caption, setCaption] = useState(photo.caption);
  const [trouble, setTrouble] = useState<string | null>(null);
  const waits = useEntries().some(({ id }) => id === photo.id);
  const keep = async () =>
    setTrouble(await seal.photo({ did: 'described', photoId: photo.id, caption: caption.trim() }));
  return (
    <Sheet title={shows} open onClose={onClose}>
      <Picture projectId={projectId} id={photo.id} alt={`${shows}. ${photo.caption}`.trim()} size="whole" />
      <Type look="small" tone="soft">
        {[dayOf(photo.madeAt, timeZone), whoAndWhen(photo, timeZone), waits ? 'not on the server yet' : null]
          .filter(Boolean)
          .join(' · ')}
      </Type>
      <TextBox
        bench
        label="What it shows"
        value={caption}
        onChangeText={setCaption}
        onSubmit={() => void keep()}
      />
      {trouble ? <Trouble text={trouble} /> : null}
      {caption.trim() !== photo.caption ? (
        <Action bench kind="now" label="Keep these words" onPress={() => void keep()} />
      ) : null}
      <Action bench label="Take out of the record" onPress={onRemove} />
    </Sheet>
  );
}

const styles = StyleSheet.create({
  whole: { gap: space.small },
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  cell: { width: 112, minHeight: touch.bench },
  caption: { paddingTop: space.tight },
  undo: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.small },
});
