import { formatPressure, type FlashRound, type SealName } from '@cordel/core';
import { sealWords } from '@cordel/core/seal';
import { StyleSheet, View } from 'react-native';
import type { AtHand } from '../../../shell/steps/AtClosure';
import { whoAndWhen } from '../../../shell/steps/tickWords';
import { dayOf } from '../../../ui/times';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { Sealing } from '../useSeal';

/** When the soapy water goes on: both schools are in use. */
export const soapWords = { before: 'Soap before pumping', after: 'Soap after pumping' } as const;

/** The seals that bubbled in a round. */
export const bubbling = ({ looked }: FlashRound): SealName[] =>
  [...looked.values()].flatMap(({ body }) => (body.saw === 'bubbles' ? [body.seal] : []));

/** Every round that was made, the newest first. */
export function Rounds({ atHand, seal: { stage, thing } }: { atHand: AtHand; seal: Sealing }) {
  const { units, timeZone } = atHand.definition.project;
  const rounds = stage.state.rounds.filter(({ released }) => released !== null);
  if (rounds.length === 0) return null;
  return (
    <View role="group" aria-label="Rounds" style={styles.part}>
      <Type look="heading" role="heading" aria-level={2}>
        Rounds
      </Type>
      {[...rounds].reverse().map((round) => {
        const leaks = bubbling(round);
        return (
          <View key={round.pumped.id}>
            <Type look="strong">
              {round.number}. {formatPressure(round.kPa, units)},{' '}
              {leaks.length > 0
                ? `bubbles: ${leaks.map((one) => sealWords(one, stage, thing)).join('; ')}`
                : `no bubbles at ${round.looked.size} seals`}
            </Type>
            <Type look="small" tone="soft">
              {[
                `${dayOf(round.pumped.madeAt, timeZone)}, ${whoAndWhen(round.pumped, timeZone)}`,
                soapWords[round.pumped.body.soap].toLowerCase(),
                round.over.length > 0
                  ? `went over to ${formatPressure(round.over.at(-1)!.body.kPa, units)}`
                  : null,
                ...round.reseated.map(({ body }) => `set anew: ${sealWords(body.seal, stage, thing)}`),
                round.before ? 'before it was opened again' : null,
              ]
                .filter(Boolean)
                .join(' · ')}
            </Type>
          </View>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.small },
});
