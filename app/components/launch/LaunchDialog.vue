<script setup lang="ts">
/** Before a site is set to launched: what stands against it, and what follows. */
defineProps<{ siteId: number; name: string; hasLive: boolean }>();
const emit = defineEmits<{ launch: [] }>();
const isOpen = defineModel<boolean>({ required: true });
function launch(): void {
  isOpen.value = false;
  emit('launch');
}
</script>

<template>
  <v-dialog v-model="isOpen" max-width="640" :aria-label="`Launch ${name}`" scrollable>
    <v-card class="launch">
      <h2>Launch {{ name }}?</h2>
      <LaunchStand :site-id="siteId" />
      <p class="faint">
        From then on the live address is to be open to search engines, and everything before it closed.
        <template v-if="hasLive">The live address is audited at once.</template>
        <template v-else>There is no live address yet: add one under <b>Edit site</b>.</template>
      </p>
      <div class="acts">
        <v-btn color="primary" variant="flat" @click="launch">Set to launched</v-btn>
        <v-btn variant="text" @click="isOpen = false">Not yet</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.launch {
  padding: 18px 20px;
  display: grid;
  gap: 12px;
  overflow: auto;
}
.launch p {
  margin: 0;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
