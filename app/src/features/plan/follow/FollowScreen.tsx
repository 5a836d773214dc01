import {
  connectorNames,
  cablesAlong,
  fiberCount,
  fiberName,
  formatChainage,
  formatLoss,
  markWords,
  siteOf,
  type Cable,
  type ClosureLedger,
  type FiberEnd,
  type ProjectDefinition,
} from '@cordel/core';
import { followFiber, type WayStep } from '@cordel/core/follow';
import { router, useLocalSearchParams } from 'expo-router';
import { useMemo } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { lossTold } from '../../../shell/words';
import { useLedgers } from '../../../data/ledger';
import { useProject } from '../../../data/projects';
import { Action } from '../../../ui/Action';
import { CordRow, type Stretch } from '../../../ui/Cord';
import { FiberToken, HolderTokens, spokenFiber } from '../../../ui/FiberToken';
import { TextBox } from '../../../ui/Field';
import { Picker } from '../../../ui/Picker';
import { Knot } from '../../../ui/Knot';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { Empty, Failed, Loading } from '../../../ui/States';
import { Tabs } from '../../../shell/frame/Tabs';
import { useWide } from '../../../ui/theme';
import { gutter, space, touch } from '../../../ui/tokens';
import { SpokenOnly, Type } from '../../../ui/Type';
import { CordNav } from '../../../shell/frame/CordNav';
import { places, projectTabs } from '../../../shell/places';

