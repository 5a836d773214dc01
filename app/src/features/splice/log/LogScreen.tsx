import { siteOf, type ClosureLedger, type UsedGear } from '@cordel/core';
import type { Machine } from '@cordel/core/gear';
import {
  entriesOf,
  logFindingWords,
  matchWords,
  unknownMemory,
  type LogMapping,
  type MatchBy,
  type MatchWhat,
} from '@cordel/core/machine';
import { useMemo, useState } from 'react';
import { FlatList, StyleSheet, View } from 'react-native';
import { useGear, useSaveGear } from '../../../data/gear';
import { useClosure, type ClosureAtHand } from '../../../data/ledger';
import { useLinked } from '../../../data/machine/linked';
import { machinesHere } from '../../../data/machine/machines';
import { useOrderOfWork } from '../../../data/orderOfWork';
import { CordNav } from '../../../shell/frame/CordNav';
import { Panes } from '../../../shell/frame/Panes';
import { Screen } from '../../../shell/frame/Screen';
import { places } from '../../../shell/places';
import { engine } from '../../../sync/here';
import { Action } from '../../../ui/Action';
import { Choice, TextBox } from '../../../ui/Field';
import { FilePick } from '../../../ui/FilePick';
import { Picker } from '../../../ui/Picker';
import { Failed, Loading } from '../../../ui/States';
import { dayAndTime, ownTimeZone } from '../../../ui/times';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { CompareRow, whats } from './ComparePart';
import { logFacts, type StoredLog } from './logFacts';
import { MappingPart } from './MappingPart';
import { targetsOf } from './targetsOf';
import { useLog } from './useLog';

/** Readings from a machine's log: how it is read, what it has beside what is on record, and what of it is recorded. */
export function LogScreen({ projectId, closureId }: { projectId: string; closureId: string }) {
  const { atHand, error, retry } = useClosure(projectId, closureId);
  if (atHand) return <LogAt key={closureId} projectId={projectId} atHand={atHand} />;
  return (
    <Screen
      title="From a machine’s log"
      up={{ href: places.closure(projectId, closureId), name: 'the closure' }}
    >
      {error ? <Failed error={error} onRetry={retry} /> : <Loading what="the closure" />}
    </Screen>
  );
}

const none = 'none';
const byWords: Readonly<Record<MatchBy, string>> = { order: 'Order', time: 'Time', label: 'Label' };
const nothing: ReadonlySet<number> = new Set();
const toggled = (set: ReadonlySet<number>, index: number) => {
  const next = new Set(set);
  if (!next.delete(index)) next.add(index);
  return next;
};

