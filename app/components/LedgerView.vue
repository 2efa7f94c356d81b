<script setup lang="ts">
import { SECTION_TITLES } from '#core/facts/finding';
import { isOpenFault } from '#core/score/urgency';
import type { LedgerAct } from '~/composables/ledger-keys';
import { isResting, ledgerGroups, ledgerShows, manualLeft, type LedgerShow } from '~/composables/ledger-list';
import type { Ledger, LedgerFinding, Place } from '~/types';

/** The ledger: sections as groups, one row a check, faults first; the evidence opens at the side. */
const props = defineProps<{ place: Place; version: number }>();
const emit = defineEmits<{ changed: [] }>();
const ledger = ref<Ledger | null>(null);
const fault = ref('');
const words = ref('');
const show = ref<LedgerShow>('all');
const at = ref('');
const open = ref(false);
const walking = ref(false);
const panel = ref<{ act: (what: LedgerAct) => void } | null>(null);
const route = useRoute();

async function load(): Promise<void> {
  try {
    ledger.value = await api('/api/environments/:id/ledger', { params: { id: props.place.id } });
    fault.value = '';
  } catch (error) {
    fault.value = (error as Error).message;
  }
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
const groups = computed(() => ledgerGroups(listed.value, show.value, words.value ?? ''));
const flat = computed(() => groups.value.flatMap((g) => g.list));
const current = computed(() => flat.value.find((f) => f.check === at.value));
const holding = computed(() => findings.value.filter((f) => isOpenFault(f) && f.severity === 'blocker'));
const handLeft = computed(() => manualLeft(findings.value));
const sections = computed(() => ledger.value?.audit?.result.sections);

function pick(f: LedgerFinding, showEvidence = true): void {
  at.value = f.check;
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
        Nothing is known of {{ place.name.toLowerCase() }} yet. <b>Audit now</b> looks at {{ place.url }} from
        outside and fills this ledger.
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
          :title="`${handLeft} checks done by hand are open`"
          @click="walking = true"
          >Walk through by hand <kbd>W</kbd></v-btn
        >
        <span class="spring" />
        <span class="faint keys"
          ><kbd>J</kbd> <kbd>K</kbd> move, <kbd>Enter</kbd> evidence, <kbd>A</kbd> accept, <kbd>O</kbd> mine,
          <kbd>T</kbd> attest, <kbd>B</kbd> into the brief</span
        >
      </div>
      <p v-for="n in ledger.notes" :key="n" class="faint">{{ n }}</p>
      <div class="split" :class="{ open: open && current }">
        <div class="sheet list" role="grid" aria-label="Ledger">
          <div v-if="!flat.length" class="empty">
            <p>No check matches. Choose <b>All</b> or other words.</p>
          </div>
          <div v-for="g in groups" :key="g.section" role="rowgroup">
            <div class="group">
              <h2>{{ SECTION_TITLES[g.section] }}</h2>
              <span class="faint num">{{ sections?.[g.section].score ?? '–' }}</span><GateWord
                v-if="sections && sections[g.section].gate !== 'clear'"
                :gate="sections[g.section].gate"
              />
            </div>
            <LedgerRow
              v-for="f in g.list"
              :key="f.check"
              :finding="f"
              :chosen="f.check === at"
              :narrow="open && current !== undefined"
              @click="pick(f)"
            />
          </div>
        </div>
        <EvidencePanel
          v-if="open && current"
          ref="panel"
          :key="current.check"
          :finding="current"
          :place="place"
          class="side"
          @close="open = false"
          @changed="emit('changed')"
        />
      </div>
      <WalkThrough v-model="walking" :place="place" :findings="ledger.findings" @changed="emit('changed')" />
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
.group {
  display: flex;
  align-items: baseline;
  gap: 10px;
  padding: 12px 12px 4px;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
[role='rowgroup']:first-child .group {
  border-top: 0;
}
.side {
  position: sticky;
  top: 200px;
  max-height: calc(100vh - 216px);
  overflow: auto;
}
@media (max-width: 1100px) {
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
  .filter {
    max-width: none;
    flex: 1 1 100%;
  }
}
</style>
