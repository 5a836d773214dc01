import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { FilePick } from '../../../ui/FilePick';
import { dayAndTime } from '../../../ui/times';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { LogImport } from './useLogImport';

const none = 'none';

/** Where the log comes from, and what became of it. */
export function SourcePart({ log: given }: { log: LogImport }) {
  const { machines, machine, linked, log, busy, trouble, stored, failed, storing, zone } = given;
  return (
    <View style={styles.part}>
      {stored ? (
        <View role="status" style={styles.part}>
          <Type look="heading">
            {stored.facts.length === 1
              ? '1 record of the log is kept.'
              : `${stored.facts.length} records of the log are kept.`}
          </Type>
          <View style={styles.keys}>
            <Action label="Undo all of it" disabled={storing} onPress={() => void given.undo()} />
          </View>
        </View>
      ) : null}
      {failed ? (
        <Type look="strong" tone="accent" role="alert">
          {failed}
        </Type>
      ) : null}
      {machines.length > 0 && !given.matched ? (
        <Choice
          label="Which machine wrote it"
          options={[
            ...machines.map(({ id, label }) => ({ value: id, label })),
            { value: none, label: 'None of these' },
          ]}
          value={machine?.id ?? none}
          onChange={(value) => given.setMachine(value === none ? null : value)}
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
          onFile={given.open}
        />
        {linked ? (
          <Action
            label="The linked machine’s memory"
            detail={linked.simulated ? 'simulated' : undefined}
            disabled={busy !== null}
            onPress={given.takeMemory}
          />
        ) : null}
        {busy || log ? <Action label={busy ? 'Call it off' : 'Put it away'} onPress={given.putAway} /> : null}
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
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.medium },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
