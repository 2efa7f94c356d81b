<script setup lang="ts">
import {
  mdiCalendarOutline,
  mdiDotsHorizontal,
  mdiLanguageMarkdownOutline,
  mdiPrinterOutline,
} from '@mdi/js';
import { CONDITIONS, PHASES, PHASE_WORDS } from '#core/facts/launch';
import { actionsOf, isSettled } from '#core/launch/sheet';
import { quantity } from '#core/text/quantity';
import type { SheetStep, SiteDetail } from '~/types';

/** The run sheet of a site’s launch: go or no-go, what can be done now, who waits for whom, and all by phase. */
const props = defineProps<{ site: SiteDetail }>();
const emit = defineEmits<{ launch: [] }>();
const { data: sheet, fault } = useApiQuery('/api/sites/:id/sheet', {
  key: () => ['site', props.site.id, 'sheet'],
  params: () => ({ id: props.site.id }),
});
const plannedAt = ref(likelyMoment(props.site.launchDate));
const {
  run: begin,
  busy: beginning,
  fault: unbegun,
} = useAction(
  () =>
    api('/api/sites/:id/sheet', {
      params: { id: props.site.id },
      method: 'POST',
      body: { plannedAt: plannedAt.value },
    }),
  { inPlace: true },
);
const steps = computed((): SheetStep[] => sheet.value?.steps ?? []);
const shown = computed(() => steps.value.filter((s) => s.state !== 'not applicable'));
const done = computed(() => shown.value.filter((s) => isSettled(s)).length);
const openAtGo = computed(() => shown.value.filter((s) => s.state === 'open at go'));
const doable = computed(() => actionsOf(shown.value).filter((s) => s.state !== 'open at go'));
const waiting = computed(() => shown.value.filter((s) => s.state === 'waits'));
const settledSteps = computed(() => shown.value.filter((s) => isSettled(s)));
const absent = computed(() => steps.value.filter((s) => s.state === 'not applicable'));
const titles = computed(() => new Map(steps.value.map((s) => [s.id, s])));
type Way = 'now' | 'all';
const way = ref<Way>('now');
const WAYS = computed(() => [
  { key: 'now' as const, label: 'What can be done', n: doable.value.length },
  { key: 'all' as const, label: 'By phase', n: shown.value.length },
]);
const groups = computed(() =>
  way.value === 'now'
    ? [
        { title: 'Now', steps: doable.value },
        { title: 'Waiting', steps: waiting.value },
        { title: 'Open at go', steps: openAtGo.value },
        { title: 'Done and left out', steps: settledSteps.value },
      ]
    : PHASES.map((phase) => ({
        title: PHASE_WORDS[phase],
        steps: shown.value.filter((s) => s.phase === phase),
      })),
);
const opened = ref('');
const isMoving = ref(false);
const movedTo = ref('');
const { run: move, fault: unmoved } = useAction(
  async () => {
    await api('/api/launches/:id', {
      params: { id: sheet.value!.launch.id },
      method: 'PATCH',
      body: { plannedAt: movedTo.value },
    });
    isMoving.value = false;
  },
  { inPlace: true },
);
const isEnding = ref(false);
const learnt = ref('');
const { run: end, fault: unended } = useAction(
  async (how: 'done' | 'given up') => {
    await api('/api/launches/:id/end', {
      params: { id: sheet.value!.launch.id },
      method: 'POST',
      body: { how, learnt: learnt.value },
    });
    isEnding.value = false;
    learnt.value = '';
  },
  { inPlace: true },
);
const print = (): void => window.print();
/** A file of the sheet. */
const fileOf = (as: string): string => `/api/launches/${sheet.value!.launch.id}/file?as=${as}`;
</script>

