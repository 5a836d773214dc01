import { formatLoss } from '@cordel/core';
import { worstOf, type LossRow, type WorthMeasuring } from '@cordel/core/losses';
import { router } from 'expo-router';
import { useMemo, useState, type ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { places } from '../../shell/places';
import { Action } from '../../ui/Action';
import { Knot } from '../../ui/Knot';
import { PrintOnly } from '../../ui/Paper';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { useTomorrow, useWorth, type Losses } from './useLosses';

/** What follows from the losses, as lists that lead to the bench: the worst, what is to be made again, what deserves a measurement. */

/** A part of the page under its heading. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View style={styles.part}>
      <Type look="heading" role="heading" aria-level={2}>
        {title}
      </Type>
      {children}
    </View>
  );
}

/** So many of the worst are in sight. */
const mostWorst = 10;

export function Worst({ losses: { shown, names, definition, measured } }: { losses: Losses }) {
  const worst = useMemo(() => worstOf(shown, mostWorst), [shown]);
  return (
    <Part title="The worst">
      {worst.map((row) => (
        <WorstRow
          key={`${row.spliceId} ${row.position}`}
          row={row}
          site={names.site(row.closureId)}
          projectId={definition.project.id}
          suffix={measured ? 'meas.' : 'est.'}
        />
      ))}
    </Part>
  );
}

export function Tomorrow({ losses }: { losses: Losses }) {
  const { names, definition } = losses;
  const { id } = definition.project;
  const tomorrow = useTomorrow(losses);
  return (
    <Part title="The list for tomorrow">
      {tomorrow.splices === 0 ? (
        <Type>Nothing is to be made again.</Type>
      ) : (
        <Type>
          {`${tomorrow.splices === 1 ? '1 splice is' : `${tomorrow.splices} splices are`} to be made again, ${tomorrow.reopenings === 0 ? 'none of them under a seal' : `with ${tomorrow.reopenings === 1 ? '1 closure' : `${tomorrow.reopenings} closures`} to be opened for it`}. In the order of least reopening:`}
        </Type>
      )}
      <PrintOnly>
        {tomorrow.closures.flatMap(({ closureId, trays }) =>
          trays.flatMap(({ splices }) =>
            splices.map(({ splice }) => (
              <Type key={splice.id}>
                {`□ ${names.site(closureId)}, tray ${splice.tray}, slot ${splice.slot}`}
              </Type>
            )),
          ),
        )}
      </PrintOnly>
      {tomorrow.closures.map(({ closureId, reopen, trays }) => (
        <View key={closureId} style={styles.closure}>
          <Type look="strong">{`${names.site(closureId)}${reopen ? ', to be opened again' : ''}`}</Type>
          {trays.flatMap(({ splices }) =>
            splices.map(({ splice, readings }) => (
              <Action
                key={splice.id}
                bench
                label={`Tray ${splice.tray}, slot ${splice.slot}`}
                detail={
                  readings.every(({ loss }) => loss === null)
                    ? 'broke'
                    : `reads ${formatLoss(Math.max(...readings.map(({ loss }) => loss ?? 0)))} dB est.`
                }
                onPress={() => router.navigate(places.bench(id, closureId, splice.tray, splice.slot))}
              />
            )),
          )}
        </View>
      ))}
    </Part>
  );
}

/** So many are in sight. */
const mostWorth = 8;

/** Which fibers to measure first, and why. */
export function Worth({ losses }: { losses: Losses }) {
  return (
    <Part title="What deserves a measurement">
      <WorthList list={useWorth(losses)} projectId={losses.definition.project.id} site={losses.names.site} />
    </Part>
  );
}

function WorthList({
  list,
  projectId,
  site,
}: {
  list: readonly WorthMeasuring[];
  projectId: string;
  site: (closureId: string) => string;
}) {
  const [most, setMost] = useState(mostWorth);
  if (list.length === 0)
    return (
      <Type>No estimate is so near its limit that a measurement is likely to change what becomes of it.</Type>
    );
  return (
    <>
      <Type>The likeliest to change what becomes of them first.</Type>
      {list.slice(0, most).map(({ row, ...one }) => (
        <Action
          key={`${row.closureId} ${row.spliceId} ${row.position}`}
          bench
          label={`${site(row.closureId)}, tray ${row.tray}, slot ${row.slot}${row.kind === 'ribbon' ? `, fiber ${row.position}` : ''}`}
          detail={worthWords({ row, ...one })}
          onPress={() =>
            router.navigate(
              places.measure(projectId, row.closureId, row.tray, { slot: row.slot, fiber: row.position }),
            )
          }
        />
      ))}
      {list.length > most ? (
        <Action
          label={`${list.length - most} more`}
          onPress={() => setMost(list.length)}
          style={styles.left}
        />
      ) : null}
    </>
  );
}

/** "0.09 dB est. of 0.10: 4 in 10 that it measures over. The mode fields differ, …" */
function worthWords({ row, why, chance, fieldsDiffer, known }: WorthMeasuring): string {
  const odds = `about ${Math.max(1, Math.round(chance * 10))} in 10`;
  return [
    `${formatLoss(row.loss!)} dB est. of ${formatLoss(row.limit)}: ${odds} that it measures ${why === 'may-hold' ? 'within its limit, and need not be made again' : 'over'}.`,
    fieldsDiffer ? 'The mode fields of its cables differ: the estimate is worth little.' : null,
    known && Math.abs(known.mean) >= 0.005
      ? `${known.count === 1 ? 'One that was measured here lay' : `The ${known.count} that were measured between these cables lay`} ${formatLoss(Math.round(Math.abs(known.mean) * 100) / 100)} dB ${known.mean > 0 ? 'above' : 'below'} ${known.count === 1 ? 'its estimate' : 'their estimates'}.`
      : null,
  ]
    .filter(Boolean)
    .join(' ');
}

function WorstRow({
  row,
  site,
  projectId,
  suffix,
}: {
  row: LossRow;
  site: string;
  projectId: string;
  /** What the loss is. */
  suffix: 'est.' | 'meas.';
}) {
  const { palette } = useCordelTheme();
  const { loss, tray, slot, kind, position, mark } = row;
  return (
    <Pressable
      role="link"
      onPress={() => router.navigate(places.bench(projectId, row.closureId, tray, slot))}
      style={[styles.worst, { borderColor: palette.hairline }]}
    >
      <Knot mark={mark} size={22} />
      <Type style={styles.place}>
        {`${site}, tray ${tray}, slot ${slot}${kind === 'ribbon' ? `, position ${position}` : ''}`}
      </Type>
      <Type look="reading" tone={row.over ? 'accent' : 'ink'}>
        {loss === null ? 'broke' : `${formatLoss(loss)} dB ${suffix}`}
      </Type>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  left: { alignSelf: 'flex-start' },
  place: { flex: 1 },
  part: { gap: space.small },
  closure: { gap: space.small },
  worst: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
    minHeight: touch.bench,
    borderBottomWidth: stroke.hair,
  },
});
