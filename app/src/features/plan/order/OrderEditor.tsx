import {
  placeWords,
  planFindingWords,
  rowProblemWords,
  type Cable,
  type PlanFinding,
  type Units,
} from '@cordel/core';
import { completeOrderRow, type DraftCheck, type OrderTextProblem } from '@cordel/core/order';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Pressable, StyleSheet, TextInput, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { useCordelTheme } from '../../../ui/theme';
import { faces, space, stroke, touch } from '../../../ui/tokens';
import { Type } from '../../../ui/Type';
import type { PlanEditing } from './usePlanDraft';

interface OrderEditorProps {
  editing: PlanEditing;
  check: DraftCheck | null;
  cables: ReadonlyMap<string, Cable>;
  units: Units;
  onPick: () => void;
  onCsv: () => void;
}

/** The order as text, checked while it is typed, with what may come next under it. */
export function OrderEditor({ editing, check, cables, units, onPick, onCsv }: OrderEditorProps) {
  const { palette, size } = useCordelTheme();
  const { draft, change } = editing;
  const { text } = draft;
  const input = useRef<TextInput>(null);
  const [cursor, setCursor] = useState(text.length);
  const [wanted, setWanted] = useState<number | null>(null);

  // A text that is set from outside leaves the cursor at its end.
  useLayoutEffect(() => {
    if (wanted === null) return;
    const area = input.current as unknown as HTMLTextAreaElement | null;
    area?.focus();
    area?.setSelectionRange(wanted, wanted);
  }, [wanted, text]);

  const rowStart = text.lastIndexOf('\n', cursor - 1) + 1;
  const before = text.slice(rowStart, cursor);
  const completions = useMemo(
    () => completeOrderRow(before, draft.closure.entries, cables, check?.lines ?? []),
    [before, draft.closure.entries, cables, check?.lines],
  );
  const put = (insert: string, replaces: number) => {
    const at = cursor - replaces;
    change({ text: text.slice(0, at) + insert + text.slice(cursor) });
    setCursor(at + insert.length);
    setWanted(at + insert.length);
  };
  const goTo = (row: number, column: number) => {
    const rows = text.split('\n');
    const at = rows.slice(0, row - 1).reduce((sum, one) => sum + one.length + 1, 0) + column - 1;
    setCursor(at);
    setWanted(at);
  };
  const rows = Math.min(14, Math.max(4, text.split('\n').length + 1));
  const lineHeight = size('body') * 1.5;

  return (
    <View style={styles.editor}>
      <Type look="heading" role="heading" aria-level={2}>
        The order
      </Type>
      <Type look="small" tone="soft">
        One line for each: A 1-72 &gt; B 1-72, A T3 &gt; B T1, A R1-R6 &gt; B R1-R6; or C 1 &gt; fused
        connector, where it ends here. What no line takes goes through or stays dark.
      </Type>
      <TextInput
        ref={input}
        aria-label="Order, one line for each assignment"
        multiline
        value={text}
        onChangeText={(next) => {
          setWanted(null);
          change({ text: next }, true);
        }}
        onSelectionChange={({ nativeEvent }) => setCursor(nativeEvent.selection.start)}
        spellCheck={false}
        autoCapitalize="none"
        autoCorrect={false}
        style={[
          styles.input,
          {
            height: rows * lineHeight + 2 * space.medium,
            color: palette.ink,
            backgroundColor: palette.sheet,
            borderColor: palette.ink,
            fontSize: size('body'),
            lineHeight,
          },
        ]}
      />
      <View style={styles.completions} role="group" aria-label="What may come next">
        {completions.map(({ insert, replaces, about }, index) => (
          <Pressable
            key={`${insert}${index}`}
            role="button"
            onPress={() => put(insert, replaces)}
            style={[styles.completion, { borderColor: palette.hairline, backgroundColor: palette.sheet }]}
          >
            <Type look="strong">{insert.trim()}</Type>
            <Type look="small" tone="soft">
              {about}
            </Type>
          </Pressable>
        ))}
      </View>
      <Troubles check={check} units={units} onGo={goTo} />
      <View style={styles.ways}>
        <Action label="Pick on the cables" onPress={onPick} />
        <Action label="From a CSV file" icon="upload" onPress={onCsv} />
        <Action
          label="New line"
          onPress={() => {
            const next = text === '' || text.endsWith('\n') ? text : `${text}\n`;
            change({ text: next });
            setCursor(next.length);
            setWanted(next.length);
          }}
        />
      </View>
    </View>
  );
}

/** What cannot be read, and what the plan finds wrong: each with its place and remedy. */
function Troubles({
  check,
  units,
  onGo,
}: {
  check: DraftCheck | null;
  units: Units;
  onGo: (row: number, column: number) => void;
}) {
  if (!check) return null;
  const errors = check.findings.filter((finding) => finding.severity === 'error');
  const warnings = check.findings.filter((finding) => finding.severity === 'warning');
  const sound = check.problems.length === 0 && check.findings.length === 0;
  return (
    <View style={styles.troubles} aria-live="polite">
      {check.problems.map((problem) => (
        <Unreadable key={`${problem.row}.${problem.column}`} problem={problem} onGo={onGo} />
      ))}
      {[...errors, ...warnings].slice(0, 100).map((finding, index) => (
        <FindingRow key={index} finding={finding} units={units} onGo={onGo} />
      ))}
      {check.findings.length > 100 ? <Type look="small">And {check.findings.length - 100} more.</Type> : null}
      {sound && check.splices > 0 ? (
        <Type look="strong">{check.splices} splices, all with a slot. Nothing is wrong with this order.</Type>
      ) : null}
    </View>
  );
}

function Unreadable({
  problem,
  onGo,
}: {
  problem: OrderTextProblem;
  onGo: (row: number, column: number) => void;
}) {
  return (
    <Pressable role="button" onPress={() => onGo(problem.row, problem.column)} style={styles.trouble}>
      <Type look="smallStrong" tone="accent">
        Line {problem.row}, character {problem.column}
      </Type>
      <Type look="small">{rowProblemWords(problem)}</Type>
    </Pressable>
  );
}

function FindingRow({
  finding,
  units,
  onGo,
}: {
  finding: PlanFinding;
  units: Units;
  onGo: (row: number, column: number) => void;
}) {
  const { where } = finding;
  const body = (
    <>
      <Type look="smallStrong" tone={finding.severity === 'error' ? 'accent' : 'ink'}>
        {finding.severity === 'error' ? 'Wrong' : 'Mind'}
        {` · ${placeWords(where)}`}
      </Type>
      <Type look="small">{planFindingWords(finding, units)}</Type>
    </>
  );
  if (where.kind !== 'order-line') return <View style={styles.trouble}>{body}</View>;
  return (
    <Pressable role="button" onPress={() => onGo(where.line, 1)} style={styles.trouble}>
      {body}
    </Pressable>
  );
}

const styles = StyleSheet.create({
  editor: { gap: space.small },
  input: {
    borderWidth: stroke.rule,
    padding: space.medium,
    fontFamily: faces.sans,
    fontVariant: ['tabular-nums'],
  },
  completions: { flexDirection: 'row', flexWrap: 'wrap', gap: space.tight },
  completion: {
    minHeight: touch.normal,
    justifyContent: 'center',
    borderWidth: stroke.hair,
    paddingHorizontal: space.small,
  },
  ways: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  troubles: { gap: space.small },
  trouble: { minHeight: touch.normal, justifyContent: 'center' },
});
