<script setup lang="ts">
import { quantity } from '#core/text/quantity';

/** The versions of a checklist, newest first. */
const props = defineProps<{ id: number; present: number }>();
const emit = defineEmits<{ back: [version: number]; close: [] }>();
const { rows, fault, hasMore, more } = useApiInfiniteQuery('/api/checklists/:id/versions', {
  key: ['checklists', props.id, 'versions'],
  params: { id: props.id },
});
</script>

<template>
  <section class="sheet pad" aria-label="Versions">
    <div class="page-head">
      <h2>Versions</h2>
      <span class="spring" /><v-btn size="small" variant="text" @click="emit('close')">Close</v-btn>
    </div>
    <div v-for="v in rows ?? []" :key="v.version" class="version">
      <span class="num">Version {{ v.version }}</span
      ><span class="faint"
        >{{ v.savedBy ?? 'Armband' }}, <TimeAt :iso="v.savedAt" />, {{ quantity(v.checks, 'check') }}</span
      ><span class="spring" /><v-btn
        size="small"
        :disabled="v.version === present"
        @click="emit('back', v.version)"
        >Bring back</v-btn
      >
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <v-btn v-if="hasMore" size="small" variant="text" @click="more()">Older ones</v-btn>
  </section>
</template>

<style scoped>
.pad {
  padding: 12px 16px;
}
.version {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid rgb(var(--v-theme-rule));
}
</style>
