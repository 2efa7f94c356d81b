<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import { quantity } from '#core/text/quantity';
import type { ClientLine } from '~/types';

/** The agency's customers and their people: renaming, merging two that are one, deleting. */
useHead({ title: 'Clients – Armband' });
const notes = useNotes();
const typed = ref('');
const words = ref('');
watchDebounced(typed, (w) => (words.value = w ?? ''), { debounce: 80 });
const {
  rows: clients,
  about,
  fault: unread,
  hasMore,
  more,
} = useApiInfiniteQuery('/api/clients', {
  key: ['clients'],
  query: () => ({ words: words.value || undefined }),
});
const HEADERS = [
  { title: 'Client', key: 'name' },
  { title: 'Sites', key: 'sites', align: 'end' as const },
  { title: 'Contacts', key: 'contacts', align: 'end' as const },
  { title: '', key: 'act', sortable: false, align: 'end' as const },
];
const current = ref<ClientLine | null>(null);
const contactsOf = ref<ClientLine | null>(null);
const what = ref<'rename' | 'merge' | ''>('');
const name = ref('');
const into = ref<{ id: number; name: string }[]>([]);
function start(c: ClientLine, to: 'rename' | 'merge'): void {
  current.value = c;
  what.value = to;
  name.value = c.name;
  into.value = [];
}
const {
  run: act,
  busy,
  fault: refused,
} = useAction(
  async (does: (id: number) => Promise<unknown>, said: string) => {
    await does(current.value!.id);
    notes.say(said);
    what.value = '';
  },
  { inPlace: true },
);
const rename = () =>
  act(
    (id) => api('/api/clients/:id', { params: { id }, method: 'PATCH', body: { name: name.value.trim() } }),
    `The client is ${name.value.trim()} now.`,
  );
const merge = () =>
  act(
    (id) =>
      api('/api/clients/:id/merge', { params: { id }, method: 'POST', body: { into: into.value[0]?.id } }),
    `${current.value?.name} is merged.`,
  );
const question = useQuestion();
const { run: remove, fault: unremoved } = useAction(
  async ({ id, name: deleted }: ClientLine) => {
    const contents = await api('/api/clients/:id/contents', { params: { id } });
    if (!(await question.remove(deleted, goesWith(contents)))) return;
    await api('/api/clients/:id', { params: { id }, method: 'DELETE' });
    notes.say(`${deleted} is deleted.`);
  },
  { inPlace: true },
);
const fault = computed(() => refused.value || unremoved.value || unread.value);
</script>

<template>
  <div class="page narrow">
    <div class="page-head">
      <h1>Clients</h1>
      <span class="spring" />
      <v-text-field
        v-model="typed"
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
      density="compact"
      :items-per-page="-1"
      disable-sort
      hide-default-footer
      :no-data-text="
        words ? 'No client is called that.' : 'No client yet. A client is made with its first site.'
      "
    >
      <template #[`item.act`]="{ item }">
        <v-btn size="small" variant="text" :aria-label="`Contacts of ${item.name}`" @click="contactsOf = item"
          >Contacts</v-btn
        ><v-btn size="small" variant="text" :aria-label="`Rename ${item.name}`" @click="start(item, 'rename')"
          >Rename</v-btn
        ><v-btn size="small" variant="text" :aria-label="`Merge ${item.name}`" @click="start(item, 'merge')"
          >Merge</v-btn
        ><v-btn size="small" variant="text" :aria-label="`Delete ${item.name}`" @click="remove(item)"
          >Delete</v-btn
        >
      </template>
    </v-data-table>
    <v-progress-linear v-else-if="!fault" indeterminate color="primary" aria-label="Loading" />

    <v-btn v-if="hasMore" size="small" variant="text" @click="more()">Show more of {{ about?.total }}</v-btn>
    <ContactsDialog :client="contactsOf" @close="contactsOf = null" />
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
          <ClientPick v-model="into" label="Into" :except="current.id" single />
          <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
          <v-btn type="submit" color="primary" variant="flat" :disabled="into.length !== 1" :loading="busy"
            >Merge</v-btn
          >
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
