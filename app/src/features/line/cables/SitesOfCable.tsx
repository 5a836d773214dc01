import { cordOrder, type ProjectDefinition } from '@cordel/core';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { CableForm } from './cableForm';

/** Where the cable runs: the sites in their order along the route, then along a branch. */
export function SitesOfCable({
  definition,
  form,
  trouble,
  onChange,
}: {
  definition: ProjectDefinition;
  form: CableForm;
  trouble: string | undefined;
  onChange: (change: Partial<CableForm>) => void;
}) {
  const { sites } = definition;
  const inOrder = cordOrder(sites);
  const toggle = (id: string) => {
    const chosen = new Set(form.siteIds);
    if (!chosen.delete(id)) chosen.add(id);
    onChange({ siteIds: inOrder.map((site) => site.id).filter((one) => chosen.has(one)) });
  };
  return (
    <View role="group" aria-label="Runs through" style={styles.group}>
      <Type look="smallStrong">Runs through</Type>
      <View style={styles.row}>
        {inOrder.map((site) => (
          <Action
            key={site.id}
            label={site.branchFrom ? `↳ ${site.name}` : site.name}
            pressed={form.siteIds.includes(site.id)}
            onPress={() => toggle(site.id)}
          />
        ))}
      </View>
      <Type look="small" tone={trouble ? 'accent' : 'soft'} role={trouble ? 'alert' : undefined}>
        {trouble ?? 'It ends at the first and at the last. Between them it goes through, and may be opened.'}
      </Type>
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.tight },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.tight },
});
