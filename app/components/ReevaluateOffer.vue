<script setup lang="ts">
import { quantity } from '#core/text/quantity';

/** Offers to judge the stored evidence of sites by the checklist that is theirs now. */
const props = defineProps<{ sites: { id: number; name: string }[] }>();
const emit = defineEmits<{ judge: [siteIds: number[]]; later: [] }>();
const chosen = ref(props.sites.map((s) => s.id));
const summary = computed(() =>
  chosen.value.length === props.sites.length
    ? 'all of them'
    : `${chosen.value.length} of ${props.sites.length}`,
);
</script>

<template>
  <p class="again sheet">
    <span
      >{{ quantity(sites.length, 'site is', 'sites are') }} judged by this checklist from now on. What is
      stored of them was judged by what held before.</span
    ><v-autocomplete
      v-model="chosen"
      :items="sites"
      item-title="name"
      item-value="id"
      label="Sites to re-evaluate"
      multiple
      variant="outlined"
      density="compact"
      hide-details
      class="which"
      ><template #selection="{ index }"
        ><span v-if="index === 0" class="cut">{{ summary }}</span></template
      ></v-autocomplete
    ><v-btn
      size="small"
      color="primary"
      variant="flat"
      :disabled="!chosen.length"
      @click="emit('judge', chosen)"
      >Re-evaluate their stored evidence</v-btn
    ><v-btn size="small" variant="text" @click="emit('later')">Wait for the next audits</v-btn>
  </p>
</template>

<style scoped>
.again {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 10px 14px;
  margin-bottom: 12px;
  flex-wrap: wrap;
  border-color: rgb(var(--v-theme-primary));
}
.which {
  max-width: 240px;
}
</style>
