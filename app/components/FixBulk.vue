<script setup lang="ts">
import { quantity } from '#core/text/quantity';

/** One change for many fixes: owner, due date, state. */
const props = defineProps<{ ids: readonly number[] }>();
const emit = defineEmits<{ done: [] }>();
const team = usePeople();
const notes = useNotes();
const { run: change, busy } = useDoing(async (body: Record<string, unknown>, said: string) => {
  const { changed, refused } = await api('/api/fixes', {
    method: 'PATCH',
    body: { ids: props.ids, ...body },
  });
  if (changed) notes.say(`${quantity(changed, 'fix is', 'fixes are')} ${said}.`);
  if (refused.length)
    notes.say(`${quantity(refused.length, 'fix')} left as before: ${refused[0]!.reason}`, true);
  emit('done');
});
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
