<script setup lang="ts">
import type { Assignment, AssignmentKind } from '~/types';

/**
 * What a checklist is for: sites, clients, host profiles, or all other sites. The nearest wins: site, client,
 * host, then all.
 */
const props = defineProps<{ id: number; assignments: Assignment[] }>();
const emit = defineEmits<{ saved: [] }>();
const notes = useNotes();
const all = reactive<{
  site: { value: string; title: string }[];
  client: { value: string; title: string }[];
  host: { value: string; title: string }[];
}>({ site: [], client: [], host: [] });
const of = (kind: AssignmentKind): string[] =>
  props.assignments.filter((a) => a.kind === kind).map((a) => a.target);
const chosen = reactive({
  site: of('site'),
  client: of('client'),
  host: of('host'),
  rest: of('default').length > 0,
});
const fault = ref('');
const busy = ref(false);
onMounted(async () => {
  try {
    const [sites, clients, profiles] = await Promise.all([
      api('/api/roster'),
      api('/api/clients'),
      api('/api/host-profiles'),
    ]);
    all.site = sites.map((s) => ({ value: String(s.id), title: s.name }));
    all.client = clients.map((c) => ({ value: String(c.id), title: c.name }));
    all.host = profiles.map((p) => ({ value: String(p.id), title: p.name }));
  } catch (error) {
    fault.value = (error as Error).message;
  }
});
const KINDS = [
  { key: 'site', label: 'Sites' },
  { key: 'client', label: 'All sites of the clients' },
  { key: 'host', label: 'All sites at the hosts' },
] as const;
async function save(): Promise<void> {
  busy.value = true;
  fault.value = '';
  const assignments = [
    ...KINDS.flatMap((k) => chosen[k.key].map((target) => ({ kind: k.key as AssignmentKind, target }))),
    ...(chosen.rest ? [{ kind: 'default' as const, target: '' }] : []),
  ];
  try {
    await api('/api/checklists/:id/assignments', {
      params: { id: props.id },
      method: 'PUT',
      body: { assignments },
    });
    notes.say(
      'Assigned. The next audit of these sites uses it; their stored evidence can be judged by it now.',
    );
    emit('saved');
  } catch (error) {
    fault.value = (error as Error).message;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="sheet assign" aria-label="What it is for">
    <div class="page-head">
      <h2>What it is for</h2>
      <span class="faint">The nearest wins: site, client, host, then all others.</span
      ><span class="spring" /><v-btn size="small" color="primary" :loading="busy" @click="save">Assign</v-btn>
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div class="grid">
      <v-autocomplete
        v-for="k in KINDS"
        :key="k.key"
        v-model="chosen[k.key]"
        :items="all[k.key]"
        :label="k.label"
        multiple
        chips
        closable-chips
        variant="outlined"
        density="compact"
        hide-details
      />
    </div>
    <v-checkbox v-model="chosen.rest" label="All other sites" />
  </section>
</template>

<style scoped>
.assign {
  padding: 12px 16px;
  display: grid;
  gap: 10px;
}
.page-head {
  margin: 0;
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 12px;
}
@media (max-width: 800px) {
  .grid {
    grid-template-columns: 1fr;
  }
}
</style>
