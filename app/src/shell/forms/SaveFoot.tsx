import { StyleSheet, View } from 'react-native';
import { Action } from '../../ui/Action';
import { space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { OvertakenNotice } from './OvertakenNotice';

interface SaveFootProps {
  label: string;
  saving: boolean;
  /** Why the last try was not stored. */
  error: Error | null;
  /** What is still wrong with what was entered, before it is sent. */
  trouble?: string | undefined;
  onSave: () => void;
  /** Somebody else saved since the editing began. */
  newer: boolean;
  /** Offered where somebody else saved. */
  onNewer: () => void;
}

/** The foot of a form: what keeps it from being saved, and the one action. */
export function SaveFoot({ label, saving, error, trouble, onSave, newer, onNewer }: SaveFootProps) {
  return (
    <View style={styles.foot}>
      {error ? (
        <OvertakenNotice error={error} onNewer={onNewer} />
      ) : newer ? (
        <View role="status" style={styles.error}>
          <Type>Somebody else saved this meanwhile. What you typed is still here.</Type>
          <Action label="Show the newer one" onPress={onNewer} />
        </View>
      ) : trouble ? (
        <Type tone="accent" role="alert">
          Not saved yet: {trouble}
        </Type>
      ) : null}
      <Action bench kind="now" label={saving ? 'Saving …' : label} disabled={saving} onPress={onSave} />
    </View>
  );
}

const styles = StyleSheet.create({
  foot: { padding: space.small, gap: space.small },
  error: { gap: space.tight },
});
