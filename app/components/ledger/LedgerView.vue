<script setup lang="ts">
import { useMediaQuery, watchDebounced } from '@vueuse/core';
import { mdiChevronDown, mdiChevronRight } from '@mdi/js';
import type { Section } from '#core/facts/finding';
import type { LedgerShow } from '#core/score/ledger';
import { pointsText } from '#core/text/points';
import type { LedgerAct } from '~/composables/ledger-keys';
import type { Environment, Ledger, LedgerLine } from '~/types';

/** The ledger: one row a check, what needs a person first; the evidence opens at the side. */
const props = defineProps<{ siteId: number; environment: Environment }>();
const route = useRoute();
const typed = ref('');
const words = ref('');
watchDebounced(typed, (w) => (words.value = w ?? ''), { debounce: 30 });
const show = ref<LedgerShow>('needs');
const showResting = ref(false);
/** A link may name the check to open. */
const at = ref(typeof route.query.check === 'string' ? route.query.check : '');
const open = ref(at.value !== '');
const walking = ref(false);
const panel = ref<{ act: (what: LedgerAct) => void } | null>(null);
/** A key that came before the evidence it is about: it counts once that is there. */
const waiting = ref<{ what: LedgerAct; check: string } | null>(null);

const key = computed(() => ['site', props.siteId, 'ledger', props.environment.id]);
const unreached = computed(() => props.environment.audit?.unreached);
const { data, fault, isOld, reload } = useApiQuery('/api/environments/:id/ledger', {
  key,
  params: () => ({ id: props.environment.id }),
  query: () => ({
    show: show.value,
    words: words.value || undefined,
    // where nothing of the site was reached, one reason stands for all that rests on it
    reached: unreached.value && !showResting.value ? '1' : undefined,
  }),
});
/** Null where nothing was audited yet; undefined while it is on its way. */
const ledger = computed(
  (): Ledger | null | undefined => data.value || (data.value === undefined ? undefined : null),
);
const sections = computed(() => ledger.value?.audit.result.sections);

const unfolded = ref<ReadonlySet<Section>>(new Set());
/** What was read of the sections that lie open. */
const folded = ref<Partial<Record<Section, LedgerLine[]>>>({});
const folds = computed(() => ledger.value?.folds ?? []);
/** Who looks for words wants to see what has them. */
const isUnfolded = (section: Section): boolean => words.value !== '' || unfolded.value.has(section);
const openFolds = computed(() => folds.value.filter((f) => isUnfolded(f.section)));
function fold(section: Section): void {
  const next = new Set(unfolded.value);
  if (!next.delete(section)) next.add(section);
  unfolded.value = next;
}

type Group = Ledger['groups'][number];
/** A row of the table: a heading, a check, or a section that lies folded away. */
interface Row {
  id: string;
  group?: Group;
  check?: LedgerLine;
  sectioned?: boolean;
  fold?: Ledger['folds'][number];
}
const rows = computed((): Row[] => [
  ...(ledger.value?.groups ?? []).flatMap((group) => [
    { id: `group ${group.key}`, group },
    ...group.list.map((check) => ({ id: check.check, check, sectioned: group.section !== undefined })),
  ]),
  ...folds.value.flatMap((one) => [
    { id: `fold ${one.section}`, fold: one },
    ...(isUnfolded(one.section) ? (folded.value[one.section] ?? []) : []).map((check) => ({
      id: check.check,
      check,
      sectioned: true,
    })),
  ]),
]);
/** What the arrow keys walk through: all checks that can be seen. */
const checks = computed(() => rows.value.flatMap((r) => r.check ?? []));
const current = computed(() => checks.value.find((f) => f.check === at.value));
/** How many match beyond what one answer holds. */
const left = computed(() => (ledger.value?.groups ?? []).reduce((n, g) => n + g.count - g.list.length, 0));

const { data: chosen, isOld: isChosenOld } = useApiQuery('/api/environments/:id/findings/:check', {
  key: () => ['site', props.siteId, 'finding', props.environment.id, at.value],
  params: () => ({ id: props.environment.id, check: at.value }),
  when: () => at.value !== '',
});
/** The finding that is open; the one before it, or another environment's, is not shown for it. */
const finding = computed(() =>
  chosen.value?.check === at.value && !isChosenOld.value ? chosen.value : undefined,
);
// what is chosen stays in sight, also where it passed and lies folded away
watch([finding, ledger], () => {
  const section = finding.value?.section;
  if (section && ledger.value && !current.value && folds.value.some((f) => f.section === section))
    unfolded.value = new Set([...unfolded.value, section]);
});
watch(
  () => current.value?.check,
  () => void scrollToRow(),
);
async function scrollToRow(): Promise<void> {
  await nextTick();
  document.getElementById(`row-${at.value}`)?.scrollIntoView({ block: 'nearest' });
}

