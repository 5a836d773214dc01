import {
  endsOfRuns,
  entryKey,
  fiberName,
  type Cable,
  type Closure,
  type PlanChange,
  type SpliceSubject,
} from '@cordel/core';
import { router } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { afterwards } from '../../../data/afterwards';
import { useDeleteClosure } from '../../../data/plan';
import { Action } from '../../../ui/Action';
import { Sheet } from '../../../ui/Sheet';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { places } from '../../../shell/places';

/** What the new plan does to splices that are made already. */
export function Guard({
  change,
  closure,
  cables,
  made,
}: {
  change: PlanChange;
  /** What the splices that have facts join, by their ids. */
  made: ReadonlyMap<string, SpliceSubject>;
  closure: Closure;
  cables: ReadonlyMap<string, Cable>;
}) {
  const keys = new Map(closure.entries.map((entry, index) => [entry.cableId, entryKey(entry, index)]));
  const words = (spliceId: string) => {
    const subject = made.get(spliceId);
    if (!subject) return '';
    return [subject.left, subject.right]
      .map((runs) => {
        const { cableId, fiber } = endsOfRuns(runs)[0]!;
        const cable = cables.get(cableId);
        if (!cable) return `fiber ${fiber}`;
        try {
          return `${keys.get(cable.id) ?? cable.label} ${fiber} ${fiberName(cable, fiber).fiberColor.code}`;
        } catch {
          return `${cable.label} ${fiber}`;
        }
      })
      .join(' to ');
  };
  return (
    <>
      {change.leaving.length > 0 ? (
        <View style={styles.error}>
          <Type look="strong">
            {change.leaving.length} recorded {change.leaving.length === 1 ? 'splice leaves' : 'splices leave'}{' '}
            the plan.
          </Type>
          <Type>Their readings stay and are shown as not planned.</Type>
          {change.leaving.slice(0, 8).map((id) => (
            <Type key={id} look="small">
              {words(id)}
            </Type>
          ))}
          {change.leaving.length > 8 ? <Type look="small">and {change.leaving.length - 8} more</Type> : null}
        </View>
      ) : null}
      {change.moving.length > 0 ? (
        <View style={styles.error}>
          <Type look="strong">
            {change.moving.length} recorded {change.moving.length === 1 ? 'splice is' : 'splices are'} planned
            elsewhere than they lie.
          </Type>
          {change.moving.slice(0, 8).map(({ spliceId, from, to }) => (
            <Type key={spliceId} look="small">
              {words(spliceId)}: from tray {from.tray} slot {from.slot}{' '}
              {to ? `to tray ${to.tray} slot ${to.slot}` : 'to no slot'}
            </Type>
          ))}
          {change.moving.length > 8 ? <Type look="small">and {change.moving.length - 8} more</Type> : null}
        </View>
      ) : null}
    </>
  );
}

/** Asks before a closure in which nothing was spliced is taken away. */
export function DeleteSheet({
  projectId,
  closure,
  open,
  onClose,
}: {
  projectId: string;
  closure: Closure;
  open: boolean;
  onClose: () => void;
}) {
  const remove = useDeleteClosure(projectId);
  return (
    <Sheet title="Take the closure away" open={open} onClose={onClose}>
      <Type>The site stays, its plan goes. Nothing has been spliced here.</Type>
      {remove.error ? (
        <Type tone="accent" role="alert">
          {remove.error.message}
        </Type>
      ) : null}
      <Action
        label="Take it away"
        kind="now"
        disabled={remove.isPending}
        onPress={() => afterwards(remove.mutateAsync(closure), () => router.replace(places.line(projectId)))}
      />
    </Sheet>
  );
}

const styles = StyleSheet.create({ error: { gap: space.tight } });
