/** Reading from the server through one cache, and changing what is there. */
import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/vue-query';
import type { Answer, Call, Route } from './api';

/** By which an answer is kept: the server names the beginning of it when it has changed. */
export type Key = readonly (string | number)[];

const faultOf = (error: Error | null): string => error?.message ?? '';

interface Reading {
  key: MaybeRefOrGetter<Key>;
  params?: MaybeRefOrGetter<Call<'GET'>['params']>;
  query?: MaybeRefOrGetter<Call<'GET'>['query']>;
  /** Whether it is asked at all. */
  when?: MaybeRefOrGetter<boolean>;
}

/**
 * What a route answers, kept by its key with what was asked. While another question waits for its answer the one
 * before stays.
 */
export function useApiQuery<R extends Route>(route: R, { key, params, query, when = true }: Reading) {
  const asked = computed(() => ({ params: toValue(params), query: toValue(query) }));
  const { data, error, isFetching, isPlaceholderData, refetch } = useQuery({
    queryKey: computed(() => [...toValue(key), route, asked.value] as readonly unknown[]),
    // nothing is an answer too
    queryFn: async ({ signal }) => (await api(route, { ...asked.value, signal })) ?? null,
    enabled: computed(() => toValue(when)),
    placeholderData: keepPreviousData,
    // an answer is replaced whole, never changed
    structuralSharing: false,
    shallow: true,
  });
  return {
    data: data as Ref<Answer<R> | undefined>,
    fault: computed(() => faultOf(error.value)),
    isFetching,
    /** What is shown answers the question before. */
    isOld: isPlaceholderData,
    reload: () => refetch(),
  };
}

/** Routes that answer with a window of a list. */
type Windowed<R extends Route> = Answer<R> extends { rows: (infer T)[]; next: unknown } ? T : never;

/** A long list, a window at a time; each goes on where the one before ended. */
export function useApiInfiniteQuery<R extends Route>(route: R, { key, params, query, when = true }: Reading) {
  type Page = Answer<R> & { rows: Windowed<R>[]; next: string | number | null };
  const asked = computed(() => ({ params: toValue(params), query: toValue(query) }));
  const { data, error, isFetching, isFetchingNextPage, hasNextPage, fetchNextPage, refetch } =
    useInfiniteQuery({
      queryKey: computed(() => [...toValue(key), route, asked.value] as readonly unknown[]),
      queryFn: ({ pageParam, signal }) =>
        api(route, {
          signal,
          params: asked.value.params,
          query: { ...asked.value.query, ...(pageParam === null ? {} : { after: pageParam }) },
        }) as Promise<Page>,
      initialPageParam: null as string | number | null,
      getNextPageParam: (last: Page) => last.next,
      enabled: computed(() => toValue(when)),
      placeholderData: keepPreviousData,
      structuralSharing: false,
      shallow: true,
    });
  const pages = computed(() => data.value?.pages);
  return {
    /** All rows read so far; null before the first. */
    rows: computed(() => pages.value?.flatMap((page) => page.rows) ?? null) as Ref<Windowed<R>[] | null>,
    /** What the windows say beside their rows: the newest of them. */
    about: computed(() => pages.value?.at(-1)) as Ref<Page | undefined>,
    fault: computed(() => faultOf(error.value)),
    isFetching,
    hasMore: hasNextPage,
    more(): void {
      if (hasNextPage.value && !isFetchingNextPage.value) void fetchNextPage();
    },
    reload: () => refetch(),
  };
}

/** Everybody of the agency. */
export function usePeople() {
  const { data } = useApiQuery('/api/people', { key: ['people'] });
  return computed(() => data.value ?? []);
}

/**
 * Something a person does: whether it is under way, and what went wrong.
 * @param inPlace the fault is shown where this is, and not at the foot of the screen
 */
export function useAction<I extends unknown[], O>(
  work: (...input: I) => Promise<O>,
  { inPlace = false }: { inPlace?: boolean } = {},
) {
  const queryClient = useQueryClient();
  const { mutateAsync, isPending, error, reset } = useMutation({
    mutationFn: (input: I) => work(...input),
    meta: { inPlace },
    onSuccess() {
      // changes are told by the server; where it cannot be heard, all is asked anew
      if (!useLive().isOpen) void queryClient.invalidateQueries();
    },
  });
  return {
    /** @returns undefined when it failed, which is said */
    run: (...input: I): Promise<O | undefined> => mutateAsync(input).catch(() => undefined),
    busy: isPending,
    fault: computed(() => faultOf(error.value)),
    reset,
  };
}
