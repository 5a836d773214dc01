import { exceeds, formatAngle, formatLoss } from '@cordel/core';
import { nightLimits, shownAngle, type NightState } from '@cordel/core/nights';
import { StyleSheet, View } from 'react-native';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';

/** What lies in the machine, as its screen shows it: the cleaves of both sides, and after the arc what it reads. */
export function InTheMachine({ state }: { state: NightState }) {
  const { night, ends, fused, measured } = state;
  const limit = nightLimits[night.kind];
  const sides = (['left', 'right'] as const).map((side) => ends[side].map(shownAngle));
  if (night.kind === 'single') {
    const [left, right] = sides.map(([angle]) => angle!) as [number, number];
    return (
      <View style={styles.rows}>
        <View style={styles.line}>
          <Angle name="left" angle={left} />
          <Angle name="right" angle={right} />
        </View>
        {fused ? (
          <Type
            look="reading"
            tone={fused[0]!.broke || exceeds(fused[0]!.estimate, limit) ? 'accent' : 'ink'}
          >
            {fused[0]!.broke ? 'It broke in the proof test.' : `${formatLoss(fused[0]!.estimate)} dB est.`}
          </Type>
        ) : null}
        {fused && measured ? (
          <Type look="strong">{`Measured from both ends: ${formatLoss(hundredths(fused[0]!.truth))} dB`}</Type>
        ) : null}
      </View>
    );
  }
  return (
    <View style={styles.rows}>
      <Matrix
        title="Cleave angles, degrees"
        rows={[
          { label: 'left', values: sides[0]! },
          { label: 'right', values: sides[1]! },
        ]}
        over={(angle) => exceeds(angle, nightLimits.cleave)}
        write={(angle) =>
          formatAngle(angle)
            .replace('°', '')
            .replace(/^0(?=\D)/, '')
        }
      />
      {fused ? (
        fused.some(({ broke }) => broke) ? (
          <Type look="heading" tone="accent">
            It broke in the proof test.
          </Type>
        ) : (
          <Matrix
            title="Losses, hundredths of a dB, estimated"
            rows={[
              { label: 'loss', values: fused.map(({ estimate }) => estimate) },
              ...(measured ? [{ label: 'meas.', values: fused.map(({ truth }) => hundredths(truth)) }] : []),
            ]}
            over={(loss) => exceeds(loss, limit)}
            write={hundredthsText}
          />
        )
      ) : null}
    </View>
  );
}

/** As a column of a dozen fits on a phone: "4" for 0.04 dB. */
const hundredthsText = (loss: number) => String(Math.round(loss * 100));
const hundredths = (value: number) => Math.round(value * 100) / 100;

function Angle({ name, angle }: { name: string; angle: number }) {
  const over = exceeds(angle, nightLimits.cleave);
  return (
    <View style={styles.angle}>
      <Type look="small" tone="soft">
        {`cleave ${name}`}
      </Type>
      <Type look="reading" tone={over ? 'accent' : 'ink'}>
        {`${formatAngle(angle)}${over ? ' over' : ''}`}
      </Type>
    </View>
  );
}

