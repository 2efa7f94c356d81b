<script setup lang="ts">
import { mdiDownload, mdiFileTreeOutline, mdiTableColumn } from '@mdi/js';
import { useMediaQuery } from '@vueuse/core';
import { columnsOf, PAGE_COLUMNS, pagesCsv, sortedPages, USUAL_COLUMNS } from '#core/pages/columns';
import { facetCounts, pageFacet } from '#core/pages/facets';
import { liesIn } from '#core/pages/structure';
import { matching } from '#core/text/matching';
import { quantity } from '#core/text/quantity';

/** All pages that an audit saw: narrowed down, sorted, drawn as folders, and one of them opened at the side. */
const props = defineProps<{
  siteId: number;
  siteName: string;
  environmentId: number;
  auditId: number;
  at: string;
}>();
const { data, fault } = useApiQuery('/api/audits/:id/pages', {
  key: () => ['site', props.siteId, 'pages', props.auditId],
  params: () => ({ id: props.auditId }),
});
const facet = ref('');
const typed = ref('');
const folder = ref('');
const words = computed(() => (typed.value ?? '').trim());
const sort = ref<{ key: string; order: 'asc' | 'desc' }[]>([{ key: 'faults', order: 'asc' }]);
const drawn = ref(false);
const opened = ref('');

const all = computed(() => data.value?.pages ?? []);
const facets = computed(() => facetCounts(all.value));
const shown = computed(() => {
  const isFacet = pageFacet(facet.value ?? '')?.of ?? (() => true);
  const has = matching(words.value);
  const [by] = sort.value;
  const list = all.value.filter(
    (p) =>
      isFacet(p) &&
      (!folder.value || liesIn(p.url, folder.value)) &&
      has(`${p.url} ${p.title.text} ${p.description.text} ${p.heading ?? ''}`),
  );
  return by ? sortedPages(list, by.key, by.order === 'desc') : list;
});

const { data: kept } = useApiQuery('/api/views', { key: ['views'], query: { screen: 'pages' } });
const columns = ref<string[]>([...USUAL_COLUMNS]);
watch(kept, (views) => {
  const mine = views?.find((v) => v.name === 'columns');
  if (mine) columns.value = mine.query.split(',');
});
const { run: keepColumns } = useAction((keys: string[]) =>
  api('/api/views', { method: 'POST', body: { screen: 'pages', name: 'columns', query: keys.join(',') } }),
);
function choose(keys: string[]): void {
  columns.value = PAGE_COLUMNS.map((c) => c.key).filter((k) => keys.includes(k));
  void keepColumns(columns.value);
}
const isNarrow = useMediaQuery('(max-width: 700px)');
const NARROW = ['url', 'faults'];
/** Beside an opened page there is room for what tells the pages apart. */
const BESIDE = ['url', 'faults', 'title'];
const visible = computed(() =>
  columnsOf(
    isNarrow.value ? NARROW : opened.value ? columns.value.filter((k) => BESIDE.includes(k)) : columns.value,
  ),
);
const left = computed(() => all.value.length - shown.value.length);

function save(): void {
  saveText(
    fileName(`${props.siteName} pages`, 'csv'),
    pagesCsv(shown.value, columnsOf(columns.value)),
    'text/csv',
  );
}
function step(by: 1 | -1): void {
  const i = shown.value.findIndex((p) => p.url === opened.value);
  const next = shown.value[Math.min(shown.value.length - 1, Math.max(0, i + by))];
  if (next) opened.value = next.url;
}
useScreenKeys({
  j: () => step(1),
  k: () => step(-1),
  escape: () => (opened.value = ''),
});
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-progress-linear v-else-if="!data" indeterminate color="primary" aria-label="Loading" />
  <div v-else-if="!all.length" class="sheet empty"><p>This audit read no page.</p></div>
  <template v-else>
    <div class="page-head">
      <v-text-field
        v-model="typed"
        placeholder="Filter by words"
        aria-label="Filter pages by words"
        class="filter"
        clearable
      />
      <v-btn size="small" :prepend-icon="mdiFileTreeOutline" :aria-pressed="drawn" @click="drawn = !drawn"
        >Structure</v-btn
      >
      <v-menu :close-on-content-click="false" location="bottom end">
        <template #activator="{ props: menu }"
          ><v-btn v-bind="menu" size="small" :prepend-icon="mdiTableColumn">Columns</v-btn></template
        >
        <v-list
          density="compact"
          select-strategy="leaf"
          :selected="columns"
          @update:selected="choose($event as string[])"
        >
          <v-list-item v-for="c in PAGE_COLUMNS" :key="c.key" :value="c.key" :title="c.title">
            <template #prepend="{ isSelected }"
              ><v-list-item-action start
                ><v-checkbox-btn
                  :model-value="isSelected"
                  tabindex="-1"
                  density="compact" /></v-list-item-action
            ></template>
          </v-list-item>
        </v-list>
      </v-menu>
      <v-btn size="small" :prepend-icon="mdiDownload" @click="save()">CSV</v-btn>
      <span class="spring" />
      <span class="faint num" role="status"
        >{{ quantity(shown.length, 'page') }}<template v-if="left"> of {{ all.length }}</template
        ><template v-if="data.unread"
          >, {{ data.unread }} more were found and not read: links in, orphans and repeated texts are among
          those read</template
        >
        ·
        <TimeAt :iso="at"
      /></span>
    </div>
    <v-chip-group v-model="facet" column class="facets" aria-label="Which pages">
      <v-chip
        v-for="f in facets"
        :key="f.key"
        :value="f.key"
        :title="f.hint"
        size="small"
        filter
        label
        variant="outlined"
        >{{ f.label }}&nbsp;<span class="num faint">{{ f.count }}</span></v-chip
      >
      <v-chip v-if="folder" size="small" closable label variant="outlined" @click:close="folder = ''"
        >in {{ folder }}</v-chip
      >
    </v-chip-group>
    <SiteStructure v-if="drawn" v-model:folder="folder" :pages="all" />
    <div class="split" :class="{ open: opened }">
      <PageTable
        v-model:sort="sort"
        v-model:opened="opened"
        :environment-id="environmentId"
        :pages="shown"
        :columns="visible"
      />
      <PagePanel
        v-if="opened"
        :key="opened"
        v-model:url="opened"
        class="side"
        :site-id="siteId"
        :environment-id="environmentId"
        :audit-id="auditId"
        @check="navigateTo({ query: { ...$route.query, tab: undefined, check: $event } })"
      />
    </div>
  </template>
</template>

<style scoped>
.filter {
  max-width: 260px;
  min-width: 180px;
}
.facets {
  padding: 0 0 8px;
}
.split.open {
  --side: 560px;
}
</style>
