import { isTimeZone, projectSettingsSchema, type Project } from '@cordel/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { afterwards } from '../../../data/afterwards';
import { useProject, useSaveSettings } from '../../../data/projects';
import { useVersionedEdit, type VersionedEdit } from '../../../data/versionedEdit';
import { Action } from '../../../ui/Action';
import { DateTimeBox } from '../../../ui/DateTimeBox';
import { Choice, TextBox } from '../../../ui/Field';
import { Panes } from '../../../shell/frame/Panes';
import { SaveFoot } from '../../../shell/forms/SaveFoot';
import { Screen } from '../../../shell/frame/Screen';
import { Failed, Loading } from '../../../ui/States';
import { useCordelTheme } from '../../../ui/theme';
import { clockTime, ownTimeZone, timeOfWall, wallTime } from '../../../ui/times';
import { gutter, space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { CordNav } from '../../../shell/frame/CordNav';
import { unitOptions } from '../unitOptions';
import { places } from '../../../shell/places';

/** A project's name, units, time zone, and the time in which the work is allowed. */
export function SettingsScreen({ projectId }: { projectId: string }) {
  const { data: definition, error, refetch } = useProject(projectId);
  const edit = useVersionedEdit(definition?.project, refetch);
  if (!definition || !edit.base)
    return (
      <Screen title="Settings" up={{ href: places.line(projectId), name: 'the line' }}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the settings" />}
      </Screen>
    );
  return (
    <Panes cord={<CordNav definition={definition} tab="line" />}>
      <SettingsForm key={edit.round} project={edit.base} edit={edit} />
    </Panes>
  );
}

function SettingsForm({ project, edit }: { project: Project; edit: VersionedEdit<Project> }) {
  const [name, setName] = useState(project.name);
  const [units, setUnits] = useState(project.units);
  const [zone, setZone] = useState(project.timeZone ?? '');
  const [bounded, setBounded] = useState(project.window !== null);
  const [opens, setOpens] = useState(project.window ? wallTime(project.window.opens, project.timeZone) : '');
  const [closes, setCloses] = useState(
    project.window ? wallTime(project.window.closes, project.timeZone) : '',
  );
  const [troubles, setTroubles] = useState<Record<string, string>>({});
  const save = useSaveSettings(project.id);
  const timeZone = zone.trim() || null;

  const submit = () => {
    const [from, to] = [timeOfWall(opens, timeZone), timeOfWall(closes, timeZone)];
    const missing: Record<string, string> = {};
    if (bounded && from === null) missing.opens = 'Give the day and the time at which it opens.';
    if (bounded && to === null) missing.closes = 'Give the day and the time at which it closes.';
    const { limits, nights } = project;
    const window = bounded && from !== null && to !== null ? { opens: from, closes: to } : null;
    const read = projectSettingsSchema.safeParse({ name, units, limits, window, timeZone, nights });
    for (const { path, message } of read.error?.issues ?? []) missing[String(path.at(-1))] ??= message;
    setTroubles(missing);
    if (!read.success || Object.keys(missing).length > 0) return;
    afterwards(save.mutateAsync({ base: project, settings: read.data }), () =>
      router.navigate(places.line(project.id)),
    );
  };
  const trouble = Object.values(troubles)[0];

  return (
    <Screen
      title="Settings"
      subtitle={project.name}
      up={{ href: places.line(project.id), name: 'the line' }}
      foot={
        <SaveFoot
          label="Save the settings"
          saving={save.isPending}
          error={save.error}
          trouble={trouble}
          newer={edit.newer}
          onNewer={edit.showNewer}
          onSave={submit}
        />
      }
    >
      <ScrollView contentContainerStyle={styles.form}>
        <TextBox label="Project name" value={name} onChangeText={setName} trouble={troubles.name} />
        <Choice label="Units shown" value={units} onChange={setUnits} options={unitOptions} />
        <ZoneBox zone={zone} trouble={troubles.timeZone} onChange={setZone} />
        <Choice
          label="The work is allowed"
          value={bounded ? 'window' : 'always'}
          onChange={(value) => setBounded(value === 'window')}
          options={[
            { value: 'always', label: 'At any time' },
            { value: 'window', label: 'In a window' },
          ]}
        />
        {bounded ? (
          <View style={styles.pair}>
            <DateTimeBox label="Opens" value={opens} onChange={setOpens} trouble={troubles.opens} />
            <DateTimeBox label="Closes" value={closes} onChange={setCloses} trouble={troubles.closes} />
          </View>
        ) : null}
        {bounded ? (
          <Type look="small" tone="soft">
            {timeZone ? `As a clock in ${timeZone} shows it.` : 'As the clock of this device shows it.'} Pace
            and times for the night are reckoned against it.
          </Type>
        ) : null}
      </ScrollView>
    </Screen>
  );
}

/** As many as fit under the field without hiding what comes next. */
const mostOffered = 6;

/** A time zone by its name, with those that fit what is typed. */
function ZoneBox({
  zone,
  trouble,
  onChange,
}: {
  zone: string;
  trouble: string | undefined;
  onChange: (zone: string) => void;
}) {
  const { palette } = useCordelTheme();
  const own = ownTimeZone();
  const [now] = useState(Date.now);
  const typed = zone.trim().toLowerCase().replaceAll(' ', '_');
  const known = isTimeZone(zone.trim());
  // A city that begins so comes before one that has it inside.
  const place = (name: string) => `/${name.toLowerCase()}`.indexOf(`/${typed}`);
  const fitting =
    typed === '' || known
      ? []
      : Intl.supportedValuesOf('timeZone')
          .filter((name) => name.toLowerCase().includes(typed))
          .sort((a, b) => Number(place(b) >= 0) - Number(place(a) >= 0))
          .slice(0, mostOffered);
  return (
    <View style={styles.zone}>
      <TextBox
        label="Time zone"
        value={zone}
        onChangeText={onChange}
        hint={
          zone.trim() === ''
            ? 'Empty: times are shown as on each device. Type a city, like Lisbon.'
            : known
              ? `Times of this project are shown so: ${clockTime(now, zone.trim())} now.`
              : 'Pick one of those below, or type on.'
        }
        trouble={trouble}
      />
      <View role="group" aria-label="Time zones that fit" style={styles.offers}>
        {fitting.map((name) => (
          <Pressable
            key={name}
            role="button"
            onPress={() => onChange(name)}
            style={[styles.offer, { borderColor: palette.hairline, backgroundColor: palette.sheet }]}
          >
            <Type look="strong">{name.replaceAll('_', ' ')}</Type>
          </Pressable>
        ))}
        {zone === own ? null : <Action label={`This device’s: ${own}`} onPress={() => onChange(own)} />}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 640 },
  pair: { flexDirection: 'row', flexWrap: 'wrap', gap: space.medium },
  zone: { gap: space.small },
  offers: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  offer: {
    minHeight: touch.normal,
    justifyContent: 'center',
    borderWidth: stroke.hair,
    paddingHorizontal: space.small,
  },
});
