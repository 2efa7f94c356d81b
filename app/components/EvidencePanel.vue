<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { briefLabel } from '#core/entry/brief-fields';
import type { LedgerAct } from '~/composables/ledger-keys';
import type { LedgerFinding, Environment } from '~/types';

/**
 * One finding in full: the rule, expected against found, the raw evidence, the places, the recipe, the fix,
 * the source.
 */
const props = defineProps<{ finding: LedgerFinding; environment: Environment }>();
const emit = defineEmits<{ close: []; changed: [] }>();
const session = useSession();
const notes = useNotes();
const accepting = ref(false);
const attesting = ref<string | false>(false);
const taking = ref('');
const single = computed(() => (props.finding.places.length === 1 ? props.finding.places[0] : undefined));
const REASONS: Partial<Record<string, string>> = {
  cantTell: 'Cannot tell: ',
  inapplicable: 'Not applicable: ',
};

async function run(call: () => Promise<unknown>, said = ''): Promise<void> {
  try {
    await call();
    if (said) notes.say(said);
    emit('changed');
  } catch (error) {
    notes.say((error as Error).message, true);
  }
}
async function adopt(where: string): Promise<void> {
  taking.value = where;
  await run(async () => {
    const { field, version } = await api('/api/adopt', {
      method: 'POST',
      body: { environmentId: props.environment.id, check: props.finding.check, place: where },
    });
    notes.say(`${briefLabel(field)} now says what was found: version ${version} of the brief.`);
  });
  taking.value = '';
}
const agree = (): Promise<void> =>
  run(
    () =>
      api('/api/acceptances/:id/second', {
        params: { id: props.finding.acceptance!.id },
        method: 'POST',
        body: {},
      }),
    'Agreed.',
  );

/** What the keys and buttons do, and what they say where that cannot be done. */
const ACTS: Record<LedgerAct, () => void | Promise<void>> = {
  accept() {
    if (props.finding.outcome === 'failed' && props.finding.fix) accepting.value = true;
    else notes.say('Only a fault can be accepted.');
  },
  attest() {
    if (props.finding.byHand) attesting.value = '';
    else notes.say('This is no manual check; the next audit decides it.');
  },
  adopt() {
    const spot = props.finding.places.find((p) => p.adopt && p.outcome !== 'passed' && !p.accepted);
    if (spot) return adopt(spot.place);
    notes.say('What was found here is nothing that the brief could take.');
  },
  assign() {
    const { fix, title } = props.finding;
    if (!fix) {
      notes.say('There is no fix to assign: this check has no open fault.');
      return;
    }
    const body = { ownerId: session.me!.id };
    return run(
      () => api('/api/fixes/:id', { params: { id: fix.id }, method: 'PATCH', body }),
      `${title}: assigned to you.`,
    );
  },
};
defineExpose({ act: (what: LedgerAct) => ACTS[what]() });
function attested(): void {
  attesting.value = false;
  emit('changed');
}
function accepted(): void {
  accepting.value = false;
  emit('changed');
}
</script>

<template>
  <aside class="sheet panel" :aria-label="`Evidence: ${finding.title}`">
    <div class="top">
      <h2>{{ finding.title }}</h2>
      <span class="spring" /><v-btn
        :icon="mdiClose"
        variant="text"
        size="x-small"
        aria-label="Close the evidence"
        @click="emit('close')"
      />
    </div>
    <p class="meta">
      <StitchMark :stitch="stitchOf(finding)" /><span
        >{{ finding.severity }}, weight {{ finding.weight }}</span
      ><code class="faint">{{ finding.check }}</code>
    </p>
    <p class="why">{{ finding.why }}</p>
    <DiffText
      v-if="finding.expected || finding.found"
      :expected="single?.expected ?? finding.expected ?? ''"
      :found="single?.found ?? finding.found ?? ''"
      :failed="finding.outcome === 'failed'"
    />
    <p v-if="finding.reason" class="faint">{{ REASONS[finding.outcome] }}{{ finding.reason }}</p>
    <p v-if="finding.note" class="own">{{ finding.note }}</p>
    <p v-for="n in finding.notes ?? []" :key="n" class="faint">{{ n }}</p>

    <section v-if="finding.byHand">
      <h3>Manual check</h3>
      <p v-if="finding.recipe">{{ finding.recipe.steps }}</p>
      <AttestForm
        v-if="attesting !== false"
        :key="attesting"
        :environment-id="environment.id"
        :finding="finding"
        :place="attesting || undefined"
        @done="attested"
        @cancel="attesting = false"
      />
      <div v-else>
        <v-btn size="small" @click="attesting = ''"
          >{{ finding.places.length > 1 ? 'Attest all' : 'Attest' }} <kbd>T</kbd></v-btn
        >
      </div>
      <AttestedList v-if="finding.attestations.length" :list="finding.attestations" />
    </section>

    <EvidenceRecipe v-if="finding.recipe && !finding.byHand" :recipe="finding.recipe" />

    <EvidencePlaces
      v-if="finding.places.length"
      :finding="finding"
      :busy="taking !== ''"
      @adopt="adopt"
      @attest="attesting = $event"
    />

    <AcceptanceNote
      v-if="finding.acceptance"
      :acceptance="finding.acceptance"
      :is-blocker="finding.severity === 'blocker'"
      @agree="agree"
    />

    <section v-if="finding.fix">
      <h3>Fix</h3>
      <AcceptForm
        v-if="accepting"
        :fix-id="finding.fix.id"
        :blocker="finding.severity === 'blocker'"
        @done="accepted"
        @cancel="accepting = false"
      />
      <FixWork
        :id="finding.fix.id"
        :can-accept="finding.outcome === 'failed' && !finding.accepted && !accepting"
        :accepted="Boolean(finding.acceptance)"
        @accept="accepting = true"
        @changed="emit('changed')"
      />
    </section>
    <p class="source faint">Rests on: {{ finding.source }}</p>
  </aside>
</template>

<style scoped>
.panel {
  padding: 12px 14px;
  display: grid;
  gap: 10px;
  align-content: start;
}
.panel > * {
  min-width: 0;
}
.top,
.meta {
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
}
.meta {
  flex-wrap: wrap;
  font-size: 13px;
}
.why {
  line-height: 1.55;
}
.panel :deep(section) {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding-top: 10px;
  display: grid;
  gap: 8px;
  min-width: 0;
}
.panel :deep(section > *) {
  min-width: 0;
}
.panel :deep(h3) {
  font-size: 13px;
  font-weight: 650;
}
.own {
  border-left: 3px solid rgb(var(--v-theme-primary));
  padding-left: 10px;
}
kbd {
  font-family: var(--mono);
  font-size: 11px;
  margin-left: 6px;
  opacity: 0.7;
}
.source {
  font-size: 12px;
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding-top: 8px;
}
</style>
