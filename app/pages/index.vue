<script setup lang="ts">
import { mdiMagnify, mdiPlus } from '@mdi/js';
import { useMediaQuery } from '@vueuse/core';
import { STAGES } from '#core/facts/situation';
import { quantity } from '#core/text/quantity';
import { listSites, shownEnvironment, type RosterView, type SortKey } from '~/composables/roster-list';
import type { RosterRow } from '~/types';

useHead({ title: 'Roster – Armband' });
const audits = useAudits();
const rows = ref<RosterRow[] | null>(null);
const fault = ref('');
const view = reactive<RosterView>({ words: '', stage: 'all', by: 'gate', down: false });
const chosen = ref<Set<number>>(new Set());

async function load(): Promise<void> {
  try {
    rows.value = await api('/api/roster');
    fault.value = '';
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
onMounted(load);
watch(() => audits.ended, load);

const listed = computed(() => listSites(rows.value ?? [], { ...view, words: view.words ?? '' }));
const held = computed(() => listed.value.filter((r) => shownEnvironment(r)?.audit?.gate === 'held').length);
/** What is best looked at from the top down. */
const DOWN_FIRST: readonly SortKey[] = ['fixes', 'audit'];
function sortBy(by: SortKey): void {
  view.down = view.by === by ? !view.down : DOWN_FIRST.includes(by);
  view.by = by;
}
const allChosen = computed(
  () => listed.value.length > 0 && listed.value.every((r) => chosen.value.has(r.id)),
);
function choose(id: number, on: boolean): void {
  const next = new Set(chosen.value);
  if (on) next.add(id);
  else next.delete(id);
  chosen.value = next;
}
function chooseAll(on: boolean): void {
  chosen.value = on ? new Set(listed.value.map((r) => r.id)) : new Set();
}
async function auditChosen(): Promise<void> {
  const ids = (rows.value ?? []).filter((r) => chosen.value.has(r.id)).map((r) => r.shown);
  chosen.value = new Set();
  await audits.start(ids);
}
/** Paper has no window to scroll: all rows are drawn. */
const printing = useMediaQuery('print');
const running = computed(() => new Map(audits.running.map((a) => [a.environmentId, a])));
const COLUMNS: { key: SortKey; label: string; class: string }[] = [
  { key: 'site', label: 'Site and client', class: 'site' },
  { key: 'stage', label: 'Stage', class: 'stage' },
  { key: 'score', label: 'Band and score', class: 'band' },
  { key: 'gate', label: 'Gate, and what holds or costs most', class: 'gate' },
  { key: 'fixes', label: 'Open fixes', class: 'right fixes' },
  { key: 'audit', label: 'Last audit', class: 'audit' },
];
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Roster</h1>
      <span v-if="rows" class="faint num"
        >{{
          listed.length === rows.length
            ? quantity(rows.length, 'site')
            : `${listed.length} of ${quantity(rows.length, 'site')}`
        }}<template v-if="held"
          >, <span class="fray">{{ held }} held</span></template
        ></span
      >
      <span class="spring" />
      <v-btn v-if="chosen.size" color="primary" variant="flat" @click="auditChosen"
        >Audit {{ quantity(chosen.size, 'site') }}</v-btn
      >
      <v-text-field
        v-model="view.words"
        class="filter"
        placeholder="Filter by words"
        aria-label="Filter by words"
        :prepend-inner-icon="mdiMagnify"
        clearable
      />
      <v-select
        v-model="view.stage"
        :items="['all', ...STAGES].map((s) => ({ value: s, title: s === 'all' ? 'All stages' : s }))"
        class="stages"
        aria-label="Stage"
      />
      <v-btn to="/sites/new" color="primary" :prepend-icon="mdiPlus">Add a site</v-btn>
    </div>
    <p v-if="fault" class="fray" role="alert">
      {{ fault }} <button type="button" class="link" @click="load">Try again</button>
    </p>
    <div v-if="rows" class="sheet table" role="table" aria-label="Sites">
      <div class="row head" role="row">
        <span role="columnheader" class="tick"
          ><input
            type="checkbox"
            :checked="allChosen"
            aria-label="Choose all listed sites"
            @change="chooseAll(($event.target as HTMLInputElement).checked)"
        /></span>
        <span
          v-for="c in COLUMNS"
          :key="c.key"
          role="columnheader"
          :class="c.class"
          :aria-sort="view.by === c.key ? (view.down ? 'descending' : 'ascending') : 'none'"
          ><button type="button" @click="sortBy(c.key)">
            {{ c.label
            }}<span v-if="view.by === c.key" aria-hidden="true">{{ view.down ? ' ↓' : ' ↑' }}</span>
          </button></span
        >
      </div>
      <v-virtual-scroll
        :items="listed"
        :item-height="44"
        :max-height="printing ? undefined : 'calc(100vh - 150px)'"
        :height="printing ? listed.length * 44 : undefined"
      >
        <template #default="{ item: r }">
          <RosterLine
            :site="r"
            :running="running.get(r.shown)"
            :model-value="chosen.has(r.id)"
            @update:model-value="choose(r.id, $event)"
          />
        </template>
      </v-virtual-scroll>
      <div v-if="!listed.length" class="empty">
        <p>
          {{
            rows.length
              ? 'No site matches these words and this stage.'
              : 'No sites yet. Add the first one: its name and address are enough to begin.'
          }}
        </p>
        <v-btn v-if="!rows.length" to="/sites/new" color="primary">Add a site</v-btn>
      </div>
    </div>
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
.row {
  display: grid;
  grid-template-columns: 28px minmax(160px, 1fr) 110px 240px minmax(240px, 1.6fr) 84px 96px;
  gap: 12px;
  align-items: center;
  height: 44px;
  padding: 0 12px;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.row.head {
  height: 34px;
  border-top: 0;
  color: rgb(var(--v-theme-faint));
}
.row.head button {
  font-weight: 600;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.row:not(.head):hover,
.row.chosen {
  background: rgb(var(--v-theme-primary), 0.06);
}
.row > span {
  min-width: 0;
}
.right {
  text-align: right;
}
.link {
  text-decoration: underline;
}
input[type='checkbox'] {
  accent-color: rgb(var(--v-theme-primary));
  width: 15px;
  height: 15px;
}
@media (max-width: 1000px) {
  .row {
    grid-template-columns: 28px minmax(140px, 1fr) 220px minmax(120px, 1fr);
  }
  .stage,
  .fixes,
  .audit {
    display: none !important;
  }
}
@media (max-width: 600px) {
  .row {
    grid-template-columns: minmax(110px, 1fr) 132px 76px;
    gap: 8px;
    padding: 0 8px;
  }
  .tick,
  .right {
    display: none;
  }
  .filter {
    flex: 1 1 100%;
  }
  .stages {
    flex: 1;
  }
}
</style>
