<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import type { FoundSite } from '~/types';

/** Sites to choose, looked for by name on the server. */
type Choice = Pick<FoundSite, 'id' | 'name'>;
const chosen = defineModel<Choice[]>({ required: true });
defineProps<{ label: string }>();
const typed = ref('');
const words = ref('');
watchDebounced(typed, (w) => (words.value = w ?? ''), { debounce: 80 });
const { data: found } = useReading('/api/sites/find', {
  key: ['roster', 'find'],
  query: () => ({ words: words.value || undefined }),
});
</script>

<template>
  <v-autocomplete
    v-model="chosen"
    v-model:search="typed"
    :items="(found ?? []).map(({ id, name }) => ({ id, name }))"
    item-title="name"
    item-value="id"
    :label="label"
    return-object
    multiple
    chips
    closable-chips
    no-filter
    clear-on-select
    no-data-text="No site is called that."
  />
</template>
