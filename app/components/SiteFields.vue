<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import { STAGES } from '#core/facts/situation';
import type { Answer } from '~/composables/api';
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
const profiles = ref<string[]>([]);
const clients = ref<string[]>([]);
const people = ref<{ id: number; name: string }[]>([]);
onMounted(async () => {
  const [hosts, known, team] = await Promise.all([
    api('/api/host-profiles'),
    api('/api/clients'),
    api('/api/people'),
  ]);
  profiles.value = hosts.map((p) => p.name);
  clients.value = known.map((c) => c.name);
  people.value = team;
});
const profileItems = computed(() => [
  { title: 'none', value: '' },
  ...profiles.value.map((name) => ({ title: name, value: name })),
]);
const ownerItems = computed(() => [
  { title: 'nobody', value: 0 },
  ...people.value.map((p) => ({ title: p.name, value: p.id })),
]);

const alike = ref<Answer<'/api/sites/alike', 'POST'>>({ clients: [], sites: [] });
watchDebounced(
  () => [draft.value.client, ...props.urls].join('\n'),
  async () => {
    alike.value = await api('/api/sites/alike', {
      method: 'POST',
      body: {
        client: draft.value.client.trim(),
        urls: props.urls,
        ...(props.siteId ? { except: props.siteId } : {}),
      },
    });
  },
  { debounce: 300, immediate: true },
);
</script>

<template>
  <div class="grid">
    <v-text-field
      v-model="draft.name"
      label="Name of the site"
      :autofocus="!siteId"
      :error-messages="missing.name"
    />
    <v-combobox v-model="draft.client" label="Client" :items="clients" :error-messages="missing.client" />
    <v-select
      v-model="draft.stage"
      label="Stage"
      :items="STAGES"
      :hint="stageFrom"
      :persistent-hint="Boolean(stageFrom)"
      @update:model-value="emit('stage')"
    /><v-text-field v-model="draft.launchDate" label="Launch date" type="date" />
    <v-select v-model="draft.hostProfile" label="Host profile" :items="profileItems" />
    <v-select v-model="draft.ownerId" label="Owner" :items="ownerItems" />
    <v-checkbox v-model="draft.replaces" label="It replaces a running site" />
    <div v-if="alike.clients.length || alike.sites.length" class="alike" role="status">
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