/** Values by position; what is over its limit is bold, in the accent, with a mark. */
function Matrix({
  title,
  rows,
  over,
  write,
}: {
  title: string;
  rows: readonly { readonly label: string; readonly values: readonly (number | null)[] }[];
  over: (value: number) => boolean;
  write: (value: number) => string;
}) {
  const { palette, textScale } = useCordelTheme();
  const positions = rows[0]?.values.length ?? 0;
  // Large letters do not fit twelve in a row: then each value has its position before it.
  if (textScale > 1.2)
    return (
      <View role="list" aria-label={title} style={styles.rows}>
        <Type look="small" tone="soft">
          {title}
        </Type>
        {rows.map(({ label, values }, row) => (
          <View key={row} role="listitem" style={styles.line}>
            <Type look="smallStrong">{label}</Type>
            {values.map((value, at) => (
              <Type key={at} look="small" tone={value === null || over(value) ? 'accent' : 'ink'}>
                {`${at + 1}: ${value === null ? '×' : write(value)}${value !== null && over(value) ? ' over' : ''}`}
              </Type>
            ))}
          </View>
        ))}
      </View>
    );
  return (
    <View role="table" aria-label={title}>
      <Type look="small" tone="soft">
        {title}
      </Type>
      <View role="row" style={[styles.matrix, { borderColor: palette.hairline }]}>
        <View role="columnheader" style={styles.label}>
          <Type look="small" tone="soft">
            {' '}
          </Type>
        </View>
        {Array.from({ length: positions }, (_, at) => (
          <View key={at} role="columnheader" style={styles.cell}>
            <Type look="small" tone="soft">
              {at + 1}
            </Type>
          </View>
        ))}
      </View>
      {rows.map(({ label, values }, row) => (
        <View key={row} role="row" style={[styles.matrix, { borderColor: palette.hairline }]}>
          <View role="rowheader" style={styles.label}>
            <Type look="small" tone="soft">
              {label}
            </Type>
          </View>
          {values.map((value, at) => (
            <View key={at} role="cell" style={styles.cell}>
              <Type
                look={value !== null && over(value) ? 'smallStrong' : 'small'}
                tone={value === null || over(value) ? 'accent' : 'ink'}
                style={value !== null && over(value) ? styles.over : undefined}
              >
                {value === null ? '×' : write(value)}
              </Type>
            </View>
          ))}
        </View>
      ))}
    </View>
  );
}

/** So many tries are in sight. */
const inSight = 10;

/** What was read so far, the latest first. */
export function ReadSoFar({ state: { told, night } }: { state: NightState }) {
  const { palette } = useCordelTheme();
  const tries = told
    .flatMap((one) => ('tried' in one ? [one.tried] : []))
    .slice(-inSight)
    .reverse();
  if (tries.length === 0) return null;
  const limit = nightLimits[night.kind];
  const label = (splice: string, nth: number) =>
    `${Number(splice.slice(1)) + 1}${nth > 1 ? `, try ${nth}` : ''}`;
  if (night.kind === 'ribbon')
    return (
      <Matrix
        title="Read so far, hundredths of a dB, the latest first; ×: it broke"
        rows={tries.map(({ splice, nth, losses, broke }) => ({
          label: label(splice, nth).replace(', try ', '.'),
          values: broke ? losses.map(() => null) : losses,
        }))}
        over={(loss) => exceeds(loss, limit)}
        write={hundredthsText}
      />
    );
  return (
    <View role="list" aria-label="Read so far">
      <Type look="small" tone="soft">
        Read so far, the latest first
      </Type>
      {tries.map(({ attempt, splice, nth, losses, broke, over, left, right }) => (
        <View key={attempt} role="listitem" style={[styles.try, { borderColor: palette.hairline }]}>
          <Type style={styles.which}>{`Fiber ${label(splice, nth)}`}</Type>
          <Type tone="soft">{`${formatAngle(left[0]!)} · ${formatAngle(right[0]!)}`}</Type>
          <Type look="strong" tone={broke || over ? 'accent' : 'ink'} style={styles.loss}>
            {broke ? 'broke' : `${formatLoss(losses[0]!)} dB`}
          </Type>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  rows: { gap: space.small },
  line: { flexDirection: 'row', flexWrap: 'wrap', gap: space.large },
  angle: { minWidth: 110 },
  matrix: { flexDirection: 'row', borderBottomWidth: stroke.hair },
  label: { width: 36, justifyContent: 'center' },
  cell: { flex: 1, alignItems: 'center', paddingVertical: space.hair },
  over: { textDecorationLine: 'underline' },
  try: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    columnGap: space.medium,
    paddingVertical: space.tight,
    borderBottomWidth: stroke.hair,
  },
  which: { flexGrow: 1 },
  loss: { minWidth: 72, textAlign: 'right' },
});
