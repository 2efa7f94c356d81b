<script setup lang="ts">
import { mdiDownload, mdiSwapHorizontal } from '@mdi/js';
import {
  asideText,
  comparisonCsv,
  comparisonMarkdown,
  countsText,
  KIND_WORDS,
} from '#core/compare/sites/written';
import { quantity } from '#core/text/quantity';
import type { ComparedPage } from '#core/compare/sites/compare-sites';
import type { Answer } from '~/composables/api';
import type { Environment, SiteDetail } from '~/types';

/** Two states of a site side by side: what is gone, what was added, and which of the two is ahead. */
const props = defineProps<{ site: SiteDetail; environment: Environment }>();
type Side = Answer<'/api/sites/:id/compare/sides'>[number];
const route = useRoute();
const { data: sides, fault: sidesFault } = useApiQuery('/api/sites/:id/compare/sides', {
  key: () => ['site', props.site.id, 'sides'],
  params: () => ({ id: props.site.id }),
});
const numberIn = (name: string): number | undefined => Number(route.query[name]) || undefined;
/** As chosen, else staging against live, else the newest two of this environment. */
const proposed = computed((): [number | undefined, number | undefined] => {
  const all = sides.value ?? [];
  const [newest, before] = all.filter((s) => s.environmentId === props.environment.id);
  const other = all.find((s) => s.kind === (newest?.kind === 'live' ? 'before' : 'live'));
  if (!other) return [before?.auditId, newest?.auditId];
  return newest?.kind === 'live' ? [other.auditId, newest.auditId] : [newest?.auditId, other.auditId];
});
const first = computed(() => numberIn('first') ?? proposed.value[0]);
const second = computed(() => numberIn('second') ?? proposed.value[1]);
const choose = (query: { first?: number; second?: number }): unknown =>
  navigateTo({ query: { ...route.query, first: first.value, second: second.value, ...query } });
const options = computed(() =>
  (sides.value ?? []).map((s) => ({ value: s.auditId, title: `${s.environment}, ${moment(s.at)}` })),
);
const isReady = computed(
  () => first.value !== undefined && second.value !== undefined && first.value !== second.value,
);
const {
  data: found,
  fault,
  isOld,
} = useApiQuery('/api/sites/:id/compare', {
  key: () => ['site', props.site.id, 'compare'],
  params: () => ({ id: props.site.id }),
  query: () => ({ first: first.value!, second: second.value! }),
  when: isReady,
});
const labelOf = (s: Side): string => `${s.environment} of ${moment(s.at)} (${s.url})`;

const KINDS = Object.keys(KIND_WORDS) as ComparedPage['kind'][];
const kind = ref<ComparedPage['kind'] | 'differing'>('differing');
const kinds = computed(() => {
  const counts = found.value?.counts;
  if (!counts) return [];
  const differing = found.value!.pages.filter((p) => p.kind !== 'same' && !p.onlyCommon).length;
  return [
    { key: 'differing', label: 'Own changes', n: differing },
    ...KINDS.filter((k) => counts[k]).map((k) => ({
      key: k,
      label: KIND_WORDS[k][0]!.toUpperCase() + KIND_WORDS[k].slice(1),
      n: counts[k],
    })),
  ];
});
/** Pages, or their pictures. */
const VIEWS = [
  { key: 'pages', label: 'Pages' },
  { key: 'pictures', label: 'Pictures' },
  { key: 'build', label: 'A build' },
];
const view = ref('pages');
// a cleared field gives null
const words = ref<string | null>('');
const MOST = 100;
const pages = computed(() =>
  (found.value?.pages ?? []).filter(
    (p) =>
      (kind.value === 'differing' ? p.kind !== 'same' && !p.onlyCommon : p.kind === kind.value) &&
      `${p.path} ${p.title}`.toLowerCase().includes((words.value ?? '').trim().toLowerCase()),
  ),
);
const ONE_SIDED: ReadonlySet<ComparedPage['kind']> = new Set(['gone', 'added']);
const hasNothingInCommon = computed(() => {
  const all = found.value?.pages ?? [];
  return all.length > 0 && all.every((p) => ONE_SIDED.has(p.kind));
});
const AHEAD: Record<string, string> = {
  both: 'Each has changes that the other lacks',
  neither: 'Both say the same',
  unknown: 'Which of the two is ahead cannot be told',
};
/** The side that carries the newer changes, where it is one. */
const aheadSide = computed(() => {
  const c = found.value;
  return c?.ahead.side === 'first' ? c.first : c?.ahead.side === 'second' ? c.second : undefined;
});
const ahead = computed(() => {
  const c = found.value;
  if (!c) return '';
  return aheadSide.value ? `${aheadSide.value.environment} is ahead` : AHEAD[c.ahead.side]!;
});
/** Live lacks what is there before it. */
const isBehind = computed(() => {
  const c = found.value;
  if (!c || c.first.kind === c.second.kind) return false;
  return aheadSide.value?.kind === 'before';
});
const about = computed(() => ({
  title: `${props.site.name} compared`,
  first: labelOf(found.value!.first),
  second: labelOf(found.value!.second),
}));
const name = (ending: string): string => fileName(`${props.site.name} compared`, ending);
const SAVES = [
  {
    label: 'Markdown',
    save: () => saveText(name('md'), comparisonMarkdown(found.value!, about.value), 'text/markdown'),
  },
  { label: 'CSV', save: () => saveText(name('csv'), comparisonCsv(found.value!), 'text/csv') },
  { label: 'JSON', save: () => saveJson(name('json'), found.value) },
];
</script>

