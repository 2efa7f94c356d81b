<script setup lang="ts">
/** Leaving a fault on purpose: a reason and an end date. */
const props = defineProps<{ fixId: number; blocker: boolean }>();
const emit = defineEmits<{ done: []; cancel: [] }>();
const reason = ref('');
const until = ref(new Date(clockNow() + 90 * 86_400_000).toISOString().slice(0, 10));
const missing = ref('');
const {
  run: keep,
  busy,
  fault: refused,
} = useAction(
  async (because: string) => {
    const { needsSecond } = await api('/api/fixes/:id/accept', {
      params: { id: props.fixId },
      method: 'POST',
      body: { reason: because, until: until.value },
    });
    useNotes().say(
      needsSecond ? 'Kept. It counts once a second person has agreed.' : 'Accepted as found now.',
    );
    emit('done');
  },
  { inPlace: true },
);
const fault = computed(() => missing.value || refused.value);
function accept(): void {
  const because = reason.value.trim();
  missing.value = because.length < 3 ? 'Say why it is left.' : '';
  if (!missing.value) void keep(because);
}
</script>

<template>
  <form class="form" @submit.prevent="accept" @keydown.esc.stop="emit('cancel')">
    <p class="faint">
      The fault is left where it was found now, with the value found; anywhere else or another value opens it
      again.<template v-if="blocker"> A blocker needs a second person’s agreement.</template>
    </p>
    <v-textarea v-model="reason" label="Why it is left" rows="2" autofocus />
    <DayInput v-model="until" label="Until" />
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div class="buttons">
      <v-btn type="submit" color="primary" variant="flat" size="small" :loading="busy">Accept the fault</v-btn
      ><v-btn size="small" variant="text" @click="emit('cancel')">Cancel</v-btn>
    </div>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  gap: 8px;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
