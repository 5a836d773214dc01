import { formatChainage, markWords, type ProjectDefinition } from '@cordel/core';
import { find, findIndex, type AskedDistance, type FindEntry } from '@cordel/core/find';
import { router } from 'expo-router';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { FlatList, Pressable, StyleSheet, View, type TextInput } from 'react-native';
import { lossTold } from '../../shell/words';
import { useLedgers } from '../../data/ledger';
import { useProject, useShelf } from '../../data/projects';
import { CordNav } from '../../shell/frame/CordNav';
import { Panes } from '../../shell/frame/Panes';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { useFactsOf } from '../../sync/react';
import { CordRow } from '../../ui/Cord';
import { TextBox } from '../../ui/Field';
import { Knot } from '../../ui/Knot';
import { Picker } from '../../ui/Picker';
import { Empty, Failed, Loading } from '../../ui/States';
import { gutter, space, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';

/** One field that finds a splice again: by site, tray and slot, cable and fiber, colors, circuit, verdict, or the distance that a reflectometer shows. */
export function FindScreen({ project, q = '' }: { project?: string; q?: string }) {
  const shelf = useShelf();
  const all = shelf.data?.shelf ?? [];
  const id = project ?? all[0]?.project.id;
  const up = id ? { href: places.line(id), name: 'the line' } : { href: places.shelf, name: 'the shelf' };
  if (!id)
    return (
      <Screen title="Find" up={up}>
        {shelf.error ? (
          <Failed error={shelf.error} onRetry={() => void shelf.refetch()} />
        ) : shelf.data ? (
          <Empty title="The shelf is empty" text="Splices are found in a project that stands on it." />
        ) : (
          <Loading what="the shelf" />
        )}
      </Screen>
    );
  return (
    <FindInProject
      key={id}
      projectId={id}
      q={q}
      others={all.map((one) => ({ value: one.project.id, label: one.project.name }))}
    />
  );
}

type Others = readonly { readonly value: string; readonly label: string }[];

function FindInProject({ projectId, q, others }: { projectId: string; q: string; others: Others }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const up = { href: places.line(projectId), name: 'the line' };
  if (!definition)
    return (
      <Screen title="Find" up={up}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the project" />}
      </Screen>
    );
  return (
    <Panes cord={<CordNav definition={definition} />}>
      <Screen title="Find" subtitle={definition.project.name} up={up}>
        <FindAt definition={definition} q={q} others={others} />
      </Screen>
    </Panes>
  );
}

function FindAt({ definition, q, others }: { definition: ProjectDefinition; q: string; others: Others }) {
  const { project, closures } = definition;
  const { ledgers, error, retry } = useLedgers(definition);
  const { facts } = useFactsOf(
    project.id,
    closures.map(({ id }) => id),
  );
  const index = useMemo(
    () =>
      ledgers && facts
        ? findIndex(
            definition,
            new Map(
              closures.map(({ id }, place) => [id, { ledger: ledgers.get(id)!, facts: facts[place]! }]),
            ),
          )
        : null,
    [definition, closures, ledgers, facts],
  );
  const [text, setText] = useState(q);
  const asked = useDeferredValue(text);
  const found = useMemo(() => (index ? find(index, asked) : null), [index, asked]);
  const field = useRef<TextInput>(null);
  // After the page’s name had the focus: whoever comes here types.
  useEffect(() => {
    const frame = requestAnimationFrame(() => field.current?.focus());
    return () => cancelAnimationFrame(frame);
  }, []);
  // So that it can be shared, and stands there after going back.
  useEffect(() => router.setParams({ project: project.id, q: asked }), [project.id, asked]);
  const empty = text.trim() === '';
  return (
    <FlatList
      data={found?.hits ?? []}
      keyExtractor={({ closureId, tray, slot }) => `${closureId} ${tray} ${slot}`}
      keyboardShouldPersistTaps="handled"
      initialNumToRender={12}
      contentContainerStyle={styles.list}
      ListHeaderComponent={
        <View style={styles.head}>
          {others.length > 1 ? (
            <Picker
              label="In"
              most={3}
              options={others}
              value={project.id}
              onChange={(next) => router.setParams({ project: next })}
            />
          ) : null}
          <TextBox
            bench
            inputRef={field}
            label="What is looked for"
            value={text}
            onChangeText={setText}
            hint="U2 brown violet · 96 Ponte 46 · School · tray 3 slot 4 · redo · 2.43 km from Moinho"
          />
          {error ? <Failed error={error} onRetry={retry} /> : null}
          {!found && !error ? <Loading what="the records" /> : null}
          {found?.distance ? <Distance asked={found.distance} units={project.units} /> : null}
          {found && !empty ? (
            <Type role="status" look="strong">
              {found.count === 0
                ? 'No splice is like that. Try fewer words.'
                : found.count === 1
                  ? '1 splice'
                  : found.count > found.hits.length
                    ? `${found.count} splices, the worst ${found.hits.length} of them`
                    : `${found.count} splices, the worst first`}
            </Type>
          ) : null}
        </View>
      }
      renderItem={({ item, index: place }) => (
        <Hit
          projectId={project.id}
          hit={item}
          first={place === 0}
          last={place === (found?.hits.length ?? 0) - 1}
        />
      )}
    />
  );
}

function Distance({
  asked: { meters, from, at, nearest },
  units,
}: {
  asked: AskedDistance;
  units: 'mm' | 'in';
}) {
  const shown = (length: number) => formatChainage(length, units);
  const list = at.length > 0 ? at : nearest;
  return (
    <View role="group" aria-label="Distance">
      <Type>
        {shown(meters)} of fiber from {from.name}
        {at.length === 0 ? ': no closure is there. The nearest:' : at.length > 1 ? ' may be:' : ' is:'}
      </Type>
      {list.map(({ site, distance, off }) => (
        <Type key={site.id} look={at.length > 0 ? 'strong' : 'body'}>
          {site.name}, {shown(distance.meters)} ± {shown(distance.uncertainty)}, {shown(off)} away
        </Type>
      ))}
      <Type look="small" tone="soft">
        Excess and stored cable are counted in: by the numbers on the sheath where they were read, else as is
        usual. A reflectometer’s own index can be given, like n 1.468.
      </Type>
    </View>
  );
}

function Hit({
  projectId,
  hit,
  first,
  last,
}: {
  projectId: string;
  hit: FindEntry;
  first: boolean;
  last: boolean;
}) {
  return (
    <CordRow
      above={first ? 'none' : 'open'}
      below={last ? 'none' : 'open'}
      knot={<Knot mark={hit.mark} size={22} />}
      knotSize={22}
    >
      <Pressable
        role="link"
        onPress={() => router.navigate(places.bench(projectId, hit.closureId, hit.tray, hit.slot))}
        style={styles.hit}
      >
        <View style={styles.line}>
          <Type look="strong" style={styles.grow}>
            {hit.site}, tray {hit.tray}, slot {hit.slot}
          </Type>
          <Type look="reading">{lossTold(hit.worst, hit.measured)}</Type>
        </View>
        <Type look="small">
          {hit.left} – {hit.right}
          {hit.circuit ? ` · ${hit.circuit}` : ''} · {markWords[hit.mark].toLowerCase()}
        </Type>
      </Pressable>
    </CordRow>
  );
}

const styles = StyleSheet.create({
  list: { paddingBottom: space.large, maxWidth: 860 },
  head: { padding: space.large, paddingLeft: gutter.width, gap: space.medium },
  hit: { minHeight: touch.bench, justifyContent: 'center', paddingVertical: space.small },
  line: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'baseline', gap: space.small },
  grow: { flex: 1, minWidth: 180 },
});
