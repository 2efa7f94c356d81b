<script setup lang="ts">
import type { Job } from '~/types';

/** How far a piece of long work is. */
defineProps<{ job: Job }>();
const emit = defineEmits<{ stop: [] }>();
</script>

<template>
  <div class="job" role="status">
    <span class="cut">{{ job.title }}</span><span class="num faint">{{ job.done }} of {{ job.total }}</span
    ><v-progress-linear
      :model-value="job.total ? (100 * job.done) / job.total : 100"
      color="primary"
      height="4"
      class="bar"
      :aria-label="job.title"
    /><button
      v-if="job.status === 'running' || job.status === 'waiting'"
      type="button"
      class="link"
      @click="emit('stop')"
    >
      Stop</button
    ><span v-else-if="job.status === 'failed'" class="fray">{{ job.error }}</span
    ><span v-else-if="job.status === 'stopped'" class="faint">stopped</span>
  </div>
</template>

<style scoped>
.job {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 4px 12px;
  align-items: center;
}
.bar {
  grid-column: 1 / -1;
}
.link {
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
}
</style>
