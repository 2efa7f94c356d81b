<script setup lang="ts">
import {
  ACCOUNT_KINDS,
  ACCOUNT_WORDS,
  CONDITION_NAMES,
  CONDITIONS,
  PERFORMER_WORDS,
  PERFORMERS,
  PHASE_WORDS,
  PHASES,
  type LaunchTemplate,
  type TemplateStep,
} from '#core/facts/launch';
import { checkById } from '#core/checks/catalogue/index';
import { BUILT_IN_TEMPLATE } from '#core/launch/built-in-template';
import { templateFaults } from '#core/launch/template-faults';
import { quantity } from '#core/text/quantity';

/** The agency’s run sheet: which steps a launch has, in which order, whose, when; and what many launches teach. */
useHead({ title: 'Run sheet – Armband' });
const notes = useNotes();
const { data: kept, fault: unread } = useApiQuery('/api/launch-template', { key: ['launch-template'] });
const { data: statistics } = useApiQuery('/api/launches/statistics', { key: ['launches', 'statistics'] });
const steps = ref<TemplateStep[]>([]);
const {
  changed,
  isOvertaken,
  run: keep,
  busy,
  fault: unsaved,
  undo,
} = useSaving<LaunchTemplate, { version: number }>({
  state: () => JSON.stringify(steps.value),
  save: (template, from) => api('/api/launch-template', { method: 'PUT', query: { from }, body: template }),
  label: (path) => path,
  fill: (template) => (steps.value = structuredClone(toRaw(template.steps))),
  asForm: (template) => template,
  newest: () => kept.value && { version: kept.value.version, document: kept.value.template },
});
const faults = computed(() => templateFaults({ steps: steps.value }));
const phases = computed(() =>
  PHASES.map((phase) => ({ phase, steps: steps.value.filter((s) => s.phase === phase) })),
);
const opened = ref('');
const others = (step: TemplateStep) =>
  steps.value.filter((s) => s.id !== step.id).map((s) => ({ title: s.title, value: s.id }));
const titled = <K extends string>(keys: readonly K[], words: Record<K, string>) =>
  keys.map((value) => ({ value, title: words[value] }));
const CHECKS = [...checkById.values()].map((c) => ({ value: c.id, title: c.title }));
const checksOf = (step: TemplateStep, environment: 'live' | 'before'): string[] =>
  step.proofs.flatMap((p) => (p.environment === environment && p.check ? [p.check] : []));
function setChecks(step: TemplateStep, environment: 'live' | 'before', checks: string[]): void {
  step.proofs = [
    ...step.proofs.filter((p) => p.kind !== 'check' || p.environment !== environment),
    ...checks.map((check) => ({ kind: 'check' as const, environment, check })),
  ];
}
/** Shows an older version in the form; saving makes it the newest. */
function bringBack({ steps: older }: LaunchTemplate): void {
  steps.value = structuredClone(toRaw(older));
}
/** A step of the agency’s own, at the end of a phase. */
function add(phase: TemplateStep['phase']): void {
  const taken = new Set(steps.value.map((s) => s.id));
  let n = 1;
  while (taken.has(`own-${n}`)) n++;
  const last = steps.value.filter((s) => s.phase === phase).at(-1);
  const step: TemplateStep = {
    id: `own-${n}`,
    title: 'New step',
    what: '',
    phase,
    offsetHours: last?.offsetHours ?? 0,
    when: 'always',
    who: 'agency',
    after: [],
    proofs: [],
  };
  steps.value = [...steps.value, step];
  opened.value = step.id;
}
/** Takes a step out; what waited for it waits for what it waited for. */
function remove({ id, after }: TemplateStep): void {
  steps.value = steps.value
    .filter((s) => s.id !== id)
    .map((s) =>
      s.after.includes(id)
        ? { ...s, after: [...new Set([...s.after.filter((a) => a !== id), ...after])] }
        : s,
    );
}
/** Moves a step before the one above it in its phase. */
function raise(step: TemplateStep): void {
  const own = steps.value.filter((s) => s.phase === step.phase);
  const above = own[own.indexOf(step) - 1];
  if (!above) return;
  const rest = steps.value.filter((s) => s !== step);
  rest.splice(rest.indexOf(above), 0, step);
  steps.value = rest;
}
async function save(): Promise<void> {
  if (await keep({ steps: toRaw(steps.value) }))
    notes.say('Launches that are begun from now on have this run sheet.');
}
</script>

