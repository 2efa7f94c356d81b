<script setup lang="ts">
import { PART_WORDS, PARTS, type Part } from '#core/facts/parts';

/** Parts of an environment, or some of its pages, that are to be looked at again; the rest stays as it was seen. */
const emit = defineEmits<{ look: [scope: { parts: Part[]; pages?: string[] }] }>();
const open = ref(false);
const parts = ref<Part[]>([]);
const pages = ref('');
const addresses = computed(() =>
  pages.value
    .split(/\s+/)
    .map((a) => a.trim())
    .filter(Boolean),
);
function look(): void {
  const some = parts.value.includes('pages') ? [] : addresses.value;
  emit('look', { parts: parts.value, ...(some.length ? { pages: some } : {}) });
  open.value = false;
}
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false" location="bottom end">
    <template #activator="{ props }"><v-btn v-bind="props" variant="text">Look again …</v-btn></template>
    <form class="sheet again" aria-label="Look again at a part" @submit.prevent="look">
      <p>Only what is chosen is collected; the rest stays as it was seen, with its age.</p>
      <v-checkbox
        v-for="p in PARTS"
        :key="p"
        v-model="parts"
        :value="p"
        :label="PART_WORDS[p]"
        density="compact"
        hide-details
      />
      <v-textarea
        v-if="!parts.includes('pages')"
        v-model="pages"
        label="Or some pages, one a line"
        rows="2"
        class="mono"
      />
      <v-btn
        type="submit"
        color="primary"
        variant="flat"
        size="small"
        :disabled="!parts.length && !addresses.length"
        >Look again</v-btn
      >
    </form>
  </v-menu>
</template>

<style scoped>
.again {
  padding: 12px 14px;
  width: 330px;
  display: grid;
  gap: 6px;
}
.again :deep(.v-selection-control) {
  min-height: 30px;
}
.again :deep(.v-label) {
  font-size: 14px;
}
</style>
