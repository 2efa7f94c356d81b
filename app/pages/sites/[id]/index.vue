<script setup lang="ts">
import type { Stage } from '#core/facts/situation';

/** One site: its head, and below it one of its views. */
const route = useRoute();
const notes = useNotes();
const id = Number(route.params.id);
const { data: site, fault } = useApiQuery('/api/sites/:id', { key: ['site', id, 'head'], params: { id } });
const environmentId = ref(Number(route.query.environment) || 0);
const tab = ref(String(route.query.tab ?? 'ledger'));
/** Which side of the pages is shown. */
const view = ref(String(route.query.view ?? 'table'));
useHead({ title: computed(() => `${site.value?.name ?? 'Site'} – Armband`) });
watch(
  site,
  (read) => {
    if (read && !read.environments.some((e) => e.id === environmentId.value))
      environmentId.value = read.shown;
  },
  { immediate: true },
);
watch(
  () => route.query.tab,
  (named) => (tab.value = String(named ?? 'ledger')),
);
watch([environmentId, tab, view], (_, [before]) =>
  navigateTo(
    {
      query: {
        ...(environmentId.value === site.value?.shown ? {} : { environment: environmentId.value }),
        ...(tab.value === 'ledger' ? {} : { tab: tab.value }),
        ...(tab.value === 'ledger' && route.query.check ? { check: route.query.check } : {}),
        ...(tab.value === 'pages' && view.value !== 'table' ? { view: view.value } : {}),
        ...(tab.value === 'launch' && route.query.view ? { view: String(route.query.view) } : {}),
        ...(tab.value === 'report' && route.query.view === 'shown' ? { view: 'shown' } : {}),
        ...(tab.value === 'pages' && route.query.audit && before === environmentId.value
          ? { audit: route.query.audit, at: route.query.at }
          : {}),
      },
    },
    { replace: true },
  ),
);

const environment = computed(() => site.value?.environments.find((e) => e.id === environmentId.value));
/** An older audit where the history led to its pages, else the newest. */
const shownAudit = computed(() => {
  const { audit, at } = route.query;
  const newest = environment.value?.audit;
  return audit ? { id: Number(audit), at: String(at ?? '') } : newest && { id: newest.id, at: newest.at };
});
const sum = ref(false);
const opened = ref(0);
async function goToCheck(check: string): Promise<void> {
  tab.value = 'ledger';
  await navigateTo({ query: { ...route.query, check, tab: undefined } }, { replace: true });
  opened.value++;
}
const { run: setStage } = useAction(async (stage: Stage) => {
  await api('/api/sites/:id', { params: { id }, method: 'PATCH', body: { stage } });
  notes.say(
    `${site.value?.name} is now ${stage}. Its stored evidence was re-evaluated by what is wanted now.`,
  );
});
const launching = ref(false);
const live = computed(() => site.value?.environments.find((e) => e.kind === 'live'));
/** A launch is asked about first. */
function changeStage(stage: Stage): void {
  if (stage === 'launched' && site.value?.stage !== 'launched') launching.value = true;
  else void setStage(stage);
}
async function launch(): Promise<void> {
  await setStage('launched');
}
</script>

<template>
  <div>
    <SiteHead
      v-if="site"
      v-model:environment="environmentId"
      v-model:tab="tab"
      :site="site"
      @stage="changeStage"
      @sum="sum = true"
    />
    <div class="page">
      <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
      <template v-if="site && environment">
        <LedgerView
          v-if="tab === 'ledger'"
          :key="`${environment.id} ${opened}`"
          :site-id="site.id"
          :environment="environment"
        />
        <PagesTab
          v-else-if="tab === 'pages'"
          v-model:view="view"
          :site="site"
          :environment="environment"
          :audit="shownAudit"
        />
        <template v-else-if="tab === 'records'">
          <RecordsView
            v-if="environment.audit"
            :key="`r${environment.id}`"
            :site-id="site.id"
            :environment="environment"
            :audit-id="environment.audit.id"
          />
          <div v-else class="sheet empty">
            <p>Nothing is known of {{ environment.name.toLowerCase() }} yet. <b>Audit now</b> looks at it.</p>
          </div>
        </template>
        <BriefForm v-else-if="tab === 'brief'" :site="site" />
        <LaunchView v-else-if="tab === 'launch'" :site="site" @launch="launching = true" />
        <CompareView v-else-if="tab === 'compare'" :site="site" :environment="environment" />
        <ReportView v-else-if="tab === 'report'" :site="site" :environment="environment" />
        <HistoryView v-else :key="`h${environment.id}`" :site-id="site.id" :environment="environment" />
      </template>
      <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
    </div>
    <LaunchDialog
      v-if="site"
      v-model="launching"
      :site-id="site.id"
      :name="site.name"
      :has-live="live !== undefined"
      @launch="launch"
    />
    <ScoreSum
      v-if="environment && site"
      v-model="sum"
      :environment-id="environment.id"
      :site-id="site.id"
      @go="goToCheck"
    />
  </div>
</template>
