import { formatPressure, sealState } from '@cordel/core';
import { router, usePathname } from 'expo-router';
import { memo, useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { useProject } from '../../data/projects';
import { useClosureFacts } from '../../sync/react';
import { Action } from '../../ui/Action';
import { useCordelTheme } from '../../ui/theme';
import { clockTime } from '../../ui/times';
import { gutter, space, stroke } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { places } from '../places';

const ofClosure = /^\/p\/([^/]+)\/c\/([^/]+)/;

/** A closure under pressure is said on every screen of it, until somebody let the pressure out and put the cap back on. */
export const PressureStrip = memo(function PressureStrip() {
  const path = usePathname();
  const match = ofClosure.exec(path);
  return match ? (
    <AtClosure projectId={match[1]!} closureId={match[2]!} there={path.endsWith('/seal/test')} />
  ) : null;
});

function AtClosure({
  projectId,
  closureId,
  there,
}: {
  projectId: string;
  closureId: string;
  /** On the page where it is let out. */
  there: boolean;
}) {
  const facts = useClosureFacts(projectId, closureId).data?.facts;
  const project = useProject(projectId).data?.project;
  const { palette } = useCordelTheme();
  const state = useMemo(() => sealState(facts ?? []), [facts]);
  if (!project || (!state.pressure && !state.capOff)) return null;
  return (
    <View style={[styles.strip, { backgroundColor: palette.sheet, borderBottomColor: palette.accent }]}>
      <View style={styles.words} role="alert">
        <Type look="strong" tone="accent">
          {state.pressure
            ? `${formatPressure(state.pressure.kPa, project.units)} in this closure since ${clockTime(state.pressure.since, project.timeZone)}`
            : 'The cap of the valve is off'}
        </Type>
      </View>
      {there ? null : (
        <Action
          label={state.pressure ? 'Let it out' : 'Cap on'}
          onPress={() => router.navigate(places.seal(projectId, closureId, 'test'))}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  strip: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.medium,
    padding: space.tight,
    paddingLeft: gutter.width,
    borderBottomWidth: stroke.heavy,
  },
  words: { flex: 1 },
});