<template>
  <div>
    <FilterButtons v-model="view" :options="VIEWS" label="What is compared" class="views" />
    <BuildView v-if="view === 'build'" :site-id="site.id" />
    <template v-else>
      <form class="choose" aria-label="What is compared" @submit.prevent>
        <v-select
          :model-value="first"
          :items="options"
          label="First"
          density="compact"
          hide-details
          @update:model-value="choose({ first: $event })"
        />
        <v-btn
          :icon="mdiSwapHorizontal"
          size="small"
          variant="text"
          aria-label="Swap the two sides"
          @click="choose({ first: second, second: first })"
        />
        <v-select
          :model-value="second"
          :items="options"
          label="Second"
          density="compact"
          hide-details
          @update:model-value="choose({ second: $event })"
        />
        <span class="spring" />
        <v-menu v-if="found" location="bottom end">
          <template #activator="{ props: menu }"
            ><v-btn v-bind="menu" :prepend-icon="mdiDownload" size="small">Save</v-btn></template
          >
          <MenuList label="Save">
            <MenuItem v-for="s in SAVES" :key="s.label" :title="s.label" @click="s.save()" />
          </MenuList>
        </v-menu>
      </form>
      <p v-if="fault || sidesFault" class="fray" role="alert">{{ fault || sidesFault }}</p>
      <div v-else-if="sides && !isReady" class="sheet empty">
        <p>
          Two audits are needed: of two environments, or of one at two times. <b>Audit now</b> makes the next.
        </p>
      </div>
      <v-progress-linear v-else-if="!found" indeterminate color="primary" aria-label="Comparing" />
      <div v-else :class="{ old: isOld }">
        <p class="sum">
          <b>{{ ahead }}</b> <span class="faint">{{ found.ahead.reason }}.</span>
        </p>
        <p v-if="hasNothingInCommon" class="recipe">
          No page is on both sides, so nothing can be compared: are these the same site, and were both read
          whole?
        </p>
        <p v-if="isBehind" class="recipe">
          Publish again:
          {{ found.first.kind === 'before' ? found.first.environment : found.second.environment }}
          carries changes that are not live yet. Empty the caches of host and content network afterwards, and
          look again at the pages.
        </p>
        <p class="faint">
          {{ countsText(found) }}. {{ asideText(found) }}
          <template v-for="n in found.notes" :key="n">{{ n }} </template>
        </p>
        <ComparePictures
          v-if="view === 'pictures'"
          :key="`${found.first.auditId} ${found.second.auditId}`"
          :site-id="site.id"
          :first="found.first"
          :second="found.second"
        />
        <template v-else>
          <div class="filter">
            <FilterButtons v-model="kind" :options="kinds" label="Which pages" />
            <v-text-field
              v-model="words"
              label="Filter by words"
              density="compact"
              hide-details
              class="words"
              clearable
            />
          </div>
          <section v-if="found.common.length" class="sheet page-line">
            <h2>On many pages</h2>
            <dl>
              <template v-for="(c, n) in found.common" :key="n">
                <dt>{{ c.what }}, {{ quantity(c.pages, 'page') }}</dt>
                <dd :class="c.kind">
                  <b :aria-label="c.kind === 'gone' ? 'only in the first' : 'only in the second'">{{
                    c.kind === 'gone' ? '−' : '+'
                  }}</b>
                  {{ c.line }}
                </dd>
              </template>
            </dl>
          </section>
          <ul class="pages" aria-label="Compared pages">
            <li v-for="p in pages.slice(0, MOST)" :key="`${p.kind} ${p.path}`" class="sheet page-line">
              <div class="top">
                <span class="kind" :class="p.kind">{{ KIND_WORDS[p.kind] }}</span>
                <span class="mono path">{{ p.path }}</span>
                <span v-if="p.from" class="faint"
                  >before at <span class="mono">{{ p.from }}</span></span
                >
                <span class="faint cut">{{ p.title }}</span>
              </div>
              <p v-if="p.onlyCommon" class="faint">Only by what many pages have in common.</p>
              <dl v-if="p.differences.length">
                <template v-for="d in p.differences" :key="d.what">
                  <dt>{{ d.what }}</dt>
                  <dd>
                    <DiffText
                      v-if="d.gone.length === 1 && d.added.length === 1"
                      :expected="d.gone[0]!"
                      :found="d.added[0]!"
                      :labels="[found.first.environment, found.second.environment]"
                      failed
                    />
                    <template v-else>
                      <p v-for="(line, i) in d.gone" :key="`g${i}`" class="gone">
                        <b aria-label="only in the first">−</b> {{ line }}
                      </p>
                      <p v-for="(line, i) in d.added" :key="`a${i}`" class="added">
                        <b aria-label="only in the second">+</b> {{ line }}
                      </p>
                      <p v-if="d.more" class="faint">and {{ d.more }} more</p>
                    </template>
                  </dd>
                </template>
              </dl>
            </li>
          </ul>
          <p v-if="!pages.length" class="faint">No page of this kind.</p>
          <p v-if="pages.length > MOST" class="faint">
            {{ pages.length - MOST }} more are in the files under <b>Save</b>; the filter finds each of them.
          </p>
          <section v-if="found.site.length" class="sheet beside">
            <h2>Beside the pages</h2>
            <v-table density="compact">
              <thead>
                <tr>
                  <th>What</th>
                  <th>Where</th>
                  <th>{{ found.first.environment }}</th>
                  <th>{{ found.second.environment }}</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="s in found.site" :key="`${s.what} ${s.where}`">
                  <td>{{ s.what }}</td>
                  <td class="mono">{{ s.where }}</td>
                  <td class="mono wrap">{{ s.before }}</td>
                  <td class="mono wrap">{{ s.after }}</td>
                </tr>
              </tbody>
            </v-table>
          </section>
        </template>
      </div>
    </template>
  </div>
