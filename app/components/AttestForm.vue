<script setup lang="ts">
const props = defineProps<{ placeId: number; check: string }>();
const emit = defineEmits<{ done: []; cancel: [] }>();
const note = ref('');
const busy = ref(false);
async function attest(done: boolean): Promise<void> {
  busy.value = true;
  try { await api(`/api/environments/${props.placeId}/attest`, { method: 'POST', body: { check: props.check, done, ...(note.value.trim() ? { note: note.value.trim() } : {}) } }); useNotes().say(done ? 'Attested.' : 'Noted as not done.'); emit('done'); } catch (error) { useNotes().say((error as Error).message, true); } finally { busy.value = false; }
}
</script>

<template>
  <form class="form" @submit.prevent="attest(true)" @keydown.esc.stop="emit('cancel')">
    <v-textarea v-model="note" label="Note (what was looked at, and where the proof lies)" rows="2" autofocus />
    <div class="buttons"><v-btn type="submit" color="primary" variant="flat" size="small" :loading="busy">It is done</v-btn><v-btn size="small" :disabled="busy" @click="attest(false)">It is not done</v-btn><v-btn size="small" variant="text" @click="emit('cancel')">Cancel</v-btn></div>
  </form>
</template>

<style scoped>.form { display: grid; gap: 8px; } .buttons { display: flex; gap: 8px; flex-wrap: wrap; }</style>
