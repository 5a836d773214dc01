import { useEffect, useRef, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { saveBlob } from '../../shell/download';
import { useEntries } from '../../sync/react';
import { Action } from '../../ui/Action';
import { gutter, space } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { Choice, TextBox } from '../../ui/Field';
import { toNumber } from '../../ui/numberField';
import { setPreferences, usePreferences } from '../../data/preferences';
import { labelSizes } from '@cordel/core/labels';
import { makeDocument } from './makeDocument';
import { PickScope } from './PickScope';
import type { HandoverGiven } from './useBooks';

const forms = [
  {
    form: 'pdf',
    label: 'Report (PDF)',
    detail: 'Page one says whether it is good; then every splice, seal, photo, gear',
  },
  { form: 'short', label: 'Report of one page (PDF)', detail: 'Page one alone' },
  { form: 'xlsx', label: 'Workbook (XLSX)', detail: 'A summary, a sheet for each closure, filters' },
  { form: 'csv', label: 'Table (CSV)', detail: 'A row for each fiber' },
  { form: 'json', label: 'Record (JSON)', detail: 'Everything; its schema is in docs/as-built.schema.json' },
  { form: 'geojson', label: 'Map (GeoJSON)', detail: 'Route, sites and cables where positions are known' },
  {
    form: 'labels',
    label: 'Labels (PDF)',
    detail: 'Closures, trays, cables; with codes that open the place',
  },
  { form: 'labels-csv', label: 'Labels (CSV)', detail: 'For a label printer' },
] as const;

/** The documents of a project or a closure, made by the server, with how far it is and a way to stop. */
export function DocumentsPart({ definition, books, closureId }: HandoverGiven) {
  const { id } = definition.project;
  const [making, setMaking] = useState<{ form: string; share: number } | null>(null);
  const [told, setTold] = useState<{ words: string; failed: boolean } | null>(null);
  const { labelSize } = usePreferences();
  const [skip, setSkip] = useState('0');
  const skipped = Math.min(200, Math.max(0, Math.round(toNumber(skip)) || 0));
  const stop = useRef<AbortController | null>(null);
  const waiting = useEntries().filter((entry) => entry.projectId === id).length;
  // Whoever leaves the page does not want it any more.
  useEffect(() => () => stop.current?.abort(), []);
  const make = async (form: (typeof forms)[number]) => {
    const own = new AbortController();
    stop.current = own;
    setTold(null);
    setMaking({ form: form.form, share: 0 });
    try {
      const made = await makeDocument(
        `/api/projects/${id}/record/${form.form}?size=${labelSize}&skip=${skipped}${closureId ? `&closure=${closureId}` : ''}`,
        own.signal,
        (share) => setMaking({ form: form.form, share }),
      );
      saveBlob(made.blob, made.name);
      setTold({
        words: made.fingerprint
          ? `${made.name} is saved. Fingerprint of the record: ${made.fingerprint.slice(0, 16)} …`
          : `${made.name} is saved. Print it at full size, not fitted to the page.`,
        failed: false,
      });
    } catch (error) {
      setTold(
        own.signal.aborted
          ? { words: 'Stopped. Nothing was saved.', failed: false }
          : { words: (error as Error).message, failed: true },
      );
    }
    setMaking(null);
  };
  return (
    <ScrollView contentContainerStyle={styles.list}>
      <PickScope definition={definition} books={books} closureId={closureId} />
      {waiting > 0 ? (
        <Type look="strong" tone="accent" role="status">
          {waiting === 1 ? '1 record is' : `${waiting} records are`} only on this device yet, and would be
          missing in a document of the server.
        </Type>
      ) : null}
      {forms.map((one) => (
        <View key={one.form} style={styles.row}>
          <Action
            bench
            label={one.label}
            detail={
              making?.form === one.form ? `Being made, ${Math.round(making.share * 100)} %` : one.detail
            }
            disabled={making !== null}
            onPress={() => void make(one)}
            style={styles.grow}
          />
          {making?.form === one.form ? (
            <Action bench label="Stop" spoken={`Stop: ${one.label}`} onPress={() => stop.current?.abort()} />
          ) : null}
        </View>
      ))}
      <Choice
        label="Labels on"
        options={labelSizes.map(({ id: value, name }) => ({ value, label: name }))}
        value={labelSize}
        onChange={(value) => setPreferences({ labelSize: value })}
      />
      <TextBox
        label="Labels of the first sheet that are used"
        keyboard="numeric"
        value={skip}
        onChangeText={setSkip}
      />
      {told ? (
        <Type tone={told.failed ? 'accent' : 'ink'} role={told.failed ? 'alert' : 'status'}>
          {told.words}
        </Type>
      ) : null}
      <Type look="small" tone="soft">
        All of them show the same record. Losses are the splicing machine’s estimates.
      </Type>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width, gap: space.medium, maxWidth: 760 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  grow: { flexGrow: 1, flexBasis: 240 },
});
