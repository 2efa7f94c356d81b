<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import type { ChecklistDetail } from '~/types';

/** The versions of a checklist, newest first. */
defineProps<{ versions: ChecklistDetail['versions']; present: number }>();
const emit = defineEmits<{ back: [version: ChecklistDetail['versions'][number]]; close: [] }>();
const askedIn = (v: ChecklistDetail['versions'][number]): number =>
  v.data.items.filter((i) => i.on !== false).length;
</script>

<template>
  <section class="sheet pad" aria-label="Versions">
    <div class="page-head">
      <h2>Versions</h2>
      <span class="spring" /><v-btn size="small" variant="text" @click="emit('close')">Close</v-btn>
    </div>
    <div v-for="v in versions" :key="v.version" class="version">
      <span class="num">Version {{ v.version }}</span
      ><span class="faint"
        >{{ v.savedBy ?? 'Armband' }}, <TimeAt :iso="v.savedAt" />, {{ quantity(askedIn(v), 'check') }}</span
      ><span class="spring" /><v-btn size="small" :disabled="v.version === present" @click="emit('back', v)"
        >Bring back</v-btn
      >
    </div>
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
