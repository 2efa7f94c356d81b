<script setup lang="ts">
import type { SiteDetail } from '~/types';
import type { Stage } from '#core/facts/situation';

const route = useRoute();
const audits = useAudits();
const notes = useNotes();
const id = Number(route.params.id);
const site = ref<SiteDetail | null>(null);
const fault = ref('');
const environmentId = ref(Number(route.query.environment) || 0);
const tab = ref(String(route.query.tab ?? 'ledger'));
useHead({ title: computed(() => `${site.value?.name ?? 'Site'} – Armband`) });

async function load(): Promise<void> {
  try {
    site.value = await api('/api/sites/:id', { params: { id } });
    if (!site.value.environments.some((p) => p.id === environmentId.value))
      environmentId.value = site.value.shown;
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
onMounted(load);
const version = ref(0);
async function refresh(): Promise<void> {
  await load();
  version.value++;
}
watch(() => audits.ended, refresh);
watch([environmentId, tab], () =>
  navigateTo(
    {
      query: {
        ...(environmentId.value === site.value?.shown ? {} : { environment: environmentId.value }),
        ...(tab.value === 'ledger' ? {} : { tab: tab.value }),
        ...(tab.value === 'ledger' && route.query.check ? { check: route.query.check } : {}),
      },
    },
    { replace: true },
  ),
);

const environment = computed(() => site.value?.environments.find((p) => p.id === environmentId.value));
const sum = ref(false);
const opened = ref(0);
async function goToCheck(check: string): Promise<void> {
  tab.value = 'ledger';
  await navigateTo({ query: { ...route.query, check, tab: undefined } }, { replace: true });
  opened.value++;
}
async function setStage(stage: Stage): Promise<void> {
  try {
    await api('/api/sites/:id', { params: { id }, method: 'PATCH', body: { stage } });
    await refresh();
    notes.say(
      `${site.value?.name} is now ${stage}. Its stored evidence was re-evaluated by what is wanted now.`,
    );
  } catch (error) {
    notes.say((error as Error).message, true);
  }
}
</script>

<template>
  <div>
    <SiteHead
      v-if="site"
      v-model:environment="environmentId"
      v-model:tab="tab"
      :site="site"
      @stage="setStage"
      @sum="sum = true"
    />
    <div class="page">
      <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
      <template v-if="site && environment">
        <LedgerView
          v-if="tab === 'ledger'"
          :key="`${environment.id} ${opened}`"
          :environment="environment"
          :version="version"
          @changed="refresh"
        />
        <BriefForm v-else-if="tab === 'brief'" :site="site" @saved="refresh" />
        <HistoryView v-else :key="`h${environment.id}`" :environment="environment" :version="version" />
      </template>
      <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
    </div>
    <ScoreSum
      v-if="environment && site"
      v-model="sum"
      :environment-id="environment.id"
      :site-id="site.id"
      @go="goToCheck"
    />
  </div>
</template>
