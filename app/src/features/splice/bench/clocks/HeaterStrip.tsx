import { findSplice, jointOf, type Fact } from '@cordel/core';
import {
  heaterLane,
  heaterProgramFor,
  laneMemory,
  sleevesOf,
  type LanePlace,
  type Machine,
} from '@cordel/core/gear';
import { memo, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { z } from 'zod';
import { correctedNow } from '../../../../data/clock';
import { useTonight } from '../../../../data/gearTonight';
import { cablesOf, type ClosureAtHand } from '../../../../data/ledger';
import { getPreferences } from '../../../../data/preferences';
import { storedValues } from '../../../../data/stored';
import { clockWords } from '../../../../data/timers';
import { buzz } from '../../../../ui/buzz';
import { useCordelTheme } from '../../../../ui/theme';
import { space, stroke, touch } from '../../../../ui/tokens';
import { SpokenOnly, Type } from '../../../../ui/Type';

interface HeaterStripProps {
  atHand: ClosureAtHand;
  /** The machine of the night, where one was picked. */
  machine: Machine | null;
}

/** s where no machine is picked: common practice, by sleeve. */
const usualSeconds = { 'single-40': 25, 'single-60': 35, ribbon: 40, connector: 20 } as const;
const usualCool = 30;

/** A sleeve that may be touched is shown for so long; then it is in its slot. ms */
const readyFor = 60_000;

/** Sleeves in sight: the next ones to be done. */
const shownAtOnce = 5;

const phaseWords = { waiting: 'waits', heating: 'heater', cooling: 'cools', ready: 'ready' } as const;

/** Sleeves that went in later than their splice was read, by splice: ms since 1970. */
const startsAt = storedValues<Readonly<Record<string, number>>>(
  'heater',
  z.record(z.string(), z.number()),
  {},
);
const useStarts = (closureId: string) => startsAt(closureId).use();

/**
 * The sleeves in the heater and on the cooling tray with their clocks. They follow from what was recorded, so a reload changes nothing; a sleeve that went
 * in later is started again with one tap.
 */
export function HeaterStrip({ atHand, machine }: HeaterStripProps) {
  // A reading is painted before its sleeve is looked for.
  return <Lane atHand={useDeferredValue(atHand)} machine={machine} />;
}

const Lane = memo(function Lane({ atHand, machine }: HeaterStripProps) {
  const { closure, definition, ledger, facts } = atHand;
  const tonight = useTonight();
  const starts = useStarts(closure.id);
  const [now, setNow] = useState(correctedNow);

  // Told by the minute: the facts are not gone through with every tick of the clock.
  const soon = (Math.floor(now / 60_000) + 1) * 60_000;
  const sleeves = useMemo(() => {
    const cables = cablesOf(definition);
    const program = machine?.heaterPrograms.find(({ name }) => name === tonight.heater);
    return sleevesOf(
      facts,
      Math.max(soon, Date.parse(facts.at(-1)?.madeAt ?? '') || 0),
      mineOnly(machine),
    ).flatMap(({ spliceId, since }) => {
      const state = findSplice(ledger, spliceId);
      // What is to be redone is cut out, not heated.
      if (!state || state.verdict.mark === 'redo') return [];
      const { sleeve } = jointOf(closure, state.splice, cables);
      if (!sleeve) return [];
      const own = machine ? heaterProgramFor(machine, sleeve) : null;
      // Started again only after this very try.
      const started = starts[spliceId] ?? 0;
      return [
        {
          spliceId,
          since: Math.max(since, started),
          seconds: program?.seconds ?? own?.seconds ?? usualSeconds[sleeve],
          name: `Slot ${state.splice.slot}`,
        },
      ];
    });
  }, [facts, ledger, closure, definition, machine, tonight.heater, starts, soon]);

  const last = Math.max(0, ...sleeves.map(({ since }) => since));
  useEffect(() => {
    const tell = () => {
      setNow(correctedNow());
      if (correctedNow() - last > laneMemory) clearInterval(clock);
    };
    const clock = setInterval(tell, 1000);
    const first = setTimeout(tell);
    return () => {
      clearInterval(clock);
      clearTimeout(first);
    };
  }, [last]);

  const settings = { heaters: machine?.heaters ?? 1, coolSeconds: machine?.coolSeconds ?? usualCool };
  const names = new Map(sleeves.map(({ spliceId, name }) => [spliceId, name]));
  const readySince = new Map(
    heaterLane(sleeves, settings, now - readyFor).map((place) => [place.spliceId, place.phase === 'ready']),
  );
  const places = heaterLane(sleeves, settings, Math.max(now, last)).filter(
    ({ spliceId }) => !readySince.get(spliceId),
  );
  if (places.length === 0) return null;

  const restart = (spliceId: string, at: number) => {
    startsAt(closure.id).set({ ...starts, [spliceId]: at });
    setNow(at);
  };
  return (
    <View role="group" aria-label="Heater and cooling tray">
      <ScrollView horizontal contentContainerStyle={styles.strip}>
        {places.slice(0, shownAtOnce).map((place) => (
          <Sleeve
            key={place.spliceId}
            place={place}
            name={names.get(place.spliceId)!}
            onRestart={(at) => restart(place.spliceId, at)}
          />
        ))}
        {places.length > shownAtOnce ? (
          <Type look="small" style={styles.more}>
            and {places.length - shownAtOnce} more wait
          </Type>
        ) : null}
      </ScrollView>
      <View role="status">
        <SpokenOnly
          text={places
            .filter(({ phase }) => phase === 'ready')
            .map(({ spliceId }) => `${names.get(spliceId)}: the sleeve may be touched.`)
            .join(' ')}
        />
      </View>
    </View>
  );
});

/** Two people at one closure have each their own heater. */
function mineOnly(machine: Machine | null) {
  const by = getPreferences().person.trim() || null;
  return (fact: Extract<Fact, { kind: 'attempt' }>) =>
    machine && fact.body.gear?.machine ? fact.body.gear.machine.id === machine.id : fact.by === by;
}

function Sleeve({
  place,
  name,
  onRestart,
}: {
  place: LanePlace;
  name: string;
  onRestart: (at: number) => void;
}) {
  const { palette } = useCordelTheme();
  const { phase, left } = place;
  const ready = phase === 'ready';
  useEffect(() => {
    if (ready) buzz(200);
  }, [ready]);
  const words = `${name} ${phaseWords[phase]}${ready ? '' : ` ${clockWords(left)}`}`;
  return (
    <Pressable
      role="button"
      aria-label={`${words}. Into the heater now: start its clock again`}
      onPress={() => onRestart(correctedNow())}
      style={[
        styles.sleeve,
        {
          borderColor: palette.ink,
          backgroundColor: phase === 'heating' ? palette.ink : palette.sheet,
        },
      ]}
    >
      <Type look="smallStrong" tone={phase === 'heating' ? 'ground' : 'ink'}>
        {words}
      </Type>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  strip: { gap: space.tight, padding: space.tight, paddingLeft: space.small },
  more: { alignSelf: 'center' },
  sleeve: {
    minHeight: touch.bench,
    borderWidth: stroke.rule,
    paddingHorizontal: space.medium,
    justifyContent: 'center',
  },
});
