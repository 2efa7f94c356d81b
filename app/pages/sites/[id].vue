<script setup lang="ts">
import type { SiteDetail } from '~/types';
import { SITUATION_WORDS, STAGES, type Stage } from '#core/facts/situation';

const route = useRoute();
const audits = useAudits();
const notes = useNotes();
const id = Number(route.params.id);
const site = ref<SiteDetail | null>(null);
const fault = ref('');
const placeId = ref(Number(route.query.place) || 0);
const tab = ref(String(route.query.tab ?? 'ledger'));
useHead({ title: computed(() => `${site.value?.name ?? 'Site'} – Armband`) });

async function load(): Promise<void> {
  try {
    site.value = await api<SiteDetail>(`/api/sites/${id}`);
    if (!site.value.places.some((p) => p.id === placeId.value)) placeId.value = site.value.shown;
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
watch([placeId, tab], () =>
  navigateTo(
    {
      query: {
        ...(placeId.value === site.value?.shown ? {} : { place: placeId.value }),
        ...(tab.value === 'ledger' ? {} : { tab: tab.value }),
        ...(tab.value === 'ledger' && route.query.check ? { check: route.query.check } : {}),
      },
    },
    { replace: true },
  ),
);

const place = computed(() => site.value?.places.find((p) => p.id === placeId.value));
const running = computed(() => audits.running.find((a) => a.environmentId === placeId.value));
const sum = ref(false);
const opened = ref(0);
async function goToCheck(check: string): Promise<void> {
  tab.value = 'ledger';
  await navigateTo({ query: { ...route.query, check, tab: undefined } }, { replace: true });
  opened.value++;
}
const TABS = [
  { key: 'ledger', label: 'Ledger' },
  { key: 'fixes', label: 'Fixes' },
  { key: 'brief', label: 'Brief' },
  { key: 'places', label: 'Places' },
  { key: 'history', label: 'History' },
];
async function setStage(stage: Stage): Promise<void> {
  try {
    await api(`/api/sites/${id}/stage`, { method: 'PUT', body: { stage } });
    await refresh();
    notes.say(
      `${site.value?.name} is now ${stage}. Its stored evidence was judged again by what is wanted now.`,
    );
  } catch (error) {
    notes.say((error as Error).message, true);
  }
}
</script>

<template>
  <div>
    <div v-if="site" class="head">
      <div class="inner">
        <div class="line">
          <div class="who">
            <h1 class="cut">{{ site.name }}</h1>
            <span v-if="site.client !== site.name" class="faint cut">{{ site.client }}</span>
          </div>
          <div class="places" role="radiogroup" aria-label="Place">
            <button
              v-for="p in site.places"
              :key="p.id"
              type="button"
              role="radio"
              :aria-checked="p.id === placeId"
              :class="{ on: p.id === placeId }"
              :title="p.url"
              @click="placeId = p.id"
            >
              {{ p.name }}
            </button>
          </div>
          <v-menu>
            <template #activator="{ props }"
              ><button v-bind="props" type="button" class="stagebutton">
                {{ stageWords(site.stage, site.launchDate) }} ▾
              </button></template
            >
            <v-list density="compact"
              ><v-list-item
                v-for="s in STAGES"
                :key="s"
                :title="s"
                :active="s === site.stage"
                @click="setStage(s)"
            /></v-list>
          </v-menu>
          <span class="spring" />
          <AuditProgress v-if="running" :audit="running" class="run" />
          <v-btn
            v-else
            color="primary"
            variant="flat"
            :disabled="site.stage === 'retired'"
            @click="audits.start([placeId])"
            >Audit now</v-btn
          >
        </div>
        <div class="line">
          <div class="bigband">
            <BandStrip :band="place?.audit?.band ?? null" :width="720" :height="18" />
          </div>
          <template v-if="place?.audit">
            <button type="button" class="score num" title="How this number came about" @click="sum = true">
              {{ place.audit.score ?? '–' }}
            </button>
            <span class="facts"
              ><span
                ><GateWord :gate="place.audit.gate" /><span class="faint">{{
                  place.audit.gateNote.slice(place.audit.gate.length)
                }}</span></span
              >
              <span class="faint num"
                >coverage {{ place.audit.coverage ?? '–' }} %<template v-if="place.audit.provisional"
                  >, score provisional</template
                ><template v-if="place.audit.scoreAsFound != null"
                  >, {{ place.audit.scoreAsFound }} as found</template
                >
                · judged as {{ place.situation ? SITUATION_WORDS[place.situation] : '' }} ·
                {{ ago(place.audit.at) }}</span
              ></span
            >
          </template>
          <span v-else class="faint">Not audited yet.</span>
        </div>
        <div class="tabs" role="tablist">
          <button
            v-for="t in TABS"
            :key="t.key"
            type="button"
            role="tab"
            :aria-selected="tab === t.key"
            :class="{ on: tab === t.key }"
            @click="tab = t.key"
          >
            {{ t.label }}</button><span class="spring" /><a
            v-if="place"
            :href="place.url"
            target="_blank"
            rel="noopener noreferrer"
            class="mono cut"
            >{{ place.url }}</a
          >
        </div>
      </div>
    </div>
    <div class="page">
      <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
      <template v-if="site && place">
        <LedgerView
          v-if="tab === 'ledger'"
          :key="`${place.id} ${opened}`"
          :place="place"
          :version="version"
          @changed="refresh"
        />
        <FixList v-else-if="tab === 'fixes'" :site-id="site.id" :version="version" />
        <BriefForm v-else-if="tab === 'brief'" :site="site" @saved="refresh" />
        <PlacesForm v-else-if="tab === 'places'" :site-id="site.id" :places="site.places" @saved="refresh" />
        <HistoryView v-else :key="`h${place.id}`" :place="place" :version="version" />
      </template>
      <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
    </div>
    <ScoreSum v-if="place && site" v-model="sum" :place-id="place.id" :site-id="site.id" @go="goToCheck" />
  </div>
</template>

<style scoped>
.head {
  position: sticky;
  top: 44px;
  z-index: 900;
  background: rgb(var(--v-theme-background));
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
.inner {
  max-width: 1440px;
  margin: 0 auto;
  padding: 10px 20px 0;
}
.line {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 34px;
  margin-bottom: 6px;
}
.who {
  display: flex;
  align-items: baseline;
  gap: 10px;
  min-width: 0;
}
.places {
  display: flex;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: 4px;
  overflow: hidden;
  background: rgb(var(--v-theme-surface));
}
.places button {
  padding: 3px 12px;
}
.places button + button {
  border-left: 1px solid rgb(var(--v-theme-rule));
}
.places button.on {
  background: rgb(var(--v-theme-primary));
  color: rgb(var(--v-theme-on-primary));
  font-weight: 600;
}
.stagebutton {
  color: rgb(var(--v-theme-faint));
  white-space: nowrap;
}
.run {
  width: 320px;
}
.bigband {
  flex: 1 1 400px;
  max-width: 620px;
}
.bigband :deep(svg) {
  width: 100%;
}
.score {
  font-size: 26px;
  font-weight: 700;
  line-height: 1;
  text-decoration: underline;
  text-decoration-thickness: 1px;
  text-underline-offset: 4px;
}
.facts {
  display: flex;
  flex-direction: column;
  line-height: 1.35;
  font-size: 13px;
  min-width: 0;
}
.tabs {
  display: flex;
  gap: 4px;
  align-items: center;
}
.tabs button {
  padding: 5px 12px;
  border-bottom: 2px solid transparent;
}
.tabs button.on {
  border-bottom-color: rgb(var(--v-theme-primary));
  font-weight: 600;
}
@media (max-width: 700px) {
  .inner {
    padding: 8px 12px 0;
  }
  .line {
    flex-wrap: wrap;
    gap: 8px;
  }
  .who {
    width: 100%;
  }
  .bigband {
    flex: 1 1 100%;
  }
  .tabs a {
    display: none;
  }
  .head {
    position: static;
  }
  .run {
    width: 100%;
  }
}
</style>
