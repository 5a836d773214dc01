import {
  formatPressure,
  mostPressure,
  pressureFromShown,
  pressureUnit,
  shownPressure,
  shownNumber,
  type FlashRound,
  type SealName,
} from '@cordel/core';
import { bubbleCauses, reseatSteps, sealKey, sealWords, stopWords } from '@cordel/core/seal';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { setPreferences, usePreferences } from '../../data/preferences';
import { clockWords, useNow } from '../../data/timers';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { PreparePanes, type AtHand } from '../../shell/steps/AtClosure';
import { whoAndWhen } from '../../shell/steps/tickWords';
import { Action } from '../../ui/Action';
import { Caution } from '../../ui/Caution';
import { Choice, TextBox } from '../../ui/Field';
import { Knot } from '../../ui/Knot';
import { toNumber } from '../../ui/numberField';
import { Empty } from '../../ui/States';
import { dayOf } from '../../ui/times';
import { gutter, space, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { EndPlate } from './EndPlate';
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

const soapWords = { before: 'Soap before pumping', after: 'Soap after pumping' } as const;

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

const bubbling = ({ looked }: FlashRound): SealName[] =>
  [...looked.values()].flatMap(({ body }) => (body.saw === 'bubbles' ? [body.seal] : []));

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

/** While there is pressure: seal by seal, on the drawing or in the list. */
function UnderPressure({ atHand, seal }: { atHand: AtHand; seal: Sealing }) {
  const { projectId, closure, definition, siteName } = atHand;
  const { units } = definition.project;
  const { stage, thing, flash } = seal;
  const pressure = stage.state.pressure!;
  const round = stage.state.rounds.at(-1);
  const running = round?.released === null ? round : null;
  const looked = running?.looked ?? noLooks;
  const sawOf = (one: SealName) => looked.get(sealKey(one))?.body.saw;
  const [picked, setPicked] = useState<string | null>(null);
  const [releasing, setReleasing] = useState(false);
  const open = stage.seals.filter((one) => sawOf(one) === undefined);
  const at = stage.seals.find((one) => sealKey(one) === picked) ?? open[0];
  const leaking = running ? bubbling(running) : [];
  const saw = (value: 'none' | 'bubbles') => {
    void flash({ did: 'looked', seal: at!, saw: value });
    setPicked(null);
  };
  const words = { none: 'no bubbles', bubbles: 'bubbles', open: 'not looked at' } as const;
  // What may end: everything was looked at, something leaks, or there is too much in it.
  const out = releasing || pressure.over || !running || at === undefined;
  return (
    <Screen
      title={`Flash test · ${siteName}`}
      subtitle={
        running
          ? `round ${running.number}: ${stage.seals.length - open.length} of ${stage.seals.length} looked at`
          : 'under pressure'
      }
      up={{ href: places.seal(projectId, closure.id), name: 'sealing' }}
      foot={
        out ? (
          <PointedFoot
            label="Pressure out, cap back on"
            onPress={() => void flash({ did: 'released', capBack: true })}
            other="Out, cap still off"
            onOther={() => void flash({ did: 'released', capBack: false })}
          />
        ) : (
          <PointedFoot
            label="No bubbles"
            detail={sealWords(at, stage, thing)}
            onPress={() => saw('none')}
            other="Bubbles"
            onOther={() => saw('bubbles')}
          />
        )
      }
    >
      <ScrollView contentContainerStyle={styles.list}>
        {pressure.over ? (
          <Type look="heading" tone="accent" role="alert">
            The gauge shows {formatPressure(pressure.kPa, units)}. {stopWords(units)} Let it out now, slowly.
          </Type>
        ) : null}
        <View style={styles.row}>
          <Elapsed since={pressure.since} kPa={formatPressure(pressure.kPa, units)} />
          {out ? (
            !pressure.over && running ? (
              <Action bench label="Look on" onPress={() => setReleasing(false)} disabled={at === undefined} />
            ) : null
          ) : (
            <Action bench label="Let the pressure out" onPress={() => setReleasing(true)} />
          )}
        </View>
        {running ? (
          <>
            <EndPlate
              openings={stage.openings}
              stateOf={(opening) => {
                const state = sawOf(opening.seal);
                return state === 'none' ? 'good' : state === 'bubbles' ? 'bubbles' : 'open';
              }}
              wordOf={(opening) => words[sawOf(opening.seal) ?? 'open']}
              chosen={at ? sealKey(at) : null}
              onPress={(opening) => setPicked(sealKey(opening.seal))}
            />
            {leaking.length > 0 ? (
              <Type look="strong" tone="accent" role="alert">
                Bubbles: {leaking.map((one) => sealWords(one, stage, thing)).join('; ')}. Look at the rest,
                then let the pressure out.
              </Type>
            ) : null}
            {leaking.map((one) => (
              <Photos
                key={sealKey(one)}
                atHand={atHand}
                seal={seal}
                of={{ what: 'test', seal: one }}
                title={sealWords(one, stage, thing)}
              />
            ))}
            {open.length > 1 ? (
              <Action
                bench
                label={`No bubbles at the other ${open.length}`}
                onPress={() => {
                  void flash(...open.map((one) => ({ did: 'looked', seal: one, saw: 'none' }) as const));
                  setPicked(null);
                }}
              />
            ) : null}
            <View role="group" aria-label="Seals" style={styles.part}>
              {stage.seals.map((one) => {
                const state = sawOf(one);
                const here = at !== undefined && sealKey(one) === sealKey(at);
                return (
                  <Pressable
                    key={sealKey(one)}
                    role="button"
                    aria-pressed={here}
                    onPress={() => setPicked(sealKey(one))}
                    style={styles.sealRow}
                  >
                    <Knot
                      mark={state === 'none' ? 'holds' : state === 'bubbles' ? 'redo' : 'open'}
                      size={20}
                    />
                    <Type look={here ? 'strong' : 'body'} style={styles.grow}>
                      {sealWords(one, stage, thing)}
                    </Type>
                    <Type look="small" tone={state === 'bubbles' ? 'accent' : 'soft'}>
                      {words[state ?? 'open']}
                    </Type>
                  </Pressable>
                );
              })}
            </View>
          </>
        ) : (
          <Type>
            {pressure.over
              ? 'It was not pumped up to be looked at yet: begin anew when it is out.'
              : 'There is pressure in it for a holding test. Read the gauge there, or let it out.'}
          </Type>
        )}
        {running || pressure.over ? null : (
          <Action
            bench
            label="To the holding test"
            onPress={() => router.navigate(places.seal(projectId, closure.id, 'hold'))}
          />
        )}
        <Rounds atHand={atHand} seal={seal} />
      </ScrollView>
    </Screen>
  );
}

const noLooks: FlashRound['looked'] = new Map();

/** How long there has been pressure. */
function Elapsed({ since, kPa }: { since: string; kPa: string }) {
  const began = Date.parse(since);
  // Told every second as long as it is in sight.
  const running = useMemo(() => [{ id: 'pressure', label: '', seconds: 0, endsAt: began + 1e10 }], [began]);
  const now = useNow(running);
  const seconds = Math.max(0, Math.floor((now - began) / 1000));
  return (
    <View role="timer" style={styles.grow}>
      <Type look="title">{kPa}</Type>
      <Type look="small">
        {seconds < 3600
          ? `for ${clockWords(seconds)} min`
          : `for ${Math.floor(seconds / 3600)} h ${Math.floor((seconds % 3600) / 60)} min`}
      </Type>
    </View>
  );
}

/** Every round that was made, the newest first. */
function Rounds({ atHand, seal: { stage, thing } }: { atHand: AtHand; seal: Sealing }) {
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
  list: { padding: space.large, paddingLeft: gutter.width / 2, gap: space.large, maxWidth: 760 },
  part: { gap: space.small },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.small },
  sealRow: { minHeight: touch.bench, flexDirection: 'row', alignItems: 'center', gap: space.small },
  grow: { flex: 1, minWidth: 120 },
});
