<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import type { Checklist } from '#core/facts/checklist';
import type { Ahead, PreviewJob } from '~/types';

/**
 * What a checklist would change in score and gate of chosen sites, judged from their stored evidence; nothing
 * is kept.
 */
const props = defineProps<{
  checklist: () => Promise<Checklist | undefined>;
  sites: { id: number; name: string }[];
}>();
const emit = defineEmits<{ close: [] }>();
const every = ref<{ id: number; name: string }[]>([]);
const chosen = ref<number[]>(props.sites.map((s) => s.id));
const job = ref<PreviewJob | null>(null);
const fault = ref('');
const open = ref(0);
let timer: ReturnType<typeof setTimeout> | undefined;
onMounted(async () => {
  every.value = (await api('/api/roster').catch(() => [])).map((r) => ({
    id: r.id,
    name: r.name,
  }));
});
onBeforeUnmount(() => {
  clearTimeout(timer);
  if (job.value?.status === 'running') void stop();
});
async function look(): Promise<void> {
  fault.value = '';
  const list = await props.checklist();
  if (!list) return;
  try {
    const { job: id } = await api('/api/checklists/preview', {
      method: 'POST',
      body: { checklist: list, siteIds: chosen.value },
    });
    await follow(id);
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
async function follow(id: string): Promise<void> {
  try {
    job.value = await api('/api/checklists/preview/:job', { params: { job: id } });
    if (job.value.status === 'running') timer = setTimeout(() => void follow(id), 500);
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
async function stop(): Promise<void> {
  if (job.value)
    await api('/api/jobs/:job/stop', { params: { job: job.value.id }, method: 'POST', body: {} }).catch(
      () => {},
    );
}
const rows = computed(() =>
  [...(job.value?.results ?? [])].sort((a, b) => weightOf(b) - weightOf(a) || a.site.localeCompare(b.site)),
);
const GATES = { clear: 0, undecided: 1, held: 2 };
const differs = (a: Ahead): boolean => a.before.score !== a.after.score || a.before.gate !== a.after.gate;
function weightOf(a: Ahead): number {
  return (
    (a.before.gate !== a.after.gate
      ? 1000 + 10 * (GATES[a.after.gate] - (a.before.gate ? GATES[a.before.gate] : 0))
      : 0) +
    Math.abs((a.after.score ?? 0) - (a.before.score ?? 0)) +
    (a.changes.length ? 0.5 : 0)
  );
}
/** What stays as it is is counted, not listed. */
const changing = computed(() => rows.value.filter((a) => a.changes.length || differs(a)));
const tally = computed(() => {
  const [all, left] = [rows.value.length, rows.value.length - changing.value.length];
  return `${changing.value.length} of ${quantity(all, 'environment')} would change${left ? `; ${left} stay as they are` : ''}`;
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
      <v-autocomplete
        v-model="chosen"
        :items="every"
        item-title="name"
        item-value="id"
        label="Sites"
        multiple
        variant="outlined"
        density="compact"
        hide-details
        ><template #selection="{ index }"
          ><span v-if="index === 0" class="cut">{{ quantity(chosen.length, 'site') }}</span></template
        ></v-autocomplete
      ><v-btn variant="text" size="small" @click="chosen = every.map((s) => s.id)">All sites</v-btn
      ><v-btn color="primary" :disabled="!chosen.length || job?.status === 'running'" @click="look"
        >Preview changes</v-btn
      >
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <JobProgress v-if="job && job.status !== 'done'" :job="job" @stop="stop" />
    <template v-if="rows.length"
      ><p class="num">{{ tally }}.</p>
      <div class="table">
        <div v-for="a in changing" :key="a.environmentId" class="one">
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
      </div></template
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
