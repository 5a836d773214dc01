import { isSpliceFact, siteOf, spliceIdOf, type Closure, type Entry } from '@cordel/core';
import { sameDocument } from '@cordel/core/edits';
import { type DraftTray } from '@cordel/core/order';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { FlatList, StyleSheet, View } from 'react-native';
import { v7 } from 'uuid';
import { afterwards } from '../../../data/afterwards';
import { useDraftCheck } from '../../../data/draftCheck';
import { cablesOf, useClosure, type ClosureAtHand } from '../../../data/ledger';
import { useSaveClosure } from '../../../data/plan';
import { useProject } from '../../../data/projects';
import { Action } from '../../../ui/Action';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { Sheet } from '../../../ui/Sheet';
import { Failed, Loading } from '../../../ui/States';
import { useWide } from '../../../ui/theme';
import { gutter, space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { CordNav } from '../../../shell/frame/CordNav';
import { useLatest } from '../../../ui/useLatest';
import { OvertakenNotice } from '../../../shell/forms/OvertakenNotice';
import { places } from '../../../shell/places';
import { CsvSheet } from './CsvSheet';
import { EntriesPart } from './EntriesPart';
import { OrderEditor } from './OrderEditor';
import { PickSheet } from './PickSheet';
import { DeleteSheet, Guard } from './PlanGuard';
import { TrayHead } from '../trays/TrayHead';
import { PinSheet, RestPart, TrayList } from '../trays/TrayPlan';
import { usePlanDraft } from './usePlanDraft';

/** The plan of a closure: cables, order, layout, and what is wrong with it, live. */
export function PlanScreen({ projectId, closureId }: { projectId: string; closureId: string }) {
  const { atHand, error, retry } = useClosure(projectId, closureId);
  // The version that the editing began from. A newer one that arrives meanwhile does not take the work away: the user decides.
  const [base, setBase] = useState<Base | null>(null);
  if (atHand && !base) setBase({ closure: atHand.closure, round: 0 });
  const newest = atHand?.closure;
  // What was saved here, and waited for the server, is there now: the same in a newer version.
  if (base && newest && newest.version > base.closure.version && sameDocument(newest, base.closure))
    setBase({ ...base, closure: newest });
  const onBase = useCallback(
    (closure: Closure) => setBase((before) => ({ closure, round: (before?.round ?? 0) + 1 })),
    [],
  );
  if (!atHand || !base)
    return (
      <Screen title="Plan" up={{ href: places.closure(projectId, closureId), name: 'the closure' }}>
        {error ? <Failed error={error} onRetry={retry} /> : <Loading what="the plan" />}
      </Screen>
    );
  return (
    <PlanAt key={base.round} projectId={projectId} atHand={atHand} saved={base.closure} onBase={onBase} />
  );
}

/** What the editing began from, and how often it began anew. */
interface Base {
  readonly closure: Closure;
  readonly round: number;
}

function PlanAt({
  projectId,
  atHand,
  saved,
  onBase,
}: {
  projectId: string;
  atHand: ClosureAtHand;
  /** The stored plan that the draft began from. */
  saved: Closure;
  onBase: (closure: Closure) => void;
}) {
  const { definition, closure: newest, ledger, facts } = atHand;
  const wide = useWide();
  const cables = cablesOf(definition);
  const editing = usePlanDraft(saved);
  const { draft, dirty, change } = editing;
  const made = useMemo(
    () => new Map(facts.filter(isSpliceFact).map((fact) => [spliceIdOf(fact), fact.subject])),
    [facts],
  );
  const touched = useMemo(() => [...made.keys()], [made]);
  const { check, current, failed } = useDraftCheck(draft, saved, definition.cables, touched);
  const [sheet, setSheet] = useState<'pick' | 'csv' | 'guard' | 'discard' | 'delete' | null>(null);
  const [pinning, setPinning] = useState<{ cableId: string; unit: number } | null>(null);
  const save = useSaveClosure(projectId);
  const { refetch } = useProject(projectId);
  const site = siteOf(definition.sites, saved.siteId);

  const setClosure = useCallback(
    (next: Partial<Closure>) => change({ closure: { ...draft.closure, ...next } }),
    [change, draft.closure],
  );
  const setEntries = useCallback((entries: Entry[]) => setClosure({ entries }), [setClosure]);
  const addLines = (lines: readonly string[]) =>
    change({ text: [draft.text.replace(/\n+$/, ''), ...lines].filter((part) => part !== '').join('\n') });
  const store = () => {
    if (!check || !current) return;
    setSheet(null);
    const next = {
      ...draft.closure,
      version: saved.version,
      order: check.lines.map((line) => ({ id: v7(), ...line })),
    };
    afterwards(save.mutateAsync({ base: saved, closure: next }), (closure) => {
      editing.settle();
      onBase(closure);
    });
  };
  const showNewer = async () => {
    const { data } = await refetch();
    const closure = data?.closures.find((one) => one.id === saved.id);
    if (closure) onBase(closure);
  };
  const stale = newest.version > saved.version;
  useEffect(() => {
    if (stale && !dirty && !save.isPending) onBase(newest);
  }, [stale, dirty, save.isPending, newest, onBase]);
  const guarded = check && (check.change.leaving.length > 0 || check.change.moving.length > 0);
  const unreadable = check?.problems[0];
  const mayStore = dirty && current && !save.isPending && unreadable === undefined;
  const ask = () => (guarded ? setSheet('guard') : store());
  const onSaveKey = useLatest((event: KeyboardEvent) => {
    if (event.key !== 's' || !(event.ctrlKey || event.metaKey)) return;
    event.preventDefault();
    if (mayStore && sheet === null) ask();
  });
  useEffect(() => {
    // On its way down: a text field keeps its keys to itself.
    window.addEventListener('keydown', onSaveKey, true);
    return () => window.removeEventListener('keydown', onSaveKey, true);
  }, [onSaveKey]);
  const onPin = useCallback((cableId: string, unit: number) => setPinning({ cableId, unit }), []);

  const header = (
    <View style={styles.head}>
      <EntriesPart definition={definition} closure={draft.closure} onChange={setEntries} />
      <OrderEditor
        editing={editing}
        check={check}
        cables={cables}
        units={definition.project.units}
        onPick={() => setSheet('pick')}
        onCsv={() => setSheet('csv')}
      />
      {failed ? (
        <Type tone="accent" role="alert">
          The check could not be started in this browser, so the plan cannot be saved here.
        </Type>
      ) : null}
      {wide ? null : <TrayHead draft={draft.closure} onChange={setClosure} />}
    </View>
  );
  const footer = (
    <View>
      {check ? <RestPart check={check} cables={cables} /> : null}
      <View style={styles.end}>
        {dirty ? <Action label="Discard the changes" onPress={() => setSheet('discard')} /> : null}
        {facts.length === 0 ? (
          <Action label="Take the closure away" onPress={() => setSheet('delete')} />
        ) : null}
      </View>
    </View>
  );
  const list = { trays: check?.trays ?? none, closure: draft.closure, cables, onPin };

  return (
    <Panes
      cord={<CordNav definition={definition} closureId={saved.id} ledger={ledger} />}
      ledger={
        <TrayList
          {...list}
          header={
            <View style={styles.paneHead}>
              <TrayHead draft={draft.closure} onChange={setClosure} />
            </View>
          }
          footer={check ? <RestPart check={check} cables={cables} /> : null}
        />
      }
    >
      <Screen
        title={`Plan · ${site.name}`}
        subtitle={
          check
            ? `${check.splices} splices${check.unplaced > 0 ? `, ${check.unplaced} without a slot` : ''}${check.ends > 0 ? `, ${check.ends} in connectors` : ''}${current ? '' : ' · checking'}`
            : 'checking'
        }
        up={{ href: places.closure(projectId, saved.id), name: 'the closure' }}
        foot={
          <View style={styles.foot}>
            {save.error ? (
              <OvertakenNotice
                error={save.error}
                detail="What you typed stays, on top of it"
                onNewer={() => void showNewer()}
                onTogether={() => {
                  editing.settle();
                  void showNewer();
                }}
              />
            ) : unreadable && dirty ? (
              <Type look="small" tone="accent">
                Line {unreadable.row} cannot be read. Mend it or take it out, then save.
              </Type>
            ) : null}
            <View style={styles.row}>
              <Action bench label="Undo" disabled={!dirty} onPress={editing.undo} />
              <Action
                bench
                kind="now"
                label={save.isPending ? 'Saving …' : dirty ? 'Save the plan' : 'Saved'}
                disabled={!mayStore}
                onPress={ask}
                style={styles.flex}
              />
            </View>
          </View>
        }
      >
        {wide ? (
          <FlatList data={[]} renderItem={null} ListHeaderComponent={header} ListFooterComponent={footer} />
        ) : (
          <TrayList {...list} header={header} footer={footer} />
        )}
      </Screen>
      <PickSheet
        open={sheet === 'pick'}
        onClose={() => setSheet(null)}
        closure={draft.closure}
        cables={cables}
        onAdd={addLines}
      />
      <CsvSheet
        open={sheet === 'csv'}
        onClose={() => setSheet(null)}
        closure={draft.closure}
        cables={cables}
        units={definition.project.units}
        onTake={(lines, replace) => (replace ? change({ text: lines.join('\n') }) : addLines(lines))}
      />
      <PinSheet
        at={pinning}
        closure={draft.closure}
        onClose={() => setPinning(null)}
        onChange={(pins) => setClosure({ pins })}
      />
      <Sheet title="Splicing began here" open={sheet === 'guard'} onClose={() => setSheet(null)}>
        {check ? <Guard change={check.change} closure={saved} cables={cables} made={made} /> : null}
        <Action label="Save the plan all the same" kind="now" onPress={store} />
        <Action label="Go on editing" onPress={() => setSheet(null)} />
      </Sheet>
      <Sheet title="Discard the changes" open={sheet === 'discard'} onClose={() => setSheet(null)}>
        <Type>The plan is again as it was saved last.</Type>
        <Action
          label="Discard them"
          kind="now"
          onPress={() => {
            editing.discard();
            setSheet(null);
          }}
        />
      </Sheet>
      <DeleteSheet
        projectId={projectId}
        closure={saved}
        open={sheet === 'delete'}
        onClose={() => setSheet(null)}
      />
    </Panes>
  );
}

const none: readonly DraftTray[] = [];

const styles = StyleSheet.create({
  head: { padding: space.large, paddingLeft: gutter.width, gap: space.wide },
  paneHead: { padding: space.large },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.small },
  flex: { flex: 1 },
  foot: { padding: space.small, gap: space.tight },
  error: { gap: space.tight },
  end: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small, padding: space.large, paddingTop: 0 },
});
