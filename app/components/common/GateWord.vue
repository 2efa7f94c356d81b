<script setup lang="ts">
import type { Gate } from '#core/score/score';

/** The gate in a word, heavy when held. */
defineProps<{ gate: Gate | null; note?: string }>();
</script>

<template>
  <span class="gate" :class="gate ?? 'none'" :title="note">{{ gate ?? '–' }}</span>
</template>

<style scoped>
.gate {
  font-weight: 600;
}
.gate.held {
  color: rgb(var(--v-theme-error));
}
.gate.undecided,
.gate.none {
  color: rgb(var(--v-theme-faint));
}
.gate.clear {
  color: rgb(var(--v-theme-primary));
}
</style>
