<script setup lang="ts">
import { countText } from '#core/text/counted';
import { isRemarkCheck } from '#core/facts/fix';
import { mdiMagnify } from '@mdi/js';
import { watchDebounced } from '@vueuse/core';
import type { LocationQueryRaw } from 'vue-router';
import type { FixRow } from '~/types';

/** All fixes over all sites; which of them stands in the address. */
useHead({ title: 'Fixes – Armband' });
const VIEWS = [
  { key: 'fault', label: 'By fault' },
  { key: 'worst', label: 'One by one' },
  { key: 'site', label: 'By site' },
  { key: 'person', label: 'By person' },
  { key: 'due', label: 'By due date' },
] as const;
type View = (typeof VIEWS)[number]['key'];

const route = useRoute();
const session = useSession();
const people = usePeople();
const filter = computed(() => filterFrom(route.query));
const view = computed<View>({
  get: () => VIEWS.find((v) => v.key === route.query.view)?.key ?? 'fault',
  set: (key) => void set({ view: key === 'fault' ? undefined : key }),
});
const words = ref(filter.value.words ?? '');
const open = ref<FixRow | null>(null);
const at = ref(0);
/** What no words narrow is counted all along. */
const isCounted = computed(() => view.value === 'fault' || (!filter.value.words && !filter.value.closed));
const chosen = ref<number[]>([]);
const total = ref<number | null>(null);

/** What the address is about to be, while it is being changed: a second change builds on the first. */
let coming: LocationQueryRaw | undefined;

/** Writes filters into the address; what is undefined is removed from it. */
async function set(query: Record<string, string | undefined>): Promise<void> {
  chosen.value = [];
  const next: LocationQueryRaw = { ...(coming ?? route.query), ...query };
  coming = next;
  await navigateTo({ query: next }, { replace: true });
  if (coming === next) coming = undefined;
}
watchDebounced(words, (w) => void set({ words: w || undefined }), { debounce: 30 });
watch(
  () => filter.value.words,
  (w) => {
    if ((w ?? '') !== (words.value ?? '')) words.value = w ?? '';
  },
);
const { data: site } = useApiQuery('/api/sites/:id', {
  key: () => ['site', Number(filter.value.site ?? 0), 'head'],
  params: () => ({ id: filter.value.site ?? '' }),
  when: () => Boolean(filter.value.site),
});
const siteName = computed(() => (filter.value.site ? (site.value?.name ?? '') : ''));
const owners = computed(() => [
  { title: 'Everybody’s', value: '' },
  { title: 'Mine', value: 'me' },
  { title: 'Nobody’s', value: 'nobody' },
  { title: 'The client’s', value: 'client' },
  ...people.value.filter((p) => p.id !== session.me?.id).map((p) => ({ title: p.name, value: String(p.id) })),
]);
function close(): void {
  open.value = null;
  at.value = 0;
}
useScreenKeys({ escape: close });
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>
        Fixes<template v-if="siteName"> of {{ siteName }}</template>
      </h1>
      <span v-if="total !== null" class="faint num">{{
        total === 1 ? '1 fix' : `${countText(total, isCounted)} fixes`
      }}</span>
      <v-btn v-if="filter.site" size="small" variant="text" @click="set({ site: undefined })"
        >All sites</v-btn
      >
      <v-btn v-if="filter.check" size="small" variant="text" @click="set({ check: undefined })"
        >All faults</v-btn
      >
      <span class="spring" />
      <v-select
        :model-value="filter.owner ?? ''"
        :items="owners"
        class="stages"
        aria-label="Whose"
        @update:model-value="set({ owner: $event || undefined })"
      />
      <v-text-field
        v-model="words"
        class="filter"
        placeholder="Filter by words"
        aria-label="Filter fixes by words"
        :prepend-inner-icon="mdiMagnify"
        clearable
      />
    </div>
    <div class="page-head">
      <FilterButtons v-if="!filter.check" v-model="view" :options="[...VIEWS]" label="How fixes are listed" />
      <v-checkbox
        :model-value="filter.closed === '1'"
        label="Those verified and gone"
        @update:model-value="set({ closed: $event ? '1' : undefined })"
      />
      <SavedViews screen="fixes" />
      <span class="spring" />
      <FixBulk v-if="chosen.length" :ids="chosen" @done="chosen = []" />
    </div>
    <div class="split" :class="{ open }">
      <FaultTable
        v-if="view === 'fault'"
        v-model:at="at"
        :filter="filter"
        @open="open = $event"
        @count="total = $event"
      />
      <FixTable
        v-else
        v-model:at="at"
        v-model:chosen="chosen"
        :filter="filter"
        :sort="view"
        @open="open = $event"
        @count="total = $event"
      />
      <aside v-if="open" class="sheet side" aria-label="Fix">
        <div class="top">
          <h2>{{ open.title }}</h2>
          <v-btn size="small" variant="text" @click="close">Close&nbsp;<kbd>Esc</kbd></v-btn>
        </div>
        <p class="faint">
          <NuxtLink
            :to="`/sites/${open.siteId}?environment=${open.environmentId}&${isRemarkCheck(open.check) ? 'tab=report&view=shown' : `check=${open.check}`}`"
            >{{ open.site }}, {{ open.environment }}</NuxtLink
          >
          · {{ open.severity }}
        </p>
        <p v-if="open.found">{{ open.found }}</p>
        <FixWork :id="open.id" :key="open.id" />
      </aside>
    </div>
  </div>
</template>

<style scoped>
.filter {
  flex: none;
  width: 240px;
}
.stages {
  flex: none;
  width: 170px;
}
.page-head > .v-checkbox {
  flex: none;
}
.split {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
  align-items: start;
}
.split.open {
  grid-template-columns: minmax(0, 1fr) 400px;
}
.side {
  padding: 14px;
  position: sticky;
  top: 60px;
  max-height: calc(100vh - 80px);
  overflow: auto;
}
.side p {
  margin: 4px 0 8px;
  overflow-wrap: anywhere;
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 8px;
}
@media (max-width: 600px) {
  .filter {
    flex: 1 1 100%;
  }
}
@media (max-width: 900px) {
  .split.open {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    position: static;
    max-height: none;
    order: -1;
  }
}
</style>
