import { formatPressure, type FlashRound, type SealName } from '@cordel/core';
import { sealKey, sealWords, stopWords } from '@cordel/core/seal';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { clockWords, useNow } from '../../../data/timers';
import { Screen } from '../../../shell/frame/Screen';
import { places } from '../../../shell/places';
import type { AtHand } from '../../../shell/steps/AtClosure';
import { Action } from '../../../ui/Action';
import { Knot } from '../../../ui/Knot';
import { gutter, space, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { EndPlate } from '../EndPlate';
import { Photos } from '../photo/Photos';
import { PointedFoot } from '../PointedFoot';
import type { Sealing } from '../useSeal';
import { bubbling, Rounds } from './Rounds';

/** While there is pressure: seal by seal, on the drawing or in the list. */
export function UnderPressure({ atHand, seal }: { atHand: AtHand; seal: Sealing }) {
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

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width / 2, gap: space.large, maxWidth: 760 },
  part: { gap: space.small },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.small },
  sealRow: { minHeight: touch.bench, flexDirection: 'row', alignItems: 'center', gap: space.small },
  grow: { flex: 1, minWidth: 120 },
});