watch(
  [waiting, panel],
  () => {
    if (!waiting.value || !panel.value || finding.value?.check !== waiting.value.check) return;
    panel.value.act(waiting.value.what);
    waiting.value = null;
  },
  { flush: 'post' },
);

const COLUMNS = [
  { key: 'outcome', title: 'Outcome', width: '118px' },
  { key: 'check', title: 'Check', width: '27%' },
  { key: 'expected', title: 'Expected', width: '16%' },
  { key: 'found', title: 'Found' },
  { key: 'howmany', title: 'How many', width: '110px' },
  { key: 'points', title: 'Points', width: '64px', align: 'end' as const },
  { key: 'fix', title: 'Fix', width: '100px' },
];

function pick(check: string, showEvidence = true): void {
  at.value = check;
  if (showEvidence) open.value = true;
  void scrollToRow();
}
useLedgerKeys({
  move(by) {
    const i = checks.value.findIndex((f) => f.check === at.value);
    const next = checks.value[Math.min(checks.value.length - 1, Math.max(0, i + by))];
    if (next) pick(next.check, false);
  },
  openEvidence() {
    if (current.value) open.value = true;
  },
  close() {
    open.value = false;
  },
  walk() {
    walking.value = true;
  },
  act(what) {
    if (!current.value) return;
    open.value = true;
    waiting.value = { what, check: at.value };
  },
});
const isSplit = computed(() => open.value && finding.value !== undefined);
/** Columns that there is no room for beside the evidence, or in a narrow window. */
const WIDE_ONLY = new Set(['expected', 'howmany', 'fix']);
const hasLittleRoom = useMediaQuery('(max-width: 1100px)');
const isNarrow = computed(() => isSplit.value || hasLittleRoom.value);
const headers = computed(() =>
  isNarrow.value
    ? COLUMNS.filter((c) => !WIDE_ONLY.has(c.key)).map((c) =>
        c.key === 'check' ? { ...c, width: '42%' } : c,
      )
    : COLUMNS,
);
</script>

