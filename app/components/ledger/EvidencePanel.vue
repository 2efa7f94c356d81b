<script setup lang="ts">
import { headingOf } from '#core/facts/heading';
import { mdiClose, mdiEyeRefreshOutline } from '@mdi/js';
import { briefLabel } from '#core/entry/brief-fields';
import { PART_WORDS } from '#core/facts/parts';
import type { LedgerAct } from '~/composables/ledger-keys';
import type { LedgerFinding, Environment } from '~/types';

/**
 * One finding in full: the rule, expected against found, the raw evidence, the places, the recipe, the fix,
 * the source.
 */
const props = defineProps<{ siteId: number; finding: LedgerFinding; environment: Environment }>();
const emit = defineEmits<{ close: [] }>();
const session = useSession();
const notes = useNotes();
const audits = useAudits();
const live = useLive();
const accepting = ref(false);
const attesting = ref<string | false>(false);
const taking = ref('');
const single = computed(() => (props.finding.placeCount === 1 ? props.finding.places[0] : undefined));
/** Where a check that looks for itself cannot tell, or somebody has vouched for it. */
const canVouch = computed(
  () =>
    Boolean(props.finding.attestable) &&
    (props.finding.outcome === 'cantTell' || props.finding.attestations.length > 0),
);
const REASONS: Partial<Record<string, string>> = {
  cantTell: 'Cannot tell: ',
  inapplicable: 'Not applicable: ',
};

const { run: adopt } = useAction(async (where: string) => {
  taking.value = where;
  try {
    const { field, version } = await api('/api/adopt', {
      method: 'POST',
      body: { environmentId: props.environment.id, check: props.finding.check, place: where },
    });
    notes.say(`${briefLabel(field)} now says what was found: version ${version} of the brief.`);
  } finally {
    taking.value = '';
  }
});
const { run: agree } = useAction(async () => {
  const { id } = props.finding.acceptance!;
  await api('/api/acceptances/:id/second', { params: { id }, method: 'POST', body: {} });
  notes.say('Agreed.');
});
const { run: assignToMe } = useAction(async (id: number) => {
  await api('/api/fixes/:id', { params: { id }, method: 'PATCH', body: { ownerId: session.me!.id } });
  notes.say(`${headingOf(props.finding)}: assigned to you.`);
});

/** What the keys and buttons do, and what they say where that cannot be done. */
const ACTS: Record<LedgerAct, () => unknown> = {
  accept() {
    if (props.finding.outcome === 'failed' && props.finding.fix) accepting.value = true;
    else notes.say('Only a fault can be accepted.');
  },
  attest() {
    if (props.finding.byHand || canVouch.value) attesting.value = '';
    else notes.say('This is no manual check; the next audit decides it.');
  },
  adopt() {
    const spot = props.finding.places.find((p) => p.adopt && p.outcome !== 'passed' && !p.accepted);
    if (spot) return adopt(spot.place);
    notes.say('What was found here is nothing that the brief could take.');
  },
  assign() {
    const { fix } = props.finding;
    if (fix) return assignToMe(fix.id);
    notes.say('There is no fix to assign: this check has no open fault.');
  },
};
defineExpose({ act: (what: LedgerAct) => ACTS[what]() });
</script>

<template>
  <aside class="sheet panel" :aria-label="`Evidence: ${headingOf(finding)}`">
    <div class="top">
      <h2>{{ headingOf(finding) }}</h2>
      <span class="spring" /><v-btn
        :icon="mdiClose"
        variant="text"
        size="x-small"
        aria-label="Close the evidence"
        @click="emit('close')"
      />
    </div>
    <p class="meta">
      <OutcomeMark :stitch="outcomeSign(finding)" /><span
        >{{ finding.severity }}, weight {{ finding.weight }}</span
      ><code class="faint">{{ finding.check }}</code
      ><span class="spring" /><v-btn
        v-if="!finding.byHand && !live.running.has(environment.id)"
        size="x-small"
        variant="text"
        :prepend-icon="mdiEyeRefreshOutline"
        title="Collects what this check rests on, and judges it anew"
        @click="audits.start([environment.id], { checks: [finding.check] })"
        >Look again</v-btn
      >
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
    <p v-if="finding.ages" class="faint">
      Its parts were looked at at different times:
      <template v-for="(a, i) in finding.ages" :key="`${a.part} ${a.at}`"
        >{{ i ? ', ' : '' }}{{ PART_WORDS[a.part] }} <TimeAt :iso="a.at" /></template
      >.
    </p>
    <p v-for="n in finding.notes ?? []" :key="n" class="faint">{{ n }}</p>
    <section v-if="finding.pictures && environment.audit">
      <h3>{{ finding.pictures === 'phone' ? 'On a phone' : 'In a browser' }}</h3>
      <SeenPages
        :site-id="siteId"
        :environment-id="environment.id"
        :audit-id="environment.audit.id"
        :urls="finding.pictures === 'phone' ? undefined : finding.places.map((p) => p.place)"
        :only="finding.pictures === 'phone' ? 'phone' : undefined"
        :most="finding.pictures === 'phone' ? 12 : 3"
      />
    </section>

    <section v-if="finding.byHand || canVouch">
      <h3>{{ finding.byHand ? 'Manual check' : 'Or somebody looks' }}</h3>
      <p v-if="finding.recipe && finding.byHand">{{ finding.recipe.steps }}</p>
      <AttestForm
        v-if="attesting !== false"
        :key="attesting"
        :environment-id="environment.id"
        :finding="finding"
        :place="attesting || undefined"
        @done="attesting = false"
        @cancel="attesting = false"
      />
      <div v-else>
        <v-btn size="small" @click="attesting = ''"
          >{{ finding.placeCount > 1 ? 'Attest all' : 'Attest' }} <kbd>T</kbd></v-btn
        >
      </div>
      <AttestedList v-if="finding.attestations.length" :list="finding.attestations" />
    </section>

    <EvidenceRecipe v-if="finding.recipe && !finding.byHand" :recipe="finding.recipe" />

    <EvidencePlaces
      v-if="finding.places.length"
      :site-id="siteId"
      :environment-id="environment.id"
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
        @done="accepting = false"
        @cancel="accepting = false"
      />
      <FixWork
        :id="finding.fix.id"
        :can-accept="finding.outcome === 'failed' && !finding.accepted && !accepting"
        :accepted="Boolean(finding.acceptance)"
        @accept="accepting = true"
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
  border: 0;
  padding: 0;
  margin-left: 6px;
  opacity: 0.7;
}
.source {
  font-size: 12px;
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding-top: 8px;
}
</style>
