<script setup lang="ts">
import { readTextsCsv, type ReadTexts } from '#core/intended/texts-csv';
import { quantity } from '#core/text/quantity';
import type { BenchPage, TextChange } from '~/composables/bench';

/** Texts from a spreadsheet: bad cells are marked before anything is saved. */
const props = defineProps<{ siteId: number; pages: readonly BenchPage[] }>();
const emit = defineEmits<{ taken: [before: TextChange[]] }>();
const notes = useNotes();
const read = ref<ReadTexts | null>(null);
const name = ref('');
const isOpen = computed({
  get: () => read.value !== null,
  set: (open) => {
    if (!open) read.value = null;
  },
});
const MOST_BYTES = 12_000_000;
async function look(file: File): Promise<void> {
  name.value = file.name;
  read.value =
    file.size > MOST_BYTES
      ? { texts: [], bad: [{ line: 0, column: '', why: 'the file is larger than 12 MB' }] }
      : readTextsCsv(await file.text(), new Set(props.pages.map((p) => p.path)));
}
const { run: take, busy } = useAction(async () => {
  const kept = new Map(props.pages.map((p) => [p.path, p.kept]));
  const { texts } = read.value!;
  const before = texts.map(({ path, title, description }) => ({
    path,
    ...(title === undefined ? {} : { title: kept.get(path)?.title ?? '' }),
    ...(description === undefined ? {} : { description: kept.get(path)?.description ?? '' }),
  }));
  const changed = await saveTexts(
    props.siteId,
    texts.map((t) => ({ ...t, from: kept.get(t.path)?.version ?? 0 })),
  );
  read.value = null;
  notes.say(`${quantity(changed, 'page')} changed from ${name.value}.`);
  emit('taken', before);
});
</script>

<template>
  <FilePick label="Import CSV" accept=".csv,text/csv" @chosen="look" />
  <v-dialog v-model="isOpen" max-width="640" scrollable>
    <v-card v-if="read" :title="name">
      <v-card-text>
        <p>
          {{ quantity(read.texts.length, 'page') }} can be taken<template v-if="read.bad.length"
            >, {{ quantity(read.bad.length, 'cell') }} cannot</template
          >.
        </p>
        <ul v-if="read.bad.length" class="bad">
          <li v-for="(b, i) in read.bad.slice(0, 100)" :key="i">
            <b>line {{ b.line }}{{ b.column ? `, ${b.column}` : '' }}</b
            >: {{ b.why }}
          </li>
        </ul>
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn variant="text" @click="isOpen = false">Cancel</v-btn>
        <v-btn color="primary" variant="flat" :disabled="!read.texts.length" :loading="busy" @click="take()"
          >Take {{ quantity(read.texts.length, 'page') }}</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.bad {
  padding-left: 18px;
}
</style>