function LogAt({ projectId, atHand }: { projectId: string; atHand: ClosureAtHand }) {
  const { closure, definition, ledger } = atHand;
  const zone = definition.project.timeZone ?? ownTimeZone();
  const gear = useGear().data;
  const saveGear = useSaveGear();
  const linked = useLinked();
  const order = useOrderOfWork(closure.id);
  const { log, busy, trouble, ...reader } = useLog();
  const own = useMemo(() => (gear ?? []).filter((one): one is Machine => one.kind === 'machine'), [gear]);
  const [machineId, setMachineId] = useState<string>(linked?.gearId ?? none);
  const machine = own.find(({ id }) => id === machineId) ?? null;
  const [by, setBy] = useState<MatchBy>('time');
  const [from, setFrom] = useState<string>('');
  const [firstDay, setFirstDay] = useState('');
  const [shown, setShown] = useState<MatchWhat | null>(null);
  const [left, setLeft] = useState(nothing);
  const [taken, setTaken] = useState(nothing);
  const [partly, setPartly] = useState(false);
  const [simulated, setSimulated] = useState(false);
  const [stored, setStored] = useState<StoredLog | null>(null);
  const [storing, setStoring] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);

  const fromLink = log?.fromLink ?? false;
  const memory =
    fromLink && linked?.simulated ? linked.id : (machine?.id ?? (fromLink ? linked!.id : unknownMemory));
  const day = /^\d{4}-\d{2}-\d{2}$/.test(firstDay) ? firstDay : null;
  const needsDay =
    log?.mapping?.columns.some(({ holds }) => holds === 'time') === true && log.read?.span === null;

  const compare = (how: { by?: MatchBy; from?: string } = {}) => {
    setLeft(nothing);
    setTaken(nothing);
    const start = how.from ?? from;
    void reader.match(
      targetsOf(ledger, order, memory, machine?.id ?? null),
      how.by ?? by,
      start === '' ? null : start,
    );
  };
  const change = (mapping: LogMapping) => void reader.change(mapping, day);
  const matched = log?.matched ?? null;
  const matches = useMemo(
    () => (matched?.matching.matches ?? []).map((match, index) => ({ match, index })),
    [matched],
  );
  const count = (what: MatchWhat) => matches.filter(({ match }) => match.what === what).length;
  const list = shown ? matches.filter(({ match }) => match.what === shown) : matches;
  const entries = useMemo(
    () => (matched ? entriesOf(matched.matching, matched.log, { left, taken }) : null),
    [matched, left, taken],
  );
  const broken = log?.read?.findingsCount ?? 0;
  const toStore = entries ? entries.attempts.length + entries.corrections.length : 0;

  const store = async () => {
    if (!entries) return;
    setStoring(true);
    setFailed(null);
    const used: UsedGear | null = machine ? { machine: { id: machine.id, label: machine.label } } : null;
    const made = logFacts(entries, closure.id, ledger, {
      memory,
      simulated: fromLink ? linked!.simulated : simulated,
      gear: used,
    });
    try {
      await engine().take(projectId, made.facts, []);
      setStored(made);
      reader.cancel();
      const { mapping } = log!;
      // How this machine's log is read is told once.
      if (machine && mapping && JSON.stringify(machine.log) !== JSON.stringify(mapping))
        saveGear.mutate({ base: machine, item: { ...machine, log: mapping } });
    } catch (error) {
      setFailed(`Nothing of it was recorded. ${(error as Error).message}`);
    }
    setStoring(false);
  };
  const undo = async (now: ClosureLedger) => {
    if (!stored) return;
    setStoring(true);
    try {
      await engine().take(projectId, stored.undo(now), []);
      setStored(null);
    } catch (error) {
      setFailed(`It could not be taken back. ${(error as Error).message}`);
    }
    setStoring(false);
  };

  const zones = [
    ...new Set([
      zone,
      log?.mapping?.zone ?? zone,
      ownTimeZone(),
      'UTC',
      ...Intl.supportedValuesOf('timeZone'),
    ]),
  ];
  const openSplices = useMemo(
    () => targetsOf(ledger, order, memory, null).filter(({ open }) => open),
    [ledger, order, memory],
  );
  const head = (
    <View style={styles.part}>
      {stored ? (
        <View role="status" style={styles.part}>
          <Type look="heading">
            {stored.facts.length === 1
              ? '1 record of the log is kept.'
              : `${stored.facts.length} records of the log are kept.`}
          </Type>
          <View style={styles.keys}>
            <Action label="Undo all of it" disabled={storing} onPress={() => void undo(ledger)} />
          </View>
        </View>
      ) : null}
      {failed ? (
        <Type look="strong" tone="accent" role="alert">
          {failed}
        </Type>
      ) : null}
      {own.length > 0 ? (
        <Choice
          label="Which machine wrote it"
          options={[
            ...own.map(({ id, label }) => ({ value: id, label })),
            { value: none, label: 'None of these' },
          ]}
          value={machineId}
          onChange={setMachineId}
        />
      ) : null}
      <View style={styles.keys}>
        <FilePick
          label={log ? 'Another file' : 'Pick the log'}
          what="Log of a splicing machine"
          accept=".csv,.tsv,.txt,.log,.json,.jsonl,.ndjson,.prn,text/*"
          busy={busy !== null}
          busyWords={
            busy ? `${busy.words}${busy.part === null ? ' …' : ` ${Math.round(busy.part * 100)} %`}` : ''
          }
          onFile={(file) => {
            setStored(null);
            setPartly(false);
            void reader.open(file, machine?.log ?? null, zone);
          }}
        />
        {linked ? (
          <Action
            label="The linked machine’s memory"
            disabled={busy !== null}
            onPress={() => {
              setStored(null);
              void reader.take(linked.name, () => machinesHere().log(linked.id, 0));
            }}
          />
        ) : null}
        {busy || log ? <Action label={busy ? 'Call it off' : 'Put it away'} onPress={reader.cancel} /> : null}
      </View>
      {trouble ? (
        <Type look="strong" tone="accent" role="alert">
          {trouble}
        </Type>
      ) : null}
      {log ? (
        <Type look="strong">
          {log.name}
          {log.read
            ? `: ${log.read.count} ${log.read.count === 1 ? 'splice' : 'splices'}${log.read.span ? `, ${dayAndTime(log.read.span[0], zone)} to ${dayAndTime(log.read.span[1], zone)}` : ''}`
            : ''}
        </Type>
      ) : (
        <Type tone="soft">
          A table from the machine: CSV, TSV, JSON lines or fixed columns. Nothing is recorded before you have
          looked at it.
        </Type>
      )}
      {log && !log.read ? (
        <>
          <MappingPart log={log} zones={zones} onChange={change} />
          {log.mapping ? (
            <Action
              kind="now"
              label="Read it so"
              disabled={busy !== null}
              onPress={() => void reader.read(log.mapping!, day)}
            />
          ) : null}
        </>
      ) : null}
      {needsDay ? (
        <>
          <TextBox
            label="Day of the first row"
            hint="Its times have no date. Like 2026-04-14."
            value={firstDay}
            onChangeText={setFirstDay}
            trouble={firstDay === '' || day ? undefined : 'Write the day like 2026-04-14.'}
          />
          <Action
            label="Read it with this day"
            disabled={!day}
            onPress={() => void reader.read(log!.mapping!, day)}
          />
        </>
      ) : null}
      {log?.read && broken > 0 ? (
        <View role="alert" style={styles.part}>
          <Type look="strong" tone="accent">
            {broken === 1 ? 'One line cannot be read' : `${broken} lines cannot be read`}; the splices that
            they belong to are not among the {log.read.count}.
          </Type>
          {log.read.findings.slice(0, 20).map((finding) => (
            <Type key={`${finding.line} ${finding.why} ${finding.cell}`} look="small">
              {logFindingWords(finding)}
            </Type>
          ))}
          {broken > 20 ? <Type look="small">And {broken - 20} more.</Type> : null}
          {partly || matched ? null : (
            <View style={styles.keys}>
              <Action label="Go on without them" onPress={() => setPartly(true)} />
              {log.mapping ? (
                <Action label="Change how it is read" onPress={() => void reader.change(log.mapping!, day)} />
              ) : null}
            </View>
          )}
        </View>
      ) : null}
      {log?.read && log.read.count > 0 && (broken === 0 || partly) ? (
        <>
          <Choice
            label="Matched by"
            options={(Object.keys(byWords) as MatchBy[]).map((value) => ({ value, label: byWords[value] }))}
            value={by}
            onChange={(value) => {
              setBy(value);
              if (matched) compare({ by: value });
            }}
          />
          {by === 'label' ? null : (
            <Picker
              label="What is on no record goes, in the order of work, to"
              most={1}
              options={[
                { value: '', label: 'the first open splice on' },
                ...openSplices.map(({ id, tray, slot }) => ({
                  value: id,
                  label: `tray ${tray}, slot ${slot} on`,
                })),
              ]}
              value={from}
              onChange={(value) => {
                setFrom(value);
                if (matched) compare({ from: value });
              }}
            />
          )}
          {matched ? null : (
            <Action kind="now" label="Compare with what is on record" onPress={() => compare()} />
          )}
        </>
      ) : null}
      {matched ? (
        <>
          {by === 'time' ? (
            <Type look="small" tone="soft">
              {clockWords(matched.matching.clockOff)}
            </Type>
          ) : null}
          <View style={styles.keys}>
            <Action label={`All ${matches.length}`} pressed={shown === null} onPress={() => setShown(null)} />
            {whats
              .filter((what) => count(what) > 0)
              .map((what) => (
                <Action
                  key={what}
                  label={`${matchWords[what]} ${count(what)}`}
                  pressed={shown === what}
                  onPress={() => setShown(shown === what ? null : what)}
                />
              ))}
          </View>
          {count('differs') > 0 ? (
            <View style={styles.keys}>
              <Action
                label="Take all that differ from the log"
                onPress={() =>
                  setTaken(
                    new Set(matches.flatMap(({ match, index }) => (match.what === 'differs' ? [index] : []))),
                  )
                }
              />
            </View>
          ) : null}
          {fromLink ? null : (
            <Action
              label="No glass was involved: it is simulated"
              pressed={simulated}
              onPress={() => setSimulated(!simulated)}
              style={styles.start}
            />
          )}
        </>
      ) : null}
    </View>
  );
  return (
    <Panes cord={<CordNav definition={definition} closureId={closure.id} ledger={ledger} />}>
      <Screen
        title="From a machine’s log"
        subtitle={siteOf(definition.sites, closure.siteId).name}
        up={{ href: places.closure(projectId, closure.id), name: 'the closure' }}
        foot={
          matched ? (
            <View style={styles.foot}>
              <Action
                kind="now"
                bench
                label={
                  storing
                    ? 'Records it …'
                    : toStore === 0
                      ? 'Nothing to record'
                      : `Record ${toStore} of ${matches.length}`
                }
                disabled={storing || toStore === 0}
                onPress={() => void store()}
              />
            </View>
          ) : undefined
        }
      >
        <FlatList
          data={matched ? list : []}
          keyExtractor={({ index }) => String(index)}
          ListHeaderComponent={head}
          initialNumToRender={12}
          contentContainerStyle={styles.body}
          renderItem={({ item: { match, index } }) => (
            <CompareRow
              match={match}
              log={matched!.log}
              ledger={ledger}
              zone={zone}
              left={left.has(index)}
              taken={taken.has(index)}
              onLeave={() => setLeft(toggled(left, index))}
              onTake={() => setTaken(toggled(taken, index))}
            />
          )}
        />
      </Screen>
    </Panes>
  );
}

function clockWords(off: number | null): string {
  if (off === null) return 'Too little agrees to tell how the machine’s clock is set; it is taken as right.';
  const minutes = Math.round(Math.abs(off) / 60_000);
  if (minutes === 0) return 'The machine’s clock and the record agree.';
  return `What was entered came ${minutes} min ${off > 0 ? 'after' : 'before'} the machine’s time; that is taken into account.`;
}

const styles = StyleSheet.create({
  body: { padding: space.large },
  part: { gap: space.medium },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  start: { alignSelf: 'flex-start' },
  foot: { padding: space.small },
});
