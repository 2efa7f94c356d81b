<script setup lang="ts">
import { applyPattern, PATTERN_FIELDS, unknownFields } from '#core/intended/patterns';
import type { TextRoom } from '#core/pages/fit';
import type { TextField } from '#core/checks/kit/default-texts';
import type { Brief } from '#core/facts/brief';
import { quantity } from '#core/text/quantity';
import type { BenchPage, TextChange } from '~/composables/bench';

/** One pattern for many pages: every result is seen before it is taken. */
const props = defineProps<{
  siteId: number;
  pages: readonly BenchPage[];
  rooms: Record<TextField, TextRoom>;
  brief: Brief;
}>();
const emit = defineEmits<{ taken: [before: TextChange[]] }>();
const isOpen = defineModel<boolean>({ required: true });
const notes = useNotes();
const field = ref<TextField>('title');
const FIELDS = [
  { key: 'title' as const, label: 'titles' },
  { key: 'description' as const, label: 'descriptions' },
];
const pattern = ref('{heading} · {name}');
const dropLast = ref(true);
const results = computed(() =>
  applyPattern(
    pattern.value,
    props.pages.map((p) => p.line),
    { brief: props.brief, room: props.rooms[field.value], dropLast: dropLast.value },
  ),
);
const braced = (name: string): string => `{${name}}`;
const unknown = computed(() => unknownFields(pattern.value));
const chosen = ref<string[]>([]);
/** Results that nothing is wrong with are chosen; a person may choose others. */
watch(
  results,
  (list) =>
    (chosen.value = list
      .filter((r) => r.text && !r.isTooLong && !r.clashes && !r.empty.length)
      .map((r) => r.url)),
  { immediate: true },
);
const HEADERS = [
  { title: 'Page', key: 'url', width: '30%' },
  { title: 'Would get', key: 'text' },
  { title: 'Width', key: 'px', align: 'end' as const, width: '90px' },
  { title: 'Problems', key: 'marks', width: '170px' },
];
const marksOf = (r: (typeof results.value)[number]): string =>
  [
    ...(r.isTooLong ? ['too long'] : []),
    ...(r.clashes ? ['another page too'] : []),
    ...r.empty.map((f) => `no ${f}`),
  ].join(', ');
const { run: take, busy } = useAction(async () => {
  const paths = new Map(props.pages.map((p) => [p.line.url, p]));
  const which = field.value;
  const picked = results.value
    .filter((r) => chosen.value.includes(r.url))
    .map((r) => ({ ...r, page: paths.get(r.url)! }));
  const texts = picked.map(({ page, text }) => ({
    path: page.path,
    [which]: text,
    from: page.kept?.version ?? 0,
  }));
  const before = picked.map(({ page }) => ({ path: page.path, [which]: page.kept?.[which] ?? '' }));
  const changed = await saveTexts(props.siteId, texts);
  isOpen.value = false;
  notes.say(`${quantity(changed, 'text')} taken.`);
  emit('taken', before);
});
</script>

<template>
  <v-dialog v-model="isOpen" max-width="980" scrollable>
    <v-card title="A pattern for many pages">
      <v-card-text>
        <div class="line">
          <FilterButtons v-model="field" :options="FIELDS" label="For" />
          <v-text-field v-model="pattern" label="Pattern" maxlength="300" hide-details />
          <v-checkbox
            v-model="dropLast"
            label="Drop the last part when too long"
            density="compact"
            hide-details
          />
        </div>
        <p class="faint fields">
          <span v-for="(what, key) in PATTERN_FIELDS" :key="key"
            ><code>{{ braced(key) }}</code> {{ what }}</span
          >
        </p>
        <p v-if="unknown.length" class="fray" role="alert">
          Nobody knows {{ unknown.map(braced).join(', ') }}.
        </p>
        <v-data-table-virtual
          v-model="chosen"
          :headers="HEADERS"
          :items="results"
          item-value="url"
          show-select
          height="360"
          density="compact"
          fixed-header
          class="sheet"
          aria-label="What each page gets"
        >
          <template #[`item.url`]="{ item }"
            ><span class="mono">{{ pathOf(item.url) }}</span></template
          >
          <template #[`item.px`]="{ item }"
            ><span class="num" :class="{ fray: item.isTooLong }">{{ item.px }} px</span></template
          >
          <template #[`item.marks`]="{ item }"
            ><span class="fray">{{ marksOf(item) }}</span></template
          >
        </v-data-table-virtual>
      </v-card-text>
      <v-card-actions>
        <v-spacer />
        <v-btn variant="text" @click="isOpen = false">Cancel</v-btn>
        <v-btn color="primary" variant="flat" :disabled="!chosen.length" :loading="busy" @click="take()"
          >Take {{ quantity(chosen.length, 'text') }}</v-btn
        >
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.line {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
.line > :nth-child(2) {
  flex: 1 1 260px;
}
.fields {
  margin: 8px 0;
  font-size: 13px;
}
.v-card-text {
  padding-top: 10px;
}
.v-card-actions {
  padding: 8px 24px 14px;
}
.fields span + span::before {
  content: ' · ';
}
</style>
