<script setup lang="ts">
/** A day and time in the reader’s zone; the model is ISO 8601, empty while it is none. */
defineProps<{ label: string }>();
const model = defineModel<string>({ required: true });
const MINUTE_MS = 60_000;

function localOf(iso: string): string {
  const at = new Date(iso);
  if (Number.isNaN(at.getTime())) return '';
  return new Date(at.getTime() - MINUTE_MS * at.getTimezoneOffset()).toISOString().slice(0, 16);
}
const text = computed({
  get: () => localOf(model.value),
  set: (typed) => {
    const at = new Date(typed);
    model.value = Number.isNaN(at.getTime()) ? '' : at.toISOString();
  },
});
</script>

<template>
  <label class="moment"
    ><span>{{ label }}</span> <input v-model="text" type="datetime-local"
  /></label>
</template>

<style scoped>
.moment {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
input {
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  padding: 3px 6px;
  background: rgb(var(--v-theme-surface));
  color: inherit;
  color-scheme: inherit;
}
</style>
