<script setup lang="ts">
import { quantity } from '#core/text/quantity';

/** Asks before something is deleted, and names what goes with it. */
const open = defineModel<boolean>({ required: true });
const props = defineProps<{
  name: string;
  /** Asks the server what belongs to it; nothing where that is known to be nothing. */
  contents?: () => Promise<Record<string, number>>;
  /** What is said beside. */
  note?: string;
  busy?: boolean;
}>();
const emit = defineEmits<{ confirm: [] }>();
const NOUNS: Record<string, string> = {
  sites: 'site',
  environments: 'environment',
  audits: 'audit',
  fixes: 'fix',
  attestations: 'attestation',
  files: 'file',
};
const parts = ref<string[]>([]);
const fault = ref('');
watch(
  open,
  async (is) => {
    if (!is || !props.contents) return;
    fault.value = '';
    try {
      const counts = await props.contents();
      parts.value = Object.entries(NOUNS).flatMap(([key, noun]) =>
        counts[key] ? [quantity(counts[key], noun)] : [],
      );
    } catch (error) {
      fault.value = (error as Error).message;
    }
  },
  { immediate: true },
);
const listed = computed(() => new Intl.ListFormat('en', { type: 'conjunction' }).format(parts.value));
</script>

<template>
  <v-dialog v-model="open" max-width="480" :aria-label="`Delete ${name}?`">
    <v-card class="ask">
      <h2>Delete {{ name }}?</h2>
      <p v-if="parts.length">With it go {{ listed }}. This cannot be undone.</p>
      <p v-else-if="!contents">This cannot be undone.</p>
      <p v-if="note" class="faint">{{ note }}</p>
      <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
      <div class="buttons">
        <v-btn color="error" variant="flat" :loading="busy" @click="emit('confirm')">Delete</v-btn
        ><v-btn variant="text" @click="open = false">Keep</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.ask {
  padding: 18px 20px;
  display: grid;
  gap: 10px;
}
.ask p {
  margin: 0;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
