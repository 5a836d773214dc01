import { reopeningReasons, type Reopening } from '@cordel/core';
import { blockWords } from '@cordel/core/seal';
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { PreparePanes, type AtHand } from '../../shell/steps/AtClosure';
import { whoAndWhen } from '../../shell/steps/tickWords';
import { Action } from '../../ui/Action';
import { Caution } from '../../ui/Caution';
import { CordRow } from '../../ui/Cord';
import { Choice, TextBox } from '../../ui/Field';
import { Knot } from '../../ui/Knot';
import { Sheet } from '../../ui/Sheet';
import { Trouble } from '../../ui/Trouble';
import { dayOf } from '../../ui/times';
import { gutter, space, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { Photos } from './photo/Photos';
import { nextStage, stagesOf } from './stages';
import type { Sealing } from './useSeal';

/** The stages of sealing on their cord, what still stands between the closure and its seal, and how to open it again. */
export function StagesPart({ atHand, seal }: { atHand: AtHand; seal: Sealing }) {
  const { projectId, closure, definition, siteName, ledger } = atHand;
  const { stage, thing } = seal;
  const { units, timeZone } = definition.project;
  const [reopening, setReopening] = useState(false);
  const stages = stagesOf(stage, thing, units);
  const next = nextStage(stages, stage);
  const unsettled = ledger.rollUp.count - ledger.rollUp.settled;
  return (
    <PreparePanes atHand={atHand}>
      <Screen
        title={`Seal · ${siteName}`}
        subtitle={stage.sealed ? 'sealed' : stage.tickedOnly ? 'ticked as sealed' : 'not sealed yet'}
        up={{ href: places.closure(projectId, closure.id), name: 'the closure' }}
        foot={
          <View style={styles.foot}>
            {next ? (
              <Action
                bench
                kind="now"
                label={`Next: ${next.title}`}
                detail={next.words}
                onPress={() => router.navigate(places.seal(projectId, closure.id, next.part))}
              />
            ) : (
              <Action
                bench
                kind="now"
                label="To the closure"
                onPress={() => router.navigate(places.closure(projectId, closure.id))}
              />
            )}
          </View>
        }
      >
        <ScrollView contentContainerStyle={styles.list}>
          {unsettled > 0 ? (
            <View style={styles.more}>
              <Type role="status">
                {unsettled === 1 ? '1 splice is' : `${unsettled} splices are`} not settled yet. It can be
                closed all the same; whoever goes on opens it again.
              </Type>
            </View>
          ) : null}
          {stages.map((one, index) => (
            <CordRow
              key={one.part}
              above={index === 0 ? 'none' : stages[index - 1]!.mark === 'holds' ? 'done' : 'open'}
              below={index === stages.length - 1 ? 'none' : one.mark === 'holds' ? 'done' : 'open'}
              knot={<Knot mark={one.mark} size={26} />}
              knotSize={26}
            >
              <Pressable
                role="link"
                onPress={() => router.navigate(places.seal(projectId, closure.id, one.part))}
                style={styles.stage}
              >
                <Type look="heading">{one.title}</Type>
                <Type look="small" tone={one.mark === 'redo' ? 'accent' : 'soft'}>
                  {one.words}
                </Type>
              </Pressable>
            </CordRow>
          ))}
          <View style={styles.more}>
            {stage.sealed ? (
              <Type look="heading" role="status">
                Sealed: every point is right
                {stage.testPressure ? ', no bubbles, no pressure in it, cap on the valve' : ''}.
              </Type>
            ) : stage.tickedOnly ? (
              <Type role="status">
                It was ticked as sealed and tested, as an older Cordel did: no points and no test are on
                record. What is entered here counts from now on.
              </Type>
            ) : (
              <View role="group" aria-label="Between here and the seal" style={styles.part}>
                <Type look="heading" role="heading" aria-level={2}>
                  Between here and the seal
                </Type>
                {stage.blocks.map((block, index) => (
                  <Type
                    key={index}
                    tone={block.code === 'wrong' || block.code === 'pressure' ? 'accent' : 'ink'}
                  >
                    {blockWords(block, thing, stage, units)}
                  </Type>
                ))}
              </View>
            )}
            {stage.state.reopenings.map((one) => (
              <Type key={one.id} look="small" tone="soft">
                Opened again {dayOf(one.madeAt, timeZone)}, {whoAndWhen(one, timeZone)}:{' '}
                {[reasonWords[one.body.reason], one.body.note].filter(Boolean).join(', ')}
              </Type>
            ))}
            <View style={styles.part}>
              <Type look="heading" role="heading" aria-level={2}>
                Photos
              </Type>
              <Photos atHand={atHand} seal={seal} of={{ what: 'closure' }} title="the closure" all />
            </View>
            {stage.begun || stage.tickedOnly ? (
              <Action bench label="Opened again" onPress={() => setReopening(true)} />
            ) : null}
            <Caution text="Stored pressure, sharp edges, traffic, height, gas in manholes: local code and the owner’s rules come first." />
            <Type look="small" tone="soft">
              Common practice. The maker’s instruction comes first.
            </Type>
          </View>
        </ScrollView>
        <ReopenSheet open={reopening} seal={seal} onClose={() => setReopening(false)} />
      </Screen>
    </PreparePanes>
  );
}

const reasonWords: Readonly<Record<Reopening['body']['reason'], string>> = {
  'more-work': 'more work in it',
  repair: 'repair',
  leak: 'it leaks',
  inspection: 'inspection',
  other: 'another reason',
};

function ReopenSheet({ open, seal, onClose }: { open: boolean; seal: Sealing; onClose: () => void }) {
  const [reason, setReason] = useState<Reopening['body']['reason']>('more-work');
  const [note, setNote] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const { pressure } = seal.stage.state;
  const store = async () => {
    const wrong = await seal.reopen({ reason, note });
    setTrouble(wrong);
    if (wrong !== null) return;
    setNote('');
    onClose();
  };
  return (
    <Sheet title="Opened again" open={open} onClose={onClose}>
      {pressure ? (
        <Trouble text="There is pressure in it. Let it out before anything is loosened: a collar that opens under pressure throws the dome." />
      ) : (
        <>
          <Choice
            bench
            label="Why"
            options={reopeningReasons.map((value) => ({ value, label: reasonWords[value] }))}
            value={reason}
            onChange={setReason}
          />
          <TextBox label="Note" value={note} onChangeText={setNote} bench />
          {trouble ? <Trouble text={trouble} /> : null}
          <Type look="small">
            Its final look, its caps and its flash test are to be done again. Splices and what was tested
            before stay on record.
          </Type>
          <Action bench kind="now" label="Record that it was opened" onPress={() => void store()} />
        </>
      )}
    </Sheet>
  );
}

const styles = StyleSheet.create({
  list: { paddingTop: space.small, paddingBottom: space.large },
  stage: { minHeight: touch.bench, justifyContent: 'center', paddingVertical: space.medium },
  more: { padding: space.large, paddingLeft: gutter.width, gap: space.medium, maxWidth: 760 },
  part: { gap: space.tight },
  foot: { padding: space.small },
});
