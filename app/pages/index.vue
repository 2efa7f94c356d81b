<script setup lang="ts">
import { countText } from '#core/text/counted';
import { mdiMagnify, mdiPlus } from '@mdi/js';
import { useMediaQuery } from '@vueuse/core';
import { STAGES, type Stage } from '#core/facts/situation';
import { quantity } from '#core/text/quantity';

/** All sites, the worst first; sorted, filtered and cut by the server. */
useHead({ title: 'Roster – Armband' });
const audits = useAudits();

type Column = 'site' | 'stage' | 'score' | 'gate' | 'fixes' | 'audit';
const COLUMNS: { key: Column; title: string; class?: string; width?: string }[] = [
  { key: 'site', title: 'Site and client', width: '22%' },
  { key: 'stage', title: 'Stage', width: '110px' },
  { key: 'score', title: 'Band and score', class: 'band', width: '250px' },
  { key: 'gate', title: 'Gate, and what holds or costs most' },
  { key: 'fixes', title: 'Open fixes', class: 'right', width: '96px' },
  { key: 'audit', title: 'Last audit', width: '104px' },
];
/** Columns that a narrow window has no room for. */
const WIDE_ONLY: readonly Column[] = ['stage', 'fixes', 'audit'];
const isNarrow = useMediaQuery('(max-width: 1000px)');
const isPhone = useMediaQuery('(max-width: 600px)');
const shownColumns = computed(() => COLUMNS.filter((c) => !isNarrow.value || !WIDE_ONLY.includes(c.key)));
const PHONE_WIDTHS: Partial<Record<Column, string>> = { site: '36%', score: '140px' };
const headers = computed(() => [
  ...(isPhone.value ? [] : [{ key: 'tick', title: '', sortable: false, width: '40px' }]),
  ...shownColumns.value.map(({ class: own, ...c }) => ({
    ...c,
    title: isPhone.value && c.key === 'gate' ? 'Gate, and why' : c.title,
    width: (isPhone.value && PHONE_WIDTHS[c.key]) || c.width,
    headerProps: { class: own },
  })),
]);
/** Rows come sorted: the table only says by what. */
const asTheyCome = Object.fromEntries(COLUMNS.map((c) => [c.key, () => 0]));
/** What is best looked at from the top down. */
const DOWN_FIRST: readonly Column[] = ['fixes', 'audit'];

const typed = ref('');
const stage = ref<Stage | 'all'>('all');
const sort = ref<{ key: Column; order: 'asc' | 'desc' }>({ key: 'gate', order: 'asc' });
const words = computed(() => typed.value ?? '');
function sortBy(wanted: { key: string; order?: boolean | 'asc' | 'desc' }[]): void {
  const key = (wanted[0]?.key ?? sort.value.key) as Column;
  const turned = sort.value.order === 'asc' ? 'desc' : 'asc';
  const first = DOWN_FIRST.includes(key) ? 'desc' : 'asc';
  sort.value = { key, order: key === sort.value.key ? turned : first };
}
const filter = computed(() => ({
  words: words.value || undefined,
  stage: stage.value === 'all' ? undefined : stage.value,
}));
const { rows, about, fault, hasMore, more, reload } = useApiInfiniteQuery('/api/roster', {
  key: ['roster'],
  query: () => ({
    ...filter.value,
    by: sort.value.key,
    down: sort.value.order === 'desc' ? '1' : undefined,
  }),
});
useTableScroll('table', more, hasMore);

