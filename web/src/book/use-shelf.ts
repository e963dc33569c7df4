/** The shelf, as the server keeps it for all projects. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { PatternFile } from '@yard-arch/document';
import { complain } from '../common/notices.tsx';
import { api, type KeptPattern, type UnreadPattern } from '../state/api.ts';

const key = ['shelf'];

/** What is on the shelf, and what is there but cannot be read. */
const apart = (items: readonly (KeptPattern | UnreadPattern)[]): { kept: KeptPattern[]; unread: UnreadPattern[] } => ({
  kept: items.filter((item) => item.file !== null),
  unread: items.filter((item) => item.file === null),
});

export const useShelf = () => useQuery({ queryKey: key, queryFn: api.shelf, staleTime: 15_000, select: apart });

/** Puts a pattern on the shelf, in the place of what is there where an item is named. */
export function usePutOnShelf(onPut: (kept: KeptPattern) => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ file, item }: { file: PatternFile; item?: string }) =>
      item === undefined ? api.putOnShelf(file) : api.replaceOnShelf(item, file),
    onSuccess: (kept) => {
      void queries.invalidateQueries({ queryKey: key });
      onPut(kept);
    },
    onError: (error) => complain('The shelf could not be changed', error.message),
  });
}

export function useTakeFromShelf() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: api.takeFromShelf,
    onSettled: () => void queries.invalidateQueries({ queryKey: key }),
    onError: (error) => complain('The shelf could not be changed', error.message),
  });
}
