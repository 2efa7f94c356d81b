<script setup lang="ts">
import { refDebounced } from '@vueuse/core';
import type { ClientLine } from '~/types';

/** Clients to choose. */
const chosen = defineModel<Pick<ClientLine, 'id' | 'name'>[]>({ required: true });
const props = defineProps<{
  label: string;
  /** One that is not to be chosen. */
  except?: number;
  /** One at most. */
  single?: boolean;
}>();
const typed = ref('');
const words = refDebounced(typed, 80);
const { data } = useApiQuery('/api/clients', {
  key: ['clients'],
  query: () => ({ words: words.value || undefined }),
});
const found = computed(() =>
  (data.value?.rows ?? []).filter((c) => c.id !== props.except).map(({ id, name }) => ({ id, name })),
);
</script>

<template>
  <NamePick
    v-model="chosen"
    v-model:words="typed"
    :found="found"
    :label="label"
    :single="single"
    none="No client is called that."
  />
</template>
