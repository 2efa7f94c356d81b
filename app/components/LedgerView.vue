<script setup lang="ts">
import type { Ledger, LedgerFinding, Place } from '~/types';
import { SECTIONS, SECTION_TITLES, type Section } from '#core/facts/finding';
import { CLOSED_STATES } from '#core/facts/fix';
import { isOpenFault, worstFirst } from '#core/score/urgency';

/** The ledger: sections as groups, one row a check, faults first; the evidence opens at the side. */
const props = defineProps<{ place: Place; version: number }>();
const emit = defineEmits<{ changed: [] }>();
const ledger = ref<Ledger | null>(null);
const fault = ref('');
const words = ref('');
const show = ref<'all' | 'faults' | 'undecided' | 'hand'>('all');
const at = ref('');
const open = ref(false);
const walking = ref(false);
const panel = ref<{ act: (what: 'accept' | 'assign' | 'attest' | 'take') => void } | null>(null);
const route = useRoute();

async function load(): Promise<void> {
  try {
    ledger.value = await api<Ledger>(`/api/environments/${props.place.id}/ledger`);
    fault.value = '';
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
onMounted(async () => {
  await load();
  // a link may name the check to open
  const wanted = ledger.value?.findings.find((f) => f.check === route.query.check);
  if (wanted) pick(wanted);
});
watch(() => props.version, load);

const filters = computed(() => {
  const all = ledger.value?.findings ?? [];
  return [
    { key: 'all' as const, label: 'All', n: all.length },
    { key: 'faults' as const, label: 'Faults', n: all.filter(isOpenFault).length },
    {
      key: 'undecided' as const,
      label: 'Undecided',
      n: all.filter((f) => f.outcome === 'cantTell' || f.outcome === 'untested').length,
    },
    { key: 'hand' as const, label: 'By hand', n: all.filter((f) => f.byHand).length },
  ];
});
const groups = computed(() => {
  const parts = words.value.toLowerCase().split(/\s+/).filter(Boolean);
  const found = (ledger.value?.findings ?? []).filter(
    (f) =>
      (show.value === 'all' ||
        (show.value === 'faults'
          ? isOpenFault(f)
          : show.value === 'hand'
            ? f.byHand
            : f.outcome === 'cantTell' || f.outcome === 'untested')) &&
      parts.every((w) =>
        `${f.check} ${f.title} ${f.expected ?? ''} ${f.found ?? ''} ${f.outcome} ${f.severity}`
          .toLowerCase()
          .includes(w),
      ),
  );
  return worstFirst(
    SECTIONS.map((section) => ({ section, list: found.filter((f) => f.section === section) })),
  ).map((g) => ({ ...g, tally: ledger.value?.audit?.result.sections[g.section] }));
});
const flat = computed(() => groups.value.flatMap((g) => g.list));
const current = computed(() => flat.value.find((f) => f.check === at.value));
const holding = computed(() =>
  (ledger.value?.findings ?? []).filter((f) => isOpenFault(f) && f.severity === 'blocker'),
);

const handLeft = computed(
  () =>
    (ledger.value?.findings ?? []).filter(
      (f) => f.byHand && (f.outcome === 'untested' || f.outcome === 'failed') && !f.accepted,
    ).length,
);
function pick(f: LedgerFinding, show = true): void {
  at.value = f.check;
  if (show) open.value = true;
  void nextTick(() => document.getElementById(`row-${f.check}`)?.scrollIntoView({ block: 'nearest' }));
}
function move(by: number): void {
  const i = flat.value.findIndex((f) => f.check === at.value);
  const next = flat.value[Math.min(flat.value.length - 1, Math.max(0, i + by))];
  if (next) pick(next, false);
}
function keys(e: KeyboardEvent): void {
  const el = e.target as HTMLElement;
  if (
    e.ctrlKey ||
    e.metaKey ||
    e.altKey ||
    /^(INPUT|TEXTAREA|SELECT)$/.test(el.tagName) ||
    el.closest('.v-overlay-container')
  )
    return;
  if (e.key === 'j' || e.key === 'ArrowDown') {
    e.preventDefault();
    move(1);
  } else if (e.key === 'k' || e.key === 'ArrowUp') {
    e.preventDefault();
    move(-1);
  } else if (e.key === 'Enter' && current.value && el.tagName !== 'BUTTON' && el.tagName !== 'A') {
    e.preventDefault();
    open.value = true;
  } else if (e.key === 'w') {
    e.preventDefault();
    walking.value = true;
  } else if (e.key === 'Escape') open.value = false;
  else if (current.value && (e.key === 'a' || e.key === 'o' || e.key === 't' || e.key === 'b')) {
    open.value = true;
    const what = ({ a: 'accept', o: 'assign', t: 'attest', b: 'take' } as const)[e.key];
    void nextTick(() => panel.value?.act(what));
  }
}
onMounted(() => window.addEventListener('keydown', keys));
onBeforeUnmount(() => window.removeEventListener('keydown', keys));
function sectionScore(s: Section): string {
  const t = ledger.value?.audit?.result.sections[s];
  return t ? `${t.score ?? '–'}` : '';
}
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
      <p v-if="holding.length" class="held">
        Held by
        <template v-for="(f, i) in holding" :key="f.check"
          ><template v-if="i">{{ i === holding.length - 1 ? ' and ' : ', ' }}</template
          ><button type="button" class="fray" @click="pick(f)">{{ f.title }}</button></template
        >.
      </p>
      <div class="page-head">
        <div class="filters" role="group" aria-label="Which checks">
          <button
            v-for="f in filters"
            :key="f.key"
            type="button"
            :aria-pressed="show === f.key"
            :class="{ on: show === f.key }"
            @click="show = f.key"
          >
            {{ f.label }} <span class="num">{{ f.n }}</span>
          </button>
        </div>
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
              <span class="faint num">{{ sectionScore(g.section) }}</span><GateWord
                v-if="g.tally && g.tally.gate !== 'clear'"
                :gate="g.tally.gate"
              />
            </div>
            <div
              v-for="f in g.list"
              :id="`row-${f.check}`"
              :key="f.check"
              class="row"
              role="row"
              :aria-selected="f.check === at"
              :class="{ at: f.check === at, quiet: f.outcome === 'passed' || f.outcome === 'inapplicable' }"
              tabindex="-1"
              @click="pick(f)"
            >
              <span role="gridcell" class="outcome"><StitchMark :stitch="stitchOf(f)" /></span>
              <span role="gridcell" class="title"
                ><span class="cut">{{ f.title }}</span
                ><span class="sev" :class="{ strong: f.severity === 'blocker' && isOpenFault(f) }">{{
                  f.severity
                }}</span></span
              >
              <span role="gridcell" class="expected cut faint" :title="f.expected">{{
                f.expected ?? ''
              }}</span>
              <span role="gridcell" class="found cut" :title="f.found ?? f.reason">{{
                f.found ?? f.reason ?? ''
              }}</span>
              <span role="gridcell" class="num right placecount faint" title="places">{{
                f.placeCount || ''
              }}</span>
              <span role="gridcell" class="num right weight faint" title="weight">{{ f.weight }}</span>
              <span
                role="gridcell"
                class="fix cut"
                :class="{ faint: !f.fix || CLOSED_STATES.has(f.fix.state) }"
                >{{
                  f.fix ? `${f.fix.state}${f.fix.owner ? `, ${f.fix.owner.split(' ')[0]}` : ''}` : ''
                }}</span
              >
            </div>
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
.held {
  margin-bottom: 10px;
}
.held button {
  text-decoration: underline;
  text-underline-offset: 2px;
  font-weight: 600;
}
.filters {
  display: flex;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  overflow: hidden;
  background: rgb(var(--v-theme-surface));
}
.filters button {
  padding: 5px 12px;
  white-space: nowrap;
}
.filters button + button {
  border-left: 1px solid rgb(var(--v-theme-rule));
}
.filters button.on {
  background: rgb(var(--v-theme-primary), 0.12);
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
.row {
  display: grid;
  grid-template-columns: 118px minmax(190px, 1.2fr) minmax(80px, 0.8fr) minmax(120px, 1.3fr) 34px 28px 104px;
  gap: 12px;
  align-items: center;
  min-height: 34px;
  padding: 0 12px;
  cursor: pointer;
  scroll-margin: 220px 0 60px;
}
.row:hover {
  background: rgb(var(--v-theme-primary), 0.05);
}
.row.at {
  background: rgb(var(--v-theme-primary), 0.12);
}
.row.quiet .title {
  color: rgb(var(--v-theme-faint));
}
.title {
  display: flex;
  gap: 8px;
  align-items: baseline;
  min-width: 0;
}
.sev {
  font-size: 12px;
  color: rgb(var(--v-theme-faint));
}
.sev.strong {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
.right {
  text-align: right;
}
.side {
  position: sticky;
  top: 200px;
  max-height: calc(100vh - 216px);
  overflow: auto;
}
.split.open .row {
  grid-template-columns: 118px minmax(150px, 1.2fr) minmax(90px, 1fr) 84px;
}
.split.open .expected,
.split.open .placecount,
.split.open .weight {
  display: none;
}
@media (max-width: 1100px) {
  .keys {
    display: none;
  }
  .row {
    grid-template-columns: 118px minmax(150px, 1.2fr) minmax(90px, 1fr) 84px;
  }
  .expected,
  .placecount,
  .weight {
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
  .row {
    grid-template-columns: 84px minmax(0, 1fr);
    row-gap: 0;
    padding: 6px 10px;
  }
  .row .outcome {
    align-self: start;
  }
  .row .found {
    grid-column: 2;
    white-space: normal;
    font-size: 13px;
  }
  .row .fix {
    display: none;
  }
  .row .title {
    white-space: normal;
  }
  .row .title .cut {
    flex: 1;
    white-space: normal;
  }
  .filters {
    width: 100%;
  }
  .filters button {
    flex: 1;
    padding: 5px 4px;
    font-size: 13px;
  }
  .filter {
    max-width: none;
    flex: 1 1 100%;
  }
}
</style>