<template>
  <div>
    <p v-if="fault" class="fray" role="alert">
      {{ fault }} <button type="button" class="link" @click="reload()">Try again</button>
    </p>
    <v-progress-linear v-else-if="ledger === undefined" indeterminate color="primary" aria-label="Loading" />
    <div v-else-if="!ledger" class="sheet empty">
      <p>
        Nothing is known of {{ environment.name.toLowerCase() }} yet. <b>Audit now</b> looks at
        {{ environment.url }} from outside and fills this ledger.
      </p>
    </div>
    <template v-else>
      <div v-if="unreached" class="sheet unreached" role="status">
        <p>
          <b class="fray">Nothing of the site was reached: {{ unreached }}.</b> So there is no score.
          {{ ledger.resting }} checks rest on it.
        </p>
        <v-btn size="small" variant="text" @click="showResting = !showResting">{{
          showResting ? 'Leave them out' : 'Show them'
        }}</v-btn>
      </div>
      <p v-if="ledger.holding.length" class="held">
        Held by
        <template v-for="(f, i) in ledger.holding" :key="f.check"
          ><template v-if="i">{{ i === ledger.holding.length - 1 ? ' and ' : ', ' }}</template
          ><button type="button" class="fray" @click="pick(f.check)">{{ f.title }}</button></template
        >.
      </p>
      <div class="page-head">
        <FilterButtons v-model="show" :options="ledger.shows" label="Which checks" />
        <v-text-field
          v-model="typed"
          placeholder="Filter by words"
          aria-label="Filter checks by words"
          class="filter"
          clearable
        />
        <v-btn
          v-if="ledger.manualLeft"
          size="small"
          :title="`${ledger.manualLeft} manual checks are open`"
          @click="walking = true"
          >Walk through manual checks <kbd>W</kbd></v-btn
        >
        <span class="spring" />
        <span class="faint keys"
          ><kbd>J</kbd> <kbd>K</kbd> move, <kbd>Enter</kbd> evidence, <kbd>A</kbd> accept, <kbd>O</kbd> mine,
          <kbd>T</kbd> attest, <kbd>B</kbd> use in the brief</span
        >
      </div>
      <p v-for="n in ledger.notes" :key="n" class="faint">{{ n }}</p>
      <p v-if="ledger.times" class="faint ages">Looked at: {{ agesText(ledger.times) }}.</p>
      <LedgerFold
        v-for="f in openFolds"
        :key="f.section"
        :site-id="siteId"
        :environment-id="environment.id"
        :section="f.section"
        :words="words"
        @lines="folded = { ...folded, [f.section]: $event }"
      />
      <div class="split" :class="{ open: isSplit }" :aria-busy="isOld">
        <v-data-table
          class="sheet list"
          :headers="headers"
          :items="rows"
          item-value="id"
          :items-per-page="-1"
          density="compact"
          disable-sort
          hide-default-footer
          no-data-text="No check matches. Choose All or other words."
        >
          <template #colgroup>
            <caption class="visually-hidden">
              Ledger
            </caption>
          </template>
          <template #[`body.prepend`]>
            <tr v-if="show === 'needs' && !ledger.groups.length">
              <td :colspan="headers.length">
                Nothing needs a person here{{ words ? ' by these words' : '' }}.
              </td>
            </tr>
          </template>
          <template #item="{ item: row }">
            <tr v-if="row.group" class="group">
              <th :colspan="headers.length" scope="rowgroup">
                <div class="heading">
                  <h2>
                    {{ row.group.title }} <span class="num faint">{{ row.group.count }}</span>
                  </h2>
                  <template v-if="row.group.section && sections">
                    <span v-if="sections[row.group.section].lost" class="num fray"
                      >{{ pointsText(sections[row.group.section].lost) }} points lost</span
                    ><GateWord
                      v-if="sections[row.group.section].gate !== 'clear'"
                      :gate="sections[row.group.section].gate"
                    />
                  </template>
                </div>
              </th>
            </tr>
            <tr v-else-if="row.fold">
              <td :colspan="headers.length" class="foldcell">
                <button
                  type="button"
                  class="fold"
                  :aria-expanded="isUnfolded(row.fold.section)"
                  @click="fold(row.fold.section)"
                >
                  <v-icon size="16" :icon="isUnfolded(row.fold.section) ? mdiChevronDown : mdiChevronRight" />
                  <b>{{ row.fold.title }}</b><span class="faint num">{{ row.fold.words }}</span>
                </button>
              </td>
            </tr>
            <LedgerRow
              v-else-if="row.check"
              :line="row.check"
              :chosen="row.check.check === at"
              :narrow="isNarrow"
              :sectioned="row.sectioned ?? false"
              @click="pick(row.check.check)"
            />
          </template>
        </v-data-table>
        <EvidencePanel
          v-if="isSplit && finding"
          ref="panel"
          :key="finding.check"
          :site-id="siteId"
          :finding="finding"
          :environment="environment"
          class="side"
          @close="open = false"
        />
      </div>
      <p v-if="left" class="faint">{{ left }} more match. Filter by words to see them.</p>
      <WalkThrough v-model="walking" :site-id="siteId" :environment="environment" />
    </template>
  </div>
</template>

<style scoped>
.ages {
  margin-bottom: 8px;
}
.unreached {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 10px 14px;
  margin-bottom: 12px;
}
.held {
  margin-bottom: 10px;
}
.held button {
  text-decoration: underline;
  text-underline-offset: 2px;
  font-weight: 600;
}
.filter {
  max-width: 220px;
  min-width: 150px;
}
.v-btn kbd {
  margin-left: 8px;
}
.split.open {
  --side: 460px;
}
.list :deep(table) {
  table-layout: fixed;
}
.list :deep(th) {
  font-size: 12px;
}
.group th {
  text-align: left;
  padding-top: 8px !important;
}
.heading {
  display: flex;
  align-items: baseline;
  gap: 10px;
  font-size: 14px;
}
.foldcell {
  padding: 0 !important;
}
.fold {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 34px;
  padding: 0 12px;
  text-align: left;
}
.fold:hover {
  background: rgb(var(--v-theme-primary), 0.05);
}
.link {
  text-decoration: underline;
}
@media (max-width: 1100px) {
  .keys {
    display: none;
  }
}
@media (max-width: 600px) {
  .list :deep(thead) {
    display: none;
  }
  .list :deep(table),
  .list :deep(tbody),
  .list :deep(tr.group),
  .list :deep(tr.group th),
  .list :deep(.foldcell) {
    display: block;
    height: auto;
  }
  .filter {
    max-width: none;
    flex: 1 1 100%;
  }
}
</style>
