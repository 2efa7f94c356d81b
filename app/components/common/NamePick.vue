<script setup lang="ts" generic="C extends { id: number; name: string }">
/** Things to choose by name, looked for on the server while it is typed. */
const chosen = defineModel<C[]>({ required: true });
const words = defineModel<string>('words', { required: true });
defineProps<{
  found: readonly C[];
  label: string;
  none: string;
  /** One at most. */
  single?: boolean;
}>();
</script>

<template>
  <v-autocomplete
    v-model:search="words"
    :model-value="single ? (chosen[0] ?? null) : chosen"
    :items="found"
    item-title="name"
    item-value="id"
    :label="label"
    return-object
    :multiple="!single"
    chips
    closable-chips
    no-filter
    clear-on-select
    :no-data-text="none"
    @update:model-value="chosen = [$event].flat().filter((c): c is C => Boolean(c))"
  />
</template>
