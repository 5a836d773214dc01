import { csvProblemWords, type Cable, type Closure, type Units } from '@cordel/core';
import {
  guessOrderCsv,
  orderCsvFields,
  readOrderCsv,
  writeOrderLine,
  type OrderCsvMapping,
} from '@cordel/core/order';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Choice } from '../../../ui/Field';
import { FilePick } from '../../../ui/FilePick';
import { csvPackage } from '../../../shell/csv';
import { Sheet } from '../../../ui/Sheet';
import { space } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import { tableText } from './tableText';

interface Table {
  readonly name: string;
  readonly rows: string[][];
  /** What the reader of the file itself found wrong. */
  readonly broken: string | null;
}

/** Takes an order in from a table: the user says which column holds what; a bad row is told, and then nothing is taken. */
export function CsvSheet({
  open,
  onClose,
  closure,
  cables,
  units,
  onTake,
}: {
  open: boolean;
  onClose: () => void;
  closure: Closure;
  cables: ReadonlyMap<string, Cable>;
  units: Units;
  onTake: (lines: string[], replace: boolean) => void;
}) {
  const [table, setTable] = useState<Table | null>(null);
  const [mapping, setMapping] = useState<OrderCsvMapping | null>(null);

  const take = async (file: File) => {
    const parsed = (await csvPackage()).parse<string[]>(tableText(await file.arrayBuffer()), {
      skipEmptyLines: false,
    });
    // A file of one column has no separator to find, and that is told with the columns.
    const [error] = parsed.errors.filter((one) => one.code !== 'UndetectableDelimiter');
    setTable({
      name: file.name,
      rows: parsed.data,
      broken: error
        ? `Row ${(error.row ?? 0) + 1}: ${error.message}. Mend the file and pick it again.`
        : null,
    });
    setMapping(guessOrderCsv(parsed.data[0] ?? []));
  };
  const header = table?.rows[0] ?? [];
  const read =
    table && mapping && !table.broken ? readOrderCsv(table.rows, mapping, closure.entries, cables) : null;
  const lines = read ? read.lines.map((line) => writeOrderLine(line, closure.entries)) : [];
  const done = (replace: boolean) => {
    onTake(lines, replace);
    setTable(null);
    onClose();
  };
  return (
    <Sheet title="An order from a CSV file" open={open} onClose={onClose}>
      <Type>
        A table with a row for each fiber or range: from which cable and fibers, to which. The first row names
        the columns.
      </Type>
      <FilePick
        label={table ? `Another file than ${table.name}` : 'Pick the file'}
        accept=".csv,text/csv"
        what="Order table"
        onFile={(file) => void take(file)}
      />
      {table?.broken ? (
        <Type tone="accent" role="alert">
          {table.broken}
        </Type>
      ) : null}
      {table && mapping && !table.broken ? (
        <>
          {orderCsvFields.map(({ id, name, needed }) => (
            <Choice
              key={id}
              label={needed ? name : `${name} (if there is one)`}
              options={[
                { value: '', label: 'No column' },
                ...header.map((title, index) => ({
                  value: String(index),
                  label: title || `Column ${index + 1}`,
                })),
              ]}
              value={mapping[id] === null ? '' : String(mapping[id])}
              onChange={(value) => setMapping({ ...mapping, [id]: value === '' ? null : Number(value) })}
            />
          ))}
          {read!.problems.length > 0 ? (
            <View style={styles.problems} role="alert">
              <Type look="strong" tone="accent">
                {read!.problems.length === 1
                  ? 'One thing is wrong'
                  : `${read!.problems.length} things are wrong`}
                . Nothing is taken in.
              </Type>
              {read!.problems.slice(0, 200).map(({ row, column, told }, index) => (
                <Type key={index} look="small">
                  Row {row}, {column}: {csvProblemWords(told, units)}
                </Type>
              ))}
            </View>
          ) : (
            <>
              <Type look="strong">
                {lines.length === 0
                  ? 'The table has no rows.'
                  : `${lines.length} ${lines.length === 1 ? 'line' : 'lines'}: ${lines.slice(0, 3).join(', ')}${lines.length > 3 ? ' …' : ''}`}
              </Type>
              <View style={styles.row}>
                <Action
                  label="Add them"
                  disabled={lines.length === 0}
                  kind="now"
                  onPress={() => done(false)}
                />
                <Action
                  label="Put them in place of the order"
                  disabled={lines.length === 0}
                  onPress={() => done(true)}
                />
              </View>
            </>
          )}
        </>
      ) : null}
    </Sheet>
  );
}

const styles = StyleSheet.create({
  problems: { gap: space.tight },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
});
