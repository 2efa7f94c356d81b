<script setup lang="ts">
import { mdiBookmarkOutline, mdiDeleteOutline } from '@mdi/js';
import type { Answer } from '~/composables/api';

/** What stands in the address of a screen, kept under a name and brought back. */
const props = defineProps<{ screen: 'fixes' }>();
const route = useRoute();
const notes = useNotes();
const views = ref<Answer<'/api/views'>>([]);
const name = ref('');
const open = ref(false);
async function load(): Promise<void> {
  views.value = await api('/api/views', { query: { screen: props.screen } });
}
watch(open, (is) => {
  if (is) void load();
});
const query = computed(() => new URLSearchParams(route.query as Record<string, string>).toString());
async function save(): Promise<void> {
  const named = name.value.trim();
  if (!named) return;
  try {
    await api('/api/views', {
      method: 'POST',
      body: { screen: props.screen, name: named, query: query.value },
    });
    notes.say(`The view is saved as ${named}.`);
    name.value = '';
    open.value = false;
  } catch (error) {
    notes.say((error as Error).message, true);
  }
}
async function remove(id: number): Promise<void> {
  try {
    await api('/api/views/:id', { params: { id }, method: 'DELETE' });
    await load();
  } catch (error) {
    notes.say((error as Error).message, true);
  }
}
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
        <p v-if="!views.length" class="faint none">No view saved yet.</p>
      </v-list>
      <form @submit.prevent="save">
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
