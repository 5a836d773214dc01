import {
  holderName,
  openingWords,
  photoKey,
  pointHolds,
  sealKey,
  tighteningStands,
  type Opening,
  type SealPointAt,
} from '@cordel/core/seal';
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { PreparePanes, type AtHand } from '../../shell/steps/AtClosure';
import { Action } from '../../ui/Action';
import { Caution } from '../../ui/Caution';
import { Empty } from '../../ui/States';
import { useCordelTheme } from '../../ui/theme';
import { gutter, space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { EndPlate } from './EndPlate';
import { Photos } from './photo/Photos';
import { PointedFoot } from './PointedFoot';
import { nextStage, stagesOf } from './stages';
import type { Sealing } from './useSeal';

/** The caps, glands or screws of the openings in use, tapped on the end plate in the order in which they are tightened. */
export function TightenPart({ atHand, seal }: { atHand: AtHand; seal: Sealing }) {
  const { projectId, closure, definition, siteName } = atHand;
  const { stage, thing } = seal;
  const { palette } = useCordelTheme();
  const [told, setTold] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const points = stage.points.filter(({ chapter }) => chapter === 'tighten');
  const { next, outOfOrder } = tighteningStands(points);
  const pointOf = (opening: Opening) =>
    points.find((one) => one.opening && sealKey(one.opening.seal) === sealKey(opening.seal));
  const done = points.filter(pointHolds).length;
  const following = nextStage(stagesOf(stage, thing, definition.project.units), stage);
  const tightened = (point: SealPointAt) => {
    setTold(null);
    setChosen(null);
    void seal.check(point.point, 'yes');
  };
  const pressed = (opening: Opening) => {
    const point = pointOf(opening);
    if (!point) setTold(`${openingWords(opening)}: it is looked at with the plugs.`);
    else if (pointHolds(point)) {
      setTold(null);
      void seal.check(point.point, 'open');
    } else if (point === next) tightened(point);
    else setTold(`Not yet: the next is ${next?.opening ? openingWords(next.opening) : ''}.`);
  };
  // Photos are of the one that was picked; else of the one that was just tightened, or of the next.
  const shown =
    points.find(({ key }) => key === chosen) ??
    points.filter(pointHolds).sort((a, b) => (a.check!.madeAt < b.check!.madeAt ? 1 : -1))[0] ??
    next;
  const photosAt = ({ point }: SealPointAt) => {
    const own = photoKey({ what: 'point', point });
    const count = seal.photos.filter(({ of, removed }) => !removed && photoKey(of) === own).length;
    return count === 0 ? '' : count === 1 ? ', 1 photo' : `, ${count} photos`;
  };
  const holder = stage.how ? holderName(stage.how) : 'cap';
  return (
    <PreparePanes atHand={atHand}>
      <Screen
        title={`Tighten · ${siteName}`}
        subtitle={`${done} of ${points.length} tight`}
        up={{ href: places.seal(projectId, closure.id), name: 'sealing' }}
        foot={
          next?.opening ? (
            <PointedFoot
              label={`Tight: opening ${next.opening.number ?? 'without a port'}`}
              detail={openingWords(next.opening)}
              onPress={() => tightened(next)}
            />
          ) : (
            <PointedFoot
              label={following ? `Next: ${following.title}` : 'Sealed: to the stages'}
              onPress={() => router.navigate(places.seal(projectId, closure.id, following?.part ?? 'stages'))}
            />
          )
        }
      >
        <ScrollView contentContainerStyle={styles.list}>
          {points.length === 0 ? (
            <Empty
              title="Nothing to tighten here"
              text="This closure closes with its shell, or no cable goes into it by a port."
            />
          ) : (
            <>
              <EndPlate
                openings={stage.openings}
                stateOf={(opening) => {
                  const point = pointOf(opening);
                  return point && pointHolds(point) ? 'good' : 'open';
                }}
                wordOf={(opening) => {
                  const point = pointOf(opening);
                  return !point
                    ? 'not tightened here'
                    : pointHolds(point)
                      ? 'tight'
                      : point === next
                        ? 'next'
                        : 'open';
                }}
                chosen={next?.opening ? sealKey(next.opening.seal) : null}
                onPress={pressed}
              />
              {told ? (
                <Type look="strong" tone="accent" role="alert">
                  {told}
                </Type>
              ) : null}
              {outOfOrder ? (
                <Type look="strong" tone="accent">
                  They were not taken in their order. Loosen them and begin anew where the maker asks for it.
                </Type>
              ) : null}
              <View role="group" aria-label="Order">
                <Type look="heading" role="heading" aria-level={2}>
                  Order
                </Type>
                {points.map((point, index) => (
                  <Pressable
                    key={point.key}
                    role="button"
                    aria-pressed={point === shown}
                    onPress={() => setChosen(point.key)}
                    style={[styles.point, point === shown && { borderColor: palette.ink }]}
                  >
                    <Type look={point === next ? 'strong' : 'body'}>
                      {index + 1}. {point.opening ? openingWords(point.opening) : ''}
                      {pointHolds(point) ? ', tight' : point === next ? ', next' : ''}
                      {photosAt(point)}
                    </Type>
                  </Pressable>
                ))}
              </View>
              {shown ? (
                <Photos
                  atHand={atHand}
                  seal={seal}
                  of={{ what: 'point', point: shown.point }}
                  title={shown.opening ? openingWords(shown.opening) : ''}
                />
              ) : null}
              <Type>
                Each {holder} by hand, a can wrench or spanner at most, evenly, until the sealing material
                begins to bulge.
              </Type>
              <Caution text="No power tools: they crush the seal and strip the thread. Fingers out of the way of the wrench." />
              {done > 0 ? (
                <Action
                  bench
                  label="Loosened all: begin anew"
                  onPress={() => {
                    for (const point of points) if (point.check) void seal.check(point.point, 'open');
                  }}
                />
              ) : null}
              <Type look="small" tone="soft">
                {stage.how?.order.length
                  ? 'The order is the one in the closure’s table.'
                  : 'The order is common practice, across the plate; the maker’s own can be entered in the closure’s table.'}
              </Type>
            </>
          )}
        </ScrollView>
      </Screen>
    </PreparePanes>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.large, paddingLeft: gutter.width / 2, gap: space.medium, maxWidth: 760 },
  point: {
    minHeight: touch.bench,
    justifyContent: 'center',
    paddingHorizontal: space.small,
    borderWidth: stroke.rule,
    borderColor: 'transparent',
  },
});
