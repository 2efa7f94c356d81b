<script setup lang="ts">
import type { Environment, SiteDetail } from '~/types';

/** The pages of a site: all of them, their texts, and the pictures that they share. */
const props = defineProps<{
  site: SiteDetail;
  environment: Environment;
  audit: { id: number; at: string } | undefined | null;
}>();
const view = defineModel<string>('view', { required: true });
const VIEWS = [
  { key: 'table', label: 'All pages' },
  { key: 'texts', label: 'Titles and descriptions' },
  { key: 'pictures', label: 'Share picture and icons' },
];
/** Texts and pictures are made for what is there now. */
const newest = computed(() => props.environment.audit);
</script>

<template>
  <FilterButtons v-model="view" :options="VIEWS" label="View" class="views" />
  <PictureWorkshop
    v-if="view === 'pictures'"
    :key="`i${environment.id}`"
    :site="site"
    :environment="environment"
  />
  <TextBench
    v-else-if="view === 'texts' && newest"
    :key="`t${environment.id}`"
    :site="site"
    :environment="environment"
    :audit-id="newest.id"
  />
  <PagesView
    v-else-if="view === 'table' && audit"
    :key="`p${audit.id}`"
    :site-id="site.id"
    :site-name="site.name"
    :environment-id="environment.id"
    :audit-id="audit.id"
    :at="audit.at"
  />
  <div v-else class="sheet empty">
    <p>No page of {{ environment.name.toLowerCase() }} was read yet. <b>Audit now</b> reads them.</p>
  </div>
</template>

<style scoped>
.views {
  margin-bottom: 12px;
  max-width: 100%;
  overflow-x: auto;
}
</style>
