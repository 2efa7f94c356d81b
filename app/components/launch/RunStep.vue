<script setup lang="ts">
import { ACCOUNT_WORDS, PERFORMER_WORDS, PASTES } from '#core/facts/launch';
import type { SheetData, SheetStep } from '~/types';
import type { OutcomeSign } from '~/composables/words';

/** One step: its state and who, when, where; opened, what to do, what proves it, and the way back. */
const props = defineProps<{
  step: SheetStep;
  steps: ReadonlyMap<string, SheetStep>;
  launchId: number;
  siteId: number;
  contacts: SheetData['contacts'];
  environments: SheetData['environments'];
  /** The records as they were. */
  back: string;
  isOpen: boolean;
}>();
const emit = defineEmits<{ toggle: [] }>();
const SIGNS: Record<SheetStep['state'], OutcomeSign> = {
  done: 'passed',
  'went back': 'failed',
  'to prove': 'cantTell',
  'to do': 'untested',
  'left out': 'accepted',
  waits: 'inapplicable',
  'open at go': 'cantTell',
  'not applicable': 'inapplicable',
};
const copy = useCopying();
const people = usePeople();
const iso = (at: number): string => new Date(at).toISOString();
const note = ref('');
const outside = ref('');
const isLeaving = ref(false);
const { run: act, fault: undone } = useAction(
  async (body: { act: string; text?: string; ownerId?: number; contactId?: number; outside?: string }) => {
    await api('/api/launches/:id/steps/:step', {
      params: { id: props.launchId, step: props.step.id },
      method: 'POST',
      body,
    });
    note.value = '';
    isLeaving.value = false;
  },
  { inPlace: true },
);
const {
  run: look,
  busy: looking,
  fault: unseen,
} = useAction(
  () =>
    api('/api/launches/:id/look', {
      params: { id: props.launchId },
      method: 'POST',
      body: { step: props.step.id },
    }),
  { inPlace: true },
);
/** What can be looked at, or asked, from here. */
const LOOKED_AT: ReadonlySet<string> = new Set(['check', 'records', 'gate', 'told', 'mail', 'left']);
const canLook = computed(() => props.step.proofs.some((p) => LOOKED_AT.has(p.kind)));
const waits = computed(() =>
  props.step.waitsFor.flatMap((id) => {
    const other = props.steps.get(id);
    return other ? [`${other.title} (${other.owner?.name ?? PERFORMER_WORDS[other.who]})`] : [];
  }),
);
const isEarly = computed(() => (props.step.notBefore ?? 0) > clockNow());
/** It was to be done by now, and nothing keeps it from that. */
const isLate = computed(
  () => props.step.plannedAt < clockNow() && ['to do', 'to prove', 'went back'].includes(props.step.state),
);
const owners = computed(() => [
  { title: PERFORMER_WORDS[props.step.who], value: '' },
  ...people.value.map((p) => ({ title: p.name, value: `agency ${p.id}` })),
  ...props.contacts.map((c) => ({ title: `${c.name} (client)`, value: `client ${c.id}` })),
  { title: 'somebody outside …', value: 'outside' },
]);
const isOutside = ref(props.step.owner?.kind === 'outside');
const owner = computed(() => {
  if (isOutside.value) return 'outside';
  const { owner: one } = props.step;
  return one ? `${one.kind} ${one.id}` : '';
});
function setOwner(chosen: string): void {
  isOutside.value = chosen === 'outside';
  if (isOutside.value) return;
  const [kind, id] = chosen.split(' ');
  void act({
    act: 'own',
    ...(kind === 'agency' ? { ownerId: Number(id) } : kind === 'client' ? { contactId: Number(id) } : {}),
  });
}
</script>

