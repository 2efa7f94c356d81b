<script setup lang="ts">
import type { SiteDetail } from '~/types';
import type { SiteDraft } from '~/composables/site-draft';

/** What is kept of a site itself: its data, its environments, its end. */
const notes = useNotes();
const id = Number(useRoute().params.id);
const site = ref<SiteDetail | null>(null);
const draft = ref<SiteDraft>(emptySite());
const saved = ref('');
const fault = ref('');
const tried = ref(false);
const busy = ref(false);
useHead({ title: computed(() => `Edit ${site.value?.name ?? 'site'} – Armband`) });

const draftOf = (s: SiteDetail): SiteDraft => ({
  name: s.name,
  client: s.client,
  stage: s.stage,
  replaces: s.replaces,
  launchDate: s.launchDate ?? '',
  hostProfile: s.hostProfile ?? '',
  ownerId: s.ownerId ?? 0,
});
async function load(): Promise<void> {
  try {
    site.value = await api('/api/sites/:id', { params: { id } });
    draft.value = draftOf(site.value);
    saved.value = JSON.stringify(draft.value);
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
onMounted(load);
/** Environments alone were saved: what is typed above stays. */
async function reloadEnvironments(): Promise<void> {
  const fresh = await api('/api/sites/:id', { params: { id } });
  if (site.value) site.value.environments = fresh.environments;
}
const isChanged = computed(() => JSON.stringify(draft.value) !== saved.value);
const missing = computed(() => (tried.value ? missingOf(draft.value) : { name: '', client: '' }));
const urls = computed(() => site.value?.environments.map((e) => e.url) ?? []);

async function change(body: Partial<SiteDraft>, said: string): Promise<void> {
  busy.value = true;
  fault.value = '';
  try {
    await api('/api/sites/:id', { params: { id }, method: 'PATCH', body });
    notes.say(said);
    await load();
  } catch (error) {
    fault.value = (error as Error).message;
  } finally {
    busy.value = false;
  }
}
async function save(): Promise<void> {
  tried.value = true;
  if (Object.values(missing.value).some(Boolean)) return;
  await change(draft.value, `${draft.value.name.trim()} is saved.`);
}
const question = useQuestion();
async function remove(): Promise<void> {
  try {
    const { sites: _itself, ...contents } = await api('/api/sites/:id/contents', { params: { id } });
    if (!(await question.remove(site.value!.name, goesWith(contents)))) return;
    busy.value = true;
    await api('/api/sites/:id', { params: { id }, method: 'DELETE' });
    notes.say(`${site.value?.name} is deleted.`);
    await navigateTo('/');
  } catch (error) {
    fault.value = (error as Error).message;
  } finally {
    busy.value = false;
  }
}
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
        <div class="buttons">
          <v-btn type="submit" color="primary" variant="flat" :disabled="!isChanged" :loading="busy"
            >Save</v-btn
          >
          <v-btn v-if="isChanged" variant="text" @click="draft = JSON.parse(saved)">Undo changes</v-btn>
          <span class="spring" />
          <NuxtLink :to="`/clients`">Rename or merge clients</NuxtLink>
        </div>
      </form>
      <h2>Environments and access</h2>
      <EnvironmentsForm :site-id="id" :environments="site.environments" @saved="reloadEnvironments" />
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
            @click="change({ stage: 'retired' }, `${site.name} is archived.`)"
            >Archive</v-btn
          >
          <v-btn color="error" @click="remove">Delete …</v-btn>
        </div>
      </section>
    </template>
    <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />
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
