<script setup lang="ts">
import type { Assignment, AssignmentKind } from '~/types';

/**
 * What a checklist is for: sites, clients, host profiles, or all other sites. The nearest wins: site, client,
 * host, then all.
 */
const props = defineProps<{ id: number; assignments: Assignment[] }>();
const emit = defineEmits<{ saved: [] }>();
const notes = useNotes();
const of = (kind: AssignmentKind): Assignment[] => props.assignments.filter((a) => a.kind === kind);
const sites = ref(of('site').map((a) => ({ id: Number(a.target), name: a.title })));
const clients = ref(of('client').map((a) => ({ id: Number(a.target), name: a.title })));
const hosts = ref(of('host').map((a) => a.target));
const rest = ref(of('default').length > 0);
const { data: profiles } = useApiQuery('/api/host-profiles', { key: ['host-profiles'] });
const hostItems = computed(() => (profiles.value ?? []).map((p) => ({ value: String(p.id), title: p.name })));
const {
  run: save,
  busy,
  fault,
} = useAction(
  async () => {
    const named = (kind: AssignmentKind, list: { id: number }[]) =>
      list.map(({ id }) => ({ kind, target: String(id) }));
    const assignments = [
      ...named('site', sites.value),
      ...named('client', clients.value),
      ...hosts.value.map((target) => ({ kind: 'host' as const, target })),
      ...(rest.value ? [{ kind: 'default' as const, target: '' }] : []),
    ];
    await api('/api/checklists/:id/assignments', {
      params: { id: props.id },
      method: 'PUT',
      body: { assignments },
    });
    notes.say(
      'Assigned. The next audit of these sites uses it; their stored evidence can be judged by it now.',
    );
    emit('saved');
  },
  { inPlace: true },
);
</script>

<template>
  <section class="sheet assign" aria-label="What it is for">
    <div class="page-head">
      <h2>What it is for</h2>
      <span class="faint">The nearest wins: site, client, host, then all others.</span
      ><span class="spring" /><v-btn size="small" color="primary" :loading="busy" @click="save()"
        >Assign</v-btn
      >
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div class="grid">
      <SitePick v-model="sites" label="Sites" />
      <ClientPick v-model="clients" label="All sites of the clients" />
      <v-autocomplete
        v-model="hosts"
        :items="hostItems"
        label="All sites at the hosts"
        multiple
        chips
        closable-chips
      />
    </div>
    <v-checkbox v-model="rest" label="All other sites" />
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
