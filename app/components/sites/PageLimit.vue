<script setup lang="ts">
import { MOST_PAGES } from '#core/facts/page-limit';

/** How many pages an audit reads at most; 0 for what is usual. */
const limit = defineModel<number>({ required: true });
defineProps<{ label: string; usual: string }>();
/** Nothing in the field stands for 0. */
const shown = computed({
  get: () => limit.value || null,
  set: (value: number | null) => (limit.value = value ?? 0),
});
</script>

<template>
  <v-number-input
    v-model="shown"
    :label="label"
    :placeholder="usual"
    persistent-placeholder
    :min="1"
    :max="MOST_PAGES"
    control-variant="hidden"
    clearable
  />
</template>
