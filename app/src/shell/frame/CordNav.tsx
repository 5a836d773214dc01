import {
  cordOrder,
  formatChainage,
  nextOnTray,
  type ClosureLedger,
  type ProjectDefinition,
} from '@cordel/core';
import { router, type Href } from 'expo-router';
import { memo } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { CordRow, type Stretch } from '../../ui/Cord';
import { Knot } from '../../ui/Knot';
import { useCordelTheme } from '../../ui/theme';
import { space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { progressWords } from '../words';
import { places, projectTabs, type ProjectTab } from '../places';

interface CordNavProps {
  definition: ProjectDefinition;
  closureId?: string;
  ledger?: ClosureLedger;
  tray?: number;
  tab?: ProjectTab;
}

/** The left pane of a wide screen: the whole route on its cord, and the trays of the closure one stands at. */
export const CordNav = memo(function CordNav({ definition, closureId, ledger, tray, tab }: CordNavProps) {
  const { palette } = useCordelTheme();
  const { project, closures } = definition;
  const inOrder = cordOrder(definition.sites);
  return (
    <View style={styles.nav}>
      <Link href={places.shelf} style={styles.head}>
        <Type look="title">{project.name}</Type>
      </Link>
      <ScrollView style={styles.list}>
        {inOrder.map((site, index) => {
          const closure = closures.find((candidate) => candidate.siteId === site.id);
          const here = closure !== undefined && closure.id === closureId;
          const first: Stretch = index === 0 ? 'none' : 'open';
          const last: Stretch = index === inOrder.length - 1 ? 'none' : 'open';
          return (
            <View key={site.id}>
              <Link
                href={closure ? places.closure(project.id, closure.id) : places.site(project.id, site.id)}
                here={here && tray === undefined}
              >
                <CordRow
                  above={first}
                  below={last}
                  knot={<Knot mark="open" size={here ? 26 : 20} />}
                  knotSize={here ? 26 : 20}
                >
                  <View style={styles.row}>
                    <Type look="heading" style={styles.grow}>
                      {site.branchFrom ? `↳ ${site.name}` : site.name}
                    </Type>
                    <Type look="small" tone="soft">
                      {here && ledger
                        ? progressWords(ledger.rollUp)
                        : formatChainage(site.chainage, project.units)}
                    </Type>
                  </View>
                </CordRow>
              </Link>
              {here && ledger && ledger.trays.length <= 60
                ? ledger.trays.map((state) => (
                    <Link
                      key={state.tray}
                      href={
                        tray !== undefined && nextOnTray(state)
                          ? places.bench(project.id, closure.id, state.tray, nextOnTray(state)!.splice.slot)
                          : places.tray(project.id, closure.id, state.tray)
                      }
                      here={state.tray === tray}
                    >
                      <CordRow above={last} below={last} knot={null}>
                        <View
                          style={[
                            styles.tray,
                            { borderColor: state.tray === tray ? palette.ink : 'transparent' },
                          ]}
                        >
                          <Type look="strong" style={styles.grow}>
                            Tray {state.tray}
                          </Type>
                          <Type look="small" tone={state.rollUp.marks.redo > 0 ? 'accent' : 'soft'}>
                            {state.rollUp.marks.redo > 0
                              ? `${state.rollUp.marks.redo} redo`
                              : progressWords(state.rollUp)}
                          </Type>
                        </View>
                      </CordRow>
                    </Link>
                  ))
                : null}
            </View>
          );
        })}
      </ScrollView>
      <View style={[styles.tabs, { borderTopColor: palette.ink }]}>
        {projectTabs(project.id, tab ?? 'line').map((item) => (
          <Link key={item.label} href={item.href} here={item.here && tab !== undefined} style={styles.tab}>
            <Type look={item.here && tab !== undefined ? 'strong' : 'body'}>{item.label}</Type>
          </Link>
        ))}
      </View>
    </View>
  );
});

function Link({
  href,
  here = false,
  style,
  children,
}: {
  href: Href;
  here?: boolean;
  style?: object;
  children: React.ReactNode;
}) {
  return (
    <Pressable
      role="link"
      aria-current={here ? 'page' : undefined}
      onPress={() => router.navigate(href)}
      style={style}
    >
      {children}
    </Pressable>
  );
}

const styles = StyleSheet.create({
  nav: { flex: 1 },
  head: {
    padding: space.medium,
    paddingLeft: space.huge + space.medium,
    minHeight: 64,
    justifyContent: 'center',
  },
  list: { flex: 1 },
  row: { minHeight: touch.bench, flexDirection: 'row', alignItems: 'center', gap: space.small },
  tray: {
    minHeight: touch.bench,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
    borderWidth: stroke.rule,
    paddingHorizontal: space.small,
  },
  grow: { flex: 1 },
  tabs: { flexDirection: 'row', borderTopWidth: stroke.rule },
  tab: { flex: 1, minHeight: touch.bench, alignItems: 'center', justifyContent: 'center' },
});
