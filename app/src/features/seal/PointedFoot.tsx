import { StyleSheet, View } from 'react-native';
import { Action } from '../../ui/Action';
import { space } from '../../ui/tokens';

/** The action of the moment under the thumb, and the other answer beside it where there is one. */
export function PointedFoot({
  label,
  detail,
  onPress,
  other,
  onOther,
  disabled = false,
}: {
  label: string;
  detail?: string | undefined;
  onPress: () => void;
  other?: string | undefined;
  onOther?: () => void;
  disabled?: boolean;
}) {
  return (
    <View style={styles.foot}>
      {other && onOther ? (
        <Action
          bench
          label={other}
          spoken={detail ? `${other}: ${detail}` : other}
          onPress={onOther}
          style={styles.other}
        />
      ) : null}
      <Action
        bench
        kind="now"
        label={label}
        detail={detail}
        disabled={disabled}
        onPress={onPress}
        style={styles.main}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  foot: { flexDirection: 'row', flexWrap: 'wrap', padding: space.small, gap: space.small },
  other: { flexGrow: 1 },
  main: { flexGrow: 3, flexBasis: 180 },
});
