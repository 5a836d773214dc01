import type { SealedAt } from '../../seal/finalLook';
import { holdingResult } from '../../seal/holding';
import { photosOf } from '../../seal/photos';
import { endPlate, sealKey } from '../../seal/seals';
import type { SealStage } from '../../seal/stage';
import { openingWords, photoWords, pointWords, sealWords } from '../../seal/words';
import type { AsBuiltPhoto, AsBuiltPicture, AsBuiltSeal } from './schema';

/** What the records say of a closure's seal: points, rounds, holding tests, and when it was opened again. */
export function sealOf(thing: SealedAt, stage: SealStage, units: 'mm' | 'in'): AsBuiltSeal {
  const { state } = stage;
  const name = (seal: Parameters<typeof sealWords>[0]) => sealWords(seal, stage, thing);
  const bubblesOf = (looked: (typeof state.rounds)[number]['looked']) =>
    [...looked.values()].flatMap(({ body }) => (body.saw === 'bubbles' ? [body.seal] : []));
  const bubbled = new Set(
    state.rounds.filter(({ before }) => !before).flatMap(({ looked }) => bubblesOf(looked).map(sealKey)),
  );
  return {
    sealed: stage.sealed,
    tickedOnly: stage.tickedOnly,
    testPressure: stage.testPressure,
    underPressure: state.pressure?.kPa ?? null,
    points: stage.points.map((point) => ({
      chapter: point.chapter,
      title: pointWords(point, thing, stage, units).title,
      answer: point.check?.body.answer === 'open' ? null : (point.check?.body.answer ?? null),
      stale: point.stale,
      at: point.check?.madeAt ?? null,
      by: point.check?.by ?? null,
      note: point.check?.body.note ?? '',
    })),
    openings: endPlate(stage.openings).spots.map(({ opening, x, y, r }) => ({
      number: opening.number,
      name: openingWords(opening),
      plug: opening.guests.length === 0,
      bubbled: bubbled.has(sealKey(opening.seal)),
      x,
      y,
      r,
    })),
    rounds: state.rounds.map((round) => ({
      number: round.number,
      kPa: round.kPa,
      at: round.pumped.madeAt,
      by: round.pumped.by,
      releasedAt: round.released?.madeAt ?? null,
      looked: round.looked.size,
      bubbles: bubblesOf(round.looked).map(name),
      reseated: round.reseated.map(({ body }) => [name(body.seal), body.note].filter(Boolean).join(': ')),
      beforeReopening: round.before,
    })),
    holding: state.holding.flatMap(({ began, reads, dropped }) =>
      dropped
        ? []
        : reads.map((read) => {
            const hours = (Date.parse(read.madeAt) - Date.parse(began.madeAt)) / 3600_000;
            const { lost, uncertainty, mayLose, verdict, leakRate } = holdingResult({
              ...began.body,
              began: began.body,
              read: read.body,
              hours,
            });
            return {
              beganAt: began.madeAt,
              readAt: read.madeAt,
              hours,
              lost,
              uncertainty,
              mayLose,
              verdict,
              leakRate,
            };
          }),
    ),
    reopenings: state.reopenings.map(({ madeAt, by, body }) => ({
      at: madeAt,
      by,
      reason: body.reason,
      note: body.note,
    })),
  };
}

/** The photos that stand, each with what is known of its picture. */
export function photosIn(
  thing: SealedAt,
  stage: SealStage,
  units: 'mm' | 'in',
  pictures: ReadonlyMap<string, AsBuiltPicture>,
): AsBuiltPhoto[] {
  return photosOf(thing.facts)
    .filter(({ removed }) => !removed)
    .map(({ id, of, caption, madeAt, by }) => ({
      id,
      shows: photoWords(of, thing, stage, units),
      caption,
      at: madeAt,
      by,
      picture: pictures.get(id) ?? null,
    }));
}
