<script setup lang="ts">
import type { Section } from '#core/facts/finding';
import type { LedgerLine } from '~/types';

/** Reads what lies folded away in one section, once it is unfolded. It shows nothing itself. */
const props = defineProps<{ siteId: number; environmentId: number; section: Section; words: string }>();
const emit = defineEmits<{ lines: [lines: LedgerLine[]] }>();
const { data } = useApiQuery('/api/environments/:id/ledger/folded', {
  key: () => ['site', props.siteId, 'ledger', props.environmentId],
  params: () => ({ id: props.environmentId }),
  query: () => ({ section: props.section, words: props.words || undefined }),
});
watch(data, (lines) => lines && emit('lines', lines), { immediate: true });
onBeforeUnmount(() => emit('lines', []));
</script>

<template><slot /></template>
