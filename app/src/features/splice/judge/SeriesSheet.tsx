import type { Cable, Fact } from '@cordel/core';
import {
  causeWords,
  checkWords,
  oddsOf,
  ruleTitles,
  sawWords,
  type Names,
  type Said,
} from '@cordel/core/advice';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useGear } from '../../../data/gear';
import { Action } from '../../../ui/Action';
import { TextBox } from '../../../ui/Field';
import { Sheet } from '../../../ui/Sheet';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { newAnswers } from './newAnswer';
import { SeriesChart } from './SeriesChart';

/** What the series says, the evidence, the likeliest cause and the next, the one check that tells them apart, and what came of it. */
export function SeriesSheet({
  said,
  closureId,
  cables,
  onFact,
  onClose,
}: {
  said: Said;
  closureId: string;
  cables: ReadonlyMap<string, Cable>;
  onFact: (fact: Fact) => void;
  onClose: () => void;
}) {
  const { data: gear } = useGear();
  const names: Names = {
    cable: (id) => cables.get(id)?.label ?? 'another cable',
    gear: (id) => gear?.find((one) => one.id === id)?.label ?? 'this machine',
  };
  const [asideFor, setAsideFor] = useState<string | null>(null);
  const [missing, setMissing] = useState(false);
  const { strength, cause, runnerUp, share, sinking } = said;
  const seen = sawWords(said, names);
  const answer = (how: 'done' | 'dismissed', note: string) => {
    for (const fact of newAnswers(closureId, said, how, note)) onFact(fact);
    onClose();
  };
  return (
    <Sheet title={ruleTitles[strength.rule]} open onClose={onClose}>
      {sinking ? <Type look="strong">Nothing is over a limit yet, and it gets worse.</Type> : null}
      <Type>{seen}</Type>
      <SeriesChart saw={said.saw} spoken={seen} />
      {cause ? (
        <View style={styles.group}>
          <Type look="strong">{`Likeliest, ${oddsOf(share)}: ${causeWords(cause, strength)}.`}</Type>
          {runnerUp ? <Type>{`Else: ${causeWords(runnerUp, strength)}.`}</Type> : null}
        </View>
      ) : null}
      <View style={styles.group}>
        <Type look="smallStrong" tone="soft">
          The check that tells
        </Type>
        <Type look="strong">{checkWords(cause, strength)}</Type>
      </View>
      {asideFor === null ? (
        <>
          <Action bench kind="now" label="It is put right" onPress={() => answer('done', '')} />
          <Action bench label="It does not matter …" onPress={() => setAsideFor('')} />
        </>
      ) : (
        <>
          <TextBox
            bench
            label="Why it does not matter"
            value={asideFor}
            onChangeText={(text) => {
              setAsideFor(text);
              setMissing(false);
            }}
            trouble={missing ? 'Say why in a few words; it goes on record.' : undefined}
          />
          <Action
            bench
            kind="now"
            label="Set it aside"
            onPress={() =>
              asideFor.trim() === '' ? setMissing(true) : answer('dismissed', asideFor.trim().slice(0, 500))
            }
          />
          <Action bench label="Back" onPress={() => setAsideFor(null)} />
        </>
      )}
      <Type look="small" tone="soft">
        After either answer only what comes from now on is counted for this. Estimates of the machine are what
        it is made from.
      </Type>
    </Sheet>
  );
}

const styles = StyleSheet.create({ group: { gap: space.tight } });
