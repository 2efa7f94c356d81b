<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import { USUAL_PAGES } from '#core/facts/page-limit';
import { STAGES } from '#core/facts/situation';
import type { SiteDraft } from '~/composables/site-draft';

/** The fields of a site itself, with what is there already and looks like what is being entered. */
const draft = defineModel<SiteDraft>({ required: true });
const props = defineProps<{
  /** Sentences at the fields that are missing. */
  missing: Record<'name' | 'client', string>;
  /** Addresses being entered, as far as they are whole. */
  urls: readonly string[];
  /** The site that is being changed. */
  siteId?: number;
  /** Said beside the stage. */
  stageFrom?: string;
}>();
const emit = defineEmits<{ stage: [] }>();
const { data: profiles } = useApiQuery('/api/host-profiles', { key: ['host-profiles'] });
const people = usePeople();
/** Clients are looked for by what is typed. */
const { data: clients } = useApiQuery('/api/clients', {
  key: ['clients'],
  query: () => ({ words: draft.value.client?.trim() || undefined }),
});
const profileItems = computed(() => [
  { title: 'none', value: '' },
  ...(profiles.value ?? []).map(({ name }) => ({ title: name, value: name })),
]);
const ownerItems = computed(() => [
  { title: 'nobody', value: 0 },
  ...people.value.map((p) => ({ title: p.name, value: p.id })),
]);

/** What is being entered, once the typing pauses. */
const asked = ref<{ client: string; urls: readonly string[] }>({ client: '', urls: [] });
watchDebounced(
  () => ({ client: draft.value.client?.trim() ?? '', urls: props.urls }),
  (now) => (asked.value = now),
  { debounce: 300, immediate: true },
);
const { data: alike } = useApiQuery('/api/sites/alike', {
  key: ['roster', 'alike'],
  query: () => ({
    client: asked.value.client || undefined,
    urls: asked.value.urls,
    except: props.siteId,
  }),
});
</script>

<template>
  <div class="grid">
    <v-text-field
      v-model="draft.name"
      :label="SITE_LABELS.name"
      :autofocus="!siteId"
      :error-messages="missing.name"
    />
    <v-combobox
      v-model="draft.client"
      :label="SITE_LABELS.client"
      :items="clients?.rows.map((c) => c.name) ?? []"
      :error-messages="missing.client"
    />
    <v-select
      v-model="draft.stage"
      :label="SITE_LABELS.stage"
      :items="STAGES"
      :hint="stageFrom"
      :persistent-hint="Boolean(stageFrom)"
      @update:model-value="emit('stage')"
    /><DayInput v-model="draft.launchDate" :label="SITE_LABELS.launchDate" />
    <v-select v-model="draft.hostProfile" :label="SITE_LABELS.hostProfile" :items="profileItems" />
    <v-select v-model="draft.ownerId" :label="SITE_LABELS.ownerId" :items="ownerItems" />
    <PageLimit v-model="draft.pageLimit" :label="SITE_LABELS.pageLimit" :usual="`${USUAL_PAGES}, as usual`" />
    <v-checkbox v-model="draft.replaces" :label="SITE_LABELS.replaces" />
    <div v-if="alike?.clients.length || alike?.sites.length" class="alike" role="status">
      <p v-for="name in alike.clients" :key="name">
        There is a client named <b>{{ name }}</b> already.
        <v-btn size="small" variant="text" color="primary" @click="draft.client = name">Use {{ name }}</v-btn>
      </p>
      <p v-for="s in alike.sites" :key="`${s.id} ${s.environment}`">
        <NuxtLink :to="`/sites/${s.id}`">{{ s.name }}</NuxtLink> of {{ s.client }} has this address already,
        as {{ s.environment.toLowerCase() }}.
      </p>
    </div>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 16px;
}
.alike {
  grid-column: 1 / -1;
  border-left: 3px solid rgb(var(--v-theme-primary));
  padding: 4px 12px;
}
.alike p {
  margin: 0;
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: 1fr;
  }
}
</style>