/** Every site that matches, those too that are not read yet; else those whose number stands here. */
const chosen = ref<'all' | ReadonlySet<number>>(new Set());
const isChosen = (id: number): boolean => chosen.value === 'all' || chosen.value.has(id);
const count = computed(() => (chosen.value === 'all' ? (about.value?.total ?? 0) : chosen.value.size));
watch(filter, () => (chosen.value = new Set()));
function choose(id: number, on: boolean): void {
  const next = new Set(chosen.value === 'all' ? rows.value?.map((r) => r.id) : chosen.value);
  if (on) next.add(id);
  else next.delete(id);
  chosen.value = next;
}
async function chosenEnvironments(): Promise<number[]> {
  if (chosen.value === 'all') return api('/api/roster/environments', { query: filter.value });
  return (rows.value ?? []).flatMap((r) => (isChosen(r.id) && r.environment ? r.environment.id : []));
}
const { run: auditChosen, busy } = useAction(async () => {
  await audits.start(await chosenEnvironments());
  chosen.value = new Set();
});
/** Paper has no window to scroll: what was read is drawn whole. */
const printing = useMediaQuery('print');
const ROW = 58;
const height = computed(() =>
  printing.value ? `${((rows.value?.length ?? 0) + 1) * ROW}px` : 'calc(100vh - 128px)',
);
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Roster</h1>
      <span v-if="about" class="faint num"
        >{{
          about.total === about.whole
            ? quantity(about.whole, 'site')
            : `${countText(about.total, !words)} of ${quantity(about.whole, 'site')}`
        }}<template v-if="about.held"
          >, <span class="fray">{{ countText(about.held, !words) }} held</span></template
        ></span
      >
      <span class="spring" />
      <v-btn v-if="count" color="primary" variant="flat" :loading="busy" @click="auditChosen()"
        >Audit {{ count === 1 ? '1 site' : `${countText(count, !words)} sites` }}</v-btn
      >
      <v-text-field
        v-model="typed"
        class="filter"
        placeholder="Filter by words"
        aria-label="Filter by words"
        :prepend-inner-icon="mdiMagnify"
        clearable
      />
      <v-select
        v-model="stage"
        :items="['all', ...STAGES].map((s) => ({ value: s, title: s === 'all' ? 'All stages' : s }))"
        class="stages"
        aria-label="Stage"
      />
      <v-btn to="/sites/new" color="primary" :prepend-icon="mdiPlus">Add a site</v-btn>
    </div>
    <p v-if="fault" class="fray" role="alert">
      {{ fault }} <button type="button" class="link" @click="reload()">Try again</button>
    </p>
    <v-data-table-virtual
      v-if="rows"
      ref="table"
      class="sheet roster"
      :headers="headers"
      :items="rows"
      item-value="id"
      :item-height="ROW"
      :height="height"
      density="compact"
      fixed-header
      :sort-by="[sort]"
      must-sort
      :custom-key-sort="asTheyCome"
      aria-label="Sites"
      @update:sort-by="sortBy"
    >
      <template #[`header.tick`]>
        <v-checkbox-btn
          :model-value="chosen === 'all'"
          :indeterminate="chosen !== 'all' && chosen.size > 0"
          density="compact"
          aria-label="Choose all sites that match"
          @update:model-value="chosen = $event ? 'all' : new Set()"
        />
      </template>
      <template #item="{ item: r }">
        <RosterLine
          :site="r"
          :narrow="isNarrow"
          :phone="isPhone"
          :chosen="isChosen(r.id)"
          @choose="choose(r.id, $event)"
        />
      </template>
      <template #no-data>
        <div class="empty">
          <p>
            {{
              about?.whole
                ? 'No site matches these words and this stage.'
                : 'No sites yet. Add the first one: its name and address are enough to begin.'
            }}
          </p>
          <v-btn v-if="!about?.whole" to="/sites/new" color="primary">Add a site</v-btn>
        </div>
      </template>
    </v-data-table-virtual>
    <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
  </div>
</template>

<style scoped>
.filter {
  width: 220px;
  flex: none;
}
.stages {
  width: 150px;
  flex: none;
}
.link {
  text-decoration: underline;
}
.roster :deep(table) {
  table-layout: fixed;
}
.roster :deep(th),
.roster :deep(td) {
  padding: 0 6px !important;
}
.roster :deep(.right) {
  text-align: right;
}
@media (max-width: 600px) {
  .filter {
    flex: 1 1 100%;
  }
  .stages {
    flex: 1;
  }
}
</style>
