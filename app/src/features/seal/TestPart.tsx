import {
  formatPressure,
  mostPressure,
  pressureFromShown,
  pressureUnit,
  shownPressure,
  shownNumber,
  type SealName,
} from '@cordel/core';
import { bubbleCauses, reseatSteps, sealKey, sealWords, stopWords } from '@cordel/core/seal';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { setPreferences, usePreferences } from '../../data/preferences';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { PreparePanes, type AtHand } from '../../shell/steps/AtClosure';
import { Action } from '../../ui/Action';
import { Caution } from '../../ui/Caution';
import { Choice, TextBox } from '../../ui/Field';
import { toNumber } from '../../ui/numberField';
import { Empty } from '../../ui/States';
import { gutter, space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { bubbling, Rounds, soapWords } from './flash/Rounds';
import { UnderPressure } from './flash/UnderPressure';
import { Photos } from './photo/Photos';
import { PointedFoot } from './PointedFoot';
import { nextStage, stagesOf } from './stages';
import type { Sealing } from './useSeal';

/** The flash test: pumped, looked at seal by seal, let out, and where one bubbles set anew and tested again. */
export function TestPart({ atHand, seal }: { atHand: AtHand; seal: Sealing }) {
  const { projectId, closure, siteName } = atHand;
  const { testPressure, state } = seal.stage;
  const under = state.pressure !== null;
  return (
    <PreparePanes atHand={atHand}>
      {testPressure === null || (testPressure === 0 && !under && !state.capOff) ? (
        <Screen
          title={`Flash test · ${siteName}`}
          up={{ href: places.seal(projectId, closure.id), name: 'sealing' }}
        >
          {testPressure === null ? (
            <Empty
              title="The test pressure is not known"
              text="The closure’s table gives none. Take it from the maker’s instruction: 0 where none is made."
            >
              <Action
                label="The closure’s table"
                onPress={() => router.navigate(places.table(projectId, closure.id))}
              />
            </Empty>
          ) : (
            <Empty title="No flash test here" text="By its table this closure is not tested with pressure." />
          )}
          <Rounds atHand={atHand} seal={seal} />
        </Screen>
      ) : under ? (
        <UnderPressure atHand={atHand} seal={seal} />
      ) : (
        <NoPressure atHand={atHand} seal={seal} />
      )}
    </PreparePanes>
  );
}

/** Before it is pumped up, and after it was let out. */
function NoPressure({ atHand, seal }: { atHand: AtHand; seal: Sealing }) {
  const { projectId, closure, definition, siteName } = atHand;
  const { units } = definition.project;
  const { stage, thing, flash } = seal;
  const { soapSchool } = usePreferences();
  const testPressure = stage.testPressure ?? 0;
  const [text, setText] = useState(() => shownNumber(shownPressure(testPressure, units)));
  const [again, setAgain] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const kPa = pressureFromShown(toNumber(text), units);
  const tooHigh = kPa > mostPressure + roundingOf(units);
  const { round } = stage;
  const leaking = round?.released ? bubbling(round) : [];
  const toReseat = leaking.filter(
    (one) => !round!.reseated.some(({ body }) => sealKey(body.seal) === sealKey(one)),
  );
  const passed = stage.result === 'tight';
  const following = nextStage(stagesOf(stage, thing, units), stage);
  const pump = async () =>
    setTrouble(await flash({ did: 'pumped', kPa: Math.min(kPa, mostPressure), soap: soapSchool }));
  const shown = stage.state.capOff
    ? 'cap'
    : toReseat.length > 0 && !again
      ? 'reseat'
      : passed && !again
        ? 'passed'
        : 'pump';
  return (
    <Screen
      title={`Flash test · ${siteName}`}
      subtitle={
        round
          ? `round ${round.number}: ${passed ? 'no bubbles' : toReseat.length > 0 ? 'bubbles' : 'test again'}`
          : 'not made yet'
      }
      up={{ href: places.seal(projectId, closure.id), name: 'sealing' }}
      foot={
        shown === 'cap' ? (
          <PointedFoot
            label="Cap is back on the valve"
            onPress={() => void flash({ did: 'released', capBack: true })}
          />
        ) : shown === 'reseat' ? (
          <PointedFoot
            label="Set anew"
            detail={sealWords(toReseat[0]!, stage, thing)}
            onPress={() => void flash({ did: 'reseated', seal: toReseat[0]!, note: '' })}
          />
        ) : shown === 'passed' ? (
          <PointedFoot
            label={following ? `Next: ${following.title}` : 'Sealed: to the stages'}
            onPress={() => router.navigate(places.seal(projectId, closure.id, following?.part ?? 'stages'))}
            other="Test again"
            onOther={() => setAgain(true)}
          />
        ) : tooHigh ? (
          <PointedFoot
            label={`The gauge went over: ${formatPressure(kPa, units)}`}
            detail="Record it, and let it out at once"
            onPress={() => void flash({ did: 'over', kPa })}
          />
        ) : (
          <PointedFoot
            label={Number.isFinite(kPa) ? `Pumped to ${formatPressure(kPa, units)}` : 'Pumped'}
            disabled={!Number.isFinite(kPa) || kPa <= 0}
            onPress={() => void pump()}
          />
        )
      }
    >
      <ScrollView contentContainerStyle={styles.list}>
        {shown === 'cap' ? (
          <Type look="heading" role="status">
            The pressure is out. Now the cap of the valve.
          </Type>
        ) : null}
        {shown === 'reseat' ? (
          <>
            {toReseat.map((one) => (
              <Leak key={sealKey(one)} atHand={atHand} seal={seal} leaking={one} />
            ))}
            <Action bench label="Test again without it" onPress={() => setAgain(true)} />
          </>
        ) : null}
        {shown === 'passed' ? (
          <Type look="heading" role="status">
            No bubbles at {stage.seals.length} seals, {formatPressure(round!.kPa, units)}.
          </Type>
        ) : null}
        {shown === 'pump' ? (
          <View role="group" aria-label="Pump" style={styles.part}>
            <TextBox
              bench
              label="Pressure"
              unit={pressureUnit(units)}
              keyboard="decimal"
              value={text}
              onChangeText={setText}
              hint={`The closure’s table asks for ${formatPressure(testPressure, units)}.`}
              trouble={
                tooHigh
                  ? stopWords(units)
                  : (trouble ??
                    (text.trim() !== '' && !Number.isFinite(kPa)
                      ? 'Give the pressure as a number.'
                      : undefined))
              }
              onSubmit={() => !tooHigh && kPa > 0 && void pump()}
            />
            <Choice
              bench
              label="Soapy water"
              options={(['before', 'after'] as const).map((value) => ({ value, label: soapWords[value] }))}
              value={soapSchool}
              onChange={(value) => setPreferences({ soapSchool: value })}
            />
            <Type>
              Slowly, eyes on the gauge.{' '}
              {soapSchool === 'before'
                ? 'Soap every port, seal and the collar, then pump.'
                : 'Pump, then soap every port, seal and the collar.'}
            </Type>
            <Caution
              text={`${stopWords(units)} Nobody stands over it, glasses on. The maker’s instruction and local code come first.`}
            />
          </View>
        ) : null}
        <Rounds atHand={atHand} seal={seal} />
      </ScrollView>
    </Screen>
  );
}

/** What a shown figure may be off by its rounding, kPa: 5 psi read 34.47. */
const roundingOf = (units: 'mm' | 'in') => (units === 'mm' ? 0 : 0.04);

/** A seal that leaked: its likely causes, and how it is opened and set anew. */
function Leak({ atHand, seal, leaking }: { atHand: AtHand; seal: Sealing; leaking: SealName }) {
  const { stage, thing } = seal;
  const { units } = atHand.definition.project;
  const name = sealWords(leaking, stage, thing);
  return (
    <View role="group" aria-label={`Bubbles: ${name}`} style={styles.part}>
      <Type look="title" tone="accent">
        Bubbles: {name}
      </Type>
      <Type look="strong">Likely, in this order</Type>
      {bubbleCauses(leaking, stage, units).map(({ title, check }, index) => (
        <Type key={title + check}>
          {index + 1}. {title}. {check}
        </Type>
      ))}
      <Type look="strong">Then</Type>
      {reseatSteps(leaking, stage).map((step, index) => (
        <Type key={step}>
          {index + 1}. {step}
        </Type>
      ))}
      <Photos atHand={atHand} seal={seal} of={{ what: 'test', seal: leaking }} title={name} />
    </View>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width / 2, gap: space.large, maxWidth: 760 },
  part: { gap: space.small },
});
