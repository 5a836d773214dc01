import {
  chapterNames,
  photoKey,
  pointHolds,
  pointWords,
  type SealChapter,
  type SealPointAt,
} from '@cordel/core/seal';
import { router } from 'expo-router';
import { useState } from 'react';
import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { Screen } from '../../shell/frame/Screen';
import { places } from '../../shell/places';
import { PreparePanes, type AtHand } from '../../shell/steps/AtClosure';
import { whoAndWhen } from '../../shell/steps/tickWords';
import { Action } from '../../ui/Action';
import { CordRow, type Stretch } from '../../ui/Cord';
import { TextBox } from '../../ui/Field';
import { Knot } from '../../ui/Knot';
import { useCordelTheme } from '../../ui/theme';
import { gutter, space, stroke, touch } from '../../ui/tokens';
import { Type } from '../../ui/Type';
import { Photos } from './photo/Photos';
import { PointedFoot } from './PointedFoot';
import { nextStage, stagesOf } from './stages';
import type { Sealing } from './useSeal';

/** What is looked at, point by point: right, or not right and what to do. */
export function PointsPart({
  atHand,
  seal,
  chapter,
}: {
  atHand: AtHand;
  seal: Sealing;
  chapter: Exclude<SealChapter, 'tighten'>;
}) {
  const { projectId, closure, definition, siteName } = atHand;
  const { stage, thing } = seal;
  const { units } = definition.project;
  const points = stage.points.filter((one) => one.chapter === chapter);
  const open = points.filter((point) => !pointHolds(point));
  const [chosen, setChosen] = useState<string | null>(null);
  // The next that nobody looked at; then those that are not right.
  const next = open.find(({ check, stale }) => check === null || stale) ?? open[0];
  const at = points.find(({ key }) => key === chosen) ?? (chosen === '' ? undefined : next);
  const following = nextStage(stagesOf(stage, thing, units), stage);
  const answer = (point: SealPointAt, value: 'yes' | 'no' | 'open', note = '') => {
    // As long as a note may be, whatever its characters.
    void seal.check(point.point, value, [...note].slice(0, 250).join(''));
    setChosen(value === 'yes' ? null : point.key);
  };
  const stretch = (point: SealPointAt): Stretch => (pointHolds(point) ? 'done' : 'open');
  return (
    <PreparePanes atHand={atHand}>
      <Screen
        title={`${chapterNames[chapter]} · ${siteName}`}
        subtitle={`${points.length - open.length} of ${points.length} right`}
        up={{ href: places.seal(projectId, closure.id), name: 'sealing' }}
        foot={
          at && !pointHolds(at) && at.check?.body.answer !== 'no' ? (
            <PointedFoot
              label="It is right"
              detail={pointWords(at, thing, stage, units).title}
              onPress={() => answer(at, 'yes')}
              other="Not right"
              onOther={() => answer(at, 'no')}
            />
          ) : at && !pointHolds(at) ? (
            <PointedFoot
              label="It is right now"
              detail={pointWords(at, thing, stage, units).title}
              onPress={() => answer(at, 'yes')}
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
          {points.map((point, index) => (
            <PointCard
              key={point.key}
              atHand={atHand}
              seal={seal}
              point={point}
              above={index === 0 ? 'none' : stretch(points[index - 1]!)}
              below={index === points.length - 1 ? 'none' : stretch(point)}
              open={at?.key === point.key}
              onOpen={() => setChosen(at?.key === point.key ? '' : point.key)}
              onAnswer={(value, note) => answer(point, value, note)}
            />
          ))}
          <View style={styles.more}>
            <Type look="small" tone="soft">
              Made from what the plan puts into this closure. Common practice; the maker’s instruction comes
              first.
            </Type>
          </View>
        </ScrollView>
      </Screen>
    </PreparePanes>
  );
}

function PointCard({
  atHand,
  seal,
  point,
  above,
  below,
  open,
  onOpen,
  onAnswer,
}: {
  atHand: AtHand;
  seal: Sealing;
  point: SealPointAt;
  above: Stretch;
  below: Stretch;
  open: boolean;
  onOpen: () => void;
  onAnswer: (value: 'yes' | 'no' | 'open', note?: string) => void;
}) {
  const { palette } = useCordelTheme();
  const { stage, thing } = seal;
  const { units, timeZone } = atHand.definition.project;
  const words = pointWords(point, thing, stage, units);
  const { check, stale } = point;
  const wrong = check?.body.answer === 'no';
  const holds = pointHolds(point);
  const own = photoKey({ what: 'point', point: point.point });
  const photos = seal.photos.filter(({ of, removed }) => !removed && photoKey(of) === own).length;
  return (
    <View role="group" aria-label={words.title}>
      <CordRow
        above={above}
        below={below}
        knot={<Knot mark={wrong ? 'redo' : holds ? 'holds' : 'open'} size={22} />}
        knotSize={22}
        knotAt={28}
      >
        <View
          style={[
            styles.card,
            open ? { borderColor: palette.ink, backgroundColor: palette.sheet } : styles.closed,
          ]}
        >
          <Pressable role="button" aria-expanded={open} onPress={onOpen} style={styles.title}>
            <Type look={open ? 'title' : 'strong'}>{words.title}</Type>
            {check ? (
              <Type look="small" tone={wrong || stale ? 'accent' : 'soft'}>
                {[
                  wrong ? 'Not right' : stale ? 'Spliced since: look again' : 'Right',
                  check.body.note,
                  whoAndWhen(check, timeZone),
                  photos > 0 ? (photos === 1 ? '1 photo' : `${photos} photos`) : null,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </Type>
            ) : null}
          </Pressable>
          {open ? (
            <View style={styles.body}>
              <Type>{words.right}</Type>
              {wrong ? (
                <>
                  <Type look="strong" tone="accent">
                    {words.wrong}
                  </Type>
                  <WrongNote
                    key={check.id}
                    title={words.title}
                    tray={point.point.what === 'tray'}
                    note={check.body.note}
                    onStore={(note) => onAnswer('no', note)}
                  />
                </>
              ) : null}
              <Photos
                atHand={atHand}
                seal={seal}
                of={{ what: 'point', point: point.point }}
                title={words.title}
              />
              {check ? (
                <Action
                  bench
                  label="Take back"
                  spoken={`Take back: ${words.title}`}
                  onPress={() => onAnswer('open')}
                />
              ) : null}
            </View>
          ) : null}
        </View>
      </CordRow>
    </View>
  );
}

const trayTroubles = ['fibers not kept', 'a sleeve not seated', 'a bend too tight', 'lid does not close'];

/** What is wrong, by a tap where it is one of the usual things of a tray, or in words. */
function WrongNote({
  title,
  tray,
  note,
  onStore,
}: {
  title: string;
  tray: boolean;
  note: string;
  onStore: (note: string) => void;
}) {
  const [text, setText] = useState(note);
  return (
    <View style={styles.note}>
      {tray ? (
        <View style={styles.keys}>
          {trayTroubles.map((one) => (
            <Action key={one} bench label={one} pressed={note === one} onPress={() => onStore(one)} />
          ))}
        </View>
      ) : null}
      <TextBox
        label={`What is wrong: ${title}`}
        value={text}
        onChangeText={setText}
        bench
        onSubmit={() => onStore(text)}
      />
      {text.trim() !== note ? (
        <Action bench label="Keep what is wrong" onPress={() => onStore(text)} />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { paddingTop: space.small, paddingBottom: space.large },
  card: { borderWidth: stroke.rule, marginVertical: space.tight, maxWidth: 760 },
  closed: { borderColor: 'transparent' },
  title: {
    minHeight: touch.bench,
    justifyContent: 'center',
    paddingHorizontal: space.medium,
    paddingVertical: space.tight,
  },
  body: { padding: space.medium, paddingTop: 0, gap: space.medium },
  note: { gap: space.small },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.small },
  more: { padding: space.large, paddingLeft: gutter.width, maxWidth: 760 },
});
