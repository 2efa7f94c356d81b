<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core';
import { textState, type PageColumn } from '#core/pages/columns';
import type { LineText, PageLine } from '#core/pages/page-line';

/** Pages, a row each; a row opens the page. Sorting is told to whoever has all of them. */
defineProps<{
  environmentId: number;
  pages: readonly PageLine[];
  columns: readonly PageColumn[];
}>();
const opened = defineModel<string>('opened', { required: true });
const sort = defineModel<{ key: string; order: 'asc' | 'desc' }[]>('sort', { required: true });
const printing = useMediaQuery('print');

const WIDTHS: Partial<Record<string, string>> = {
  url: '20%',
  faults: '152px',
  listed: '132px',
  status: '76px',
  title: '22%',
  description: '22%',
  picture: '200px',
  words: '80px',
  linksIn: '84px',
};
const headersOf = (columns: readonly PageColumn[]) =>
  columns.map(({ key, title, isNumber }) => ({
    key,
    title,
    align: isNumber ? ('end' as const) : ('start' as const),
    ...(WIDTHS[key] ? { width: key === 'url' && columns.length < 4 ? '42%' : WIDTHS[key] } : {}),
  }));
/** They come sorted. */
const asGiven = (columns: readonly PageColumn[]): Record<string, () => number> =>
  Object.fromEntries(columns.map(({ key }) => [key, () => 0]));
/** Addresses of the site itself are told by their paths. */
function pathOf(url: string): string {
  const { pathname, search } = new URL(url);
  return pathname + search;
}
const lineText = (page: PageLine, key: string): LineText | undefined =>
  key === 'title' || key === 'description' ? page[key] : undefined;
const isBad = (text: LineText): boolean => text.fit !== 'fits' || Boolean(text.shared ?? text.from);
</script>

<template>
  <v-data-table-virtual
    v-model:sort-by="sort"
    class="sheet pages"
    :headers="headersOf(columns)"
    :items="pages as PageLine[]"
    item-value="url"
    :item-height="48"
    :height="printing ? undefined : 'calc(100vh - 338px)'"
    density="compact"
    fixed-header
    must-sort
    :custom-key-sort="asGiven(columns)"
    aria-label="Pages"
    no-data-text="No page matches. Choose other words, or fewer marks."
  >
    <template #item="{ item: page, itemRef }">
      <tr :ref="itemRef" :class="{ chosen: page.url === opened }" @click="opened = page.url">
        <td v-for="c in columns" :key="c.key" :class="{ end: c.isNumber }">
          <button v-if="c.key === 'url'" type="button" class="cut address mono" :title="page.url">
            {{ pathOf(page.url) }}
          </button>
          <span v-else-if="c.key === 'faults'" class="faults"
            ><OutcomeMark :stitch="page.faults ? 'failed' : 'passed'" wordless /><span class="num">{{
              c.text(page)
            }}</span></span
          >
          <div v-else-if="lineText(page, c.key)" class="text">
            <span class="cut" :title="lineText(page, c.key)!.text">{{
              lineText(page, c.key)!.text || '–'
            }}</span>
            <span class="num cut small" :class="isBad(lineText(page, c.key)!) ? 'fray' : 'faint'">{{
              textState(lineText(page, c.key)!)
            }}</span>
          </div>
          <span v-else-if="c.key === 'picture' && page.picture" class="shared" :title="page.picture"
            ><SmallPicture :environment-id="environmentId" :url="page.picture" :width="96" alt="" /><span
              class="cut mono"
              >{{ pathOf(page.picture) }}</span
            ></span
          >
          <span v-else class="two" :class="{ num: c.isNumber, faint: c.text(page) === '' }">{{
            c.text(page) === '' ? '–' : c.text(page)
          }}</span>
        </td>
      </tr>
    </template>
  </v-data-table-virtual>
</template>

<style scoped>
.pages :deep(table) {
  table-layout: fixed;
  min-width: 640px;
}
.pages :deep(th) {
  font-size: 12px;
}
tr {
  cursor: pointer;
}
tr:hover td {
  background: rgb(var(--v-theme-primary), 0.04);
}
tr.chosen td {
  background: rgb(var(--v-theme-primary), 0.09);
}
td {
  overflow: hidden;
  padding-block: 4px !important;
}
.end {
  text-align: right;
}
.address {
  display: block;
  width: 100%;
  text-align: left;
}
.faults {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 13px;
}
.shared {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr);
  gap: 8px;
  align-items: center;
}
.shared img {
  width: 48px;
  height: 26px;
  object-fit: cover;
  background: rgb(var(--v-theme-rule));
}
.text {
  display: grid;
  line-height: 1.3;
}
.small {
  font-size: 12px;
}
.two {
  line-height: 1.3;
  font-size: 13px;
}
@media (max-width: 700px) {
  .pages :deep(table) {
    min-width: 0;
  }
}
</style>
