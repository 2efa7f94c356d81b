<script setup lang="ts">
import { mdiMagnify, mdiPlus } from '@mdi/js';
import { STAGES } from '#core/facts/situation';
import { quantity } from '#core/text/quantity';
import type { Place, RosterRow } from '~/types';

useHead({ title: 'Roster – Armband' });
const audits = useAudits();
const rows = ref<RosterRow[] | null>(null);
const fault = ref('');
const words = ref('');
const stage = ref<string>('all');
const sort = ref<{ by: SortKey; down: boolean }>({ by: 'gate', down: false });
const chosen = ref<Set<number>>(new Set());
type SortKey = 'site' | 'stage' | 'score' | 'gate' | 'blockers' | 'fixes' | 'audit';

async function load(): Promise<void> {
  try {
    rows.value = await api<RosterRow[]>('/api/roster');
    fault.value = '';
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
onMounted(load);
watch(() => audits.ended, load);

const shownPlace = (r: RosterRow): Place | undefined => r.places.find((p) => p.id === r.shown);
const GATES = { held: 0, undecided: 1, clear: 2 };
/** What a column sorts by; nothing known comes last either way. */
function keyOf(r: RosterRow, by: SortKey): number | string | null {
  const p = shownPlace(r);
  switch (by) {
    case 'site':
      return r.name.toLowerCase();
    case 'stage':
      return r.launchDate ?? null;
    case 'score':
      return p?.audit?.score ?? null;
    case 'gate':
      return p?.audit ? GATES[p.audit.gate] : null;
    case 'blockers':
      return p?.audit?.blockers ?? null;
    case 'fixes':
      return r.places.reduce((n, x) => n + x.openFixes, 0);
    case 'audit':
      return p?.audit?.at ?? null;
  }
}
const listed = computed(() => {
  const parts = words.value.toLowerCase().split(/\s+/).filter(Boolean);
  const found = (rows.value ?? []).filter(
    (r) =>
      (stage.value === 'all' || r.stage === stage.value) &&
      parts.every((w) =>
        `${r.name} ${r.client} ${r.stage} ${r.hostProfile ?? ''} ${r.places.map((p) => `${p.url} ${p.audit?.gate ?? ''}`).join(' ')}`
          .toLowerCase()
          .includes(w),
      ),
  );
  const { by, down } = sort.value;
  const sign = down ? -1 : 1;
  return found
    .map((r) => [keyOf(r, by), r] as const)
    .sort(
      ([a, ra], [b, rb]) =>
        (a === null || b === null
          ? Number(a === null) - Number(b === null)
          : a < b
            ? -sign
            : a > b
              ? sign
              : 0) || ra.name.localeCompare(rb.name),
    )
    .map(([, r]) => r);
});
function sortBy(by: SortKey): void {
  sort.value =
    sort.value.by === by
      ? { by, down: !sort.value.down }
      : { by, down: ['blockers', 'fixes', 'audit'].includes(by) };
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
const running = computed(() => new Map(audits.running.map((a) => [a.environmentId, a])));
const COLUMNS: { key: SortKey; label: string; class: string }[] = [
  { key: 'site', label: 'Site and client', class: 'site' },
  { key: 'stage', label: 'Stage', class: 'stage' },
  { key: 'score', label: 'Band and score', class: 'band' },
  { key: 'gate', label: 'Gate', class: 'gate' },
  { key: 'blockers', label: 'Blockers', class: 'right' },
  { key: 'fixes', label: 'Open fixes', class: 'right fixes' },
  { key: 'audit', label: 'Last audit', class: 'audit' },
];
const many = computed(() => ({
  held: listed.value.filter((r) => shownPlace(r)?.audit?.gate === 'held').length,
}));
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
        }}<template v-if="many.held"
          >, <span class="fray">{{ many.held }} held</span></template
        ></span
      >
      <span class="spring" />
      <v-btn v-if="chosen.size" color="primary" variant="flat" @click="auditChosen"
        >Audit {{ quantity(chosen.size, 'site') }}</v-btn
      >
      <v-text-field
        v-model="words"
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
      <v-btn to="/sites/new" color="primary" :prepend-icon="mdiPlus">Take a site on</v-btn>
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
          :aria-sort="sort.by === c.key ? (sort.down ? 'descending' : 'ascending') : 'none'"
          ><button type="button" @click="sortBy(c.key)">
            {{ c.label
            }}<span v-if="sort.by === c.key" aria-hidden="true">{{ sort.down ? ' ↓' : ' ↑' }}</span>
          </button></span
        >
      </div>
      <v-virtual-scroll :items="listed" :item-height="44" max-height="calc(100vh - 150px)">
        <template #default="{ item: r }">
          <div class="row" role="row" :class="{ chosen: chosen.has(r.id) }">
            <span role="cell" class="tick"
              ><input
                type="checkbox"
                :checked="chosen.has(r.id)"
                :aria-label="`Choose ${r.name}`"
                @change="choose(r.id, ($event.target as HTMLInputElement).checked)"
            /></span>
            <span role="cell" class="site"
              ><NuxtLink :to="`/sites/${r.id}`" class="name cut">{{ r.name }}</NuxtLink
              ><span v-if="r.client !== r.name" class="faint cut small">{{ r.client }}</span></span
            >
            <span role="cell" class="stage"
              ><span class="cut">{{ r.stage }}</span
              ><span v-if="r.launchDate" class="faint cut small"
                >{{ r.stage === 'launched' ? '' : 'launch ' }}{{ daysFrom(r.launchDate) }}</span
              ></span
            >
            <span role="cell" class="band">
              <template v-if="running.get(r.shown)"
                ><AuditProgress :audit="running.get(r.shown)!" class="grow"
              /></template>
              <template v-else
                ><BandStrip :band="shownPlace(r)?.audit?.band ?? null" /><span
                  class="num score"
                  :title="
                    shownPlace(r)?.audit?.provisional
                      ? 'provisional: less than 80 % of the weight is decided'
                      : ''
                  "
                  >{{ shownPlace(r)?.audit?.score ?? '–'
                  }}<span v-if="shownPlace(r)?.audit?.provisional" class="faint">?</span
                  ><span
                    v-if="
                      shownPlace(r)?.audit?.scoreBefore != null &&
                      shownPlace(r)!.audit!.scoreBefore !== shownPlace(r)!.audit!.score
                    "
                    class="faint change"
                    >{{ shownPlace(r)!.audit!.score! > shownPlace(r)!.audit!.scoreBefore! ? '+' : '−'
                    }}{{ Math.abs(shownPlace(r)!.audit!.score! - shownPlace(r)!.audit!.scoreBefore!) }}</span
                  ></span
                ></template
              >
            </span>
            <span role="cell" class="gate"
              ><GateWord
                :gate="shownPlace(r)?.audit?.gate ?? null"
                :note="shownPlace(r)?.audit?.gateNote"
              /><span class="faint cut small">{{ shownPlace(r)?.name.toLowerCase() }}</span></span
            >
            <span role="cell" class="right num" :class="{ fray: shownPlace(r)?.audit?.blockers }">{{
              shownPlace(r)?.audit?.blockers ?? '–'
            }}</span>
            <span role="cell" class="right num fixes">{{
              r.places.reduce((n, p) => n + p.openFixes, 0)
            }}</span>
            <span role="cell" class="audit faint">{{
              shownPlace(r)?.audit ? ago(shownPlace(r)!.audit!.at) : 'never'
            }}</span>
          </div>
        </template>
      </v-virtual-scroll>
      <div v-if="!listed.length" class="empty">
        <p>
          {{
            rows.length
              ? 'No site matches these words and this stage.'
              : 'No sites yet. Take the first one on: its name and address are enough to begin.'
          }}
        </p>
        <v-btn v-if="!rows.length" to="/sites/new" color="primary">Take a site on</v-btn>
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
  grid-template-columns: 28px minmax(160px, 1.4fr) minmax(110px, 0.8fr) 250px 100px 74px 84px 96px;
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
}
.row:not(.head):hover,
.row.chosen {
  background: rgb(var(--v-theme-primary), 0.06);
}
.row > span {
  min-width: 0;
}
.site,
.stage,
.gate {
  display: flex;
  flex-direction: column;
  line-height: 1.25;
}
.band {
  display: flex;
  align-items: center;
  gap: 10px;
}
.grow {
  flex: 1;
}
.score {
  font-weight: 600;
  font-size: 15px;
  min-width: 52px;
}
.change {
  font-weight: 400;
  font-size: 12px;
  margin-left: 4px;
}
.name {
  font-weight: 600;
  color: inherit;
  text-decoration: none;
}
.name:hover {
  text-decoration: underline;
}
.small {
  font-size: 12px;
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
    grid-template-columns: 28px minmax(140px, 1fr) 220px 90px 60px;
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
  .band :deep(svg) {
    width: 76px;
  }
  .score {
    min-width: 40px;
  }
  .filter {
    flex: 1 1 100%;
  }
  .stages {
    flex: 1;
  }
}
</style>
