import { StyleSheet, View } from 'react-native';
import { ProblemError } from '../data/api';
import { Sheet } from '../ui/Sheet';
import { space } from '../ui/tokens';
import { Type } from '../ui/Type';

/** A file that the server did not take: why, and every place in it that is wrong. */
export function FileRefused({
  title,
  error,
  onClose,
}: {
  title: string;
  error: Error | null;
  onClose: () => void;
}) {
  const errors = error instanceof ProblemError ? (error.problem.errors ?? []) : [];
  return (
    <Sheet title={title} open={error !== null} onClose={onClose}>
      <Type role="alert">{error?.message ?? ''}</Type>
      {errors.length > 1 ? (
        <View style={styles.errors}>
          {errors.map((one, index) => (
            <Type key={index} look="small">
              {one.path}: {one.message}
            </Type>
          ))}
        </View>
      ) : null}
    </Sheet>
  );
}

const styles = StyleSheet.create({ errors: { gap: space.small } });
