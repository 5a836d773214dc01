import { zodResolver } from '@hookform/resolvers/zod';
import { siteOf, type Closure } from '@cordel/core';
import { router } from 'expo-router';
import { useForm } from 'react-hook-form';
import { ScrollView, StyleSheet } from 'react-native';
import { afterwards } from '../../../data/afterwards';
import { useClosure, type ClosureAtHand } from '../../../data/ledger';
import { useSaveClosure } from '../../../data/plan';
import { useProject } from '../../../data/projects';
import { useVersionedEdit, type VersionedEdit } from '../../../data/versionedEdit';
import { Panes } from '../../../shell/frame/Panes';
import { SaveFoot } from '../../../shell/forms/SaveFoot';
import { Screen } from '../../../shell/frame/Screen';
import { Failed, Loading } from '../../../ui/States';
import { gutter, space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { CordNav } from '../../../shell/frame/CordNav';
import { places } from '../../../shell/places';
import {
  formOfModel,
  modelFormSchema,
  tableOfClosure,
  tableOfForm,
  type ModelFormInput,
  type ModelFormOutput,
} from './modelForm';
import { SealingFields } from './SealingFields';
import { TableFields } from './TableFields';

/** A closure's own table, copied from its model: lengths, ports, seal parts. The catalogue stays as it is. */
export function TableScreen({ projectId, closureId }: { projectId: string; closureId: string }) {
  const { atHand, error, retry } = useClosure(projectId, closureId);
  const { refetch } = useProject(projectId);
  const edit = useVersionedEdit(atHand?.closure, refetch);
  if (!atHand || !edit.base)
    return (
      <Screen title="Table" up={{ href: places.prepare(projectId, closureId), name: 'preparing' }}>
        {error ? <Failed error={error} onRetry={retry} /> : <Loading what="the closure" />}
      </Screen>
    );
  return <TableForm key={edit.round} projectId={projectId} atHand={atHand} edit={edit} />;
}

function TableForm({
  projectId,
  atHand,
  edit,
}: {
  projectId: string;
  atHand: ClosureAtHand;
  edit: VersionedEdit<Closure>;
}) {
  const { definition } = atHand;
  const closure = edit.base!;
  const { units } = definition.project;
  const save = useSaveClosure(projectId);
  const { control, handleSubmit } = useForm<ModelFormInput, unknown, ModelFormOutput>({
    resolver: zodResolver(modelFormSchema(units)),
    defaultValues: formOfModel(tableOfClosure(closure), units),
  });
  const submit = handleSubmit((form) => {
    const { lengths, ports, parts, sealing, testPressure } = closure;
    const before =
      lengths && ports ? { lengths, ports, parts, sealing, testPressure: testPressure ?? 0 } : null;
    afterwards(
      save.mutateAsync({ base: closure, closure: { ...closure, ...tableOfForm(form, before) } }),
      (saved) => {
        edit.settle(saved);
        router.navigate(places.prepare(projectId, closure.id));
      },
    );
  });
  return (
    <Panes cord={<CordNav definition={definition} closureId={closure.id} ledger={atHand.ledger} />}>
      <Screen
        title="The closure’s table"
        subtitle={siteOf(definition.sites, closure.siteId).name}
        up={{ href: places.prepare(projectId, closure.id), name: 'preparing' }}
        foot={
          <SaveFoot
            label="Save the table"
            saving={save.isPending}
            error={save.error}
            onSave={() => void submit()}
            newer={edit.newer}
            onNewer={edit.showNewer}
          />
        }
      >
        <ScrollView contentContainerStyle={styles.form}>
          <Type look="small" tone="soft">
            {closure.model ? `Copied from “${closure.model}”, ` : 'Common practice, '}to be set to what the
            maker’s table says. It counts for this closure alone; the catalogue stays as it is.
          </Type>
          <SealingFields control={control} kind={closure.kind} />
          <TableFields control={control} units={units} />
        </ScrollView>
      </Screen>
    </Panes>
  );
}

const styles = StyleSheet.create({
  form: { padding: space.large, paddingLeft: gutter.width, gap: space.large, maxWidth: 760 },
});
