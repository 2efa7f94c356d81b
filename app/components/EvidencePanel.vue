<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import type { LedgerFinding, Place } from '~/types';
import { briefLabel } from '#core/entry/brief-fields';

/**
 * One finding in full: the rule, expected against found, the raw evidence, the places, the recipe, the fix,
 * the source.
 */
const props = defineProps<{ finding: LedgerFinding; place: Place }>();
const emit = defineEmits<{ close: []; changed: [] }>();
const session = useSession();
const notes = useNotes();
const all = ref(false);
const accepting = ref(false);
const attesting = ref<string | false>(false);
const taking = ref('');
const PLACES = 6;
const ORDER = { failed: 0, cantTell: 1, passed: 2 };
const places = computed(() => [...props.finding.places].sort((a, b) => ORDER[a.outcome] - ORDER[b.outcome]));
const shown = computed(() => (all.value ? places.value : places.value.slice(0, PLACES)));
const single = computed(() => (props.finding.places.length === 1 ? props.finding.places[0] : undefined));

const takes = computed(() => places.value.filter((p) => p.take && p.outcome !== 'passed' && !p.accepted));
async function take(where: string): Promise<void> {
  taking.value = where;
  await run(async () => {
    const { field, version } = await api<{ field: string; version: number }>('/api/take', {
      method: 'POST',
      body: { environmentId: props.place.id, check: props.finding.check, place: where },
    });
    notes.say(`${briefLabel(field)} now says what was found: version ${version} of the brief.`);
  });
  taking.value = '';
}
async function act(what: 'accept' | 'assign' | 'attest' | 'take'): Promise<void> {
  if (what === 'accept') {
    if (props.finding.outcome === 'failed' && props.finding.fix) accepting.value = true;
    else notes.say('Only a fault can be accepted.');
  }
  if (what === 'attest') {
    if (props.finding.byHand) attesting.value = '';
    else notes.say('This check is not done by hand; the next audit decides it.');
  }
  if (what === 'take') {
    if (takes.value[0]) await take(takes.value[0].place);
    else notes.say('What was found here is nothing that the brief could take.');
  }
  if (what === 'assign') {
    if (!props.finding.fix) {
      notes.say('There is no fix to assign: this check has no open fault.');
      return;
    }
    await run(
      () =>
        api(`/api/fixes/${props.finding.fix!.id}`, { method: 'PATCH', body: { ownerId: session.me!.id } }),
      `${props.finding.title}: assigned to you.`,
    );
  }
}
async function run(call: () => Promise<unknown>, said = ''): Promise<void> {
  try {
    await call();
    if (said) notes.say(said);
    emit('changed');
  } catch (error) {
    notes.say((error as Error).message, true);
  }
}
async function copy(text: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    notes.say('Copied.');
  } catch {
    notes.say('The browser did not allow copying. Mark the text and copy it by hand.', true);
  }
}
defineExpose({ act });
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
    <p v-if="finding.reason" class="faint">
      {{
        finding.outcome === 'cantTell'
          ? 'Cannot tell: '
          : finding.outcome === 'inapplicable'
            ? 'Does not apply: '
            : ''
      }}{{ finding.reason }}
    </p>
    <p v-if="finding.note" class="own">{{ finding.note }}</p>
    <p v-for="n in finding.notes ?? []" :key="n" class="faint">{{ n }}</p>

    <section v-if="finding.byHand">
      <h3>By hand</h3>
      <p v-if="finding.recipe">{{ finding.recipe.steps }}</p>
      <AttestForm
        v-if="attesting !== false"
        :key="attesting"
        :place-id="place.id"
        :finding="finding"
        :place="attesting || undefined"
        @done="
          attesting = false;
          emit('changed');
        "
        @cancel="attesting = false"
      />
      <div v-else>
        <v-btn size="small" @click="attesting = ''"
          >{{ finding.places.length > 1 ? 'Attest all' : 'Attest' }} <kbd>T</kbd></v-btn
        >
      </div>
      <AttestedList v-if="finding.attestations.length" :list="finding.attestations" />
    </section>

    <section v-if="finding.recipe && !finding.byHand">
      <h3>How to mend it</h3>
      <p>{{ finding.recipe.steps }}</p>
      <div
        v-for="p in (finding.recipe.paste ?? []).filter((x) => x.text)"
        :key="p.label + p.text"
        class="paste"
      >
        <div class="label">
          <span class="faint cut">{{ p.label }}</span><button
            type="button"
            class="link"
            @click="copy(p.text)"
          >
            Copy
          </button>
        </div>
        <pre class="raw">{{ p.text }}</pre>
      </div>
    </section>

    <section v-if="finding.places.length">
      <h3>{{ finding.placeCount === 1 ? 'Where' : `${finding.placeCount} places` }}</h3>
      <div v-for="p in shown" :key="p.place" class="spot">
        <div class="label">
          <StitchMark :stitch="p.accepted ? 'accepted' : p.outcome" wordless /><span class="mono where">{{
            p.place
          }}</span
          ><span class="spring" /><button
            v-if="p.take && p.outcome !== 'passed' && !p.accepted"
            type="button"
            class="link"
            :disabled="taking !== ''"
            :title="`The brief is wrong: ${briefLabel(p.take.field)} becomes what was found`"
            @click="take(p.place)"
          >
            Take into the brief</button
          ><button v-if="finding.byHand" type="button" class="link" @click="attesting = p.place">
            Attest
          </button>
        </div>
        <DiffText
          v-if="finding.places.length > 1 && p.outcome === 'failed' && p.expected && p.found"
          :expected="p.expected"
          :found="p.found"
          failed
        />
        <p
          v-else-if="finding.places.length > 1 && (p.found || p.reason)"
          :class="{ faint: p.outcome !== 'failed' }"
        >
          {{ p.found ?? p.reason }}
        </p>
        <pre v-if="p.raw" class="raw">{{ p.raw }}</pre>
      </div>
      <button v-if="places.length > PLACES && !all" type="button" class="link" @click="all = true">
        Show all {{ places.length }}
      </button>
      <p v-if="finding.placeCount > finding.places.length" class="faint">
        The first {{ finding.places.length }} of {{ finding.placeCount }} places are kept here.
      </p>
    </section>

    <section v-if="finding.acceptance">
      <h3>Left on purpose</h3>
      <p>
        {{ finding.acceptance.by }}: {{ finding.acceptance.reason }}
        <span class="faint"
          >Until {{ finding.acceptance.until
          }}<template v-if="finding.acceptance.seconded"
            >, agreed by {{ finding.acceptance.seconded }}</template
          >.</span
        >
      </p>
      <p v-if="finding.severity === 'blocker' && !finding.acceptance.seconded">
        A blocker needs a second person’s agreement before it counts.
        <v-btn
          v-if="finding.acceptance.byId !== session.me?.id"
          size="small"
          @click="
            run(
              () => api(`/api/acceptances/${finding.acceptance!.id}/second`, { method: 'POST', body: {} }),
              'Agreed.',
            )
          "
          >Agree</v-btn
        >
      </p>
    </section>

    <section v-if="finding.fix">
      <h3>Fix</h3>
      <AcceptForm
        v-if="accepting"
        :fix-id="finding.fix.id"
        :blocker="finding.severity === 'blocker'"
        @done="
          accepting = false;
          emit('changed');
        "
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
.meta,
.label {
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
}
.label {
  justify-content: flex-start;
}
.paste .label {
  justify-content: space-between;
}
.meta {
  flex-wrap: wrap;
  font-size: 13px;
}
.why {
  line-height: 1.55;
}
section {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding-top: 10px;
  display: grid;
  gap: 8px;
  min-width: 0;
}
section > * {
  min-width: 0;
}
h3 {
  font-size: 13px;
  font-weight: 650;
}
.paste {
  min-width: 0;
}
.own {
  border-left: 3px solid rgb(var(--v-theme-primary));
  padding-left: 10px;
}
.link {
  white-space: nowrap;
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
}
.where {
  overflow-wrap: anywhere;
}
.spot {
  display: grid;
  gap: 3px;
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
