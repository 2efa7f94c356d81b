<script setup lang="ts">
import type { Severity } from '#core/facts/finding';

/** A check's title with its severity; a blocker that is still a fault stands out. */
defineProps<{ title: string; severity: Severity; open: boolean }>();
</script>

<template>
  <span class="title">
    <span class="cut">{{ title }}</span>
    <span class="severity" :class="{ blocker: open && severity === 'blocker' }">{{ severity }}</span>
  </span>
</template>

<style scoped>
.title {
  display: flex;
  gap: 8px;
  align-items: baseline;
  min-width: 0;
}
.severity {
  font-size: 12px;
  color: rgb(var(--v-theme-faint));
}
.severity.blocker {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
</style>
