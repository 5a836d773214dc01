import { logFindingWords } from '@cordel/core/machine';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { TextBox } from '../../../ui/Field';
import { ownTimeZone } from '../../../ui/times';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { MappingPart } from './MappingPart';
import type { LogImport } from './useLogImport';

/** So many findings stand in sight. */
const inSight = 20;

/** How the log is read, and what of it cannot be read. */
export function ReadPart({ log: given }: { log: LogImport }) {
  const { log, busy, zone, needsDay, day, firstDay, partly, matched } = given;
  if (!log) return null;
  const broken = log.read?.findingsCount ?? 0;
  const zones = [
    ...new Set([
      zone,
      log.mapping?.zone ?? zone,
      ownTimeZone(),
      'UTC',
      ...Intl.supportedValuesOf('timeZone'),
    ]),
  ];
  return (
    <View style={styles.part}>
      {log.read ? null : (
        <>
          <MappingPart log={log} zones={zones} onChange={given.change} />
          {log.mapping ? (
            <Action kind="now" label="Read it so" disabled={busy !== null} onPress={given.read} />
          ) : null}
        </>
      )}
      {needsDay ? (
        <>
          <TextBox
            label="Day of the first row"
            hint="Its times have no date. Like 2026-04-14."
            value={firstDay}
            onChangeText={given.setFirstDay}
            trouble={firstDay === '' || day ? undefined : 'Write the day like 2026-04-14.'}
          />
          <Action label="Read it with this day" disabled={!day} onPress={given.read} />
        </>
      ) : null}
      {log.read && broken > 0 ? (
        <View role="alert" style={styles.part}>
          <Type look="strong" tone="accent">
            {broken === 1 ? 'One line cannot be read' : `${broken} lines cannot be read`}; the splices that
            they belong to are not among the {log.read.count}.
          </Type>
          {log.read.findings.slice(0, inSight).map((finding) => (
            <Type key={`${finding.line} ${finding.why} ${finding.cell}`} look="small">
              {logFindingWords(finding)}
            </Type>
          ))}
          {broken > inSight ? <Type look="small">And {broken - inSight} more.</Type> : null}
          {partly || matched ? null : (
            <View style={styles.keys}>
              <Action label="Go on without them" onPress={given.goOnPartly} />
              {log.mapping ? (
                <Action label="Change how it is read" onPress={() => given.change(log.mapping!)} />
              ) : null}
            </View>
          )}
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.medium },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
