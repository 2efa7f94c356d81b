<script setup lang="ts">
import { mdiEyeRefreshOutline } from '@mdi/js';
import { quantity } from '#core/text/quantity';

/** One change for many fixes: owner, due date, state. */
const props = defineProps<{ ids: readonly number[] }>();
const emit = defineEmits<{ done: [] }>();
const team = usePeople();
const notes = useNotes();
/** So many are changed with one call: each takes a moment, and all of one call are changed together. */
const AT_ONCE = 200;
const { run: change, busy } = useAction(async (body: Record<string, unknown>, said: string) => {
  let changed = 0;
  const reasons: string[] = [];
  for (let i = 0; i < props.ids.length; i += AT_ONCE) {
    const ids = props.ids.slice(i, i + AT_ONCE);
    const answer = await api('/api/fixes', { method: 'PATCH', body: { ids, ...body } });
    changed += answer.changed;
    reasons.push(...answer.refused.map((refusal) => refusal.reason));
  }
  if (changed) notes.say(`${quantity(changed, 'fix is', 'fixes are')} ${said}.`);
  if (reasons.length) notes.say(`${quantity(reasons.length, 'fix')} left as before: ${reasons[0]}`, true);
  emit('done');
});
const audits = useAudits();
async function look(): Promise<void> {
  for (let i = 0; i < props.ids.length; i += AT_ONCE)
    await audits.checkAgain(props.ids.slice(i, i + AT_ONCE));
  emit('done');
}
const people = computed(() => [
  { title: 'nobody', value: 0 },
  ...team.value.map((p) => ({ title: p.name, value: p.id })),
]);
function assign(ownerId: number): void {
  const name = team.value.find((p) => p.id === ownerId)?.name ?? 'nobody';
  void change({ ownerId }, `${name}’s now`);
}
</script>

<template>
  <div class="bulk" role="group" aria-label="For all chosen">
    <v-select
      :model-value="null"
      label="Assign to"
      :items="people"
      :disabled="busy"
      class="owner"
      @update:model-value="assign($event!)"
    />
    <DayInput
      :model-value="''"
      label="Due"
      class="due"
      @update:model-value="change({ dueDate: $event }, 'given that due date')"
    />
    <v-btn size="small" :disabled="busy" @click="change({ state: 'in progress' }, 'in progress')"
      >In progress</v-btn
    >
    <v-btn size="small" :disabled="busy" @click="change({ state: 'to verify' }, 'to verify')"
      >To verify</v-btn
    >
    <v-btn size="small" :disabled="busy" :prepend-icon="mdiEyeRefreshOutline" @click="look"
      >Look whether they are gone</v-btn
    >
  </div>
</template>

<style scoped>
.bulk {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.owner {
  width: 170px;
}
.due {
  width: 160px;
}
</style>
