import type { PhotoOf } from '@cordel/core';
import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Trouble } from '../../../ui/Trouble';
import { space } from '../../../ui/tokens';
import type { Sealing } from '../useSeal';
import { NoPhoto, photoOf } from './photoOf';

/** What can be read everywhere. Named, so that phones which keep another kind hand over a JPEG. */
const accept = 'image/jpeg,image/png,image/webp';

/** Takes photos with the camera, or those that are on the device already. */
export function AddPhotos({
  seal,
  of,
  title,
}: {
  seal: Pick<Sealing, 'takePhoto'>;
  of: PhotoOf;
  /** What they show. */
  title: string;
}) {
  const camera = useRef<HTMLInputElement>(null);
  const files = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const [troubles, setTroubles] = useState<readonly string[]>([]);
  const kept = async (file: File) => seal.takePhoto(of, await photoOf(file));
  const take = async (chosen: readonly File[]) => {
    const wrong: string[] = [];
    for (const [index, file] of chosen.entries()) {
      setBusy(chosen.length > 1 ? `Keeping ${index + 1} of ${chosen.length} …` : 'Keeping …');
      const trouble = await kept(file).catch((error: unknown) =>
        error instanceof NoPhoto
          ? error.message
          : 'This device could not make a picture of it. Close other pages, and take it again.',
      );
      if (trouble !== null) wrong.push(`${file.name}: ${trouble}`);
    }
    setBusy(null);
    setTroubles(wrong);
  };
  const picked = (event: { target: HTMLInputElement }) => {
    const chosen = [...(event.target.files ?? [])];
    // The same one can be picked again.
    event.target.value = '';
    void take(chosen);
  };
  return (
    <View style={styles.whole}>
      <View style={styles.keys}>
        <Action
          bench
          icon="camera"
          label={busy ?? 'Photo'}
          spoken={`${busy ?? 'Photo'}: ${title}`}
          disabled={busy !== null}
          onPress={() => camera.current?.click()}
        />
        <Action
          bench
          icon="upload"
          label="Attach photos"
          spoken={`Attach photos: ${title}`}
          disabled={busy !== null}
          onPress={() => files.current?.click()}
        />
      </View>
      <input
        ref={camera}
        type="file"
        accept={accept}
        capture="environment"
        aria-label={`Photo of ${title}`}
        style={{ display: 'none' }}
        onChange={picked}
      />
      <input
        ref={files}
        type="file"
        multiple
        accept={accept}
        aria-label={`Photos of ${title}`}
        style={{ display: 'none' }}
        onChange={picked}
      />
      {troubles.map((one) => (
        <Trouble key={one} text={one} />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  whole: { gap: space.small },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