<template>
  <li class="step" :class="{ open: isOpen }">
    <div class="row">
      <OutcomeMark :stitch="SIGNS[step.state]" wordless aria-hidden="true" />
      <span class="state" :class="{ fray: step.state === 'went back', faint: step.state === 'waits' }">{{
        step.state
      }}</span>
      <button type="button" class="title" :aria-expanded="isOpen" @click="emit('toggle')">
        {{ step.title }}
      </button>
      <span class="faint who">{{ step.owner?.name ?? PERFORMER_WORDS[step.who] }}</span>
      <span class="faint where">{{ step.where ? ACCOUNT_WORDS[step.where] : '' }}</span>
      <span class="when" :class="isLate ? 'late' : 'faint'"
        ><TimeAt :iso="iso(step.plannedAt)" /><template v-if="isLate">, late</template></span
      >
      <span class="acts">
        <v-btn
          v-if="['to do', 'to prove', 'went back', 'open at go'].includes(step.state)"
          size="small"
          :aria-label="`Done: ${step.title}`"
          @click="act({ act: 'done', text: note })"
          >Done</v-btn
        >
      </span>
    </div>
    <p v-if="step.state === 'went back' || step.state === 'to prove'" class="says">
      <template v-if="step.said">{{ step.said.by }} said it is done. </template>
      <template v-for="p in step.proofs" :key="`${p.kind} ${p.check}`"
        ><span v-if="p.outcome === 'failed'" class="fray">{{ p.title }}: {{ p.found ?? 'not yet' }}. </span
        ><span v-else-if="p.outcome === 'unseen'" class="faint"
          >{{ p.title }}: not looked at since.
        </span></template
      >
    </p>
    <p v-else-if="waits.length && step.state === 'waits'" class="says faint">
      waits for {{ waits.join('; ') }}
    </p>
    <p v-if="isEarly && step.state !== 'done'" class="says">
      Not before <TimeAt :iso="iso(step.notBefore!)" />: until then caches keep the old TTL.
    </p>
    <div v-if="isOpen" class="more">
      <p>{{ step.what }}</p>
      <p v-if="step.where && step.account" class="faint">
        {{ ACCOUNT_WORDS[step.where] }}: <b>{{ step.account.operator }}</b><template
          v-if="step.account.access"
          >, access: {{ step.account.access }}</template
        >
      </p>
      <p v-if="step.leftOut" class="faint">
        Left out by {{ step.leftOut.by }}, <TimeAt :iso="iso(step.leftOut.at)" />: {{ step.leftOut.reason }}
      </p>
      <p v-if="step.said?.note" class="faint">{{ step.said.by }}: {{ step.said.note }}</p>
      <p v-if="step.doneAt" class="faint">
        {{ step.isProven ? 'Proven' : `Done by ${step.said?.by}` }}, <TimeAt :iso="iso(step.doneAt)" />
      </p>
      <div v-if="step.proofs.length" class="proofs">
        <h4>Proven by</h4>
        <ul>
          <li v-for="p in step.proofs" :key="`${p.kind} ${p.check}`">
            <OutcomeMark :stitch="p.outcome === 'unseen' ? 'untested' : p.outcome" wordless />
            <NuxtLink
              v-if="p.check"
              :to="{
                path: `/sites/${siteId}`,
                query: { environment: environments[p.environment ?? 'live'], check: p.check },
              }"
              >{{ p.title }}</NuxtLink><span v-else>{{ p.title }}</span>
            <span class="faint"
              >{{ p.outcome === 'unseen' ? 'not looked at yet' : OUTCOME_WORDS[p.outcome]
              }}<template v-if="p.at && p.outcome !== 'unseen'">, <TimeAt :iso="iso(p.at)" /></template
              ><template v-if="p.found && p.outcome !== 'passed'">: {{ p.found }}</template></span
            >
          </li>
        </ul>
      </div>
      <p v-if="step.back"><b>The way back:</b> {{ step.back }}</p>
      <div v-if="step.paste === 'wanted' && back" class="paste">
        <div class="line">
          <h4>The records as they were</h4>
          <span class="spring" /><v-btn size="small" @click="copy(back)">Copy</v-btn>
        </div>
        <pre class="raw" tabindex="0">{{ back }}</pre>
      </div>
      <div v-if="step.text" class="paste">
        <div class="line">
          <h4>{{ PASTES[step.paste!] }}</h4>
          <span class="spring" /><v-btn size="small" @click="copy(step.text)">Copy</v-btn>
        </div>
        <pre class="raw" tabindex="0">{{ step.text }}</pre>
      </div>
      <div class="line">
        <v-btn v-if="canLook" size="small" :loading="looking" @click="look()">Look now</v-btn>
        <v-btn v-if="step.said" size="small" variant="text" @click="act({ act: 'undo', text: note })"
          >Not done after all</v-btn
        >
        <v-btn v-if="step.leftOut" size="small" variant="text" @click="act({ act: 'take up' })"
          >Take it up again</v-btn
        >
        <v-btn
          v-else-if="step.state !== 'done' && !isLeaving"
          size="small"
          variant="text"
          @click="isLeaving = true"
          >Leave out …</v-btn
        >
        <v-select
          :model-value="owner"
          :items="owners"
          label="Who"
          density="compact"
          hide-details
          class="owner"
          @update:model-value="setOwner($event)"
        />
        <v-text-field
          v-if="isOutside"
          v-model="outside"
          :placeholder="step.owner?.name ?? 'Name'"
          aria-label="Name of somebody outside"
          hide-details
          class="owner"
          @keydown.enter.prevent="act({ act: 'own', outside })"
        />
        <span v-if="step.minutes" class="faint">about {{ step.minutes }} min</span>
      </div>
      <form
        class="line"
        @submit.prevent="act(isLeaving ? { act: 'leave out', text: note } : { act: 'done', text: note })"
      >
        <v-text-field
          v-model="note"
          :label="isLeaving ? 'Why it is left out' : 'A note to it'"
          hide-details
          class="note"
        />
        <v-btn v-if="isLeaving" type="submit" size="small" :disabled="note.trim().length < 3"
          >Leave out</v-btn
        >
        <v-btn v-else-if="step.state !== 'waits'" type="submit" size="small" :disabled="!note.trim()"
          >Done, with this note</v-btn
        >
        <v-btn v-if="isLeaving" size="small" variant="text" @click="isLeaving = false">Cancel</v-btn>
      </form>
    </div>
    <p v-if="undone || unseen" class="fray says" role="alert">{{ undone || unseen }}</p>
  </li>
