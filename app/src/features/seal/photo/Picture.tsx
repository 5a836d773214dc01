import { useQuery } from '@tanstack/react-query';
import { useCallback } from 'react';
import { StyleSheet, View } from 'react-native';
import { engine } from '../../../sync/here';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

interface PictureProps {
  projectId: string;
  /** Of the photo. */
  id: string;
  /** For a screen reader; "" where the words beside it say it. */
  alt: string;
  size: 'whole' | 'small';
}

/** The picture of a photo, from this device where it is, else from the server. */
export function Picture({ projectId, id, alt, size }: PictureProps) {
  const { palette } = useCordelTheme();
  const { data, error } = useQuery({
    queryKey: ['picture', projectId, id, size],
    queryFn: () => engine().pictures.read(projectId, id, size),
    // It never changes, and it is kept on the disk.
    staleTime: Infinity,
    gcTime: 60_000,
  });
  const shown = useCallback(
    (image: HTMLImageElement | null) => {
      if (!image || !data) return;
      const address = URL.createObjectURL(new Blob([data], { type: 'image/jpeg' }));
      image.src = address;
      return () => URL.revokeObjectURL(address);
    },
    [data],
  );
  const frame = [
    size === 'small' ? styles.small : styles.whole,
    { borderColor: palette.hairline, backgroundColor: palette.ground },
  ];
  if (!data)
    return (
      <View style={frame}>
        <Type look="small" tone="soft" style={styles.words}>
          {error ? 'Not here: it is on the device that took it, or needs the network.' : 'Loading …'}
        </Type>
      </View>
    );
  return (
    <View style={frame}>
      <img
        ref={shown}
        alt={alt}
        style={{ width: '100%', height: '100%', objectFit: size === 'small' ? 'cover' : 'contain' }}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  small: { width: 112, height: 84, borderWidth: stroke.hair, overflow: 'hidden' },
  whole: { width: '100%', aspectRatio: 4 / 3, borderWidth: stroke.hair, overflow: 'hidden' },
  words: { padding: space.tight },
});
