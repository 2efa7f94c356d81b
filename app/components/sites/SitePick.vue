<script setup lang="ts">
import { refDebounced } from '@vueuse/core';
import type { FoundSite } from '~/types';

/** Sites to choose. */
const chosen = defineModel<Pick<FoundSite, 'id' | 'name'>[]>({ required: true });
defineProps<{
  label: string;
  /** One at most. */
  single?: boolean;
}>();
const typed = ref('');
const words = refDebounced(typed, 80);
const { data } = useApiQuery('/api/sites/find', {
  key: ['roster', 'find'],
  query: () => ({ words: words.value || undefined }),
});
const found = computed(() => (data.value ?? []).map(({ id, name }) => ({ id, name })));
</script>

<template>
  <NamePick
    v-model="chosen"
    v-model:words="typed"
    :found="found"
    :label="label"
    :single="single"
    none="No site is called that."
  />
</template>
