import QRCode from 'qrcode';
import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';

/** A QR code: dark on light by day and by night, since a camera wants it so, with the quiet border that the standard asks for. */
export function QrCode({ text, spoken, side }: { text: string; spoken: string; side: number }) {
  const { path, size } = useMemo(() => {
    const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
    let all = '';
    for (let row = 0; row < modules.size; row += 1)
      for (let column = 0; column < modules.size; column += 1)
        if (modules.get(row, column)) all += `M${column + 4} ${row + 4}h1v1h-1z`;
    return { path: all, size: modules.size + 8 };
  }, [text]);
  return (
    <View role="img" aria-label={spoken} style={[styles.paper, { width: side, height: side }]}>
      <Svg width={side} height={side} viewBox={`0 0 ${size} ${size}`}>
        <Path d={path} fill={dark} />
      </Svg>
    </View>
  );
}

const dark = '#000000';
const styles = StyleSheet.create({ paper: { backgroundColor: '#FFFFFF' } });
