<script setup lang="ts">
import { mdiBookmarkOutline, mdiDeleteOutline } from '@mdi/js';

/** What stands in the address of a screen, kept under a name and brought back. */
const props = defineProps<{ screen: 'fixes' }>();
const route = useRoute();
const notes = useNotes();
const name = ref('');
const open = ref(false);
const { data: views } = useApiQuery('/api/views', {
  key: ['views'],
  query: () => ({ screen: props.screen }),
  when: open,
});
const query = computed(() => new URLSearchParams(route.query as Record<string, string>).toString());
const { run: save } = useAction(async () => {
  const named = name.value.trim();
  if (!named) return;
  await api('/api/views', {
    method: 'POST',
    body: { screen: props.screen, name: named, query: query.value },
  });
  notes.say(`The view is saved as ${named}.`);
  name.value = '';
  open.value = false;
});
const { run: remove } = useAction((id: number) =>
  api('/api/views/:id', { params: { id }, method: 'DELETE' }),
);
async function show(saved: string): Promise<void> {
  open.value = false;
  await navigateTo({ query: Object.fromEntries(new URLSearchParams(saved)) });
}
</script>

<template>
  <v-menu v-model="open" location="bottom end" :close-on-content-click="false">
    <template #activator="{ props: activator }"
      ><v-btn v-bind="activator" size="small" :prepend-icon="mdiBookmarkOutline">Views</v-btn></template
    >
    <v-card class="views">
      <v-list density="compact">
        <v-list-item v-for="v in views" :key="v.id" :title="v.name" @click="show(v.query)">
          <template #append>
            <v-btn
              :icon="mdiDeleteOutline"
              size="x-small"
              variant="text"
              :aria-label="`Delete the view ${v.name}`"
              @click.stop="remove(v.id)"
            />
          </template>
        </v-list-item>
        <p v-if="views && !views.length" class="faint none">No view saved yet.</p>
      </v-list>
      <form @submit.prevent="save()">
        <v-text-field v-model="name" label="Save these filters as" maxlength="80" /><v-btn
          type="submit"
          size="small"
          :disabled="!name.trim()"
          >Save</v-btn
        >
      </form>
    </v-card>
  </v-menu>
</template>

<style scoped>
.views {
  width: 320px;
}
.none {
  padding: 4px 16px;
  margin: 0;
}
form {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 8px 12px 12px;
}
</style>