/** A fiber's way through every closure to both its ends. Cable, fiber and stretch stand in the address, so that it can be shared. */
export function FollowScreen({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const up = { href: places.line(projectId), name: 'the line' };
  if (!definition)
    return (
      <Screen title="Follow a fiber" up={up}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the route" />}
      </Screen>
    );
  return <FollowAt definition={definition} />;
}

function FollowAt({ definition }: { definition: ProjectDefinition }) {
  const asked = useLocalSearchParams<{ cable?: string; fiber?: string; span?: string }>();
  const wide = useWide();
  const { project } = definition;
  const cables = cablesAlong(definition.sites, definition.cables);
  const cable = cables.find((one) => one.id === asked.cable) ?? cables[0];
  const text = asked.fiber ?? '1';
  const fiber = Number(text);
  const span = Number(asked.span ?? 0) || 0;
  const count = cable ? fiberCount(cable.construction) : 0;
  const valid = Number.isInteger(fiber) && fiber >= 1 && fiber <= count;
  // Typed letter by letter: the address follows without a step back for each.
  const go = (next: { cable?: string; fiber?: string; span?: string }) => router.setParams(next);
  return (
    <Panes cord={<CordNav definition={definition} tab="follow" />}>
      <Screen
        title="Follow a fiber"
        subtitle={project.name}
        up={{ href: places.line(project.id), name: 'the line' }}
        foot={wide ? null : <Tabs tabs={projectTabs(project.id, 'follow')} />}
      >
        <ScrollView>
          {!cable ? (
            <Empty title="No cables yet" text="A fiber can be followed once the route has cables.">
              <Action
                label="Add a cable"
                onPress={() => router.navigate(places.editCable(project.id, 'new'))}
              />
            </Empty>
          ) : (
            <View style={styles.ask}>
              <Picker
                label="In which cable"
                options={cables.map((one) => ({ value: one.id, label: one.label }))}
                value={cable.id}
                onChange={(id) => go({ cable: id, span: '0' })}
              />
              <View style={styles.number}>
                <Action
                  bench
                  label="−"
                  spoken="The fiber before"
                  disabled={!valid || fiber === 1}
                  onPress={() => go({ cable: cable.id, fiber: String(fiber - 1) })}
                />
                <View style={styles.flex}>
                  <TextBox
                    label={`Fiber, 1 to ${count}`}
                    keyboard="numeric"
                    value={text}
                    onChangeText={(next) => go({ cable: cable.id, fiber: next.replace(/\D/g, '') })}
                    trouble={valid ? undefined : `This cable has fibers 1 to ${count}.`}
                  />
                </View>
                <Action
                  bench
                  label="+"
                  spoken="The next fiber"
                  disabled={!valid || fiber === count}
                  onPress={() => go({ cable: cable.id, fiber: String(fiber + 1) })}
                />
              </View>
              {cable.siteIds.length > 2 ? (
                <Picker
                  label="On which stretch"
                  options={cable.siteIds.slice(0, -1).map((id, index) => ({
                    value: String(index),
                    label: `${siteOf(definition.sites, id).name} to ${siteOf(definition.sites, cable.siteIds[index + 1]!).name}`,
                  }))}
                  value={String(Math.min(span, cable.siteIds.length - 2))}
                  onChange={(next) => go({ cable: cable.id, fiber: text, span: next })}
                />
              ) : null}
            </View>
          )}
          {cable && valid ? <Way definition={definition} cable={cable} fiber={fiber} span={span} /> : null}
        </ScrollView>
      </Screen>
    </Panes>
  );
}

function Way({
  definition,
  cable,
  fiber,
  span,
}: {
  definition: ProjectDefinition;
  cable: Cable;
  fiber: number;
  span: number;
}) {
  const { ledgers, error, retry } = useLedgers(definition);
  const steps = useMemo(() => {
    if (!ledgers) return null;
    return followFiber(
      {
        sites: definition.sites,
        cables: new Map(definition.cables.map((one) => [one.id, one])),
        closures: definition.closures.map((closure) => ({ closure, plan: ledgers.get(closure.id)!.plan })),
      },
      cable.id,
      fiber,
      span,
    );
  }, [definition, ledgers, cable, fiber, span]);
  if (!ledgers || !steps)
    return error ? <Failed error={error} onRetry={retry} /> : <Loading what="the closures on its way" />;
  const length = steps.reduce((sum, step) => sum + (step.kind === 'length' ? step.meters : 0), 0);
  const losses = steps.flatMap((step) => (step.kind === 'splice' ? [readingAt(step, ledgers)] : []));
  const read = losses.filter((loss): loss is number => loss !== null);
  return (
    <View>
      <View style={styles.sum}>
        <Type look="heading">
          {formatChainage(length, definition.project.units)}, {losses.length}{' '}
          {losses.length === 1 ? 'splice' : 'splices'}
        </Type>
        <Type look="small" tone="soft">
          {read.length === 0
            ? 'None of them is spliced yet.'
            : `${read.length} spliced, ${formatLoss(read.reduce((sum, loss) => sum + loss, 0))} dB together (estimated at the machine).`}
        </Type>
      </View>
      {steps.map((step, index) => (
        <StepRow
          key={index}
          step={step}
          definition={definition}
          ledgers={ledgers}
          above={index === 0 ? 'none' : 'done'}
          below={index === steps.length - 1 ? 'none' : 'done'}
        />
      ))}
    </View>
  );
}

type SpliceStep = Extract<WayStep, { kind: 'splice' }>;

/** Loss of this very fiber, dB; null without a reading. */
function readingAt(step: SpliceStep, ledgers: ReadonlyMap<string, ClosureLedger>): number | null {
  return stateAt(step, ledgers)?.readings[step.index]?.loss ?? null;
}

function stateAt(step: SpliceStep, ledgers: ReadonlyMap<string, ClosureLedger>) {
  const { place } = step;
  if (!place) return null;
  return ledgers
    .get(step.closureId)
    ?.trays[place.tray - 1]?.splices.find((state) => state.splice.slot === place.slot);
}

const stopWords = {
  'no-closure': 'The cable ends here.',
  'not-planned': 'It stops here: the order does not splice it.',
  cut: 'It stops here: the fiber is cut, and only its other face is spliced.',
  loop: 'It comes back to a splice it has passed: the order joins it to a ring.',
} as const;

function StepRow({
  step,
  definition,
  ledgers,
  above,
  below,
}: {
  step: WayStep;
  definition: ProjectDefinition;
  ledgers: ReadonlyMap<string, ClosureLedger>;
  above: Stretch;
  below: Stretch;
}) {
  const { project } = definition;
  const cableOf = (id: string) => definition.cables.find((one) => one.id === id)!;
  if (step.kind === 'length') {
    const cable = cableOf(step.cableId);
    const name = fiberName(cable, step.fiber);
    return (
      <CordRow above={above} below={below} knot={null}>
        <Pressable
          role="link"
          onPress={() => router.navigate(places.cable(project.id, cable.id))}
          style={styles.length}
        >
          <Type look="small" tone="soft">
            {cable.label}, {formatChainage(step.meters, project.units)}
          </Type>
          <View style={styles.tokens}>
            <HolderTokens name={name} />
            <FiberToken name={name} />
          </View>
          <SpokenOnly text={`, ${spokenFiber(name)}`} />
        </Pressable>
      </CordRow>
    );
  }
  const site = siteOf(definition.sites, step.siteId);
  if (step.kind === 'connector') return <ConnectorRow {...{ step, definition, above, below }} />;
  if (step.kind === 'splice') {
    const state = stateAt(step, ledgers);
    const loss = readingAt(step, ledgers);
    const mark = state?.verdict.mark ?? 'open';
    const body = (
      <>
        <View style={styles.names}>
          <Type look="heading" style={styles.flex}>
            {site.name}
          </Type>
          <Type look="reading">{lossTold(loss, state?.measured[step.index] ?? null) || markWords[mark]}</Type>
        </View>
        <Type look="small" tone="soft">
          {step.place ? `tray ${step.place.tray}, slot ${step.place.slot}` : 'no slot'}
          {step.splice.kind === 'ribbon' ? `, fiber ${step.index + 1} of a ribbon` : ''}
          {loss === null ? '' : ` · ${markWords[mark].toLowerCase()}`}
          {step.splice.circuit ? ` · ${step.splice.circuit}` : ''}
        </Type>
        <EndWords from={step.from} to={step.to} cableOf={cableOf} />
      </>
    );
    return (
      <CordRow above={above} below={below} knot={<Knot mark={mark} size={26} />} knotSize={26}>
        {step.place ? (
          <Pressable
            role="link"
            onPress={() =>
              router.navigate(places.bench(project.id, step.closureId, step.place!.tray, step.place!.slot))
            }
            style={styles.site}
          >
            {body}
          </Pressable>
        ) : (
          <View style={styles.site}>{body}</View>
        )}
      </CordRow>
    );
  }
  return (
    <CordRow
      above={above}
      below={below}
      knot={
        <Knot mark={step.kind === 'through' ? 'holds' : 'open'} size={step.kind === 'through' ? 14 : 20} />
      }
      knotSize={step.kind === 'through' ? 14 : 20}
    >
      <View style={styles.site}>
        <Type look="heading">{site.name}</Type>
        <Type look="small" tone="soft">
          {step.kind === 'through' ? 'Goes through, not cut.' : stopWords[step.because]}
        </Type>
      </View>
    </CordRow>
  );
}

/** Where the light comes out, or goes in. */
function ConnectorRow({
  step,
  definition,
  above,
  below,
}: {
  step: Extract<WayStep, { kind: 'connector' }>;
  definition: ProjectDefinition;
  above: Stretch;
  below: Stretch;
}) {
  const { circuit, connector } = step.end;
  return (
    <CordRow above={above} below={below} knot={<Knot mark="holds" size={20} />} knotSize={20}>
      <Pressable
        role="link"
        onPress={() => router.navigate(places.connectors(definition.project.id, step.closureId))}
        style={styles.site}
      >
        <Type look="heading">{siteOf(definition.sites, step.siteId).name}</Type>
        <Type look="small" tone="soft">
          Ends here in {connector === 'own' ? 'its own connector' : `a ${connectorNames[connector]}`}
          {circuit ? ` · ${circuit}` : ''}
        </Type>
      </Pressable>
    </CordRow>
  );
}

/** Said, not shown: the lengths above and below show the same colors. */
function EndWords({ from, to, cableOf }: { from: FiberEnd; to: FiberEnd; cableOf: (id: string) => Cable }) {
  const words = [from, to].map((end) => {
    const cable = cableOf(end.cableId);
    return `${spokenFiber(fiberName(cable, end.fiber))} of ${cable.label}`;
  });
  return <SpokenOnly text={words.join(' to ')} />;
}

const styles = StyleSheet.create({
  ask: { padding: space.large, paddingLeft: gutter.width, gap: space.medium, maxWidth: 760 },
  number: { flexDirection: 'row', alignItems: 'flex-end', gap: space.small },
  flex: { flex: 1 },
  sum: { paddingLeft: gutter.width, paddingRight: space.medium, paddingBottom: space.small },
  length: { minHeight: touch.normal, paddingVertical: space.small, gap: space.tight },
  tokens: { flexDirection: 'row', flexWrap: 'wrap', columnGap: space.large, rowGap: space.tight },
  site: { minHeight: touch.bench, justifyContent: 'center', paddingVertical: space.small },
  names: { flexDirection: 'row', alignItems: 'baseline', flexWrap: 'wrap', columnGap: space.small },
});
