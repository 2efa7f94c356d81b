<script setup lang="ts">
import { quantity } from '#core/text/quantity';

/** Offers to judge the stored evidence of sites by the checklist that is theirs now. */
defineProps<{ count: number }>();
const emit = defineEmits<{ judge: []; later: [] }>();
</script>

<template>
  <p class="again sheet">
    <span
      >{{ quantity(count, 'site is', 'sites are') }} judged by this checklist from now on. What is stored of
      them was judged by what held before.</span
    ><v-btn size="small" color="primary" variant="flat" @click="emit('judge')"
      >Re-evaluate their stored evidence</v-btn
    ><v-btn size="small" variant="text" @click="emit('later')">Wait for the next audits</v-btn>
  </p>
</template>

<style scoped>
.again {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 10px 14px;
  margin-bottom: 12px;
  flex-wrap: wrap;
  border-color: rgb(var(--v-theme-primary));
}
.which {
  max-width: 240px;
}
</style>