</template>

<style scoped>
.choose {
  display: flex;
  align-items: center;
  gap: 8px;
  flex-wrap: wrap;
  margin-bottom: 12px;
}
.choose .v-select {
  flex: 0 1 320px;
  min-width: 220px;
}
.old {
  opacity: 0.6;
}
.sum {
  font-size: 16px;
}
.recipe {
  border-left: 3px solid rgb(var(--v-theme-primary));
  padding-left: 10px;
  margin: 8px 0;
  max-width: 80ch;
}
.views {
  margin-bottom: 12px;
}
.filter {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
  margin: 10px 0;
}
.words {
  max-width: 260px;
}
.pages {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 8px;
}
.page-line + .pages {
  margin-top: 8px;
}
.page-line {
  padding: 8px 12px;
}
.top {
  display: flex;
  gap: 10px;
  align-items: baseline;
  flex-wrap: wrap;
}
.kind {
  min-width: 64px;
  font-weight: 600;
}
.kind.same {
  font-weight: 400;
}
dl {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 4px 12px;
  margin: 6px 0 0;
}
dt {
  color: rgb(var(--v-theme-faint));
}
dd {
  margin: 0;
  min-width: 0;
  overflow-wrap: anywhere;
}
.gone {
  color: rgb(var(--v-theme-faint));
}
.beside {
  margin-top: 14px;
  padding: 10px 12px;
  overflow-x: auto;
}
.wrap {
  overflow-wrap: anywhere;
  white-space: normal;
}
@media (max-width: 600px) {
  dl {
    grid-template-columns: 1fr;
  }
}
</style>
