import { StyleSheet, View } from 'react-native';
import { Action } from '../../../../ui/Action';
import { Caution } from '../../../../ui/Caution';
import { space } from '../../../../ui/tokens';
import { Type } from '../../../../ui/Type';

/** A mechanical connector shows no loss: a visible light source tells whether its fiber is seated. */
export function LightPad({ onLight }: { onLight: (light: 'dark' | 'glows') => void }) {
  return (
    <View style={styles.pad}>
      <Type look="strong">Visible light in at the other end: what does the connector’s body do?</Type>
      <Caution text="Never look into a fiber end. Be sure that the fiber is not live before a source is connected; the owner’s rules come first." />
      <View style={styles.row}>
        <Action bench kind="now" label="Stays dark" onPress={() => onLight('dark')} style={styles.key} />
        <Action bench label="It glows" onPress={() => onLight('glows')} style={styles.key} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  pad: { gap: space.small, padding: space.tight },
  row: { flexDirection: 'row', gap: space.small },
  key: { flex: 1, minHeight: 72 },
});
