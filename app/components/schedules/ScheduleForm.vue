<script setup lang="ts">
import { PART_WORDS, PARTS, type Part } from '#core/facts/parts';
import { STAGES } from '#core/facts/situation';
import type { Answer } from '~/composables/api';

/** One schedule, to be added or changed. */
type Schedule = Answer<'/api/schedules'>[number];
const props = defineProps<{ schedule?: Schedule }>();
const emit = defineEmits<{ done: [] }>();
const OF = [
  { value: 'all', title: 'all' },
  { value: 'stage', title: 'of a stage' },
  { value: 'client', title: 'of a client' },
  { value: 'host', title: 'at a host' },
  { value: 'site', title: 'one' },
] as const;
const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'].map(
  (title, i) => ({ title, value: i + 1 }),
);
const STAGES_AUDITED: string[] = STAGES.filter((s) => s !== 'retired');
const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;
const form = reactive({
  name: '',
  ofKind: 'stage' as Schedule['ofKind'],
  ofTarget: 'launched',
  parts: [] as Part[],
  checklistId: null as number | null,
  pageLimit: 0,
  every: 'day' as Schedule['every'],
  weekday: 6,
  from: '01:00',
  to: '05:00',
  notFrom: '',
  notTo: '',
  timeZone: HERE,
  pausedUntil: '',
  isOn: true,
  ...(props.schedule && withoutNames(props.schedule)),
});
function withoutNames({ id: _, of: __, checklist: ___, by: ____, ...rest }: Schedule) {
  return { ...rest, parts: [...rest.parts] };
}
/** Everything, a list, or parts. */
const what = ref<'all' | 'list' | 'parts'>(form.parts.length ? 'parts' : form.checklistId ? 'list' : 'all');
const { data: lists } = useApiQuery('/api/checklists', { key: ['checklists'] });
const { data: hosts } = useApiQuery('/api/host-profiles', { key: ['host-profiles'] });
const target = ref(
  props.schedule && /^\d+$/.test(props.schedule.ofTarget)
    ? [{ id: Number(props.schedule.ofTarget), name: props.schedule.of }]
    : [],
);
const {
  run: save,
  busy,
  fault,
} = useAction(
  async () => {
    const picked =
      form.ofKind === 'site' || form.ofKind === 'client' ? `${target.value.at(-1)?.id ?? ''}` : form.ofTarget;
    const body = {
      ...form,
      ofTarget: form.ofKind === 'all' ? '' : picked,
      what: what.value,
      parts: what.value === 'parts' ? form.parts : [],
      checklistId: what.value === 'list' ? form.checklistId : null,
    };
    if (props.schedule)
      await api('/api/schedules/:id', { params: { id: props.schedule.id }, method: 'PUT', body });
    else await api('/api/schedules', { method: 'POST', body });
    emit('done');
  },
  { inPlace: true },
);
const { run: drop, busy: dropping } = useAction(
  async () => {
    await api('/api/schedules/:id', { params: { id: props.schedule!.id }, method: 'DELETE', body: {} });
    emit('done');
  },
  { inPlace: true },
);
watch(
  () => form.ofKind,
  (kind) => {
    target.value = [];
    form.ofTarget = kind === 'stage' ? 'launched' : '';
  },
);
</script>

<template>
  <form class="sheet form" @submit.prevent="save()">
    <h2>{{ schedule ? 'Change the schedule' : 'Add a schedule' }}</h2>
    <v-text-field v-model="form.name" label="Name" autofocus />
    <div class="pair">
      <v-select v-model="form.ofKind" :items="[...OF]" label="Sites" />
      <v-select
        v-if="form.ofKind === 'stage'"
        v-model="form.ofTarget"
        :items="STAGES_AUDITED"
        label="Stage"
      />
      <v-select
        v-else-if="form.ofKind === 'host'"
        v-model="form.ofTarget"
        :items="(hosts ?? []).map((h) => ({ value: String(h.id), title: h.name }))"
        label="Host profile"
      />
      <SitePick v-else-if="form.ofKind === 'site'" v-model="target" label="Site" single />
      <ClientPick v-else-if="form.ofKind === 'client'" v-model="target" label="Client" single />
    </div>
    <v-radio-group v-model="what" inline hide-details label="Looks at">
      <v-radio value="all" label="everything" />
      <v-radio value="list" label="only what a checklist checks" />
      <v-radio value="parts" label="parts" />
    </v-radio-group>
    <v-select
      v-if="what === 'list'"
      v-model="form.checklistId"
      :items="(lists ?? []).map((l) => ({ value: l.id, title: l.name }))"
      label="Checklist"
    />
    <v-select
      v-if="what === 'parts'"
      v-model="form.parts"
      :items="PARTS.map((p) => ({ value: p, title: PART_WORDS[p] }))"
      label="Parts"
      multiple
      chips
    />
    <div class="pair">
      <v-select
        v-model="form.every"
        :items="[
          { value: 'day', title: 'every day' },
          { value: 'week', title: 'once a week' },
        ]"
        label="How often"
      />
      <v-select v-if="form.every === 'week'" v-model="form.weekday" :items="WEEKDAYS" label="Day" />
      <PageLimit v-model="form.pageLimit" label="Pages of each site, at most" usual="as each site says" />
    </div>
    <div class="four">
      <v-text-field v-model="form.from" label="From" type="time" />
      <v-text-field v-model="form.to" label="To" type="time" />
      <v-text-field v-model="form.notFrom" label="Not between" type="time" />
      <v-text-field v-model="form.notTo" label="and" type="time" />
    </div>
    <div class="pair">
      <v-text-field v-model="form.timeZone" label="Time zone, where the brief names none" />
      <DayInput v-model="form.pausedUntil" label="Paused until" />
    </div>
    <v-switch v-model="form.isOn" label="Switched on" color="primary" density="compact" hide-details />
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div class="page-head">
      <v-btn v-if="schedule" variant="text" :loading="dropping" @click="drop()">Delete</v-btn
      ><span class="spring" /><v-btn variant="text" @click="emit('done')">Cancel</v-btn
      ><v-btn type="submit" color="primary" variant="flat" :loading="busy" :disabled="!form.name.trim()"
        >Save</v-btn
      >
    </div>
  </form>
</template>

<style scoped>
.form {
  padding: 18px 20px;
  display: grid;
  gap: 12px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.four {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 10px;
}
@media (max-width: 600px) {
  .pair,
  .four {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
