<script setup lang="ts">
import type { Stage } from '#core/facts/situation';
import type { SiteDetail } from '~/types';
import type { SiteDraft } from '~/composables/site-draft';

/** What is kept of a site itself: its data, its environments, its end. */
const notes = useNotes();
const id = Number(useRoute().params.id);
const { data: site, fault: unread } = useApiQuery('/api/sites/:id', {
  key: ['site', id, 'head'],
  params: { id },
});
const draft = ref<SiteDraft>(emptySite());
const tried = ref(false);
useHead({ title: computed(() => `Edit ${site.value?.name ?? 'site'} – Armband`) });

const draftOf = (s: SiteDetail): SiteDraft => ({
  name: s.name,
  client: s.client,
  stage: s.stage,
  replaces: s.replaces,
  launchDate: s.launchDate ?? '',
  hostProfile: s.hostProfile ?? '',
  ownerId: s.ownerId ?? 0,
  pageLimit: s.pageLimit ?? 0,
});
const {
  changed: isChanged,
  isOvertaken,
  undo,
  run: saveSite,
  busy: saving,
  fault: unsaved,
} = useSaving({
  state: () => JSON.stringify(draft.value),
  save: (wanted: SiteDraft, version) =>
    api('/api/sites/:id', { params: { id }, method: 'PATCH', query: { from: version }, body: wanted }),
  label: (path) => SITE_LABELS[path as keyof SiteDraft] ?? path,
  fill: (joined) => (draft.value = { ...joined }),
  asForm: (kept) => kept,
  newest: () => site.value && { version: site.value.version, document: draftOf(site.value) },
});
const missing = computed(() => (tried.value ? missingOf(draft.value) : { name: '', client: '' }));
const urls = computed(() => site.value?.environments.map((e) => e.url) ?? []);

const launching = ref(false);
const live = computed(() => site.value?.environments.find((e) => e.kind === 'live'));
const isLaunch = computed(() => draft.value.stage === 'launched' && site.value?.stage !== 'launched');
const audits = useAudits();
/** A launch is asked about first. */
async function save(): Promise<void> {
  tried.value = true;
  if (Object.values(missing.value).some(Boolean)) return;
  if (isLaunch.value) launching.value = true;
  else await saveNow();
}
async function saveNow(): Promise<boolean> {
  if (!(await saveSite(draft.value))) return false;
  notes.say(`${draft.value.name.trim()} is saved.`);
  return true;
}
async function launch(): Promise<void> {
  if ((await saveNow()) && live.value) await audits.start([live.value.id]);
}
const {
  run: setStage,
  busy: staging,
  fault: unstaged,
} = useAction(
  async (stage: Stage, said: string) => {
    await api('/api/sites/:id', { params: { id }, method: 'PATCH', body: { stage } });
    notes.say(said);
  },
  { inPlace: true },
);
const question = useQuestion();
const {
  run: remove,
  busy: removing,
  fault: unremoved,
} = useAction(
  async () => {
    const { sites: _itself, ...contents } = await api('/api/sites/:id/contents', { params: { id } });
    const name = site.value!.name;
    if (!(await question.remove(name, goesWith(contents)))) return;
    await api('/api/sites/:id', { params: { id }, method: 'DELETE' });
    notes.say(`${name} is deleted.`);
    await navigateTo('/');
  },
  { inPlace: true },
);
const busy = computed(() => saving.value || staging.value || removing.value);
const fault = computed(() => unread.value || unsaved.value || unstaged.value || unremoved.value);
</script>

<template>
  <div class="page narrow">
    <div class="page-head">
      <h1>Edit {{ site?.name ?? 'site' }}</h1>
      <NuxtLink :to="`/sites/${id}`">Back to the site</NuxtLink>
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <template v-if="site">
      <form class="sheet" aria-label="The site" @submit.prevent="save">
        <h2>The site</h2>
        <SiteFields v-model="draft" :missing="missing" :urls="urls" :site-id="id" />
        <p v-if="isOvertaken" role="status">
          Somebody saved this site while you were at it. Saving joins both.
        </p>
        <div class="buttons">
          <v-btn type="submit" color="primary" variant="flat" :disabled="!isChanged" :loading="busy"
            >Save</v-btn
          >
          <v-btn v-if="isChanged" variant="text" @click="undo()">Undo changes</v-btn>
          <span class="spring" />
          <NuxtLink :to="`/clients`">Rename or merge clients</NuxtLink>
        </div>
      </form>
      <h2>Environments and access</h2>
      <EnvironmentsForm :site-id="id" :environments="site.environments" />
      <section class="sheet">
        <h2>Archive or delete</h2>
        <p class="faint">
          A site that is archived is <b>retired</b>: it is not audited any more, and everything known of it
          stays. A site that is deleted is gone with all that belongs to it.
        </p>
        <div class="buttons">
          <v-btn
            v-if="site.stage !== 'retired'"
            :loading="busy"
            @click="setStage('retired', `${site.name} is archived.`)"
            >Archive</v-btn
          >
          <v-btn color="error" @click="remove()">Delete …</v-btn>
        </div>
      </section>
    </template>
    <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
    <LaunchDialog
      v-if="site"
      v-model="launching"
      :site-id="id"
      :name="site.name"
      :has-live="live !== undefined"
      @launch="launch"
    />
  </div>
</template>

<style scoped>
.narrow {
  max-width: 1080px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
.page-head {
  margin: 0;
}
form,
section {
  padding: 16px;
  display: grid;
  gap: 12px;
}
section p {
  margin: 0;
}
.buttons {
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>
