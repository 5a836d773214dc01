import { fiberOf, formatTape, holdersNamed, type Cable, type Units } from '@cordel/core';
import { cableBendRadius, tubePieces, type CutSheet } from '@cordel/core/prepare';
import { StyleSheet, View } from 'react-native';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** The slack arithmetic: what comes out at the tray, what is needed, and the redos that are left of it. */
export function SlackPart({ sheet, cable, units }: { sheet: CutSheet; cable: Cable; units: Units }) {
  const { palette } = useCordelTheme();
  const { lengths } = sheet;
  if (sheet.units.length === 0) return null;
  const tape = (length: number) => formatTape(length, units);
  const { type } = fiberOf(cable);
  // Tubes that are opened alike have the same slack.
  const alike = new Map<string, (typeof sheet.units)[number][]>();
  for (const one of sheet.units) {
    const key = one.slack.stub.toFixed(3);
    alike.set(key, [...(alike.get(key) ?? []), one]);
  }
  return (
    <View style={[styles.part, { borderTopColor: palette.ink }]}>
      <Type look="heading" role="heading" aria-level={2}>
        Slack
      </Type>
      <Type look="strong">
        {lengths.coils} {lengths.coils === 1 ? 'coil' : 'coils'} of {tape(lengths.coilDiameter)} in the tray;{' '}
        {type.name} may be coiled to {tape(2 * type.bendRadius)} across
        {sheet.redos !== null ? `. Enough for ${sheet.redos} redos of ${tape(lengths.redo)}.` : '.'}
      </Type>
      {[...alike.values()].map((group) => {
        const { slack } = group[0]!;
        const { kept, pieces } = tubePieces(slack.stub, lengths);
        return (
          <View key={slack.stub} style={styles.sum}>
            <Type look="smallStrong">{holdersNamed(group.map(({ unit }) => unit.holder))}</Type>
            <Type look="small">
              {tape(slack.stub)} stand out of the sheath: {tape(kept)} to the tray
              {pieces.length === 0
                ? ''
                : group[0]!.unit.holder.kind === 'tube'
                  ? `, and ${tape(slack.free)} of fiber there; that much tube comes off, in ${pieces.length === 1 ? 'one piece' : `${pieces.length} pieces: ${pieces.map(tape).join(', ')}`}`
                  : `, and ${tape(slack.free)} there`}
              .
            </Type>
            <Type look="small">
              Needed: {tape(slack.reach)} to the machine or {tape(slack.coils)} for the coils, the longer
              counts; {slack.ribbon > 0 ? `${tape(slack.ribbon)} of ribbon; ` : ''}
              {tape(slack.each)} for the first preparation: {tape(slack.need)}.{' '}
              {slack.spare >= 0 ? `${tape(slack.spare)} are left` : `${tape(-slack.spare)} are missing`}
              {slack.spare >= 0
                ? `, ${slack.redos} ${slack.redos === 1 ? 'redo' : 'redos'} of ${tape(slack.each)} on both sides.`
                : '.'}
            </Type>
          </View>
        );
      })}
      {sheet.basket?.coil ? (
        <Type look="small">
          Of what goes through, {tape(sheet.basket.length)} lie in the basket: {sheet.basket.coil.turns}{' '}
          {sheet.basket.coil.turns === 1 ? 'turn' : 'turns'} of {tape(sheet.basket.coil.diameter)} across. It
          takes {tape(sheet.basket.takes)}: {lengths.basketTurns} of {tape(lengths.basketDiameter)}.
        </Type>
      ) : sheet.basket === null && sheet.reference === 'center' && sheet.whole.length > 0 ? (
        <Type look="small" tone="soft">
          How much express slack the basket takes is not known: the closure’s table does not say how wide it
          is.
        </Type>
      ) : null}
      {cable.diameter === undefined ? null : (
        <Type look="small" tone="soft">
          The cable itself: {tape(cableBendRadius(cable.diameter).underLoad)} radius while it is pulled,{' '}
          {tape(cableBendRadius(cable.diameter).atRest)} at rest (20 and 10 times its diameter).
        </Type>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.small, borderTopWidth: stroke.rule, paddingTop: space.medium },
  sum: { gap: space.hair },
});
