import {
  exceeds,
  fiberName,
  fiberUnits,
  formatChainage,
  formatLoss,
  highestLoss,
  lossLimit,
  nextSplice,
  planFindingWords,
  siteOf,
  unitsOnTray,
  type PlanFinding,
  type TrayState,
  type Units,
} from '@cordel/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { FlatList, Pressable, StyleSheet, View } from 'react-native';
import { lossSheetHere } from '../../../shell/madeHere';
import { useClosureFacts } from '../../../sync/react';
import { documents } from '../../../data/projects';
import { cablesOf, useClosure, type ClosureAtHand } from '../../../data/ledger';
import { useOrderOfWork } from '../../../data/orderOfWork';
import { Action } from '../../../ui/Action';
import { CordRow, type Stretch } from '../../../ui/Cord';
import { UnitToken } from '../../../ui/FiberToken';
import { Knot } from '../../../ui/Knot';
import { LossStrip } from '../../../ui/LossStrip';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { DeviceNotices } from '../../../shell/frame/SendStatus';
import { Failed, Loading } from '../../../ui/States';
import { useCordelTheme, useWide } from '../../../ui/theme';
import { space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { download, type Told } from '../../../shell/download';
import { ToldWords } from '../../../shell/ToldWords';
import { CordNav } from '../../../shell/frame/CordNav';
import { places } from '../../../shell/places';
import { RollUpTable } from '../../../shell/RollUpTable';
import { Unplanned } from '../../../shell/Unplanned';
import { meanWords, progressWords, waitingWords } from '../../../shell/words';

/** A closure: its trays on the cord, each with its losses, and the closure's numbers. */
export function ClosureScreen({ projectId, closureId }: { projectId: string; closureId: string }) {
  const { atHand, error, retry } = useClosure(projectId, closureId);
  if (!atHand)
    return (
      <Screen title="Closure" up={{ href: places.line(projectId), name: 'the line' }}>
        {error ? <Failed error={error} onRetry={retry} /> : <Loading what="the closure" />}
      </Screen>
    );
  return <ClosureAt projectId={projectId} atHand={atHand} />;
}

function ClosureAt({ projectId, atHand }: { projectId: string; atHand: ClosureAtHand }) {
  const { closure, definition, ledger } = atHand;
  const wide = useWide();
  const [told, setTold] = useState<Told | null>(null);
  const site = siteOf(definition.sites, closure.siteId);
  const order = useOrderOfWork(closure.id);
  // Where the order of work has nothing left, the rest is still to be spliced.
  const next = nextSplice(ledger, null, order) ?? nextSplice(ledger, null);
  const redo = ledger.trays.flatMap((tray) => tray.splices).find((state) => state.verdict.mark === 'redo');
  const bench = (state: { splice: { tray: number; slot: number } }) =>
    router.navigate(places.bench(projectId, closure.id, state.splice.tray, state.splice.slot));

  const numbers = (
    <View style={styles.numbers}>
      <RollUpTable of="Closure" rollUp={ledger.rollUp} ledger={ledger} />
      <View style={styles.export}>
        <Action
          icon="download"
          label="Loss sheet (CSV)"
          onPress={() =>
            void download(documents.lossSheet(projectId, closure.id), projectId, () =>
              lossSheetHere(definition, closure.id),
            ).then(setTold)
          }
        />
        <ToldWords told={told} />
      </View>
    </View>
  );

  return (
    <Panes
      cord={<CordNav definition={definition} closureId={closure.id} ledger={ledger} />}
      ledger={
        <View style={styles.pane}>
          <Type look="title" role="heading" aria-level={2} style={styles.paneTitle}>
            Numbers
          </Type>
          {numbers}
        </View>
      }
    >
      <Screen
        title={site.name}
        subtitle={[
          formatChainage(site.chainage, definition.project.units),
          site.placement,
          closure.kind,
          `${closure.entries.length} cables`,
        ]
          .filter(Boolean)
          .join(' · ')}
        up={{ href: places.line(projectId), name: 'the line' }}
        foot={
          next ? (
            <View style={styles.foot}>
              <Action
                bench
                kind="now"
                label={`Splice tray ${next.splice.tray}, slot ${next.splice.slot}`}
                onPress={() => bench(next)}
              />
            </View>
          ) : null
        }
      >
        <FlatList
          data={ledger.trays}
          keyExtractor={(tray) => String(tray.tray)}
          initialNumToRender={8}
          windowSize={7}
          contentContainerStyle={styles.list}
          ListHeaderComponent={
            <View style={styles.head}>
              <DeviceNotices />
              <Unread projectId={projectId} closureId={closure.id} />
              <Headline atHand={atHand} />
              <View style={styles.ways}>
                <Action label="Plan" onPress={() => router.navigate(places.plan(projectId, closure.id))} />
                <Action
                  label="Prepare"
                  onPress={() => router.navigate(places.prepare(projectId, closure.id))}
                />
                <Action label="Seal" onPress={() => router.navigate(places.seal(projectId, closure.id))} />
                <Action
                  label="Log"
                  spoken="Log of a splicing machine"
                  onPress={() => router.navigate(places.log(projectId, closure.id))}
                />
                <Action
                  label="Hand over"
                  onPress={() => router.navigate(places.handover(projectId, 'ready', closure.id))}
                />
                <Action label="Kit" onPress={() => router.navigate(places.kit(projectId, closure.id))} />
                <Action
                  label="Site"
                  onPress={() => router.navigate(places.site(projectId, closure.siteId))}
                />
              </View>
              <PlanFindings findings={ledger.plan.findings} units={definition.project.units} />
              {ledger.plan.ends.length > 0 ? (
                <Action
                  label={`${ledger.plan.ends.length} in connectors`}
                  detail="Put them on, check the light"
                  onPress={() => router.navigate(places.connectors(projectId, closure.id))}
                />
              ) : null}
              {ledger.rollUp.count === 0 && ledger.plan.ends.length === 0 ? (
                <Type>Nothing is planned here yet. The plan says which fibers meet on which tray.</Type>
              ) : null}
              <Unplanned ledger={ledger} cables={cablesOf(definition)} />
              {redo ? (
                <Action
                  bench
                  label={`${ledger.rollUp.marks.redo} to redo`}
                  detail={`first: tray ${redo.splice.tray}, slot ${redo.splice.slot}`}
                  icon="alert"
                  onPress={() => bench(redo)}
                />
              ) : null}
            </View>
          }
          renderItem={({ item, index }) => (
            <TrayCard
              atHand={atHand}
              tray={item}
              above={index === 0 ? 'none' : stretchBelow(ledger.trays[index - 1]!)}
              below={index === ledger.trays.length - 1 ? 'none' : stretchBelow(item)}
              current={item.tray === next?.splice.tray}
              onPress={() => router.navigate(places.tray(projectId, closure.id, item.tray))}
            />
          )}
          ListFooterComponent={wide ? null : numbers}
        />
      </Screen>
    </Panes>
  );
}

/** Records of a newer Cordel, which count for nothing here: told, so that nobody takes these figures for the whole. */
function Unread({ projectId, closureId }: { projectId: string; closureId: string }) {
  const count = useClosureFacts(projectId, closureId).data?.unread.length ?? 0;
  if (count === 0) return null;
  return (
    <Type look="small" role="status">
      {count === 1 ? 'One record here was' : `${count} records here were`} written by a newer Cordel. Kept and
      passed on, but not counted: load the newer version.
    </Type>
  );
}

/** What is wrong with the plan in full; what is only to be kept in mind as a number, since it stands in the plan. */
function PlanFindings({ findings, units }: { findings: readonly PlanFinding[]; units: Units }) {
  const errors = findings.filter((finding) => finding.severity === 'error');
  const warnings = findings.length - errors.length;
  return (
    <>
      {errors.slice(0, 3).map((finding, index) => (
        <Type key={index} look="strong" tone="accent" role="alert">
          {planFindingWords(finding, units)}
        </Type>
      ))}
      {errors.length > 3 ? (
        <Type look="strong" tone="accent">
          {errors.length - 3} more are in the plan.
        </Type>
      ) : null}
      {warnings > 0 ? (
        <Type look="small" tone="soft">
          {warnings === 1 ? 'One thing' : `${warnings} things`} to mind in the plan.
        </Type>
      ) : null}
    </>
  );
}

function Headline({ atHand: { ledger } }: { atHand: ClosureAtHand }) {
  const { rollUp } = ledger;
  return (
    <View style={styles.headline}>
      <View style={styles.figure}>
        <Type look="huge">{rollUp.settled}</Type>
        <Type tone="soft" style={styles.words}>
          {' '}
          of {rollUp.count} settled
        </Type>
      </View>
      <View style={styles.figure}>
        <Type look="huge" tone={rollUp.meanOver ? 'accent' : 'ink'}>
          {meanWords(rollUp)}
        </Type>
        <Type tone="soft" style={styles.words}>
          {' '}
          dB mean est., limit {formatLoss(rollUp.allowance.limit)}
        </Type>
      </View>
    </View>
  );
}

interface TrayCardProps {
  atHand: ClosureAtHand;
  tray: TrayState;
  above: Stretch;
  below: Stretch;
  current: boolean;
  onPress: () => void;
}

/** The cord is inked past a tray on which nothing is left to do. */
function stretchBelow({ rollUp }: TrayState): Stretch {
  return rollUp.settled === rollUp.count && rollUp.count > 0 ? 'done' : 'open';
}

/** What the strip of a tray shows; its numbers stand one by one on the tray's own page. */
function stripWords(
  { tray, rollUp: { worst }, splices }: TrayState,
  losses: readonly (number | null)[],
  limit: number,
): string {
  const read = losses.filter((loss) => loss !== null);
  if (read.length === 0 || !worst) return `Losses of tray ${tray}: none yet`;
  const over = read.filter((loss) => exceeds(loss, limit)).length;
  return `Losses of tray ${tray}: ${read.length} of ${losses.length} read, ${over === 0 ? 'none' : over} over the limit of ${formatLoss(limit)} dB, worst ${formatLoss(worst.loss)} dB at slot ${splices.find(({ splice }) => splice.id === worst.spliceId)!.splice.slot}`;
}

function TrayCard({ atHand, tray, above, below, current, onPress }: TrayCardProps) {
  const { palette } = useCordelTheme();
  const { ledger, definition } = atHand;
  const cables = cablesOf(definition);
  const { rollUp } = tray;
  const mark =
    rollUp.marks.redo > 0
      ? 'redo'
      : rollUp.marks.open > 0 || rollUp.count === 0
        ? 'open'
        : rollUp.marks.owner > 0
          ? 'owner'
          : 'holds';
  const words = [progressWords(rollUp), waitingWords(rollUp)].filter(Boolean).join(' · ');
  const losses = tray.splices.map((state) => highestLoss(state.readings));
  const limit = lossLimit(tray.splices[0]?.splice.kind ?? 'single', ledger.limits);
  return (
    <CordRow above={above} below={below} knot={<Knot mark={mark} size={22} />} knotSize={22} knotAt={36}>
      <Pressable
        role="link"
        onPress={onPress}
        style={[
          styles.card,
          {
            backgroundColor: palette.sheet,
            borderColor: palette.ink,
            borderWidth: current ? stroke.heavy : stroke.hair,
          },
        ]}
      >
        <View style={styles.cardHead}>
          <Type look="heading">Tray {tray.tray}</Type>
          <Type tone={rollUp.marks.redo > 0 ? 'accent' : 'ink'} look="small" style={styles.words}>
            {words}
          </Type>
        </View>
        <View style={styles.tubes}>
          {unitsOnTray(ledger.plan.trays[tray.tray - 1]!, cables).map(({ cableId, unit }) => {
            const cable = cables.get(cableId)!;
            const name = fiberName(cable, fiberUnits(cable.construction)[unit - 1]!.first);
            return (
              <UnitToken key={cableId + unit} unit={unit} color={name.unitColor} kind={name.unitKind} bare />
            );
          })}
        </View>
        {tray.splices.length > 0 ? (
          <LossStrip losses={losses} limit={limit} spoken={stripWords(tray, losses, limit)} />
        ) : (
          <Type look="small" tone="soft">
            Nothing planned here
          </Type>
        )}
      </Pressable>
    </CordRow>
  );
}

const styles = StyleSheet.create({
  list: { paddingBottom: space.large },
  head: { padding: space.large, paddingBottom: space.small, gap: space.medium },
  ways: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  headline: { flexDirection: 'row', flexWrap: 'wrap', columnGap: space.wide },
  figure: { flexDirection: 'row', alignItems: 'baseline', flexWrap: 'wrap', flexShrink: 1, maxWidth: '100%' },
  card: { marginVertical: space.small, padding: space.medium, gap: space.small, minHeight: touch.bench },
  cardHead: {
    flexDirection: 'row',
    alignItems: 'baseline',
    justifyContent: 'space-between',
    flexWrap: 'wrap',
  },
  words: { flexShrink: 1 },
  tubes: { flexDirection: 'row', flexWrap: 'wrap', columnGap: space.large, rowGap: space.tight },
  numbers: { gap: space.medium, paddingTop: space.medium },
  export: { paddingHorizontal: space.large, alignItems: 'flex-start', gap: space.small },
  foot: { padding: space.small },
  pane: { flex: 1 },
  paneTitle: { padding: space.large, paddingBottom: 0 },
});
