import { isDone, measuredDiameters, siteOf, tickOf, tickTargets } from '@cordel/core';
import { cautionsFor, itemsFor, readiness, type Item } from '@cordel/core/prepare';
import { router } from 'expo-router';
import { FlatList, StyleSheet, View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Caution } from '../../../ui/Caution';
import { Screen } from '../../../shell/frame/Screen';
import { useCordelTheme } from '../../../ui/theme';
import { gutter, space, stroke } from '../../../ui/tokens';
import { TickRow } from '../../../ui/TickRow';
import { Type } from '../../../ui/Type';
import { places } from '../../../shell/places';
import { AtClosure, PreparePanes, type AtHand } from '../../../shell/steps/AtClosure';
import { useSchools } from '../../../shell/steps/usePrepare';

/** Parts, tools and cautions, looked at before anything is cut; what is missing, with what it stops. */
export function BeforeScreen({ projectId, closureId }: { projectId: string; closureId: string }) {
  return (
    <AtClosure projectId={projectId} closureId={closureId} title="Before a blade comes out">
      {(atHand) => <BeforeAt atHand={atHand} />}
    </AtClosure>
  );
}

function BeforeAt({ atHand }: { atHand: AtHand }) {
  const { projectId, closure, definition, cables, ledger, siteName } = atHand;
  const { state, tick } = atHand.preparing;
  const { palette } = useCordelTheme();
  const schools = useSchools();
  const site = siteOf(definition.sites, closure.siteId);
  const items = itemsFor(closure, ledger.plan, cables, schools, measuredDiameters(closure, state));
  const ready = readiness(items, cautionsFor(site, closure, ledger.plan, cables), state);
  const stateOf = (item: Item) => tickOf(state, tickTargets.item(item.id))?.body.state ?? 'open';
  const set = (item: Item, next: 'done' | 'missing' | 'open') => tick(tickTargets.item(item.id), next);
  return (
    <PreparePanes atHand={atHand}>
      <Screen
        title="Before a blade comes out"
        subtitle={`${siteName} · ${ready.open.length} to look at${ready.missing.length > 0 ? `, ${ready.missing.length} missing` : ''}`}
        up={{ href: places.prepare(projectId, closure.id), name: 'preparing' }}
        foot={
          <View style={styles.foot}>
            {ready.open.length > 0 ? (
              <Action
                bench
                label={`All ${ready.open.length} others are here`}
                onPress={() => ready.open.forEach((item) => set(item, 'done'))}
              />
            ) : null}
            <Action
              bench
              kind="now"
              label={
                ready.openCautions.length > 0
                  ? ready.openCautions.length === 1
                    ? 'One caution is open'
                    : `${ready.openCautions.length} cautions are open`
                  : ready.open.length > 0
                    ? `${ready.open.length} things to look at`
                    : 'Go on'
              }
              disabled={ready.openCautions.length > 0 || ready.open.length > 0}
              onPress={() => router.navigate(places.prepare(projectId, closure.id))}
            />
          </View>
        }
      >
        <FlatList
          data={items}
          keyExtractor={(item) => item.kind + item.id}
          initialNumToRender={12}
          ListHeaderComponent={
            <View style={styles.head}>
              {ready.cautions.map((caution) => {
                const about = tickTargets.caution(caution.id);
                const ticked = isDone(state, about);
                return (
                  <View key={caution.id} style={styles.caution}>
                    <Caution text={caution.text} />
                    <TickRow ticked={ticked} onPress={() => tick(about, ticked ? 'open' : 'done')}>
                      <Type look="strong">{caution.title}: seen to</Type>
                    </TickRow>
                  </View>
                );
              })}
              <Type look="small" tone="soft">
                Reminders only: local code, the owner’s rules and licensed practice come first.
              </Type>
              {ready.missing.length > 0 ? (
                <View role="alert">
                  <Type look="strong" tone="accent">
                    Missing
                  </Type>
                  {ready.missing.map((item) => (
                    <Type key={item.id} look="small">
                      {item.name}: stops {item.stops}.
                    </Type>
                  ))}
                </View>
              ) : null}
            </View>
          }
          renderItem={({ item, index }) => (
            <View>
              {index === 0 || items[index - 1]!.kind !== item.kind ? (
                <Type look="heading" role="heading" aria-level={2} style={styles.kind}>
                  {item.kind === 'tool' ? 'Tools' : 'Parts'}
                </Type>
              ) : null}
              <View style={[styles.item, { borderBottomColor: palette.hairline }]}>
                <TickRow
                  ticked={stateOf(item) === 'done'}
                  onPress={() => set(item, stateOf(item) === 'done' ? 'open' : 'done')}
                >
                  <Type look="strong">
                    {item.count > 1 ? `${item.count} × ` : ''}
                    {item.name}
                  </Type>
                  <Type look="small" tone="soft">
                    {item.how}
                  </Type>
                </TickRow>
                <Action
                  label="Missing"
                  spoken={`Missing: ${item.name}`}
                  pressed={stateOf(item) === 'missing'}
                  onPress={() => set(item, stateOf(item) === 'missing' ? 'open' : 'missing')}
                />
              </View>
            </View>
          )}
        />
      </Screen>
    </PreparePanes>
  );
}

const styles = StyleSheet.create({
  head: { padding: space.large, paddingLeft: gutter.width, gap: space.medium, maxWidth: 760 },
  caution: { gap: space.tight },
  kind: { paddingTop: space.large, paddingLeft: gutter.width },
  item: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.small,
    paddingHorizontal: space.medium,
    borderBottomWidth: stroke.hair,
  },
  foot: { padding: space.small, gap: space.small },
});
