<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core';
import type { FixRow } from '~/types';
import type { FixFilter } from '~/composables/fix-filter';

/** Fixes one by one, a window at a time; a row opens the work at the side. */
const props = defineProps<{ filter: FixFilter; sort: 'worst' | 'site' | 'person' | 'due' }>();
const emit = defineEmits<{ open: [fix: FixRow]; count: [total: number] }>();
const at = defineModel<number>('at', { required: true });
const chosen = defineModel<number[]>('chosen', { required: true });

const {
  rows: read,
  about,
  fault,
  isFetching,
  hasMore,
  more,
} = useApiInfiniteQuery('/api/fixes', {
  key: ['fixes'],
  query: () => ({ ...props.filter, sort: props.sort }),
});
const rows = computed(() => read.value ?? []);
watch(about, (window) => window && emit('count', window.total), { immediate: true });
const table = useTableScroll('table', more, hasMore);
const printing = useMediaQuery('print');

const HEADERS = [
  { title: 'Fault, and what was found', key: 'title', minWidth: '240px' },
  { title: 'Site', key: 'site' },
  { title: 'Touches', key: 'touches' },
  { title: 'Points', key: 'points', align: 'end' as const },
  { title: 'State', key: 'state' },
  { title: 'Owner', key: 'owner' },
  { title: 'Due', key: 'dueDate' },
].map((h) => ({ ...h, sortable: false }));
/** Rows come sorted, so that each group stands under one heading. */
const GROUPS = { site: (r: FixRow) => r.site, person: (r: FixRow) => r.owner ?? 'nobody' } as const;
interface Line {
  id: string;
  heading?: string;
  fix?: FixRow;
}
const lines = computed((): Line[] => {
  const groupOf = props.sort === 'site' || props.sort === 'person' ? GROUPS[props.sort] : () => '';
  let last = '';
  return rows.value.flatMap((fix) => {
    const heading = groupOf(fix);
    const isNew = heading !== last;
    last = heading;
    const line = { id: String(fix.id), fix };
    return isNew ? [{ id: `before ${fix.id}`, heading }, line] : [line];
  });
});
const OWN_COLUMN = { site: 'site', person: 'owner', worst: '', due: '' } as const;
const isNarrow = useMediaQuery('(max-width: 600px)');
const NARROW = new Set(['title', 'points']);
const headers = computed(() =>
  HEADERS.filter((h) => h.key !== OWN_COLUMN[props.sort] && (!isNarrow.value || NARROW.has(h.key))),
);
function pick(r: FixRow): void {
  at.value = r.id;
  emit('open', r);
}
/** Steps to the next or last row. */
function step(by: 1 | -1): void {
  const i = rows.value.findIndex((r) => r.id === at.value);
  const next = rows.value[Math.min(rows.value.length - 1, Math.max(0, i + by))];
  if (!next) return;
  pick(next);
  table.value?.scrollToIndex(lines.value.findIndex((l) => l.fix === next));
}
const allChosen = computed(
  () => rows.value.length > 0 && rows.value.every((r) => chosen.value.includes(r.id)),
);
function choose(id: number, on: boolean): void {
  chosen.value = on ? [...chosen.value, id] : chosen.value.filter((c) => c !== id);
}
useScreenKeys({ j: () => step(1), k: () => step(-1), arrowdown: () => step(1), arrowup: () => step(-1) });
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-data-table-virtual
    v-else-if="read"
    ref="table"
    class="sheet fixes"
    :headers="[{ key: 'tick', title: '', sortable: false, width: '40px' }, ...headers]"
    :items="lines"
    item-value="id"
    :item-height="48"
    :height="printing ? undefined : 'calc(100vh - 180px)'"
    :loading="isFetching && !rows.length"
    density="compact"
    fixed-header
    disable-sort
    aria-label="Fixes"
    no-data-text="No fix matches."
  >
    <template #[`header.tick`]>
      <v-checkbox-btn
        :model-value="allChosen"
        :indeterminate="chosen.length > 0 && !allChosen"
        density="compact"
        aria-label="Choose all fixes that are listed"
        @update:model-value="chosen = $event ? rows.map((r) => r.id) : []"
      />
    </template>
    <template #item="{ item: line, itemRef }">
      <tr v-if="line.heading" :ref="itemRef" class="group">
        <th :colspan="headers.length + 1" scope="rowgroup">{{ line.heading }}</th>
      </tr>
      <FixLine
        v-else-if="line.fix"
        :ref="(el) => itemRef((el as { $el?: HTMLElement } | null)?.$el ?? null)"
        :fix="line.fix"
        :sort="sort"
        :at="line.fix.id === at"
        :chosen="chosen.includes(line.fix.id)"
        :narrow="isNarrow"
        @choose="choose(line.fix.id, $event)"
        @click="pick(line.fix)"
      />
    </template>
  </v-data-table-virtual>
  <v-progress-linear v-else indeterminate color="primary" aria-label="Loading" />
</template>

<style scoped>
.group th {
  text-align: left;
  font-weight: 650;
  background: rgb(var(--v-theme-background));
}
</style>
