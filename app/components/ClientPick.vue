<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import type { ClientLine } from '~/types';

/** Clients to choose, looked for by name on the server. */
type Choice = Pick<ClientLine, 'id' | 'name'>;
const chosen = defineModel<Choice[]>({ required: true });
const props = defineProps<{
  label: string;
  /** One that is not to be chosen. */
  except?: number;
  /** One at most. */
  single?: boolean;
}>();
const typed = ref('');
const words = ref('');
watchDebounced(typed, (w) => (words.value = w ?? ''), { debounce: 80 });
const { data: found } = useReading('/api/clients', {
  key: ['clients'],
  query: () => ({ words: words.value || undefined }),
});
const choices = computed(() =>
  (found.value?.rows ?? []).filter((c) => c.id !== props.except).map(({ id, name }) => ({ id, name })),
);
</script>

<template>
  <v-autocomplete
    v-model:search="typed"
    :model-value="single ? (chosen[0] ?? null) : chosen"
    :items="choices"
    item-title="name"
    item-value="id"
    :label="label"
    return-object
    :multiple="!single"
    chips
    closable-chips
    no-filter
    clear-on-select
    no-data-text="No client is called that."
    @update:model-value="chosen = [$event].flat().filter((c): c is Choice => Boolean(c))"
  />
</template>
