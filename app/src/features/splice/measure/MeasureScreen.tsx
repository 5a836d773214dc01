import {
  exceeds,
  fiberName,
  formatLoss,
  lossLimit,
  measuredAt,
  siteOf,
  type MeasuredLoss,
  type TrayState,
} from '@cordel/core';
import { useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { cablesOf, useClosure, type ClosureAtHand } from '../../../data/ledger';
import { setPreferences, usePreferences } from '../../../data/preferences';
import { CordNav } from '../../../shell/frame/CordNav';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { places } from '../../../shell/places';
import { useRecordFact } from '../../../sync/react';
import { FiberToken, spokenFiber } from '../../../ui/FiberToken';
import { Choice } from '../../../ui/Field';
import { Knot } from '../../../ui/Knot';
import { Empty, Failed, Loading } from '../../../ui/States';
import { useCordelTheme } from '../../../ui/theme';
import { gutter, space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { newMeasuredLoss } from '../record/newFact';
import { MeasureForm } from './MeasureForm';
import { keyOf, toMeasure, type ToMeasure } from './toMeasure';

interface Address {
  readonly projectId: string;
  readonly closureId: string;
  readonly tray: number;
  /** Which fiber to begin with; the first that is not measured where none is named. */
  readonly slot: number | null;
  readonly position: number | null;
}

/** Losses that were measured, entered fiber by fiber of a tray. They stand beside the machine's estimates, never among them. */
export function MeasureScreen(address: Address) {
  const { projectId, closureId, tray } = address;
  const { atHand, error, retry } = useClosure(projectId, closureId);
  const up = { href: places.tray(projectId, closureId, tray), name: `tray ${tray}` };
  const title = `Measured losses, tray ${tray}`;
  const state = atHand?.ledger.trays[tray - 1];
  if (!atHand || !state)
    return (
      <Screen title={title} up={up}>
        {error ? (
          <Failed error={error} onRetry={retry} />
        ) : atHand ? (
          <Empty title={`There is no tray ${tray}`} text="Go up the cord and pick one." />
        ) : (
          <Loading what="the tray" />
        )}
      </Screen>
    );
  return (
    <Panes
      cord={
        <CordNav
          definition={atHand.definition}
          closureId={closureId}
          ledger={atHand.ledger}
          tray={state.tray}
        />
      }
    >
      <Screen
        title={title}
        subtitle={siteOf(atHand.definition.sites, atHand.closure.siteId).name}
        up={up}
        bench
      >
        <ScrollView tabIndex={0} contentContainerStyle={styles.body}>
          <Measure address={address} atHand={atHand} tray={state} />
        </ScrollView>
      </Screen>
    </Panes>
  );
}

const methods = [
  { value: 'otdr', label: 'OTDR' },
  { value: 'power-meter', label: 'Power meter' },
] as const;

function Measure({
  address: { projectId, slot, position },
  atHand,
  tray,
}: {
  address: Address;
  atHand: ClosureAtHand;
  tray: TrayState;
}) {
  const { palette } = useCordelTheme();
  const { measuredWith, measuredNm } = usePreferences();
  const recordFact = useRecordFact(projectId);
  const { definition, ledger, closure } = atHand;
  const cables = cablesOf(definition);
  const list = toMeasure(tray);
  const first =
    list.find((one) => one.state.splice.slot === slot && (position === null || one.position === position)) ??
    list.find(({ fact }) => fact === null) ??
    list[0];
  const [chosen, setChosen] = useState<string | null>(null);
  const [saved, setSaved] = useState<string | null>(null);
  if (!first)
    return (
      <Empty
        title="Nothing to measure yet"
        text="A fiber can be measured when its splice is made and its estimate is on record."
      />
    );
  const at = list.find((one) => keyOf(one) === chosen) ?? first;
  const { splice } = at.state;
  const ends = [splice.left[at.position - 1]!, splice.right[at.position - 1]!] as const;
  const [left, right] = ends.map(({ cableId, fiber }) => fiberName(cables.get(cableId)!, fiber));
  const limit = lossLimit(splice.kind, ledger.limits);
  const record = (seen: Pick<MeasuredLoss['body'], 'fromLeft' | 'fromRight'>) =>
    recordFact(
      newMeasuredLoss(
        { closureId: closure.id, splice, facts: at.state.facts },
        {
          attemptId: at.attemptId,
          position: at.position,
          method: measuredWith,
          wavelength: measuredNm,
          ...seen,
        },
      ),
    );
  const goOn = () => {
    const here = list.findIndex((one) => keyOf(one) === keyOf(at));
    const next = [...list.slice(here + 1), ...list.slice(0, here)].find(({ fact }) => fact === null) ?? at;
    setChosen(keyOf(next));
  };
  return (
    <>
      <Type look="small" role="note">
        An OTDR or a light source sends light that nobody sees. Never look into a fiber or a connector that
        may carry it; follow your local code and your company’s rules.
      </Type>
      <View
        role="group"
        aria-label={`${placeOf(at)}: ${spokenFiber(left!)} to ${spokenFiber(right!)}`}
        style={[styles.card, { backgroundColor: palette.sheet, borderColor: palette.ink }]}
      >
        <Type look="heading">{placeOf(at)}</Type>
        <View style={styles.tokens}>
          <FiberToken name={left!} />
          <FiberToken name={right!} />
        </View>
        <Type>
          {`Estimated ${formatLoss(at.estimate)} dB, limit ${formatLoss(limit)} dB${at.fact ? `. ${measuredWords(at)}` : ''}`}
        </Type>
        <MeasureForm
          key={`${keyOf(at)} ${at.fact?.id ?? ''}`}
          fact={at.fact}
          method={measuredWith}
          cables={[cables.get(ends[0].cableId)!.label, cables.get(ends[1].cableId)!.label]}
          focus={saved !== null}
          onSave={(seen) =>
            void record(seen).then(() => {
              setSaved(`${placeOf(at)} is recorded.`);
              goOn();
            })
          }
          onTakeBack={() =>
            void record({ fromLeft: null, fromRight: null }).then(() => {
              setSaved(`The measurement of ${placeOf(at).toLowerCase()} is taken back.`);
              setChosen(keyOf(at));
            })
          }
        />
        <Type look="small" role="status">
          {saved ?? ''}
        </Type>
      </View>
      <Choice
        label="Measured with"
        options={methods}
        value={measuredWith}
        bench
        onChange={(value) => setPreferences({ measuredWith: value })}
      />
      <Choice
        label="Wavelength"
        options={measuredAt.map((nm) => ({ value: String(nm), label: `${nm} nm` }))}
        value={String(measuredNm)}
        onChange={(value) => setPreferences({ measuredNm: Number(value) as typeof measuredNm })}
      />
      <Type look="heading" role="heading" aria-level={2}>
        {`${list.filter(({ fact }) => fact !== null).length} of ${list.length} fibers measured`}
      </Type>
      {ledger.limits.measured ? null : (
        <Type look="small" tone="soft">
          The project’s verdicts follow the estimates. Under Limits the owner can have measured losses count
          in their place.
        </Type>
      )}
      <View>
        {list.map((one) => (
          <Pressable
            key={keyOf(one)}
            role="button"
            aria-current={keyOf(one) === keyOf(at) ? 'true' : undefined}
            onPress={() => setChosen(keyOf(one))}
            style={[
              styles.row,
              { borderColor: palette.hairline },
              keyOf(one) === keyOf(at) ? { backgroundColor: palette.sheet } : null,
            ]}
          >
            <Knot mark={one.state.verdict.mark} size={18} />
            <Type style={styles.place}>{placeOf(one)}</Type>
            <Type tone="soft">{`${formatLoss(one.estimate)} est.`}</Type>
            <Type
              look="strong"
              tone={one.measured !== null && exceeds(one.measured, limitOf(one, ledger)) ? 'accent' : 'ink'}
              style={styles.value}
            >
              {one.measured !== null ? `${formatLoss(one.measured)} meas.` : one.fact ? 'one end' : '–'}
            </Type>
          </Pressable>
        ))}
      </View>
    </>
  );
}

const limitOf = ({ state }: ToMeasure, { limits }: ClosureAtHand['ledger']) =>
  lossLimit(state.splice.kind, limits);

function placeOf({ state: { splice }, position }: Pick<ToMeasure, 'state' | 'position'>): string {
  return `Slot ${splice.slot}${splice.left.length > 1 ? `, fiber ${position}` : ''}`;
}

function measuredWords({ measured }: ToMeasure): string {
  return measured === null ? 'Measured from one end only.' : `Measured ${formatLoss(measured)} dB.`;
}

const styles = StyleSheet.create({
  body: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  card: { borderWidth: stroke.rule, padding: space.medium, gap: space.small },
  tokens: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  row: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
    minHeight: touch.bench,
    borderBottomWidth: stroke.hair,
    paddingHorizontal: space.small,
  },
  place: { flex: 1 },
  value: { minWidth: 92, textAlign: 'right' },
});
