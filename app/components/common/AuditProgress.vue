<script setup lang="ts">
import type { RunningAudit } from '~/types';

defineProps<{ audit: RunningAudit }>();
const audits = useAudits();
</script>

<template>
  <div class="progress" role="status">
    <v-progress-linear
      :model-value="audit.total ? (100 * audit.done) / audit.total : 0"
      :indeterminate="!audit.total"
      height="4"
      color="primary"
      rounded
      aria-label="Progress of the audit"
    />
    <div class="line">
      <span class="num cut"
        >{{ audit.phase }}<template v-if="audit.total > 1">{{ ` ${audit.done} of ${audit.total}` }}</template
        ><span v-if="audit.current" class="faint mono"> {{ audit.current }}</span></span
      >
      <button type="button" class="stop" @click="audits.stop(audit.id)">Stop</button>
    </div>
  </div>
</template>

<style scoped>
.progress {
  min-width: 0;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  margin-top: 3px;
}
.stop {
  text-decoration: underline;
  color: rgb(var(--v-theme-primary));
}
</style>
