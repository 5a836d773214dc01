import { compareFacts, type Fact, type Photo, type PhotoOf } from '../facts';
import { sealKey } from './seals';
import { pointKey } from './sealState';

/** A photo as it stands. Its picture goes by `id`. */
export interface StandingPhoto {
  readonly id: string;
  readonly of: PhotoOf;
  readonly caption: string;
  readonly madeAt: string;
  readonly by: string | null;
  /** Taken out of the record; it can be put back. */
  readonly removed: boolean;
}

/** What a photo shows as one text, to look it up by. */
export function photoKey(of: PhotoOf): string {
  switch (of.what) {
    case 'closure':
      return 'closure';
    case 'point':
      return `point ${pointKey(of.point)}`;
    case 'test':
      return `test ${sealKey(of.seal)}`;
  }
}

/** The photos of a closure, oldest first, with those that were removed. Whatever order the facts come in; each id once. */
export function photosOf(facts: Iterable<Fact>): readonly StandingPhoto[] {
  const own = new Map<string, Photo>();
  for (const fact of facts) if (fact.kind === 'photo') own.set(fact.id, fact);
  const inOrder = [...own.values()].sort(compareFacts);
  const photos = new Map<string, StandingPhoto>();
  for (const { id, madeAt, by, body } of inOrder)
    if (body.did === 'taken')
      photos.set(id, { id, of: body.of, caption: body.caption, madeAt, by, removed: false });
  // What is said of a photo comes after it, whatever the clocks say.
  for (const { body } of inOrder) {
    if (body.did === 'taken') continue;
    const photo = photos.get(body.photoId);
    if (photo)
      photos.set(
        photo.id,
        body.did === 'described'
          ? { ...photo, caption: body.caption }
          : { ...photo, removed: body.did === 'removed' },
      );
  }
  return [...photos.values()];
}
