<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import type { Checklist } from '#core/facts/checklist';

/**
 * What a checklist would change in score and gate of chosen sites, judged from their stored evidence; nothing
 * is kept.
 */
const props = defineProps<{
  id: number;
  checklist: () => Promise<Checklist | undefined>;
  sites: { count: number; some: { id: number; name: string }[] };
}>();
const emit = defineEmits<{ close: [] }>();
const live = useLive();
const which = ref<'its' | 'every' | 'some'>(props.sites.count ? 'its' : 'every');
const chosen = ref<{ id: number; name: string }[]>([]);
const jobId = ref(0);
const open = ref(0);
/** How far it is is told; what it has found so far is read with each step. */
const told = computed(() => live.progress.jobs.find((j) => j.id === jobId.value));
const { data: read, fault: unread } = useApiQuery('/api/checklists/preview/:job', {
  key: () => ['job', jobId.value],
  params: () => ({ job: jobId.value }),
  query: () => ({ done: told.value?.done }),
  when: () => jobId.value > 0,
});
const job = computed(() => (read.value?.id === jobId.value ? read.value : undefined));
const isGoing = computed(() => job.value?.status === 'waiting' || job.value?.status === 'running');
const { run: look, fault: refused } = useAction(
  async () => {
    const list = await props.checklist();
    if (!list) return;
    const sites = {
      its: { ofChecklist: props.id },
      every: { every: true },
      some: { siteIds: chosen.value.map((s) => s.id) },
    }[which.value];
    const started = await api('/api/checklists/preview', {
      method: 'POST',
      body: { checklist: list, ...sites },
    });
    jobId.value = started.job;
  },
  { inPlace: true },
);
const fault = computed(() => unread.value || refused.value);
const { run: stop } = useAction(() =>
  api('/api/jobs/:job/stop', { params: { job: jobId.value }, method: 'POST', body: {} }),
);
onBeforeUnmount(() => {
  if (isGoing.value) void stop();
});
const tally = computed(() => {
  const { looked = 0, changing = 0 } = job.value ?? {};
  const left = looked - changing;
  return `${changing} of ${quantity(looked, 'environment')} would change${left ? `; ${left} stay as they are` : ''}`;
});
</script>

<template>
  <section class="sheet ahead" aria-label="What would change">
    <div class="page-head">
      <h2>What would change</h2>
      <span class="faint">Judged from stored evidence; nothing is kept.</span><span class="spring" /><v-btn
        size="small"
        variant="text"
        @click="emit('close')"
        >Close</v-btn
      >
    </div>
    <div class="buttons">
      <v-radio-group v-model="which" inline hide-details label="Sites">
        <v-radio v-if="sites.count" value="its" :label="`The ${sites.count} that it is for`" />
        <v-radio value="every" label="All sites" />
        <v-radio value="some" label="Some" />
      </v-radio-group>
      <SitePick v-if="which === 'some'" v-model="chosen" label="Sites" />
      <v-btn color="primary" :disabled="(which === 'some' && !chosen.length) || isGoing" @click="look()"
        >Preview changes</v-btn
      >
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <JobProgress v-if="job && job.status !== 'done'" :job="job" @stop="stop()" />
    <template v-if="job?.looked"
      ><p class="num">{{ tally }}.</p>
      <div class="table">
        <div v-for="a in job.results" :key="a.environmentId" class="one">
          <button
            type="button"
            class="row"
            :aria-expanded="open === a.environmentId"
            :disabled="!a.changes.length"
            @click="open = open === a.environmentId ? 0 : a.environmentId"
          >
            <span class="cut">{{ a.site }}, {{ a.environment }}</span
            ><span class="num"
              >{{ a.before.score ?? '–' }} → <b>{{ a.after.score ?? '–' }}</b></span
            ><span><GateWord :gate="a.before.gate" /> → <GateWord :gate="a.after.gate" /></span
            ><span class="faint num">{{
              a.changes.length ? `${quantity(a.changes.length, 'check')} ▾` : 'no difference'
            }}</span>
          </button>
          <ul v-if="open === a.environmentId">
            <li v-for="c in a.changes" :key="c.check">
              {{ c.title }} <span class="faint">{{ c.from }} → {{ c.to }}</span>
            </li>
          </ul>
        </div>
      </div>
      <p v-if="job.changing > job.results.length" class="faint">
        The {{ job.results.length }} that change most are listed.
      </p></template
    >
    <p v-else-if="job?.status === 'done'" class="faint">None of these sites was audited yet.</p>
  </section>
</template>

<style scoped>
.ahead {
  padding: 12px 16px;
  display: grid;
  gap: 10px;
}
.page-head {
  margin: 0;
}
.buttons {
  display: flex;
  gap: 10px;
  align-items: center;
  max-width: 640px;
}
.table {
  max-height: 340px;
  overflow: auto;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 90px 190px 110px;
  gap: 12px;
  width: 100%;
  text-align: left;
  padding: 5px 0;
  align-items: center;
}
.one {
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
ul {
  padding: 0 0 8px 22px;
  font-size: 13px;
}
@media (max-width: 700px) {
  .row {
    grid-template-columns: minmax(0, 1fr) 90px;
  }
}
</style>
