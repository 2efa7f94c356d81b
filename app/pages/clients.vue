<script setup lang="ts">
import { quantity } from '#core/text/quantity';
import type { ClientLine } from '~/types';

/** The agency's customers: renaming, merging two that are one, deleting. */
useHead({ title: 'Clients – Armband' });
const notes = useNotes();
const clients = ref<ClientLine[] | null>(null);
const words = ref('');
const fault = ref('');
const busy = ref(false);
async function load(): Promise<void> {
  try {
    clients.value = await api('/api/clients');
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
onMounted(load);
const HEADERS = [
  { title: 'Client', key: 'name' },
  { title: 'Sites', key: 'sites', align: 'end' as const },
  { title: '', key: 'act', sortable: false, align: 'end' as const },
];
const current = ref<ClientLine | null>(null);
const what = ref<'rename' | 'merge' | ''>('');
const name = ref('');
const into = ref<number | null>(null);
const others = computed(() =>
  (clients.value ?? [])
    .filter((c) => c.id !== current.value?.id)
    .map((c) => ({ title: `${c.name}, ${quantity(c.sites, 'site')}`, value: c.id })),
);
function start(c: ClientLine, to: 'rename' | 'merge'): void {
  current.value = c;
  what.value = to;
  name.value = c.name;
  into.value = null;
  fault.value = '';
}
async function act(does: (id: number) => Promise<unknown>, said: string): Promise<void> {
  busy.value = true;
  fault.value = '';
  try {
    await does(current.value!.id);
    notes.say(said);
    what.value = '';
    await load();
  } catch (error) {
    fault.value = (error as Error).message;
  } finally {
    busy.value = false;
  }
}
const rename = (): Promise<void> =>
  act(
    (id) => api('/api/clients/:id', { params: { id }, method: 'PATCH', body: { name: name.value.trim() } }),
    `The client is ${name.value.trim()} now.`,
  );
const merge = (): Promise<void> =>
  act(
    (id) => api('/api/clients/:id/merge', { params: { id }, method: 'POST', body: { into: into.value } }),
    `${current.value?.name} is merged.`,
  );
const question = useQuestion();
async function remove({ id, name: deleted }: ClientLine): Promise<void> {
  fault.value = '';
  try {
    const contents = await api('/api/clients/:id/contents', { params: { id } });
    if (!(await question.remove(deleted, goesWith(contents)))) return;
    await api('/api/clients/:id', { params: { id }, method: 'DELETE' });
    notes.say(`${deleted} is deleted.`);
    await load();
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
</script>

<template>
  <div class="page narrow">
    <div class="page-head">
      <h1>Clients</h1>
      <span class="spring" />
      <v-text-field
        v-model="words"
        class="filter"
        placeholder="Filter by words"
        aria-label="Filter clients by words"
        clearable
      />
    </div>
    <p v-if="fault && !what" class="fray" role="alert">{{ fault }}</p>
    <v-data-table
      v-if="clients"
      class="sheet"
      :headers="HEADERS"
      :items="clients"
      :search="words ?? ''"
      density="compact"
      :items-per-page="50"
      :hide-default-footer="clients.length <= 50"
      no-data-text="No client yet. A client is made with its first site."
    >
      <template #[`item.act`]="{ item }">
        <v-btn size="small" variant="text" :aria-label="`Rename ${item.name}`" @click="start(item, 'rename')"
          >Rename</v-btn
        ><v-btn size="small" variant="text" :aria-label="`Merge ${item.name}`" @click="start(item, 'merge')"
          >Merge</v-btn
        ><v-btn size="small" variant="text" :aria-label="`Delete ${item.name}`" @click="remove(item)"
          >Delete</v-btn
        >
      </template>
    </v-data-table>
    <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />

    <v-dialog
      :model-value="what === 'rename' || what === 'merge'"
      max-width="480"
      :aria-label="what === 'merge' ? 'Merge clients' : 'Rename client'"
      @update:model-value="what = ''"
    >
      <v-card v-if="current" class="ask">
        <form v-if="what === 'rename'" @submit.prevent="rename">
          <h2>Rename {{ current.name }}</h2>
          <v-text-field v-model="name" label="Name" autofocus />
          <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
          <v-btn type="submit" color="primary" variant="flat" :disabled="!name.trim()" :loading="busy"
            >Rename</v-btn
          >
        </form>
        <form v-else @submit.prevent="merge">
          <h2>Merge {{ current.name }} with another client</h2>
          <p>
            {{ quantity(current.sites, 'site') }} of {{ current.name }} will belong to the client you choose;
            {{ current.name }} is gone then.
          </p>
          <v-autocomplete v-model="into" label="Into" :items="others" autofocus />
          <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
          <v-btn type="submit" color="primary" variant="flat" :disabled="!into" :loading="busy">Merge</v-btn>
        </form>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.narrow {
  max-width: 940px;
}
.filter {
  max-width: 260px;
}
.ask {
  padding: 18px 20px;
}
.ask form {
  display: grid;
  gap: 12px;
  justify-items: start;
}
.ask form > .v-input {
  width: 100%;
}
.ask p {
  margin: 0;
}
</style>
