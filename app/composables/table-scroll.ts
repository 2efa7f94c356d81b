/** A virtual table that reads on while it is scrolled. */
import { useInfiniteScroll } from '@vueuse/core';

/** Pixels from the end at which the next window is asked for. */
const DISTANCE = 500;

interface Table {
  $el: HTMLElement;
  scrollToIndex: (index: number) => void;
}

/** @param name of the table's template ref */
export function useTableScroll(name: string, more: () => void, hasMore: Ref<boolean | undefined>) {
  const table = useTemplateRef<Table>(name);
  useInfiniteScroll(() => table.value?.$el.querySelector<HTMLElement>('.v-table__wrapper'), more, {
    distance: DISTANCE,
    canLoadMore: () => hasMore.value ?? false,
  });
  return table;
}
