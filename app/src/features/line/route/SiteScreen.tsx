import {
  closureOfModel,
  formatChainage,
  metersFromShown,
  routeSites,
  shownFromMeters,
  siteSchema,
  usualManner,
  type Cable,
  type Closure,
  type ClosureModel,
  type Entry,
  type ProjectDefinition,
  type Site,
  shownNumber,
} from '@cordel/core';
import { lineOf } from '@cordel/core/edits';
import { router } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { useCreateClosure, useModels, useSaveLine } from '../../../data/plan';
import { useProject } from '../../../data/projects';
import { useVersionedEdit, type VersionedEdit } from '../../../data/versionedEdit';
import { afterwards } from '../../../data/afterwards';
import { Action } from '../../../ui/Action';
import { Choice, TextBox } from '../../../ui/Field';
import { toNumber } from '../../../ui/numberField';
import { SaveFoot } from '../../../shell/forms/SaveFoot';
import { Screen } from '../../../shell/frame/Screen';
import { Sheet } from '../../../ui/Sheet';
import { Empty, Failed, Loading } from '../../../ui/States';
import { gutter, space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { places } from '../../../shell/places';
import { PositionField, positionText, readPosition } from './PositionField';

/** Makes a site ("new") or edits one, and puts a closure there. */
export function SiteScreen({ projectId, siteId }: { projectId: string; siteId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const edit = useVersionedEdit(definition, refetch, lineOf);
  const up = { href: places.line(projectId), name: 'the line' };
  const site = definition?.sites.find((one) => one.id === siteId);
  if (!definition || (!site && siteId !== 'new'))
    return (
      <Screen title="Site" up={up}>
        {definition ? (
          <Empty title="This project has no such site" text="It may have been taken out of the route." />
        ) : error ? (
          <Failed error={error} onRetry={() => void refetch()} />
        ) : (
          <Loading what="the site" />
        )}
      </Screen>
    );
  return <SiteAt key={`${siteId} ${edit.round}`} definition={definition} site={site ?? null} edit={edit} />;
}

const kinds = [
  { value: 'closure', label: 'Closure' },
  { value: 'hub', label: 'Hub' },
  { value: 'cabinet', label: 'Cabinet' },
  { value: 'terminal', label: 'Terminal' },
] as const;

const placements = [
  { value: 'none', label: 'Not said' },
  { value: 'manhole', label: 'Manhole' },
  { value: 'handhole', label: 'Handhole' },
  { value: 'aerial', label: 'Aerial' },
  { value: 'pole', label: 'Pole' },
  { value: 'indoors', label: 'Indoors' },
] as const;

function SiteAt({
  definition,
  site,
  edit,
}: {
  definition: ProjectDefinition;
  site: Site | null;
  edit: VersionedEdit<ProjectDefinition>;
}) {
  const { project, sites } = definition;
  const base = edit.base!;
  const [name, setName] = useState(site?.name ?? '');
  const [kind, setKind] = useState<Site['kind']>(site?.kind ?? 'closure');
  const shown = site ? shownNumber(shownFromMeters(site.chainage, project.units)) : '';
  const [distance, setDistance] = useState(shown);
  const [placement, setPlacement] = useState<NonNullable<Site['placement']> | 'none'>(
    site?.placement ?? 'none',
  );
  const [branchFrom, setBranchFrom] = useState(site?.branchFrom ?? 'route');
  const [position, setPosition] = useState(positionText(site?.position));
  const [troubles, setTroubles] = useState<Record<string, string>>({});
  const [removing, setRemoving] = useState(false);
  const save = useSaveLine(project.id);
  const closure = definition.closures.find((one) => one.siteId === site?.id);
  const cables = definition.cables.filter((cable) => site && cable.siteIds.includes(site.id));
  const unit = project.units === 'mm' ? 'm' : 'ft';

  const submit = () => {
    const chainage = toNumber(distance);
    const where = readPosition(position);
    if (where === null) {
      setTroubles({ position: 'Give latitude and longitude in degrees, like -22.90512, -43.18213.' });
      return;
    }
    const read = siteSchema.safeParse({
      id: site?.id ?? v7(),
      name,
      kind,
      // Untouched it stays what it was: what is shown is rounded.
      chainage:
        site && distance === shown
          ? site.chainage
          : Number.isNaN(chainage)
            ? chainage
            : metersFromShown(chainage, project.units),
      placement: placement === 'none' ? null : placement,
      ...(branchFrom === 'route' ? {} : { branchFrom }),
      ...(where ? { position: where } : {}),
    });
    if (!read.success) {
      setTroubles(
        Object.fromEntries(
          read.error.issues.map((issue) => [
            String(issue.path[0]),
            issue.path[0] === 'chainage' && Number.isNaN(chainage)
              ? 'Give the distance as a number.'
              : issue.message,
          ]),
        ),
      );
      return;
    }
    setTroubles({});
    const others = sites.filter((one) => one.id !== read.data.id);
    afterwards(
      save.mutateAsync({ base, sites: [...others, read.data], cables: definition.cables }),
      (saved) => {
        edit.settle(saved);
        if (site) router.navigate(places.line(project.id));
        else router.replace(places.site(project.id, read.data.id));
      },
    );
  };
  const branches = sites.filter((one) => one.branchFrom === site?.id);
  const held = [
    closure ? 'its closure' : null,
    cables.length > 0 ? cables.map((cable) => cable.label).join(', ') : null,
    branches.length > 0 ? `the branch with ${branches.map((one) => one.name).join(', ')}` : null,
  ].filter(Boolean);

  return (
    <Screen
      title={site?.name ?? 'New site'}
      subtitle={site ? formatChainage(site.chainage, project.units) : project.name}
      up={{ href: places.line(project.id), name: 'the line' }}
      foot={
        <SaveFoot
          label="Save the site"
          saving={save.isPending}
          error={save.error}
          onSave={submit}
          newer={edit.newer}
          onNewer={edit.showNewer}
        />
      }
    >
      <ScrollView contentContainerStyle={styles.form}>
        <TextBox label="Name" value={name} onChangeText={setName} trouble={troubles.name} />
        <Choice label="What it is" options={kinds} value={kind} onChange={setKind} />
        <Choice
          label="It lies on"
          options={[
            { value: 'route', label: 'The route' },
            ...routeSites(sites)
              .filter((one) => one.id !== site?.id && one.kind === 'closure')
              .map((one) => ({ value: one.id, label: `Branch at ${one.name}` })),
          ]}
          value={branchFrom}
          onChange={setBranchFrom}
        />
        <TextBox
          label={branchFrom === 'route' ? 'Distance along the route' : 'Distance along the branch'}
          unit={unit}
          keyboard="decimal"
          value={distance}
          onChangeText={setDistance}
          trouble={troubles.chainage}
        />
        <Choice label="Where" options={placements} value={placement} onChange={setPlacement} />
        <PositionField value={position} trouble={troubles.position} onChange={setPosition} />
        {site ? (
          closure ? (
            <View style={styles.group}>
              <Type look="heading">{closure.model ?? closure.kind}</Type>
              <View style={styles.row}>
                <Action
                  label="To the closure"
                  onPress={() => router.navigate(places.closure(project.id, closure.id))}
                />
                <Action label="Plan" onPress={() => router.navigate(places.plan(project.id, closure.id))} />
              </View>
            </View>
          ) : (
            <PutClosure projectId={project.id} site={site} cables={cables} />
          )
        ) : null}
        {site ? (
          <Action label="Take the site out" onPress={() => setRemoving(true)} style={styles.start} />
        ) : null}
      </ScrollView>
      <Sheet title={`Take out ${site?.name ?? ''}`} open={removing} onClose={() => setRemoving(false)}>
        {held.length > 0 ? (
          <Type>Still here: {held.join('; ')}. Take that away first.</Type>
        ) : (
          <>
            <Type>The site leaves the route. Nothing hangs on it.</Type>
            <Action
              kind="now"
              label="Take it out"
              onPress={() =>
                afterwards(
                  save.mutateAsync({
                    base,
                    sites: sites.filter((one) => one.id !== site!.id),
                    cables: definition.cables,
                  }),
                  (saved) => {
                    edit.settle(saved);
                    router.replace(places.line(project.id));
                  },
                )
              }
            />
          </>
        )}
      </Sheet>
    </Screen>
  );
}

/** A closure copied from the catalogue, with the cables of the site already let in. */
function PutClosure({
  projectId,
  site,
  cables,
}: {
  projectId: string;
  site: Site;
  cables: readonly Cable[];
}) {
  const models = useModels();
  const create = useCreateClosure(projectId);
  const put = (model: ClosureModel) => {
    const closure: Closure = {
      id: v7(),
      siteId: site.id,
      ...closureOfModel(model),
      entries: cables.map((cable): Entry => ({ cableId: cable.id, manner: usualManner(cable, site.id) })),
      order: [],
      version: 1,
    };
    afterwards(create.mutateAsync(closure), () => router.navigate(places.plan(projectId, closure.id)));
  };
  return (
    <View style={styles.group}>
      <Type look="heading" role="heading" aria-level={2}>
        Put a closure here
      </Type>
      {models.error ? <Type tone="accent">{models.error.message}</Type> : null}
      {models.data?.map((model) => (
        <Action
          key={model.id}
          label={model.name}
          detail={`${model.kind}, ${model.trays} ${model.trays === 1 ? 'tray' : 'trays'} of ${model.singleSlots} single or ${model.ribbonSlots} ribbon sleeves`}
          disabled={create.isPending}
          onPress={() => put(model)}
        />
      ))}
      <Action label="Edit the models" kind="plain" onPress={() => router.navigate(places.models)} />
      {create.error ? (
        <Type tone="accent" role="alert">
          {create.error.message}
        </Type>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
  group: { gap: space.small },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  start: { alignSelf: 'flex-start' },
});
