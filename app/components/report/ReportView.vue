<script setup lang="ts">
import { mdiFilePdfBox, mdiPublish } from '@mdi/js';
import { useDebounceFn } from '@vueuse/core';
import { REPORT_LANGUAGES, REPORT_PARTS, type ReportSetup } from '#core/report/setup';
import { reportTexts } from '#core/report/texts/index';
import type { Environment, SiteDetail } from '~/types';

/** The report for the client: put together, published, and what came back. */
const props = defineProps<{ site: SiteDetail; environment: Environment }>();
const notes = useNotes();
const params = computed(() => ({ id: props.site.id }));
const { data, fault } = useApiQuery('/api/sites/:id/report', {
  key: () => ['site', props.site.id, 'report'],
  params,
  query: () => ({ environment: props.environment.id }),
  when: () => Boolean(props.environment.audit),
});
const { data: shown, fault: shownFault } = useApiQuery('/api/sites/:id/report/shown', {
  key: () => ['site', props.site.id, 'report shown'],
  params,
});
const open = computed(() => (shown.value?.remarks ?? []).filter((r) => r.state === 'waiting').length);
const views = computed(() => [
  { key: 'compose' as const, label: 'Put together' },
  { key: 'shown' as const, label: 'Shown to the client', n: open.value || undefined },
]);
const route = useRoute();
const view = computed<'compose' | 'shown'>({
  get: () => (route.query.view === 'shown' ? 'shown' : 'compose'),
  set: (key) =>
    void navigateTo(
      { query: { ...route.query, view: key === 'shown' ? 'shown' : undefined } },
      { replace: true },
    ),
});

const copyOf = (setup: ReportSetup): ReportSetup => JSON.parse(JSON.stringify(setup)) as ReportSetup;
const setup = ref<ReportSetup>();
const saving = useSaving<ReportSetup, { version: number }>({
  state: () => JSON.stringify(setup.value),
  save: (document, from) =>
    api('/api/sites/:id/report', {
      params: params.value,
      method: 'PUT',
      body: { setup: document, from },
    }),
  label: (path) => path,
  fill: (document) => (setup.value = copyOf(document)),
  asForm: (document) => document,
  newest: () => data.value && { version: data.value.draft.version, document: data.value.draft.setup },
});
const { changed, fault: unsaved } = saving;
const save = (): Promise<unknown> => (changed.value ? saving.run(copyOf(setup.value!)) : Promise.resolve());
const SAVED_AFTER_MS = 500;
const saveSoon = useDebounceFn(save, SAVED_AFTER_MS);
watch(setup, () => changed.value && void saveSoon(), { deep: true });
onBeforeUnmount(save);

const languages = REPORT_LANGUAGES.map((value) => ({ value, title: reportTexts(value).name }));
const PART_TITLES = reportTexts('en').parts;
function setPart(part: (typeof REPORT_PARTS)[number], on: boolean): void {
  const parts = new Set(setup.value!.parts);
  if (on) parts.add(part);
  else parts.delete(part);
  setup.value!.parts = REPORT_PARTS.filter((p) => parts.has(p));
}
function tell(check: string, on: boolean): void {
  const rest = setup.value!.leftOut.filter((c) => c !== check);
  setup.value!.leftOut = on ? rest : [...rest, check];
}
/** Words of one’s own while they are typed; without any the usual ones stand. */
const wording = ref('');
const ownWords = (check: string): string => setup.value?.words.find((w) => w.check === check)?.text ?? '';
function setWords(check: string, text: string): void {
  const rest = setup.value!.words.filter((w) => w.check !== check);
  setup.value!.words = text.trim() ? [...rest, { check, text }] : rest;
}
const usualWords = (check: string): string =>
  reportTexts(setup.value?.language ?? 'en').checks[check]?.[1] ?? '';
const SHOWN_FIRST = 12;
const all = ref(false);
const choices = computed(() => {
  const found = data.value?.choices ?? [];
  const rank = { blocker: 0, major: 1, minor: 2 } as Record<string, number>;
  return [...found].sort((a, b) => rank[a.severity]! - rank[b.severity]!);
});

const picture = (sha256: string): string => seenAddress(data.value!.report.auditId, sha256);
const { run: publish, busy: publishing } = useAction(async () => {
  await save();
  const { number } = await api('/api/sites/:id/report/publish', {
    params: params.value,
    method: 'POST',
    body: { environmentId: props.environment.id },
  });
  notes.say(`Edition ${number} is published. Whoever has a link sees it from now on.`);
});
const newest = computed(() => shown.value?.editions[0]);
</script>

