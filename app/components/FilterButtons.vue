<script setup lang="ts" generic="K extends string">
/** One of a few ways to look at a list, each with how many it shows. */
defineProps<{ options: { key: K; label: string; n?: number }[]; label: string }>();
const chosen = defineModel<K>({ required: true });
</script>

<template>
  <div class="filters" role="group" :aria-label="label">
    <button
      v-for="o in options"
      :key="o.key"
      type="button"
      :aria-pressed="chosen === o.key"
      :class="{ on: chosen === o.key }"
      @click="chosen = o.key"
    >
      {{ o.label }} <span v-if="o.n !== undefined" class="num">{{ o.n }}</span>
    </button>
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  overflow: hidden;
  background: rgb(var(--v-theme-surface));
}
button {
  padding: 5px 12px;
  white-space: nowrap;
}
button + button {
  border-left: 1px solid rgb(var(--v-theme-rule));
}
button.on {
  background: rgb(var(--v-theme-primary), 0.12);
  font-weight: 600;
}
@media (max-width: 600px) {
  .filters {
    width: 100%;
  }
  button {
    flex: 1;
    padding: 5px 4px;
    font-size: 13px;
  }
}
</style>
