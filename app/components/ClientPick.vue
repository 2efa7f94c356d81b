<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import type { ClientLine } from '~/types';

/** Clients to choose, looked for by name on the server. */
type Choice = Pick<ClientLine, 'id' | 'name'>;
const chosen = defineModel<Choice[]>({ required: true });
defineProps<{ label: string }>();
const typed = ref('');
const words = ref('');
watchDebounced(typed, (w) => (words.value = w ?? ''), { debounce: 80 });
const { data: found } = useReading('/api/clients', {
  key: ['clients'],
  query: () => ({ words: words.value || undefined }),
});
</script>

<template>
  <v-autocomplete
    v-model="chosen"
    v-model:search="typed"
    :items="(found?.rows ?? []).map(({ id, name }) => ({ id, name }))"
    item-title="name"
    item-value="id"
    :label="label"
    return-object
    multiple
    chips
    closable-chips
    no-filter
    clear-on-select
    no-data-text="No client is called that."
  />
</template>