<template>
  <div>
    <div class="top">
      <FilterButtons v-model="view" :options="views" label="What of the report" />
      <span class="spring" />
      <span v-if="newest" class="faint"
        >Edition {{ newest.number }} of <TimeAt :iso="newest.at" /> by {{ newest.by }}</span
      >
      <v-btn
        v-if="newest"
        size="small"
        :href="`/api/reports/${newest.id}/pdf`"
        :prepend-icon="mdiFilePdfBox"
        download
        >PDF</v-btn
      >
      <v-btn
        v-if="data"
        color="primary"
        variant="flat"
        size="small"
        :prepend-icon="mdiPublish"
        :loading="publishing"
        @click="publish()"
        >Publish edition {{ (newest?.number ?? 0) + 1 }}</v-btn
      >
    </div>
    <p v-if="fault || shownFault || unsaved" class="fray" role="alert">
      {{ fault || shownFault || unsaved }}
    </p>
    <ReportShown v-if="view === 'shown' && shown" :site="site" :environment="environment" :shown="shown" />
    <template v-else-if="view === 'compose'">
      <div v-if="!environment.audit" class="sheet empty">
        <p>A report tells what an audit found. <b>Audit now</b> makes the first.</p>
      </div>
      <div v-else-if="data && setup" class="compose">
        <form class="sheet choose" aria-label="What the report tells" @submit.prevent>
          <v-select v-model="setup.language" :items="languages" label="Language" hide-details />
          <fieldset>
            <legend>Parts</legend>
            <v-checkbox-btn
              v-for="part in REPORT_PARTS"
              :key="part"
              :model-value="setup.parts.includes(part)"
              :label="PART_TITLES[part]"
              density="compact"
              @update:model-value="setPart(part, $event)"
            />
          </fieldset>
          <v-textarea
            v-model="setup.letter"
            label="Letter"
            rows="4"
            auto-grow
            hint="{site} and {client} stand for the names."
            persistent-hint
          />
          <v-text-field v-model="setup.signedBy" label="Signed by" hide-details />
          <fieldset>
            <legend>Findings</legend>
            <v-checkbox-btn v-model="setup.smallToo" label="List minor ones too" density="compact" />
            <ul class="findings">
              <li v-for="c in all ? choices : choices.slice(0, SHOWN_FIRST)" :key="c.check">
                <div class="one">
                  <v-checkbox-btn
                    :model-value="!setup.leftOut.includes(c.check)"
                    :label="c.title"
                    density="compact"
                    @update:model-value="tell(c.check, $event)"
                  />
                  <button
                    type="button"
                    class="link"
                    :aria-label="`Own words for ${c.title}`"
                    @click="wording = wording === c.check ? '' : c.check"
                  >
                    {{ ownWords(c.check) ? 'own words' : 'words' }}
                  </button>
                </div>
                <v-textarea
                  v-if="wording === c.check"
                  :model-value="ownWords(c.check)"
                  :placeholder="usualWords(c.check)"
                  :aria-label="`What ${c.title} means, in your words`"
                  rows="2"
                  auto-grow
                  hide-details
                  persistent-placeholder
                  @update:model-value="setWords(c.check, $event)"
                />
              </li>
            </ul>
            <button v-if="choices.length > SHOWN_FIRST" type="button" class="link" @click="all = !all">
              {{ all ? 'Fewer' : `All ${choices.length}` }}
            </button>
          </fieldset>
          <p class="faint">
            {{ changed ? 'Saving …' : 'Saved.' }} Name, logo, colour and the usual letter:
            <NuxtLink to="/report-template">report template</NuxtLink>.
          </p>
        </form>
        <ReportSheet :report="data.report" :picture="picture" logo="/api/report-template/logo" />
      </div>
      <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
    </template>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
  margin-bottom: 12px;
}
.compose {
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  gap: 16px;
  align-items: start;
}
.choose {
  padding: 14px;
  display: grid;
  gap: 12px;
  position: sticky;
  top: 176px;
  max-height: calc(100vh - 190px);
  overflow: auto;
}
.choose p {
  margin: 0;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
legend {
  font-weight: 650;
  padding: 0;
}
.findings {
  list-style: none;
  padding: 0;
  margin: 0;
}
.one {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px;
  align-items: center;
}
.link {
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
  font-size: 13px;
}
@media (max-width: 1000px) {
  .compose {
    grid-template-columns: minmax(0, 1fr);
  }
  .choose {
    position: static;
    max-height: none;
  }
}
@media print {
  .top,
  .choose {
    display: none !important;
  }
  .compose {
    display: block;
  }
}
</style>