<template>
  <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  <v-progress-linear v-else-if="sheet === undefined" indeterminate color="primary" aria-label="Loading" />
  <section v-else-if="sheet === null" class="sheet begin" aria-label="Ready to launch">
    <div class="head">
      <h2>{{ site.stage === 'launched' ? 'Launched' : 'Ready to launch?' }}</h2>
      <span class="spring" />
      <v-btn
        v-if="site.stage !== 'launched' && site.stage !== 'retired'"
        size="small"
        variant="text"
        @click="emit('launch')"
        >Set to launched …</v-btn
      >
    </div>
    <LaunchStand :site-id="site.id" />
    <form v-if="site.stage !== 'retired'" class="line" @submit.prevent="begin()">
      <MomentInput v-model="plannedAt" label="Launch planned for" />
      <v-btn type="submit" color="primary" variant="flat" :loading="beginning" :disabled="!plannedAt"
        >Make the run sheet</v-btn
      >
    </form>
    <p v-if="unbegun" class="fray" role="alert">{{ unbegun }}</p>
    <p class="faint">
      The sheet has the steps that this site needs, in order: who does what where, what proves it, and the way
      back. <NuxtLink to="/launch-template">The agency’s run sheet</NuxtLink> says which.
    </p>
  </section>
  <template v-else>
    <GoLine :sheet="sheet" :site="site" />
    <section class="sheet run" aria-label="Run sheet">
      <div class="head">
        <div>
          <h2>Run sheet</h2>
          <p class="faint">
            <template v-if="sheet.launchedAt"
              >Launched <TimeAt :iso="sheet.launchedAt" />, planned for <TimeAt :iso="sheet.launch.plannedAt"
            /></template>
            <template v-else
              >Launch planned for <TimeAt :iso="sheet.launch.plannedAt" /> ({{
                daysFrom(sheet.launch.plannedAt)
              }})</template
            >
            · {{ done }} of {{ quantity(shown.length, 'step') }} done<template v-if="openAtGo.length"
              >, {{ openAtGo.length }} open at go</template
            >
            ·
            <span :title="sheet.untilHow"
              >old answers expire by <TimeAt :iso="sheet.until" /> ({{ sheet.untilHow }})</span
            >
          </p>
        </div>
        <span class="spring" />
        <FilterButtons v-model="way" :options="WAYS" label="Steps" />
        <v-menu>
          <template #activator="{ props: menu }"
            ><v-btn
              v-bind="menu"
              :icon="mdiDotsHorizontal"
              size="small"
              variant="text"
              aria-label="More of this launch"
          /></template>
          <MenuList label="More of this launch">
            <MenuItem
              title="Plan another time …"
              :prepend-icon="mdiCalendarOutline"
              @click="
                movedTo = sheet.launch.plannedAt;
                isMoving = true;
              "
            />
            <MenuItem title="Print" :prepend-icon="mdiPrinterOutline" @click="print" />
            <MenuItem
              title="As Markdown"
              :prepend-icon="mdiLanguageMarkdownOutline"
              :href="fileOf('markdown')"
            />
            <MenuItem
              title="As a calendar (iCalendar)"
              :prepend-icon="mdiCalendarOutline"
              :href="fileOf('icalendar')"
            />
            <MenuItem title="End this launch …" @click="isEnding = true" />
          </MenuList>
        </v-menu>
      </div>
      <form v-if="isMoving" class="line" @submit.prevent="move()">
        <MomentInput v-model="movedTo" label="Launch planned for" />
        <v-btn type="submit" size="small" :disabled="!movedTo">All steps move with it</v-btn>
        <v-btn size="small" variant="text" @click="isMoving = false">Cancel</v-btn>
        <span v-if="unmoved" class="fray" role="alert">{{ unmoved }}</span>
      </form>
      <form v-if="isEnding" class="end" @submit.prevent="end('done')">
        <v-textarea v-model="learnt" label="What was learnt" rows="2" auto-grow hide-details />
        <div class="line">
          <v-btn type="submit" size="small" color="primary" variant="flat">The launch is done</v-btn>
          <v-btn size="small" @click="end('given up')">It was given up</v-btn>
          <v-btn size="small" variant="text" @click="isEnding = false">Cancel</v-btn>
        </div>
        <p v-if="unended" class="fray" role="alert">{{ unended }}</p>
      </form>
      <template v-for="g in groups" :key="g.title">
        <h3 v-if="g.steps.length">
          {{ g.title }} <span class="faint num">{{ g.steps.length }}</span>
        </h3>
        <p v-else-if="g.title === 'Now'" class="faint">
          {{ waiting.length ? 'Nothing can be done before others are through.' : 'All steps are done.' }}
        </p>
        <ul v-if="g.steps.length" class="steps">
          <RunStep
            v-for="s in g.steps"
            :key="s.id"
            :step="s"
            :steps="titles"
            :launch-id="sheet.launch.id"
            :contacts="sheet.contacts"
            :environments="sheet.environments"
            :back="sheet.back"
            :site-id="site.id"
            :is-open="opened === s.id"
            @toggle="opened = opened === s.id ? '' : s.id"
          />
        </ul>
      </template>
      <details v-if="absent.length" class="faint">
        <summary>{{ quantity(absent.length, 'step') }} of the agency’s sheet not needed here</summary>
        <ul>
          <li v-for="s in absent" :key="s.id">{{ s.title }} (only where {{ CONDITIONS[s.when] }})</li>
        </ul>
      </details>
    </section>
  </template>
</template>

<style scoped>
.begin,
.run {
  padding: 14px 16px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}
.head,
.line {
  display: flex;
  gap: 8px 14px;
  flex-wrap: wrap;
  align-items: center;
}
p {
  margin: 0;
}
h3 {
  font-size: 14px;
  margin: 8px 0 0;
}
.steps {
  list-style: none;
  padding: 0;
  margin: 0;
}
.end {
  display: grid;
  gap: 8px;
}
details ul {
  margin: 6px 0 0;
}
</style>
