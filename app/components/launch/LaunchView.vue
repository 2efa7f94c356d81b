<script setup lang="ts">
import type { SiteDetail } from '~/types';

/** On the way to the launch: the run sheet, the records that change, the watch, the accounts, the holding page, the log. */
const props = defineProps<{ site: SiteDetail }>();
const emit = defineEmits<{ launch: [] }>();
const route = useRoute();
const VIEWS = computed(() => [
  { key: 'sheet', label: 'Run sheet' },
  { key: 'plan', label: 'Records' },
  { key: 'watch', label: 'Watch' },
  { key: 'accounts', label: 'Accounts' },
  ...(props.site.replaces ? [{ key: 'former', label: 'Former addresses' }] : []),
  { key: 'holding', label: 'Holding page' },
  { key: 'log', label: 'Log' },
]);
const view = computed({
  get: () => (VIEWS.value.some((v) => v.key === route.query.view) ? String(route.query.view) : 'sheet'),
  set: (key) =>
    void navigateTo(
      { query: { ...route.query, view: key === 'sheet' ? undefined : key } },
      { replace: true },
    ),
});
</script>

<template>
  <div class="view">
    <FilterButtons v-model="view" :options="VIEWS" label="View" class="views" />
    <RunSheet v-if="view === 'sheet'" :key="site.id" :site="site" @launch="emit('launch')" />
    <CutOverPlan v-else-if="view === 'plan'" :key="`plan ${site.id}`" :site="site" />
    <WatchView v-else-if="view === 'watch'" :key="`watch ${site.id}`" :site-id="site.id" />
    <AccountList v-else-if="view === 'accounts'" :key="`accounts ${site.id}`" :site-id="site.id" />
    <FormerAddresses v-else-if="view === 'former'" :key="`former ${site.id}`" :site="site" />
    <HoldingKit v-else-if="view === 'holding'" :key="`holding ${site.id}`" :site="site" />
    <LaunchLog v-else :key="`log ${site.id}`" :site-id="site.id" />
  </div>
</template>

<style scoped>
.view {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
.views {
  max-width: 100%;
  overflow-x: auto;
  justify-self: start;
}
</style>
