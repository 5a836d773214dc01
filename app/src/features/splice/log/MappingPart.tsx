import {
  encodings,
  logFields,
  logFieldWords,
  type LogColumn,
  type LogField,
  type LogMapping,
} from '@cordel/core/machine';
import { formatLoss } from '@cordel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { Picker } from '../../../ui/Picker';
import { dayAndTime } from '../../../ui/times';
import { useCordelTheme } from '../../../ui/theme';
import { space, stroke } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { OpenLog } from './useLog';

const encodingWords = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16',
  'utf-16be': 'UTF-16, big end first',
  'latin-1': 'Western (Latin-1)',
} as const;
const delimiterWords = { ',': 'Comma', ';': 'Semicolon', '\t': 'Tab', '|': 'Bar' } as const;
const formatWords = { delimited: 'Table', 'json-lines': 'JSON lines', fixed: 'Fixed columns' } as const;
const orderWords = { ymd: 'Year, month, day', dmy: 'Day, month, year', mdy: 'Month, day, year' } as const;

function choicesOf<T extends string>(words: Readonly<Record<T, string>>) {
  return (Object.keys(words) as T[]).map((value) => ({ value, label: words[value] }));
}

/** How the log is read, on its first ten rows, column by column; and, opened, each part of it to be changed. */
export function MappingPart({
  log,
  zones,
  onChange,
}: {
  log: OpenLog;
  /** Time zones that the machine's clock may be set to. */
  zones: readonly string[];
  onChange: (mapping: LogMapping) => void;
}) {
  const { palette } = useCordelTheme();
  const [open, setOpen] = useState(false);
  const { mapping, preview } = log;
  if (!mapping || !preview) return null;
  const column = (index: number, holds: LogField | null, fiber: number | null) =>
    onChange({
      ...mapping,
      columns: mapping.columns.map((one, at): LogColumn => (at === index ? { ...one, holds, fiber } : one)),
    });
  return (
    <View style={styles.part}>
      <Type>
        {log.kept
          ? 'Read as this machine’s log was read before.'
          : 'This is how it seems to be written. Look at the first ten rows of each column.'}
        {log.encodingCertain ? '' : ' Its letters may be of another encoding: look at the words in it.'}
      </Type>
      <View role="list" aria-label="Columns of the log, with their first rows">
        {mapping.columns.map(({ name, holds, fiber }, index) => (
          <View key={index} role="listitem" style={[styles.column, { borderBottomColor: palette.hairline }]}>
            <View style={styles.names}>
              <Type look="smallStrong" tone={holds ? 'ink' : 'soft'}>
                {holds ? `${logFieldWords[holds]}${fiber ? ` ${fiber}` : ''}` : 'Not read'}
              </Type>
              <Type look="small" tone="soft">
                {name}
              </Type>
            </View>
            <Type look="small" style={styles.cells}>
              {preview.rows.map(({ cells }) => cells[index] || '–').join(' · ')}
            </Type>
          </View>
        ))}
      </View>
      <Type look="smallStrong">
        {preview.splices[0]
          ? `The first splice: ${preview.splices[0].readings.map(({ loss }) => (loss === null ? 'no loss' : formatLoss(loss))).join(' · ')} dB${preview.splices[0].at === null ? ', no time' : `, ${dayAndTime(preview.splices[0].at, mapping.zone)}`}`
          : 'No splice can be read so.'}
      </Type>
      <Action label={open ? 'That is right' : 'Change how it is read'} onPress={() => setOpen(!open)} />
      {open ? (
        <View style={styles.part}>
          <Choice
            label="Written as"
            options={choicesOf(formatWords)}
            value={mapping.format}
            onChange={(format) => onChange({ ...mapping, format })}
          />
          <Choice
            label="Encoding"
            options={encodings.map((value) => ({ value, label: encodingWords[value] }))}
            value={mapping.encoding}
            onChange={(encoding) => onChange({ ...mapping, encoding })}
          />
          {mapping.format === 'delimited' ? (
            <Choice
              label="Between the cells"
              options={choicesOf(delimiterWords)}
              value={mapping.delimiter}
              onChange={(delimiter) => onChange({ ...mapping, delimiter })}
            />
          ) : null}
          <Choice
            label="Decimal sign"
            options={[
              { value: '.', label: 'Point' },
              { value: ',', label: 'Comma' },
            ]}
            value={mapping.decimal}
            onChange={(decimal) => onChange({ ...mapping, decimal })}
          />
          {mapping.format === 'json-lines' ? null : (
            <Choice
              label="First row"
              options={[
                { value: 'heading', label: 'Names the columns' },
                { value: 'row', label: 'Is a splice' },
              ]}
              value={mapping.heading ? 'heading' : 'row'}
              onChange={(value) => onChange({ ...mapping, heading: value === 'heading' })}
            />
          )}
          <Choice
            label="A row is"
            options={[
              { value: 'fiber', label: 'A fiber' },
              { value: 'splice', label: 'A whole splice' },
            ]}
            value={mapping.row}
            onChange={(row) => onChange({ ...mapping, row })}
          />
          <Choice
            label="Losses in"
            options={[
              { value: 'dB', label: 'dB' },
              { value: 'mdB', label: 'thousandths of a dB' },
            ]}
            value={mapping.lossUnit}
            onChange={(lossUnit) => onChange({ ...mapping, lossUnit })}
          />
          <Choice
            label="Offset and gap in"
            options={[
              { value: 'um', label: 'μm' },
              { value: 'nm', label: 'nm' },
            ]}
            value={mapping.lengthUnit}
            onChange={(lengthUnit) => onChange({ ...mapping, lengthUnit })}
          />
          <Choice
            label="Dates as"
            options={choicesOf(orderWords)}
            value={mapping.order}
            onChange={(order) => onChange({ ...mapping, order })}
          />
          <Picker
            label="The machine’s clock is set to"
            options={zones.map((value) => ({ value, label: value }))}
            value={mapping.zone}
            onChange={(zone) => onChange({ ...mapping, zone })}
          />
          {mapping.columns.map(({ name, holds, fiber }, index) => (
            <Picker
              key={index}
              label={`Column ${index + 1}${name === String(index + 1) ? '' : `, “${name}”`}${fiber ? `, fiber ${fiber}` : ''}`}
              options={[
                { value: 'nothing', label: 'Not read' },
                ...logFields.map((value) => ({ value, label: logFieldWords[value] })),
              ]}
              value={holds ?? 'nothing'}
              onChange={(value) => column(index, value === 'nothing' ? null : (value as LogField), fiber)}
            />
          ))}
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.medium },
  column: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    columnGap: space.medium,
    paddingVertical: space.small,
    borderBottomWidth: stroke.hair,
  },
  names: { flexGrow: 1, flexBasis: 120 },
  cells: { flexGrow: 3, flexShrink: 1, flexBasis: 200 },
});
