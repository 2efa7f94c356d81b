<script setup lang="ts">
import { placesText, placesTitle } from '#core/text/scope-words';
import { briefLabel } from '#core/entry/brief-fields';
import type { Answer } from '~/composables/api';
import type { LedgerFinding } from '~/types';

/** Where a check looked, and what it saw there: faults first. */
const props = defineProps<{
  siteId: number;
  environmentId: number;
  finding: LedgerFinding;
  busy: boolean;
}>();
const emit = defineEmits<{ adopt: [place: string]; attest: [place: string] }>();
type Spot = LedgerFinding['places'][number];
const FIRST = 6;
const all = ref(false);
const further = ref<Spot[]>([]);
const { run: more, busy: reading } = useAction(async () => {
  further.value = [
    ...further.value,
    ...(await api('/api/environments/:id/findings/:check/places', {
      params: { id: props.environmentId, check: props.finding.check },
      query: { from: places.value.length },
    })),
  ];
});
const places = computed(() => [...props.finding.places, ...further.value]);
const shown = computed(() => (all.value ? places.value : places.value.slice(0, FIRST)));
const isOne = computed(() => props.finding.placeCount === 1);
const heading = computed(() => {
  const { scope, failing, placeCount } = props.finding;
  if (placeCount === 1) return 'Where';
  return placesText(scope, failing, placeCount) || placesTitle(scope, placeCount);
});
const copy = useCopying();
/** The commands that show a place, once they were asked for. */
const commands = ref<Record<string, Answer<'/api/environments/:id/findings/:check/commands'>>>({});
const { run: showCommands } = useAction(async (place: string) => {
  const { finding, environmentId: id } = props;
  const answer = await api('/api/environments/:id/findings/:check/commands', {
    params: { id, check: finding.check },
    query: { place },
  });
  // what was chosen meanwhile is another check’s place
  if (finding.check === props.finding.check) commands.value[place] = answer;
});
// another audit, or another check, saw others
watch(
  () => props.finding,
  () => {
    further.value = [];
    commands.value = {};
  },
);
const canAdopt = (p: Spot): boolean => Boolean(p.adopt) && p.outcome !== 'passed' && !p.accepted;
const hasDifference = (p: Spot): boolean =>
  !isOne.value && p.outcome === 'failed' && Boolean(p.expected) && Boolean(p.found);
</script>

<template>
  <section>
    <h3>{{ heading }}</h3>
    <div v-for="p in shown" :key="p.place" class="spot">
      <div class="label">
        <OutcomeMark :stitch="p.accepted ? 'accepted' : p.outcome" wordless /><span class="mono where">{{
          p.place
        }}</span
        ><span class="spring" /><button
          v-if="canAdopt(p)"
          type="button"
          class="link"
          :disabled="busy"
          :title="`The brief is wrong: ${briefLabel(p.adopt!.field)} becomes what was found`"
          @click="emit('adopt', p.place)"
        >
          Use in the brief</button
        ><button v-if="finding.byHand" type="button" class="link" @click="emit('attest', p.place)">
          Attest
        </button>
      </div>
      <DiffText v-if="hasDifference(p)" :expected="p.expected!" :found="p.found!" failed />
      <p v-else-if="!isOne && (p.found || p.reason)" :class="{ faint: p.outcome !== 'failed' }">
        {{ p.found ?? p.reason }}
      </p>
      <pre v-if="p.raw" class="raw">{{ p.raw }}</pre>
      <button
        v-if="!finding.byHand && commands[p.place] === undefined"
        type="button"
        class="link start"
        @click="showCommands(p.place)"
      >
        See it yourself
      </button>
      <div v-for="c in commands[p.place] ?? []" :key="c.line" class="command">
        <pre class="raw" tabindex="0">{{ c.line }}</pre>
        <v-btn size="small" :aria-label="`Copy the ${c.tool} command`" @click="copy(c.line)">Copy</v-btn>
      </div>
      <p v-if="commands[p.place]?.length === 0" class="faint">No command shows this place.</p>
    </div>
    <button v-if="places.length > FIRST && !all" type="button" class="link" @click="all = true">
      Show {{ places.length === finding.placeCount ? 'all' : 'the first' }} {{ places.length }}
    </button>
    <button
      v-else-if="all && places.length < finding.placeCount"
      type="button"
      class="link"
      :disabled="reading"
      @click="more()"
    >
      Show more of {{ finding.placeCount }}
    </button>
  </section>
</template>

<style scoped>
.spot {
  display: grid;
  gap: 3px;
}
.label {
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
}
.where {
  overflow-wrap: anywhere;
}
.command {
  display: flex;
  gap: 8px;
  align-items: start;
}
.command pre {
  flex: 1;
  min-width: 0;
}
.start {
  justify-self: start;
}
.link {
  white-space: nowrap;
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
}
</style>
