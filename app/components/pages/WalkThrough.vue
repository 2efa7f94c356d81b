<script setup lang="ts">
import { headingOf } from '#core/facts/heading';
import { SECTION_TITLES } from '#core/facts/finding';
import type { Environment, LedgerFinding } from '~/types';

/**
 * The manual checks, one after the other, by keyboard: D done, N not done, X not applicable, J and K or
 * the arrows move.
 */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{ siteId: number; environment: Environment }>();
interface Step {
  finding: LedgerFinding;
  subject?: string;
}
const steps = ref<Step[]>([]);
const at = ref(0);
const said = ref<Record<number, string>>({});
const form = ref<{ say: (what: 'done' | 'not done' | 'not applicable') => Promise<void> } | null>(null);
const box = ref<HTMLElement | null>(null);

/** Each thing of a check that has several, such as each form, is a step of its own. */
const stepsOf = (f: LedgerFinding): Step[] => {
  const left = f.places.filter((p) => p.outcome === 'cantTell');
  return left.length ? left.map((p) => ({ finding: f, subject: p.place })) : [{ finding: f }];
};
const { data: manual } = useApiQuery('/api/environments/:id/ledger/manual', {
  key: () => ['site', props.siteId, 'ledger', props.environment.id],
  params: () => ({ id: props.environment.id }),
  when: open,
});
watch(open, (is) => {
  if (!is) return;
  steps.value = [];
  at.value = 0;
  said.value = {};
  begin();
});
/** The steps stay as they were when the walk began, whatever is attested meanwhile. */
function begin(): void {
  if (!open.value || steps.value.length || !manual.value) return;
  steps.value = manual.value.flatMap(stepsOf);
  void nextTick(() => box.value?.focus());
}
watch(manual, begin);
const step = computed(() => steps.value[at.value]);
const finished = computed(() => steps.value.length > 0 && at.value >= steps.value.length);
function move(by: number): void {
  at.value = Math.min(steps.value.length, Math.max(0, at.value + by));
  void nextTick(() => box.value?.focus());
}
function told(what: string): void {
  said.value = { ...said.value, [at.value]: what };
  move(1);
}
const SAYS = { d: 'done', n: 'not done', x: 'not applicable' } as const;
const STEPS: Record<string, number> = {
  j: 1,
  ArrowDown: 1,
  ArrowRight: 1,
  k: -1,
  ArrowUp: -1,
  ArrowLeft: -1,
};
/** In a field the keys are the field's, but for the one that leaves it. */
function inField(e: KeyboardEvent): void {
  if (e.key !== 'Escape') return;
  e.stopPropagation();
  box.value?.focus();
}
function keys(e: KeyboardEvent): void {
  if (e.ctrlKey || e.metaKey || e.altKey) return;
  if (/^(INPUT|TEXTAREA)$/.test((e.target as HTMLElement).tagName)) {
    inField(e);
    return;
  }
  const says = SAYS[e.key.toLowerCase() as keyof typeof SAYS];
  const by = STEPS[e.key];
  if (!says && by === undefined && e.key !== 'w') return;
  e.preventDefault();
  if (says) void form.value?.say(says);
  else if (by !== undefined) move(by);
  else box.value?.querySelector('textarea')?.focus();
}
const tally = computed(() => {
  const n = (what: string) => Object.values(said.value).filter((s) => s === what).length;
  return `${n('done')} done, ${n('not done')} not done, ${n('not applicable')} not applicable, ${steps.value.length - Object.keys(said.value).length} left`;
});
</script>

<template>
  <v-dialog v-model="open" width="720" aria-label="Manual checks, one after the other">
    <div ref="box" class="sheet box" tabindex="-1" @keydown="keys">
      <div class="page-head">
        <h1>Manual checks</h1>
        <span class="faint num"
          >{{ environment.name }}, {{ Math.min(at + 1, steps.length) }} of {{ steps.length }}</span
        ><span class="spring" /><v-btn size="small" variant="text" @click="open = false">Close</v-btn>
      </div>
      <v-progress-linear
        :model-value="steps.length ? (100 * at) / steps.length : 100"
        color="primary"
        height="3"
        aria-label="How far"
      />
      <v-progress-linear v-if="!manual" indeterminate color="primary" aria-label="Loading" />
      <div v-else-if="!steps.length" class="end">
        <p>No manual check is left here: every one is attested.</p>
        <v-btn @click="open = false">Back to the ledger</v-btn>
      </div>
      <div v-else-if="finished" class="end">
        <p>That was the last. {{ tally }}.</p>
        <v-btn color="primary" variant="flat" @click="open = false">Back to the ledger</v-btn>
      </div>
      <div v-else-if="step" :key="at" class="step">
        <p class="faint">
          {{ SECTION_TITLES[step.finding.section] }}, {{ step.finding.severity
          }}<template v-if="said[at]">, just said: {{ said[at] }}</template>
        </p>
        <h2>{{ headingOf(step.finding) }}</h2>
        <p>{{ step.finding.why }}</p>
        <p v-if="step.finding.recipe" class="how">{{ step.finding.recipe.steps }}</p>
        <p v-if="step.finding.note" class="note">{{ step.finding.note }}</p>
        <AttestedList
          v-if="step.finding.attestations.length"
          :list="
            step.finding.attestations
              .filter((a) => !step!.subject || !a.place || a.place === step!.subject)
              .slice(0, 2)
          "
        />
        <AttestForm
          ref="form"
          :environment-id="environment.id"
          :finding="step.finding"
          :place="step.subject"
          bare
          @done="told"
          @cancel="box?.focus()"
        />
      </div>
      <p class="faint keys">
        <kbd>D</kbd> done <kbd>N</kbd> not done <kbd>X</kbd> not applicable <kbd>W</kbd> write a note
        <kbd>J</kbd> <kbd>K</kbd> on and back <kbd>Esc</kbd> close
      </p>
    </div>
  </v-dialog>
</template>

<style scoped>
.box {
  padding: 16px 20px;
  display: grid;
  gap: 12px;
  outline: none;
  max-height: 90vh;
  overflow: auto;
}
.page-head {
  margin: 0;
}
.step {
  display: grid;
  gap: 10px;
  min-height: 320px;
  align-content: start;
}
.step h2 {
  font-size: 20px;
}
.how {
  line-height: 1.55;
}
.end {
  padding: 40px 0;
  text-align: center;
  display: grid;
  gap: 12px;
  justify-items: center;
}
.note {
  border-left: 3px solid rgb(var(--v-theme-primary));
  padding-left: 10px;
}
kbd {
  margin-left: 8px;
}
.keys {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding-top: 8px;
}
</style>
