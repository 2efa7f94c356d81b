<script setup lang="ts">
/** The people of a client: who is asked, does a part, and says yes. */
const props = defineProps<{ client: { id: number; name: string } | null }>();
const emit = defineEmits<{ close: [] }>();
const isOpen = computed(() => props.client !== null);
const { data: contacts } = useApiQuery('/api/clients/:id/contacts', {
  key: () => ['contacts', props.client?.id ?? 0],
  params: () => ({ id: props.client?.id ?? 0 }),
  when: isOpen,
});
const EMPTY = { id: 0, name: '', email: '', role: '' };
const draft = ref({ ...EMPTY });
watch(isOpen, () => (draft.value = { ...EMPTY }));
const question = useQuestion();
const { run, busy, fault } = useAction((work: () => Promise<unknown>) => work(), { inPlace: true });
const save = () =>
  run(async () => {
    const { id, name, email, role } = draft.value;
    const body = { name, email, role };
    if (id) await api('/api/contacts/:id', { params: { id }, method: 'PUT', body });
    else await api('/api/clients/:id/contacts', { params: { id: props.client!.id }, method: 'POST', body });
    draft.value = { ...EMPTY };
  });
const remove = (c: { id: number; name: string }) =>
  run(async () => {
    const isSure = await question.ask({
      title: `Remove ${c.name}?`,
      text: 'Their links open nothing any more, and what they owned is nobody’s. What they said stays, under their name.',
      yes: 'Remove',
      no: 'Keep',
    });
    if (isSure) await api('/api/contacts/:id', { params: { id: c.id }, method: 'DELETE', body: {} });
  });
</script>

<template>
  <v-dialog :model-value="isOpen" max-width="680" aria-label="Contacts" @update:model-value="emit('close')">
    <v-card v-if="client" class="contacts">
      <h2>Contacts of {{ client.name }}</h2>
      <p v-if="contacts && !contacts.length" class="faint">
        Nobody yet. A contact can be shown a report, remark on it, own a fix, and say yes.
      </p>
      <v-table v-else density="compact">
        <tbody>
          <tr v-for="c in contacts ?? []" :key="c.id">
            <td>
              {{ c.name }}<span v-if="c.role" class="faint">, {{ c.role }}</span>
            </td>
            <td>{{ c.email }}</td>
            <td class="end">
              <v-btn size="small" variant="text" :aria-label="`Edit ${c.name}`" @click="draft = { ...c }"
                >Edit</v-btn
              ><v-btn size="small" variant="text" :aria-label="`Remove ${c.name}`" @click="remove(c)"
                >Remove</v-btn
              >
            </td>
          </tr>
        </tbody>
      </v-table>
      <form class="line" @submit.prevent="save">
        <v-text-field v-model="draft.name" label="Name" autocomplete="off" hide-details />
        <v-text-field
          v-model="draft.email"
          label="Mail address"
          type="email"
          autocomplete="off"
          hide-details
        />
        <v-text-field v-model="draft.role" label="Role" autocomplete="off" hide-details />
        <v-btn
          type="submit"
          color="primary"
          variant="flat"
          :loading="busy"
          :disabled="!draft.name.trim() || !draft.email.trim()"
          >{{ draft.id ? 'Save' : 'Add' }}</v-btn
        >
      </form>
      <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
      <div class="line">
        <span class="spring" /><v-btn variant="text" @click="emit('close')">Close</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.contacts {
  padding: 18px 20px;
  display: grid;
  gap: 12px;
}
.contacts p {
  margin: 0;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.line > .v-input {
  flex: 1 1 150px;
}
.end {
  text-align: right;
  white-space: nowrap;
}
</style>
