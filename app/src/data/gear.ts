import { compareFacts, knownFact, type Fact, type UnknownFact } from '@cordel/core';
import { emptyBook, type Gear, type GearBook } from '@cordel/core/gear';
import { queryOptions, useMutation, useQuery, type QueryClient } from '@tanstack/react-query';
import { snapshots } from '../sync/here';
import { answerOf, api } from './api';
import { queryClient } from './client';
import { keys } from './keys';
import { saveDocument } from './saveDocument';
import { useShownList } from './shownList';

export const gearQuery = () =>
  queryOptions({
    queryKey: keys.gear,
    staleTime: 60_000,
    queryFn: snapshots().answer(
      async () => (await answerOf<{ gear: Gear[] }>(api.gear.$get() as never)).gear,
    ),
  });

/** The gear of the crews. */
export function useGear() {
  const { data: stored, error, refetch } = useQuery(gearQuery());
  return { data: useShownList(stored, 'gear', nameOf), error, refetch };
}

const nameOf = (one: Gear) => one.label;

/** @param base what the editing began from; null: a new piece */
const gearEdit = (id: string, base: Gear | null, mine: Gear | null) =>
  ({ kind: 'gear', documentId: id, base, mine }) as const;

/** Fails with status 409 and the newer copy when somebody else saved first. */
export function useSaveGear() {
  return useMutation({
    mutationFn: async ({ base, item }: { base: Gear | null; item: Gear }) =>
      (await saveDocument('', gearEdit(item.id, base, item)))!,
  });
}

export function useDeleteGear() {
  return useMutation({ mutationFn: (item: Gear) => saveDocument('', gearEdit(item.id, item, null)) });
}

interface KnownBook {
  readonly book: GearBook;
  /** Where the server’s book was read to, in its own words. */
  readonly last: string;
}
const nothing: KnownBook = { book: emptyBook, last: '' };
/** With what a book that an older Cordel kept or gave out has not. */
const wholeBook = (book: GearBook): GearBook => ({ ...emptyBook, ...book });

/** Each once, in order: the server may repeat what it gave out. */
function together<T extends { readonly id: string; readonly madeAt: string }>(
  before: readonly T[],
  more: readonly T[],
): readonly T[] {
  if (more.length === 0) return before;
  return [...new Map([...before, ...more].map((one) => [one.id, one])).values()].sort(compareFacts);
}

export const bookQuery = () =>
  queryOptions({
    queryKey: keys.gearBook,
    structuralSharing: false,
    queryFn: snapshots().answer(async (): Promise<KnownBook> => {
      const before = queryClient.getQueryData<KnownBook>(keys.gearBook) ?? nothing;
      const answer = await answerOf<KnownBook>(
        api.gear.book.$get({ query: { after: before.last } }) as never,
      );
      const { last } = answer;
      const [is, book] = [wholeBook(before.book), wholeBook(answer.book)];
      // The same one, where nothing came: it need not be kept again.
      if (last === before.last && Object.values(book).every((list) => list.length === 0)) return before;
      return {
        last,
        book: {
          uses: together(is.uses, book.uses),
          // A calibration may arrive hours after what was made later.
          facts: together(is.facts, book.facts),
          withdrawn: [...new Set([...is.withdrawn, ...book.withdrawn])],
          corrected: together(is.corrected, book.corrected),
        },
      };
    }),
  });

const whole = (known: KnownBook): KnownBook => ({ ...known, book: wholeBook(known.book) });

/** What happened to the gear anywhere and was made with it, as far as the server knows. It only grows. */
export function useServerBook(enabled: boolean) {
  return useQuery({ ...bookQuery(), enabled, refetchInterval: 60_000, select: whole });
}

/** The server's book as far as it is on this device. */
export function knownBook(client: QueryClient): GearBook {
  return wholeBook((client.getQueryData<KnownBook>(keys.gearBook) ?? nothing).book);
}

/** How many of the newest facts of a closure may be missing in the server's book: those were made here and are on their way. */
const onTheirWay = 300;

/** What only this device knows yet, beside the server's book. */
export function localFacts(
  facts: readonly Fact[],
  waiting: readonly (Fact | UnknownFact)[],
): readonly Fact[] {
  return [...facts.slice(-onTheirWay), ...waiting.flatMap((fact) => knownFact(fact) ?? [])];
}