</template>

<style scoped>
.step {
  border-top: 1px solid rgb(var(--v-theme-rule));
  padding: 4px 0;
}
.row {
  display: grid;
  grid-template-columns: 18px 70px minmax(0, 1fr) 130px 110px 200px 76px;
  gap: 10px;
  align-items: center;
  min-height: 30px;
}
.title {
  text-align: left;
  font-weight: 550;
}
.open .title {
  color: rgb(var(--v-theme-primary));
}
.late {
  font-weight: 600;
}
.state,
.when {
  white-space: nowrap;
}
.acts {
  text-align: right;
}
.says {
  margin: 0 0 4px 108px;
  overflow-wrap: anywhere;
}
p {
  margin: 0;
}
.more {
  margin: 4px 0 10px 108px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.proofs ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 3px;
}
.proofs li {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: baseline;
  overflow-wrap: anywhere;
}
h4 {
  font-size: 13px;
  margin: 0;
}
.line {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: center;
}
.owner {
  max-width: 220px;
  min-width: 180px;
}
.note {
  min-width: 220px;
}
@media (max-width: 900px) {
  .row {
    grid-template-columns: 18px minmax(0, 1fr) auto;
    gap: 2px 8px;
  }
  .title {
    grid-column: 1 / -1;
    grid-row: 2;
  }
  .who,
  .when,
  .where {
    grid-row: 3;
  }
  .who {
    grid-column: 1 / 3;
  }
  .when {
    grid-column: 3;
  }
  .where {
    display: none;
  }
  .acts {
    grid-row: 1;
    grid-column: 3;
  }
  .more,
  .says {
    margin-left: 0;
  }
}
@media print {
  .acts {
    display: none;
  }
}
</style>