<template>
  <div class="page narrow">
    <div class="page-head">
      <h1>The agency’s run sheet</h1>
      <span v-if="kept" class="faint">{{
        kept.version ? `version ${kept.version}, ${kept.savedBy}` : 'as it came with Armband'
      }}</span>
      <span class="spring" />
      <v-btn v-if="changed" variant="text" size="small" @click="undo()">Undo all</v-btn>
      <v-btn
        color="primary"
        variant="flat"
        :loading="busy"
        :disabled="!changed || faults.length > 0"
        @click="save()"
        >Save</v-btn
      >
    </div>
    <p v-if="unread || unsaved" class="fray" role="alert">{{ unread || unsaved }}</p>
    <p v-if="isOvertaken" class="faint">Somebody has saved meanwhile: saving asks how to join both.</p>
    <p v-for="f in faults" :key="f" class="fray">{{ f }}</p>
    <section v-if="statistics?.launches" class="sheet learnt" aria-label="What launches teach">
      <h2>{{ quantity(statistics.launches, 'launch') }} so far</h2>
      <p v-if="statistics.anyway">
        {{ quantity(statistics.anyway, 'launch') }} went although something stood against it.
      </p>
      <p v-if="!statistics.steps.length" class="faint">No step went back or was left out.</p>
      <ul>
        <li v-for="s in statistics.steps.slice(0, 8)" :key="s.step">
          {{ s.title }}:
          <template v-if="s.wentBack"
            >went back {{ s.wentBack === 1 ? 'once' : `${s.wentBack} times` }}</template
          ><template v-if="s.wentBack && s.leftOut">, </template
          ><template v-if="s.leftOut"
            >left out {{ s.leftOut === 1 ? 'once' : `${s.leftOut} times` }}</template
          >
        </li>
      </ul>
    </section>
    <details v-if="kept?.version" class="sheet learnt">
      <summary>Versions</summary>
      <v-btn size="small" variant="text" @click="bringBack(BUILT_IN_TEMPLATE)">As it came with Armband</v-btn>
      <VersionList
        :of="{ route: '/api/launch-template/versions', id: 0, key: ['launch-template', 'versions'] }"
        :label="(field) => field"
        @back="bringBack($event.data as LaunchTemplate)"
      />
    </details>
    <section v-for="p in phases" :key="p.phase" class="sheet phase" :aria-label="PHASE_WORDS[p.phase]">
      <div class="line">
        <h2>{{ PHASE_WORDS[p.phase] }}</h2>
        <span class="spring" /><v-btn size="small" variant="text" @click="add(p.phase)">Add a step</v-btn>
      </div>
      <div v-for="(s, i) in p.steps" :key="s.id" class="step">
        <div class="line">
          <button
            type="button"
            class="title"
            :aria-expanded="opened === s.id"
            @click="opened = opened === s.id ? '' : s.id"
          >
            {{ s.title }}
          </button>
          <span class="faint who"
            >{{ PERFORMER_WORDS[s.who]
            }}{{ s.when === 'always' ? '' : `, only where ${CONDITIONS[s.when]}` }}</span
          >
          <v-btn v-if="i" size="small" variant="text" :aria-label="`Move ${s.title} up`" @click="raise(s)"
            >Up</v-btn
          >
          <v-btn size="small" variant="text" :aria-label="`Take ${s.title} out`" @click="remove(s)"
            >Take out</v-btn
          >
        </div>
        <div v-if="opened === s.id" class="form">
          <v-text-field v-model="s.title" label="Title" hide-details />
          <v-textarea v-model="s.what" label="What to do" rows="2" auto-grow hide-details />
          <v-select v-model="s.phase" :items="titled(PHASES, PHASE_WORDS)" label="Phase" hide-details />
          <v-text-field
            v-model.number="s.offsetHours"
            type="number"
            step="0.5"
            label="Hours after the launch (before it: negative)"
            hide-details
          />
          <v-select v-model="s.who" :items="titled(PERFORMERS, PERFORMER_WORDS)" label="Who" hide-details />
          <v-select
            v-model="s.where"
            :items="titled(ACCOUNT_KINDS, ACCOUNT_WORDS)"
            label="Where"
            clearable
            hide-details
          />
          <v-select
            v-model="s.when"
            :items="titled(CONDITION_NAMES, CONDITIONS)"
            label="Only where"
            hide-details
          />
          <v-autocomplete v-model="s.after" :items="others(s)" label="After" multiple chips hide-details />
          <v-autocomplete
            :model-value="checksOf(s, 'before')"
            :items="CHECKS"
            label="Proven on staging by"
            multiple
            chips
            hide-details
            @update:model-value="setChecks(s, 'before', $event)"
          />
          <v-autocomplete
            :model-value="checksOf(s, 'live')"
            :items="CHECKS"
            label="Proven on live by"
            multiple
            chips
            hide-details
            @update:model-value="setChecks(s, 'live', $event)"
          />
          <v-textarea v-model="s.back" label="The way back" rows="1" auto-grow hide-details />
          <v-text-field v-model.number="s.minutes" type="number" label="Minutes it takes" hide-details />
          <v-checkbox v-model="s.isLong" label="Left off the sheet of a site of one page" hide-details />
        </div>
      </div>
    </section>
  </div>
</template>

<style scoped>
.narrow {
  max-width: 980px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}
.phase,
.learnt {
  padding: 12px 16px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
}
p,
ul {
  margin: 0;
}
.line {
  display: flex;
  gap: 4px 10px;
  align-items: center;
  flex-wrap: wrap;
}
.step {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding: 4px 0;
}
.title {
  text-align: left;
  font-weight: 550;
}
/* gives way before the buttons beside it do */
.who {
  flex: 1 1 200px;
}
.form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
  padding: 8px 0;
}
@media (max-width: 700px) {
  .form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
