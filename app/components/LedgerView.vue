<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight } from '@mdi/js';
import type { Section } from '#core/facts/finding';
import { compareWorst, isOpenFault } from '#core/score/urgency';
import { pointsText } from '#core/text/points';
import type { LedgerAct } from '~/composables/ledger-keys';
import {
  isResting,
  ledgerFolds,
  ledgerGroups,
  ledgerShows,
  manualLeft,
  type LedgerGroup,
  type LedgerShow,
} from '~/composables/ledger-list';
import type { Ledger, LedgerFinding, Environment } from '~/types';

/** The ledger: one row a check, what needs a person first; the evidence opens at the side. */
const props = defineProps<{ environment: Environment; version: number }>();
const emit = defineEmits<{ changed: [] }>();
const ledger = ref<Ledger | null>(null);
const fault = ref('');
const words = ref('');
const show = ref<LedgerShow>('needs');
const unfolded = ref<Set<Section>>(new Set());
const at = ref('');
const open = ref(false);
const walking = ref(false);
const panel = ref<{ act: (what: LedgerAct) => void } | null>(null);
const route = useRoute();

async function load(): Promise<void> {
  try {
    ledger.value = await api('/api/environments/:id/ledger', { params: { id: props.environment.id } });
    fault.value = '';
    if (at.value) unfoldFor(at.value);
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
/** What is chosen stays in sight, also where it passed meanwhile and lies folded away. */
function unfoldFor(check: string): void {
  const chosen = findings.value.find((f) => f.check === check);
  if (chosen && !flat.value.includes(chosen)) unfolded.value = new Set([...unfolded.value, chosen.section]);
}
onMounted(async () => {
  await load();
  // a link may name the check to open
  const wanted = findings.value.find((f) => f.check === route.query.check);
  if (wanted) pick(wanted);
});
watch(() => props.version, load);

const findings = computed(() => ledger.value?.findings ?? []);
const shows = computed(() => ledgerShows(findings.value));
/** Where nothing of the site was reached, one reason stands for all that rests on it. */
const unreached = computed(() => ledger.value?.audit?.result.unreached);
const resting = computed(() => (unreached.value ? findings.value.filter(isResting).length : 0));
const showResting = ref(false);
const listed = computed(() =>
  unreached.value && !showResting.value ? findings.value.filter((f) => !isResting(f)) : findings.value,
);
const groups = computed<LedgerGroup<LedgerFinding>[]>(() =>
  ledgerGroups(listed.value, show.value, words.value ?? ''),
);
const folds = computed(() => (show.value === 'needs' ? ledgerFolds(listed.value, words.value ?? '') : []));
/** Who looks for words wants to see what has them. */
const isUnfolded = (section: Section): boolean => Boolean(words.value) || unfolded.value.has(section);
function fold(section: Section): void {
  const next = new Set(unfolded.value);
  if (!next.delete(section)) next.add(section);
  unfolded.value = next;
}
/** What the arrow keys walk through: all rows that can be seen. */
const flat = computed(() => [
  ...groups.value.flatMap((g) => g.list),
  ...folds.value.filter((f) => isUnfolded(f.section)).flatMap((f) => f.list),
]);
const COLUMNS = [
  { key: 'outcome', title: 'Outcome' },
  { key: 'check', title: 'Check' },
  { key: 'expected', title: 'Expected' },
  { key: 'found', title: 'Found' },
  { key: 'howmany', title: 'How many' },
  { key: 'points', title: 'Points' },
  { key: 'fix', title: 'Fix' },
];
const current = computed(() => flat.value.find((f) => f.check === at.value));
const holding = computed(() =>
  findings.value.filter((f) => isOpenFault(f) && f.severity === 'blocker').sort(compareWorst),
);
const handLeft = computed(() => manualLeft(findings.value));
const sections = computed(() => ledger.value?.audit?.result.sections);

function pick(f: LedgerFinding, showEvidence = true): void {
  at.value = f.check;
  // a link may lead to a check that lies folded away
  unfoldFor(f.check);
  if (showEvidence) open.value = true;
  void nextTick(() => document.getElementById(`row-${f.check}`)?.scrollIntoView({ block: 'nearest' }));
}
useLedgerKeys({
  move(by) {
    const i = flat.value.findIndex((f) => f.check === at.value);
    const next = flat.value[Math.min(flat.value.length - 1, Math.max(0, i + by))];
    if (next) pick(next, false);
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
    void nextTick(() => panel.value?.act(what));
  },
});
</script>

<template>
  <div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <v-progress-linear v-else-if="!ledger" indeterminate color="primary" aria-label="Loading" />
    <div v-else-if="!ledger.audit" class="sheet empty">
      <p>
        Nothing is known of {{ environment.name.toLowerCase() }} yet. <b>Audit now</b> looks at
        {{ environment.url }} from outside and fills this ledger.
      </p>
    </div>
    <template v-else>
      <div v-if="unreached" class="sheet unreached" role="status">
        <p>
          <b class="fray">Nothing of the site was reached: {{ unreached }}.</b> So there is no score.
          {{ resting }} checks rest on it.
        </p>
        <v-btn size="small" variant="text" @click="showResting = !showResting">{{
          showResting ? 'Leave them out' : 'Show them'
        }}</v-btn>
      </div>
      <p v-if="holding.length" class="held">
        Held by
        <template v-for="(f, i) in holding" :key="f.check"
          ><template v-if="i">{{ i === holding.length - 1 ? ' and ' : ', ' }}</template
          ><button type="button" class="fray" @click="pick(f)">{{ f.title }}</button></template
        >.
      </p>
      <div class="page-head">
        <FilterButtons v-model="show" :options="shows" label="Which checks" />
        <v-text-field
          v-model="words"
          placeholder="Filter by words"
          aria-label="Filter checks by words"
          class="filter"
          clearable
        />
        <v-btn
          v-if="handLeft"
          size="small"
          :title="`${handLeft} manual checks are open`"
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
      <div class="split" :class="{ open: open && current }">
        <div class="sheet list" role="grid" aria-label="Ledger" :class="{ narrow: open && current }">
          <div class="row heads faint" role="row">
            <span v-for="c in COLUMNS" :key="c.key" role="columnheader" :class="c.key">{{ c.title }}</span>
          </div>
          <div v-if="!flat.length && !folds.length" class="empty">
            <p>No check matches. Choose <b>All</b> or other words.</p>
          </div>
          <p v-else-if="show === 'needs' && !groups.length" class="nothing">
            Nothing needs a person here{{ words ? ' by these words' : '' }}.
          </p>
          <div v-for="g in groups" :key="g.key" role="rowgroup" :aria-label="g.title">
            <div class="group" role="row">
              <h2 role="gridcell">
                {{ g.title }} <span class="num faint">{{ g.list.length }}</span>
              </h2>
              <template v-if="g.section && sections">
                <span v-if="sections[g.section].lost" class="num fray"
                  >{{ pointsText(sections[g.section].lost) }} points lost</span
                ><GateWord v-if="sections[g.section].gate !== 'clear'" :gate="sections[g.section].gate" />
              </template>
            </div>
            <LedgerRow
              v-for="f in g.list"
              :key="f.check"
              :finding="f"
              :chosen="f.check === at"
              :narrow="open && current !== undefined"
              :sectioned="g.section !== undefined"
              @click="pick(f)"
            />
          </div>
          <div v-for="f in folds" :key="f.section" role="rowgroup" :aria-label="f.title">
            <div role="row">
              <div role="gridcell">
                <button
                  type="button"
                  class="fold"
                  :aria-expanded="isUnfolded(f.section)"
                  @click="fold(f.section)"
                >
                  <v-icon size="16" :icon="isUnfolded(f.section) ? mdiChevronDown : mdiChevronRight" />
                  <b>{{ f.title }}</b><span class="faint num">{{ f.words }}</span>
                </button>
              </div>
            </div>
            <template v-if="isUnfolded(f.section)">
              <LedgerRow
                v-for="one in f.list"
                :key="one.check"
                :finding="one"
                :chosen="one.check === at"
                :narrow="open && current !== undefined"
                sectioned
                @click="pick(one)"
              />
            </template>
          </div>
        </div>
        <EvidencePanel
          v-if="open && current"
          ref="panel"
          :key="current.check"
          :finding="current"
          :environment="environment"
          class="side"
          @close="open = false"
          @changed="emit('changed')"
        />
      </div>
      <WalkThrough
        v-model="walking"
        :environment="environment"
        :findings="ledger.findings"
        @changed="emit('changed')"
      />
    </template>
  </div>
</template>

<style scoped>
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
kbd {
  font-family: var(--mono);
  font-size: 11px;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 3px;
  padding: 0 4px;
}
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
.split.open {
  grid-template-columns: minmax(0, 1fr) 460px;
}
.list {
  --ledger-columns: 104px minmax(190px, 1.25fr) minmax(90px, 0.8fr) minmax(150px, 1.4fr) 100px 48px 84px;
}
.list.narrow {
  --ledger-columns: 104px minmax(150px, 1.2fr) minmax(110px, 1fr) 48px;
}
.narrow .heads .expected,
.narrow .heads .howmany,
.narrow .heads .fix {
  display: none;
}
.heads {
  display: grid;
  grid-template-columns: var(--ledger-columns);
  gap: 12px;
  padding: 8px 12px;
  font-size: 12px;
  font-weight: 600;
}
.heads .points {
  text-align: right;
}
.group {
  display: flex;
  align-items: baseline;
  gap: 10px;
  padding: 12px 12px 4px;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.nothing {
  padding: 12px;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.fold {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 34px;
  padding: 0 12px;
  text-align: left;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.fold:hover {
  background: rgb(var(--v-theme-primary), 0.05);
}
.side {
  position: sticky;
  top: 200px;
  max-height: calc(100vh - 216px);
  overflow: auto;
}
@media (max-width: 1100px) {
  .list {
    --ledger-columns: 104px minmax(150px, 1.2fr) minmax(110px, 1fr) 48px;
  }
  .heads .expected,
  .heads .howmany,
  .heads .fix,
  .keys {
    display: none;
  }
  .split.open {
    grid-template-columns: minmax(0, 1fr);
  }
  .split.open .list {
    display: none;
  }
  .side {
    position: static;
    max-height: none;
  }
}
@media (max-width: 600px) {
  .heads {
    display: none;
  }
  .filter {
    max-width: none;
    flex: 1 1 100%;
  }
}
</style>
