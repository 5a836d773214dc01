import { compareFacts, knownFact, type Fact, type UnknownFact } from '@cordel/core';
import type { Gear, GearBook } from '@cordel/core/gear';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answerOf, api } from './api';
import { keys } from './keys';

/** The gear of the crews. */
export function useGear() {
  return useQuery({
    queryKey: keys.gear,
    staleTime: 60_000,
    queryFn: async () => (await answerOf<{ gear: Gear[] }>(api.gear.$get() as never)).gear,
  });
}

/** Fails with status 409 and the newer copy when somebody else saved first. */
export function useSaveGear() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (item: Gear) =>
      answerOf<{ gear: Gear[] }>(
        api.gear[':gearId'].$put({ param: { gearId: item.id }, json: item }) as never,
      ),
    onSuccess: ({ gear }) => client.setQueryData(keys.gear, gear),
  });
}

export function useDeleteGear() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, version }: Gear) =>
      answerOf<{ gear: Gear[] }>(
        api.gear[':gearId'].$delete({ param: { gearId: id }, query: { version: String(version) } }) as never,
      ),
    onSuccess: ({ gear }) => client.setQueryData(keys.gear, gear),
  });
}

interface KnownBook {
  readonly book: GearBook;
  /** Where the server’s book was read to, in its own words. */
  readonly last: string;
}
const nothing: KnownBook = { book: { uses: [], facts: [], withdrawn: [] }, last: '' };

/** Each once, in order: the server may repeat what it gave out. */
function together<T extends { readonly id: string; readonly madeAt: string }>(
  before: readonly T[],
  more: readonly T[],
): readonly T[] {
  if (more.length === 0) return before;
  return [...new Map([...before, ...more].map((one) => [one.id, one])).values()].sort(compareFacts);
}

/** What happened to the gear anywhere and was made with it, as far as the server knows. It only grows. */
export function useServerBook(enabled: boolean) {
  const client = useQueryClient();
  return useQuery({
    queryKey: keys.gearBook,
    enabled,
    structuralSharing: false,
    refetchInterval: 60_000,
    queryFn: async (): Promise<KnownBook> => {
      const before = client.getQueryData<KnownBook>(keys.gearBook) ?? nothing;
      const { book, last } = await answerOf<KnownBook>(
        api.gear.book.$get({ query: { after: before.last } }) as never,
      );
      return {
        last,
        book: {
          uses: together(before.book.uses, book.uses),
          // A calibration may arrive hours after what was made later.
          facts: together(before.book.facts, book.facts),
          withdrawn: [...new Set([...before.book.withdrawn, ...book.withdrawn])],
        },
      };
    },
  });
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
