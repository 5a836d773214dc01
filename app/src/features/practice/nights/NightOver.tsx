import { formatMean, shownNumber } from '@cordel/core';
import { causeWords, checkWords, ruleTitles, sawWords, type Names } from '@cordel/core/advice';
import {
  faultNames,
  firstSaid,
  judgesNight,
  lessons,
  pointsOf,
  putRightAt,
  remedyOf,
  remedyWords,
  resultOf,
  sumOf,
  weights,
  type NightResult,
  type NightState,
  type Part,
} from '@cordel/core/nights';
import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { SeriesChart } from '../../splice/judge/SeriesChart';

const partTitles: Readonly<Record<Part, string>> = {
  named: 'The fault named',
  loss: 'True loss',
  sleeves: 'Sleeves in the bin',
  minutes: 'Minutes',
  slack: 'Slack used',
};

const names: Names = { cable: (id) => `the ${id} cable`, gear: () => 'the machine' };

/** What the night came to, part by part, beside the judge's own; what was wrong, what showed it, and what would have been done. */
export function NightOver({ state }: { state: NightState }) {
  const { palette } = useCordelTheme();
  const { night, seed, named } = state;
  const judge = useMemo(() => judgesNight(night, seed), [night, seed]);
  const [own, his] = [resultOf(state), resultOf(judge)];
  const points = pointsOf(own, his);
  // What the judge would have said beside the trainee; where it is silent there, what it said in its own night.
  const said = useMemo(() => firstSaid(state) ?? firstSaid(judge), [state, judge]);
  const piece = night.kind === 'ribbon' ? 'ribbon' : 'fiber';
  const remedy = remedyOf[night.cause];
  const right = putRightAt(state);
  const judgeRight = putRightAt(judge);
  return (
    <>
      <Type look="huge">{`${sumOf(points)} of 100`}</Type>
      <View role="table" aria-label="Points, yours beside the judge’s">
        {(Object.keys(weights) as Part[]).map((part) => (
          <View key={part} role="row" style={[styles.row, { borderColor: palette.hairline }]}>
            <Type role="rowheader" look="strong" style={styles.what}>
              {`${partTitles[part]}: ${points[part]} of ${weights[part]}`}
            </Type>
            <Type role="cell">{`yours ${partWords(part, own)}, the judge’s ${partWords(part, his)}`}</Type>
          </View>
        ))}
      </View>
      <View style={styles.group}>
        <Type look="heading" role="heading" aria-level={2}>
          {`It was: ${lower(faultNames[night.cause])}`}
        </Type>
        <Type>
          {`It began at ${piece} ${night.from + 1}. ${named === null ? 'You did not name it.' : named === night.cause ? 'You named it.' : `You said: ${lower(faultNames[named])}.`}`}
        </Type>
        <Type>
          {remedy === null
            ? 'Nothing at the bench puts it right.'
            : `${remedyWords[remedy]}: ${right === null ? 'you did not' : `you did at ${piece} ${right + 1}`}, the judge ${judgeRight === null ? 'did not either' : `would have at ${piece} ${judgeRight + 1}`}.`}
        </Type>
        <Type>{lessons[night.cause]}</Type>
      </View>
      <View style={styles.group}>
        <Type look="heading" role="heading" aria-level={2}>
          What the judge says
        </Type>
        {said ? (
          <>
            <Type look="strong">{`At ${piece} ${said.at + 1}: ${lower(ruleTitles[said.said.strength.rule])}.`}</Type>
            <Type>{sawWords(said.said, names)}</Type>
            <SeriesChart saw={said.said.saw} spoken={sawWords(said.said, names)} />
            {said.said.cause ? (
              <Type>
                {`Likeliest: ${causeWords(said.said.cause, said.said.strength)}${said.said.runnerUp ? `, else ${causeWords(said.said.runnerUp, said.said.strength)}` : ''}. ${checkWords(said.said.cause, said.said.strength)}`}
              </Type>
            ) : null}
            {judge.named !== night.cause ? (
              <Type>The judge did not name it rightly either: this one is hard to tell by readings.</Type>
            ) : null}
          </>
        ) : (
          <Type>
            Nothing: in a night as short as this the readings did not show it beyond what chance does.
          </Type>
        )}
      </View>
      <Type look="small" tone="soft">
        {`The true losses are those that the simulated machine knows; at the bench only a measurement from both ends tells them. ${night.id === 'random' ? `This night’s number is ${seed}.` : ''}`}
      </Type>
    </>
  );
}

const lower = (words: string) => words[0]!.toLowerCase() + words.slice(1);

function partWords(part: Part, { named, mean, over, fibers, sleeves, minutes, slack }: NightResult): string {
  switch (part) {
    case 'named':
      return named ? 'yes' : 'no';
    case 'loss':
      return `${formatMean(mean)} dB on average, ${over} of ${fibers} over`;
    case 'sleeves':
      return String(sleeves);
    case 'minutes':
      return String(Math.round(minutes));
    case 'slack':
      return `${shownNumber((slack / 1000).toFixed(2))} m`;
  }
}

const styles = StyleSheet.create({
  group: { gap: space.small },
  row: { paddingVertical: space.small, borderBottomWidth: stroke.hair, gap: space.hair },
  what: { flexShrink: 1 },
});
